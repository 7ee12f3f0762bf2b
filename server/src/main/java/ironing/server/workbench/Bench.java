package ironing.server.workbench;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.picture.Picture;
import ironing.core.plugin.Shapes;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One workspace with one profile, as everything that is asked of it sees it. Immutable: whoever
 * holds one sees one consistent state.
 *
 * @param revision of the profile's arrangement
 * @param mods every installed mod by its number
 * @param former by the key of a path, the game's files of earlier versions that are kept, the
 *     oldest first
 * @param unreadable what is written down of it and cannot be read
 */
public record Bench(
    long workspace,
    String title,
    Path gameFolder,
    GameDefinition game,
    Optional<String> gameVersion,
    long profile,
    String profileName,
    long revision,
    Own own,
    Map<Long, Mod> mods,
    Map<String, List<FormerFiles.Former>> former,
    List<Unreadable> unreadable,
    Picture picture) {

  /**
   * @param strand all versions and fittings of one mod share it; one of them has the layer
   * @param kind archive, or what kind of mend it is
   * @param folder where its content lies in the library
   * @param files loose ones
   * @param plugins file names of the plugins that it brings
   * @param edited game path of a file that was edited here to where it lies below the folder
   */
  public record Mod(
      long id,
      long strand,
      String kind,
      String folder,
      ModCard card,
      String archiveName,
      OffsetDateTime installedAt,
      int files,
      long sizeBytes,
      List<String> plugins,
      Map<String, String> edited) {
    /** Whether it is a plugin with the combined records of others. */
    public boolean isPatch() {
      return kind.equals("patch");
    }

    /** Whether it was generated from other mods. */
    public boolean isMend() {
      return !kind.equals("archive");
    }
  }

  /** The loose files of the unmodded game. */
  public record Own(int files, long sizeBytes) {}

  /** How its records compare. */
  public Shapes shapes() {
    return Shapes.of(game);
  }

  /** What to call a mod, or the game. */
  public String nameOf(long mod) {
    if (mod == Holdings.GAME) return game.title();
    Mod m = mods.get(mod);
    return m == null ? "a mod that is gone" : m.card().name();
  }

  /** Whether a mod has a layer: of several versions of one, one has. */
  public boolean inUse(long mod) {
    return picture.arrangement().layers().stream().anyMatch(l -> l.mod() == mod);
  }

  /** Every mod's card with whether it is on, by its id, for what cards say of one another. */
  public Map<String, List<Needs.Installed>> installed() {
    return installed(Set.of());
  }

  /** The same without some mods. */
  public Map<String, List<Needs.Installed>> installed(Set<Long> without) {
    Map<Long, Boolean> on = new HashMap<>();
    picture.arrangement().layers().forEach(l -> on.put(l.mod(), l.on()));
    return Needs.byId(
        mods.values().stream()
            .filter(m -> !without.contains(m.id()))
            .map(m -> new Needs.Installed(m.card(), on.getOrDefault(m.id(), false)))
            .toList());
  }

  /** The same workspace under another picture, to ask what that would be like. */
  public Bench as(Picture other) {
    return with(other, revision);
  }

  Bench with(Picture picture, long revision) {
    return with(profile, profileName, unreadable, picture, revision);
  }

  Bench with(
      long profile,
      String profileName,
      List<Unreadable> unreadable,
      Picture picture,
      long revision) {
    return new Bench(
        workspace,
        title,
        gameFolder,
        game,
        gameVersion,
        profile,
        profileName,
        revision,
        own,
        mods,
        former,
        unreadable,
        picture);
  }
}
