package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.deploy.Deployer;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordIndex;
import ironing.server.platform.Folders;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.springframework.stereotype.Component;

/**
 * Finds the bytes of a file in play, and keeps the tables of plugins by content, so that a change
 * of order, or of one plugin, looks none of the others through again.
 */
@Component
public class ContentStore {
  private static final int REMEMBERED = 5_000;
  private final Folders folders;
  private final Map<TableKey, TableOrFlaw> tables =
      new LinkedHashMap<>(64, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<TableKey, TableOrFlaw> eldest) {
          return size() > REMEMBERED;
        }
      };

  private record TableKey(String sha256, String name, Shapes shapes) {}

  ContentStore(Folders folders) {
    this.folders = folders;
  }

  /** The records of a plugin, or why it cannot be read. */
  public record TableOrFlaw(Optional<RecordTable> table, Optional<String> flaw) {}

  /**
   * A plugin that is on and decodes. Two are equal when the game reads the same.
   *
   * @param mend whether it is a patch: it takes no side
   */
  public record Active(String name, String sha256, boolean mend, RecordTable table, Path file) {
    public RecordIndex.Source source() {
      return new RecordIndex.Source(table, bytesOf(file), mend);
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Active a
          && a.name.equals(name)
          && a.sha256.equals(sha256)
          && a.mend == mend
          && a.file.equals(file);
    }

    @Override
    public int hashCode() {
      return sha256.hashCode();
    }
  }

  private static RecordTable.Bytes bytesOf(Path file) {
    return (offset, length) -> {
      ByteBuffer stretch = ByteBuffer.allocate(length);
      try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
        while (stretch.hasRemaining())
          if (in.read(stretch, offset + stretch.position()) < 0)
            throw new EOFException(file.getFileName() + " has become shorter");
      }
      return stretch.array();
    };
  }

  /**
   * Where the bytes of a file lie. A file of the game that a mod has replaced lies among the kept
   * originals.
   *
   * @param path as its holder spells it
   */
  public Path locate(Bench bench, long mod, String path) {
    return locate(bench.workspace(), bench.gameFolder(), bench.mods(), mod, path);
  }

  private Path locate(
      long workspace, Path gameFolder, Map<Long, Bench.Mod> mods, long mod, String path) {
    if (mod != Holdings.GAME) {
      Bench.Mod m = mods.get(mod);
      String stored = m.edited().get(path);
      return stored == null
          ? GamePath.resolve(folders.content(workspace, m.folder()), path)
          : GamePath.resolve(folders.mods(workspace).resolve(m.folder()), stored);
    }
    Path kept = Deployer.keptOriginal(gameFolder, path);
    return Files.exists(kept) ? kept : GamePath.resolve(gameFolder, path);
  }

  /**
   * The first bytes of a file, be it loose or in a pack.
   *
   * @param slot as the holdings number it
   */
  public byte[] read(Bench bench, int slot, int most) throws IOException {
    Holdings holdings = bench.picture().holdings();
    Holdings.Source source = holdings.holderAt(slot);
    String spelled = holdings.spellingAt(slot);
    if (source.pack().isEmpty()) {
      try (InputStream in = Files.newInputStream(locate(bench, source.mod(), spelled))) {
        return in.readNBytes(most);
      }
    }
    Path pack = locate(bench, source.mod(), source.pack().get());
    try (ZipFile zip = new ZipFile(pack.toFile())) {
      ZipEntry entry = zip.getEntry(bench.game().nameInPack(spelled));
      if (entry == null) throw new NoSuchFileException(pack + ": " + spelled);
      return zip.getInputStream(entry).readNBytes(most);
    }
  }

  /** The plugins that are on and decode, in load order: what the game reads. */
  public List<Active> active(Bench bench) {
    Shapes shapes = bench.shapes();
    return bench.picture().loadOrder().active().stream()
        .parallel()
        .flatMap(
            e -> {
              long mod = e.plugin().mod();
              Path file = locate(bench, mod, spelled(bench, bench.game().pluginPath(e.name())));
              String sha = e.plugin().sha256();
              boolean patch = mod != Holdings.GAME && bench.mods().get(mod).isPatch();
              return table(sha, e.name(), shapes, file).table().stream()
                  .map(t -> new Active(e.name(), sha, patch, t, file));
            })
        .toList();
  }

  /** Where the file in play at a path lies. */
  public Path inPlay(Bench bench, String path) {
    Holdings h = bench.picture().holdings();
    int slot = bench.picture().standing().inPlay(h.idOf(path));
    return locate(bench, h.holderAt(slot).mod(), h.spellingAt(slot));
  }

  /** The path as the holder in play spells it, which is how it lies in the library. */
  private static String spelled(Bench bench, String path) {
    int id = bench.picture().holdings().idOf(path);
    int slot = id < 0 ? -1 : bench.picture().standing().inPlay(id);
    return slot < 0 ? path : bench.picture().holdings().spellingAt(slot);
  }

  /** What a plugin says of itself, wherever its file lies; empty when it cannot be read. */
  public Optional<Header> header(Bench bench, String sha256, String name, Path file) {
    return table(sha256, name, bench.shapes(), file).table().map(RecordTable::header);
  }

  /** The records of a plugin by its content, wherever the file lies. */
  private TableOrFlaw table(String sha256, String name, Shapes shapes, Path file) {
    TableKey key = new TableKey(sha256, name, shapes);
    synchronized (tables) {
      TableOrFlaw known = tables.get(key);
      if (known != null) return known;
    }
    TableOrFlaw fresh;
    try {
      fresh = look(name, file, shapes);
    } catch (IOException e) {
      // not remembered: the drive may be connected again at the next look
      return new TableOrFlaw(
          Optional.empty(), Optional.of("The file cannot be read: " + e.getMessage() + "."));
    }
    synchronized (tables) {
      tables.put(key, fresh);
    }
    return fresh;
  }

  /** The headers of a workspace's plugins, for the picture. */
  Picture.Headers headers(
      long workspace, Path gameFolder, Map<Long, Bench.Mod> mods, Shapes shapes) {
    return new Picture.Headers() {
      @Override
      public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
        Path file = locate(workspace, gameFolder, mods, mod, path);
        TableOrFlaw t = table(sha256, name, shapes, file);
        return new Picture.HeaderOrFlaw(t.table().map(RecordTable::header), t.flaw());
      }

      @Override
      public boolean isMend(long mod) {
        return mods.containsKey(mod) && mods.get(mod).isMend();
      }
    };
  }

  private static TableOrFlaw look(String name, Path file, Shapes shapes) throws IOException {
    try {
      RecordTable table = RecordTable.read(name, file, shapes);
      return new TableOrFlaw(Optional.of(table), Optional.empty());
    } catch (IroningException e) {
      return new TableOrFlaw(Optional.empty(), Optional.of(e.problems().get(0).reason()));
    }
  }
}
