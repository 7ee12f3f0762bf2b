package ironing.core.workspace;

import ironing.core.archive.PackFile;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.Needs;
import ironing.core.picture.Picture;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * All that a workspace is under one profile. Whoever holds one sees one consistent state; two are
 * the same when they are the same object.
 *
 * <p>Threads: immutable.
 */
public final class Workspace {
  private final GameDefinition game;
  private final Optional<String> gameVersion;
  private final FilePlaces files;
  private final Map<String, List<FormerFile>> former;
  private final Picture picture;
  private final Memo memo;

  /**
   * @param former by the key of a path, the game's files of earlier versions that are kept, the
   *     oldest first
   * @param memo that of the state before, where this one follows another
   */
  public Workspace(
      GameDefinition game,
      Optional<String> gameVersion,
      FilePlaces files,
      Map<String, List<FormerFile>> former,
      Picture picture,
      Memo memo) {
    this.game = game;
    this.gameVersion = gameVersion;
    this.files = files;
    this.former = former;
    this.picture = picture;
    this.memo = memo;
  }

  public GameDefinition game() {
    return game;
  }

  public Optional<String> gameVersion() {
    return gameVersion;
  }

  /** Every installed mod by its number. */
  public Map<Long, Mod> mods() {
    return files.mods();
  }

  public FilePlaces files() {
    return files;
  }

  /** By the key of a path, the game's files of earlier versions that are kept. */
  public Map<String, List<FormerFile>> former() {
    return former;
  }

  /** The game's files of earlier versions that are kept at a path, the oldest first. */
  public List<FormerFile> formerAt(String path) {
    return former.getOrDefault(game.pathCase().key(path), List.of());
  }

  public Picture picture() {
    return picture;
  }

  /** What is worked out of it. */
  public <V> V get(Stage<V> stage) {
    return memo.of(this, stage);
  }

  /** What this state and those that follow it share. */
  public Memo memo() {
    return memo;
  }

  /** The state that follows when only the arrangement has changed. */
  public Workspace with(Picture next) {
    return new Workspace(game, gameVersion, files, former, next, memo);
  }

  /**
   * The same workspace under another picture, to ask what that would be like: nothing that is
   * worked out for it takes the place of what is known of the real one.
   */
  public Workspace as(Picture other) {
    return new Workspace(game, gameVersion, files, former, other, memo.aside());
  }

  /** How its records compare. */
  public Shapes shapes() {
    return Shapes.of(game);
  }

  /** What to call a mod, or the game. */
  public String nameOf(long mod) {
    if (mod == Holdings.GAME) return game.title();
    Mod m = mods().get(mod);
    return m == null ? "a mod that is gone" : m.card().name();
  }

  /** Whether a mod has a layer: of several versions of one, one has. */
  public boolean inUse(long mod) {
    return picture.arrangement().layers().stream().anyMatch(l -> l.mod() == mod);
  }

  /** Every mod's card with whether it is on, by its id, for what cards say of one another. */
  public Map<String, List<Needs.Installed>> installed(Set<Long> without) {
    Map<Long, Boolean> on = new HashMap<>();
    picture.arrangement().layers().forEach(l -> on.put(l.mod(), l.on()));
    return Needs.byId(
        mods().values().stream()
            .filter(m -> !without.contains(m.id()))
            .map(m -> new Needs.Installed(m.card(), on.getOrDefault(m.id(), false)))
            .toList());
  }

  /** Where the bytes of a file lie; see {@link FilePlaces#locate}. */
  public Path locate(long mod, String path) {
    return files.locate(mod, path);
  }

  /** Where the file in play at a path lies. */
  public Path locateInPlay(String path) {
    Holdings h = picture.holdings();
    int slot = picture.standing().inPlay(h.idOf(path));
    return locate(h.holderAt(slot).mod(), h.spellingAt(slot));
  }

  /**
   * The first bytes of a file, be it loose or in a pack.
   *
   * @param slot as the holdings number it
   */
  public byte[] read(int slot, int most) throws IOException {
    Holdings.Source source = picture.holdings().holderAt(slot);
    String spelled = picture.holdings().spellingAt(slot);
    if (source.pack().isEmpty()) {
      try (InputStream in = Files.newInputStream(locate(source.mod(), spelled))) {
        return in.readNBytes(most);
      }
    }
    Path pack = locate(source.mod(), source.pack().get());
    return PackFile.read(pack, game.nameInPack(spelled), most);
  }
}
