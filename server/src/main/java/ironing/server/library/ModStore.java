package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.deploy.Disk;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.RealDisk;
import ironing.core.disk.FolderTree;
import ironing.core.library.Choices;
import ironing.core.library.ModCard;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryMapper.StoredFile;
import ironing.server.library.LibraryMapper.StoredLeftOut;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.FormerContents;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.LongConsumer;
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
  private final FormerContents former;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final LibraryGate gate;
  private final Json json;
  private final Disk disk = new RealDisk();

  ModStore(
      LibraryMapper db,
      FormerContents former,
      OpenWorkspaces workspaces,
      Folders folders,
      LibraryGate gate,
      Json json) {
    this.db = db;
    this.former = former;
    this.workspaces = workspaces;
    this.folders = folders;
    this.gate = gate;
    this.json = json;
  }

  /**
   * A file of a mod.
   *
   * @param pack the game path of the pack that it lies in, empty for a loose one
   * @param entry where it lay in the archive
   */
  public record BuiltFile(String pack, String path, String entry, long sizeBytes, String sha256) {}

  /**
   * An entry of the archive that is not for the game, and why.
   *
   * @param kept it lies below {@code papers/} of the built folder, to be read in the library
   * @param chosen the user left it out
   */
  public record LeftOutEntry(
      String entry, String reason, long sizeBytes, boolean kept, boolean chosen) {}

  /**
   * What a mod's fitting was like when its questions were answered.
   *
   * @param text of its fitting.yaml
   * @param truths which conditions held, by their words
   * @param entries of the archive, so that other answers can be followed without unpacking it
   */
  public record Fitted(
      String text,
      Map<String, List<String>> answers,
      Map<String, Boolean> truths,
      List<Entry> entries) {
    /** One file of the archive. */
    public record Entry(String path, long sizeBytes, String sha256) {}
  }

  /** Where a new mod stands: by itself on top, or among the versions of one that is here. */
  public sealed interface Place {
    /** A mod of its own, with a layer on top. */
    record OnTop() implements Place {}

    /** The same, though a mod of its id is here: the user says that it is another one. */
    record AnotherOnTop() implements Place {}

    /** A mod of its own, with a layer on top that is switched off. */
    record OnTopOff() implements Place {}

    /** It takes the layer of this version of itself. */
    record InsteadOf(long mod) implements Place {}

    /** Beside this version of itself, which stays in use. */
    record Beside(long mod) implements Place {}
  }

  /**
   * What a new mod is made of.
   *
   * @param archive the archive it came in, null for a mend
   * @param kind archive, patch or merge
   * @param root the folder of the archive where it begins
   * @param choices what the user decided of the archive's contents
   * @param files all of it; loose ones lie below {@code content/} of the built folder
   */
  public record Made(
      Long archive,
      String kind,
      ModCard card,
      String root,
      String rootReason,
      Choices choices,
      Optional<Fitted> fitting,
      List<BuiltFile> files,
      List<LeftOutEntry> leftOut) {
    /** One that was generated here: it has no archive, and nothing to choose. */
    public static Made generated(
        String kind,
        ModCard card,
        String reason,
        List<BuiltFile> files,
        List<LeftOutEntry> beside) {
      return new Made(null, kind, card, "", reason, Choices.NONE, Optional.empty(), files, beside);
    }
  }

  /** A folder for building a mod, gone again when it is closed; the library stays put till then. */
  public final class WorkFolder implements AutoCloseable {
    private final Path path;
    private final LibraryGate.Pass pass;

    private WorkFolder(Path path, LibraryGate.Pass pass) {
      this.path = path;
      this.pass = pass;
    }

    public Path path() {
      return path;
    }

    @Override
    public void close() {
      discard(path);
      pass.close();
    }
  }

  public WorkFolder workFolder(long workspace) throws IOException {
    LibraryGate.Pass pass = gate.writing(workspace);
    Path folder = folders.incoming(workspace).resolve(UUID.randomUUID().toString());
    try {
      return new WorkFolder(Files.createDirectories(folder), pass);
    } catch (IOException e) {
      pass.close();
      throw e;
    }
  }

  void discard(Path workFolder) {
    try {
      FolderTree.remove(workFolder);
    } catch (IOException litter) {
      LOG.warn("{} stays until the next start: {}", workFolder, litter.getMessage());
    }
  }

  /**
   * Makes a built folder a mod.
   *
   * @param built holds {@code content/} and {@code papers/}, nothing else
   * @param also done in the same transaction, with the mod's number
   * @return its number
   */
  public long add(long workspace, Made made, Place place, Path built, LongConsumer also) {
    String folder = moveIn(workspace, made.card().name(), built);
    String name = "“" + made.card().name() + "”", spoken = made.card().spoken();
    if (place instanceof Place.InsteadOf instead) {
      return workspaces.changeLibrary(
          workspace,
          "Put " + spoken + " in place of " + versionOf(workspace, instead.mod()),
          new LibraryChange.Instead(instead.mod()),
          () -> addRow(workspace, made, strandOf(workspace, instead.mod()), folder, also));
    }
    if (place instanceof Place.Beside beside) {
      return workspaces.changeLibrary(
          workspace,
          "Brought in " + spoken + " beside the version in use",
          LibraryChange.BESIDE,
          () -> addRow(workspace, made, strandOf(workspace, beside.mod()), folder, also));
    }
    return workspaces.changeLibrary(
        workspace,
        (made.archive() == null ? "Made " : "Brought in ") + name,
        new LibraryChange.OnTop(!(place instanceof Place.OnTopOff)),
        () -> addRow(workspace, made, db.addStrand(workspace), folder, also));
  }

  private long strandOf(long workspace, long mod) {
    return row(workspace, mod).strandId();
  }

  private String versionOf(long workspace, long mod) {
    String version = json.read(row(workspace, mod).card(), ModCard.class).shownVersion();
    return version.isEmpty() ? "the other version" : version;
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  ModRow row(long workspace, long mod) {
    ModRow row = db.mod(workspace, mod);
    if (row != null) return row;
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Choose one from the list.");
  }

  private long addRow(long workspace, Made made, long strand, String folder, LongConsumer also) {
    long mod =
        db.addMod(
            workspace,
            strand,
            made.archive(),
            made.kind(),
            folder,
            json.write(made.card()),
            made.root(),
            made.rootReason(),
            json.write(made.choices()),
            made.fitting().map(json::write).orElse(null));
    addRows(mod, made);
    also.accept(mod);
    return mod;
  }

  /**
   * Gives a mend new content; its layer, its switch and its place stay. One step, which can be
   * undone.
   */
  public void replace(
      long workspace, long mod, Made made, Path built, String said, LongConsumer also) {
    String folder = moveIn(workspace, made.card().name(), built);
    List<String> gone = new ArrayList<>();
    workspaces.changeLibrary(
        workspace,
        said,
        new LibraryChange.OtherContent(mod),
        () -> {
          long aside = former.setAside(mod);
          db.setContent(mod, folder, json.write(made.card()));
          addRows(mod, made);
          also.accept(mod);
          gone.addAll(former.forgetOldest(mod));
          return aside;
        });
    for (String f : gone) discard(folders.mods(workspace).resolve(f));
  }

  /** The same for what another program wrote: an act on the world, which is not undone. */
  public void replaceForGood(
      long workspace, long mod, Made made, Path built, String said, LongConsumer also) {
    String before = workspaces.get(workspace).mods().get(mod).folder();
    String folder = moveIn(workspace, made.card().name(), built);
    workspaces.changeLibrary(
        workspace,
        said,
        LibraryChange.BESIDE,
        () -> {
          db.setContent(mod, folder, json.write(made.card()));
          db.clearFiles(mod);
          db.clearLeftOut(mod);
          addRows(mod, made);
          also.accept(mod);
          return mod;
        });
    discard(folders.mods(workspace).resolve(before));
  }

  /** Gives a mod other files out of its archive; its card, its layer and its place stay. */
  void layOutAnew(long workspace, long mod, Made made, Path built, String said) {
    String before = workspaces.get(workspace).mods().get(mod).folder();
    String folder = moveIn(workspace, made.card().name(), built);
    workspaces.changeLibrary(
        workspace,
        said,
        LibraryChange.BESIDE,
        () -> {
          db.setLayout(
              mod,
              folder,
              made.root(),
              made.rootReason(),
              json.write(made.choices()),
              made.fitting().map(json::write).orElse(null));
          db.clearFiles(mod);
          db.clearLeftOut(mod);
          addRows(mod, made);
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
        made.leftOut().stream()
            .map(l -> new StoredLeftOut(l.entry(), l.reason(), l.sizeBytes(), l.kept(), l.chosen()))
            .toList();
    for (int i = 0; i < leftOut.size(); i += ROWS_AT_ONCE) {
      db.addLeftOut(mod, leftOut.subList(i, Math.min(leftOut.size(), i + ROWS_AT_ONCE)));
    }
  }

  /** Flushes a built folder and gives it a name of its own among the mods. */
  String moveIn(long workspace, String name, Path built) {
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
    for (long w : workspaces.all()) {
      try {
        FolderTree.remove(folders.incoming(w));
        FolderTree.remove(folders.staged(w));
        Folders.clearBut(folders.mods(w), new HashSet<>(db.folders(w)));
        Folders.clearBut(folders.archives(w), new HashSet<>(db.archiveHashes(w)));
      } catch (IOException litter) {
        LOG.warn("litter of workspace {} stays: {}", w, litter.getMessage());
      }
    }
  }

  static IroningException failed(String thing, IOException e) {
    Path place =
        e instanceof FileSystemException f && f.getFile() != null
            ? Path.of(f.getFile())
            : Path.of("");
    if (DiskTrouble.isFull(place, e)) {
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

  int fileCount(long mod) {
    return db.fileCount(mod);
  }

  /** A stretch of a mod's files, loose ones first. */
  List<LibraryMapper.FileRow> files(long mod, int limit, int offset) {
    return db.files(mod, limit, offset);
  }

  /** What of its archive the game does not get. */
  List<LibraryMapper.StoredLeftOut> leftOut(long mod) {
    return db.leftOut(mod);
  }
}
