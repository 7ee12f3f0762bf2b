package ironing.server.workspace;

import ironing.core.archive.ContentHash;
import ironing.core.archive.PackFile;
import ironing.core.deploy.Deployer;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.workspace.FormerFile;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/**
 * Files of the game as they were before an update, with their bytes: a mod's file may have been
 * made from one. Only those are kept that can be combined and that mods have too.
 *
 * <p>Room: each at most {@link #MOST_BYTES}, at most {@link #MOST_AT_ONCE} at one update.
 */
@Component
public class FormerFiles {
  /** A larger file is not kept. */
  static final int MOST_BYTES = 16 << 20;

  /** What one update keeps at most, in bytes. */
  static final long MOST_AT_ONCE = 128L << 20;

  private final FormerFileMapper db;

  FormerFiles(FormerFileMapper db) {
    this.db = db;
  }

  /**
   * One with its bytes.
   *
   * @param pack in which it lies; empty for a loose one
   */
  public record Kept(String pack, String path, String sha256, byte[] bytes) {}

  /** By the key of a path all that are kept of it, those of the oldest version first. */
  Map<String, List<FormerFile>> of(long workspace, GameDefinition game) {
    Map<String, List<FormerFile>> of = new TreeMap<>();
    for (FormerFileMapper.FormerRow r : db.of(workspace))
      of.computeIfAbsent(game.pathCase().key(r.path()), p -> new ArrayList<>())
          .add(new FormerFile(r.version(), r.sha256()));
    return of;
  }

  /** The bytes of one. @throws NoSuchFileException where it is not kept */
  public byte[] read(long workspace, String sha256) throws NoSuchFileException {
    FormerFileMapper.Content found = db.content(workspace, sha256);
    if (found == null) throw new NoSuchFileException("the game’s earlier file " + sha256);
    return found.content();
  }

  /** Inside the caller's transaction. */
  public void keep(long workspace, List<Kept> files) {
    for (Kept k : files) db.keep(workspace, k.pack(), k.path(), k.sha256(), k.bytes());
  }

  /**
   * The files of the game that mods have too and that can be combined, as the game reads them now;
   * of several in packs, the one that is read. What cannot be read is left out.
   */
  public List<Kept> asTheyAre(OpenWorkspace open) {
    int paths = open.picture().holdings().pathCount();
    return asTheyAre(
        open, IntStream.range(0, paths).parallel().filter(p -> wanted(open, p)).toArray());
  }

  /** The same of some paths alone. */
  public List<Kept> asTheyAre(OpenWorkspace open, Collection<String> paths) {
    Holdings holdings = open.picture().holdings();
    return asTheyAre(open, paths.stream().mapToInt(holdings::idOf).filter(p -> p >= 0).toArray());
  }

  private List<Kept> asTheyAre(OpenWorkspace open, int[] paths) {
    Holdings holdings = open.picture().holdings();
    Gathering all = new Gathering();
    for (int path : paths) {
      int slot = open.picture().unmodded(path);
      if (slot < 0) continue;
      String pack = holdings.holderAt(slot).pack().orElse("");
      String spelled = holdings.spellingAt(slot);
      int at = slot;
      all.add(pack, spelled, holdings.shaAt(slot), () -> open.value().read(at, MOST_BYTES + 1));
    }
    return all.kept;
  }

  /**
   * Of files of the game that an update has changed, those whose former bytes lie where an original
   * is kept while a mod's file is deployed over it.
   *
   * @param changed game paths of loose files, packs among them
   */
  public List<Kept> replaced(OpenWorkspace open, List<String> changed) {
    Holdings holdings = open.picture().holdings();
    Gathering all = new Gathering();
    for (String path : changed) {
      Path original = Deployer.keptOriginal(open.roots(), path);
      if (!Files.isRegularFile(original)) continue;
      int id = holdings.idOf(path);
      int slot = id < 0 ? -1 : holdings.slotOfMod(id, Holdings.GAME);
      if (slot < 0) continue;
      if (wanted(open, id)) all.add("", path, holdings.shaAt(slot), () -> first(original));
      if (open.game().isPack(path)) inPack(open, path, original, all);
    }
    return all.kept;
  }

  private static void inPack(OpenWorkspace open, String pack, Path original, Gathering all) {
    Holdings holdings = open.picture().holdings();
    for (Holdings.Source s : holdings.sources()) {
      if (s.mod() != Holdings.GAME || !s.pack().equals(Optional.of(pack))) continue;
      for (int p : holdings.pathsOf(s.id())) {
        if (!wanted(open, p)) continue;
        int slot = holdings.slotOf(p, s.id());
        String spelled = holdings.spellingAt(slot);
        all.add(pack, spelled, holdings.shaAt(slot), () -> entry(open, original, spelled));
      }
    }
  }

  private static boolean wanted(OpenWorkspace open, int path) {
    Holdings holdings = open.picture().holdings();
    return holdings.sourcesOf(path).stream().anyMatch(s -> s.mod() != Holdings.GAME)
        && open.game().combines(holdings.path(path)).isPresent();
  }

  private static byte[] first(Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return in.readNBytes(MOST_BYTES + 1);
    }
  }

  private static byte[] entry(OpenWorkspace open, Path pack, String path) throws IOException {
    return PackFile.read(pack, open.game().nameInPack(path), MOST_BYTES + 1);
  }

  private interface Reading {
    byte[] bytes() throws IOException;
  }

  /** Takes files up to what one update keeps; only bytes that are what they are known to be. */
  private static final class Gathering {
    private final List<Kept> kept = new ArrayList<>();
    private long room = MOST_AT_ONCE;

    void add(String pack, String path, String sha256, Reading reading) {
      try {
        byte[] bytes = reading.bytes();
        boolean fits = bytes.length <= MOST_BYTES && bytes.length <= room;
        if (!fits || !ContentHash.of(bytes).equals(sha256)) return;
        room -= bytes.length;
        kept.add(new Kept(pack, path, sha256, bytes));
      } catch (IOException | UncheckedIOException away) {
        // it can no longer be had: nothing else depends on it
      }
    }
  }
}
