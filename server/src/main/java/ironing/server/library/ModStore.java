package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.core.library.ModCard;
import ironing.server.library.LibraryMapper.StoredFile;
import ironing.server.library.LibraryMapper.StoredLeftOut;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.UUID;
import java.util.function.LongConsumer;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;

/**
 * The mods of a library on disk and in the database.
 *
 * <p>A mod's content is built in a folder of its own and flushed, then given a name that nobody
 * knows yet; the transaction that writes that name down makes it part of the library. A crash
 * leaves a whole mod or none, and what no row names is litter that the next start removes.
 */
@Component
public class ModStore implements SmartInitializingSingleton {
  private static final Logger LOG = LoggerFactory.getLogger(ModStore.class);
  private static final int ROWS_AT_ONCE = 2000;
  private final LibraryMapper db;
  private final Workbenches benches;
  private final Folders folders;
  private final Json json;
  private final Disk disk = new RealDisk();

  ModStore(LibraryMapper db, Workbenches benches, Folders folders, Json json) {
    this.db = db;
    this.benches = benches;
    this.folders = folders;
    this.json = json;
  }

  /**
   * A file of a mod.
   *
   * @param pack the game path of the pack that it lies in, empty for a loose one
   * @param entry where it lay in the archive
   */
  public record BuiltFile(String pack, String path, String entry, long sizeBytes, String sha256) {}

  /** An entry of the archive that is not for the game, and why. */
  public record LeftOutEntry(String entry, String reason) {}

  /**
   * What a new mod is made of.
   *
   * @param archive the archive it came in, null for a mend
   * @param kind archive or patch
   * @param root the folder of the archive where it begins
   * @param files all of it; loose ones lie below {@code content/} of the built folder
   */
  public record Made(
      Long archive,
      String kind,
      ModCard card,
      String root,
      String rootReason,
      List<BuiltFile> files,
      List<LeftOutEntry> leftOut) {}

  /** A work folder for building a mod; {@link #discard} it in any case. */
  public Path workFolder(long workspace) throws IOException {
    Path incoming = folders.incoming(workspace);
    return Files.createDirectories(incoming.resolve(UUID.randomUUID().toString()));
  }

  public void discard(Path workFolder) {
    try {
      Folders.removeTree(workFolder);
    } catch (IOException litter) {
      LOG.warn("{} stays until the next start: {}", workFolder, litter.getMessage());
    }
  }

  /**
   * Makes a built folder a mod on top of all others.
   *
   * @param built holds {@code content/}, nothing else
   * @param also done in the same transaction, with the mod's number
   * @return its number
   */
  public long add(long workspace, Made made, Path built, LongConsumer also) {
    String folder = moveIn(workspace, made.card().name(), built);
    String said = (made.archive() == null ? "Made “" : "Brought in “") + made.card().name() + "”";
    return benches.changeLibrary(
        workspace,
        said,
        () -> {
          String card = json.write(made.card());
          long mod =
              db.addMod(
                  workspace,
                  made.archive(),
                  made.kind(),
                  folder,
                  card,
                  made.root(),
                  made.rootReason());
          addRows(mod, made);
          also.accept(mod);
          return mod;
        });
  }

  /** Gives a mend new content; its layer, its switch and its place stay. */
  public void replace(
      long workspace, long mod, Made made, Path built, String said, LongConsumer also) {
    String before = benches.get(workspace).mods().get(mod).folder();
    String folder = moveIn(workspace, made.card().name(), built);
    benches.changeLibrary(
        workspace,
        said,
        () -> {
          db.setContent(mod, folder, json.write(made.card()));
          db.clearFiles(mod);
          addRows(mod, made);
          also.accept(mod);
          return mod;
        });
    discard(folders.mods(workspace).resolve(before));
  }

  private void addRows(long mod, Made made) {
    List<StoredFile> files =
        made.files().stream()
            .map(f -> new StoredFile(f.pack(), f.path(), f.entry(), f.sizeBytes(), f.sha256()))
            .toList();
    for (int i = 0; i < files.size(); i += ROWS_AT_ONCE) {
      db.addFiles(mod, files.subList(i, Math.min(files.size(), i + ROWS_AT_ONCE)));
    }
    List<StoredLeftOut> leftOut =
        made.leftOut().stream().map(l -> new StoredLeftOut(l.entry(), l.reason())).toList();
    for (int i = 0; i < leftOut.size(); i += ROWS_AT_ONCE) {
      db.addLeftOut(mod, leftOut.subList(i, Math.min(leftOut.size(), i + ROWS_AT_ONCE)));
    }
  }

  private String moveIn(long workspace, String name, Path built) {
    String folder = UUID.randomUUID().toString();
    Path mods = folders.mods(workspace);
    try {
      disk.flushTree(built);
      disk.createFolders(mods);
      disk.move(built, mods.resolve(folder));
      disk.flushFolder(mods);
      return folder;
    } catch (IOException e) {
      throw failed(name, e);
    }
  }

  /** At start, before anybody is served: what no row names was never part of the library. */
  @Override
  public void afterSingletonsInstantiated() {
    for (long w : benches.all()) {
      try {
        Folders.removeTree(folders.incoming(w));
        clear(folders.mods(w), new HashSet<>(db.folders(w)));
        clear(folders.archives(w), new HashSet<>(db.archiveHashes(w)));
      } catch (IOException litter) {
        LOG.warn("litter of workspace {} stays: {}", w, litter.getMessage());
      }
    }
  }

  private static void clear(Path folder, Set<String> known) throws IOException {
    if (!Files.isDirectory(folder)) return;
    List<Path> there;
    try (Stream<Path> list = Files.list(folder)) {
      there = list.toList();
    }
    for (Path p : there) if (!known.contains(p.getFileName().toString())) Folders.removeTree(p);
  }

  static IroningException failed(String thing, IOException e) {
    String text = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
    if (text.contains("no space left") || text.contains("disk quota")) {
      return IroningException.of(
          "disk-full",
          thing,
          "There is no space left on the drive of the library; nothing of it was kept.",
          "Free some space there and bring it in again.",
          e);
    }
    return IroningException.of(
        "library-failed",
        thing,
        "The library’s drive refused: " + e.getMessage() + ".",
        "See that the drive is connected and may be written to, then try again.",
        e);
  }
}
