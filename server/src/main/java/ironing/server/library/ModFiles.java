package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.core.library.Reading;
import ironing.core.path.GamePath;
import ironing.server.layers.DifferenceView;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryMapper.StoredLeftOut;
import ironing.server.platform.Folders;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Expected;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The files of one mod: reading them, keeping them out of the game, editing, checking them. */
@Component
public class ModFiles {
  private static final Logger LOG = LoggerFactory.getLogger(ModFiles.class);

  /** A text larger than this is neither shown nor edited whole. */
  static final long LARGEST_TEXT_BYTES = 4L << 20;

  private final LibraryMapper db;
  private final ModStore mods;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final LibraryGate gate;
  private final Disk disk = new RealDisk();

  ModFiles(
      LibraryMapper db,
      ModStore mods,
      OpenWorkspaces workspaces,
      Folders folders,
      LibraryGate gate) {
    this.db = db;
    this.mods = mods;
    this.workspaces = workspaces;
    this.folders = folders;
    this.gate = gate;
  }

  /**
   * Where the bytes of a file of a mod lie.
   *
   * @param path a game path, or an entry of its archive that was left out and kept
   * @throws IroningException with code {@code not-found}
   */
  Path place(long workspace, long mod, String path) {
    ModRow row = mods.row(workspace, mod);
    Path folder = folders.mods(workspace).resolve(row.folder());
    FileRow file = db.file(mod, path);
    if (file != null) {
      return file.stored() == null
          ? GamePath.resolve(folder.resolve("content"), path)
          : GamePath.resolve(folder, file.stored());
    }
    boolean kept = db.leftOut(mod).stream().anyMatch(l -> l.entry().equals(path) && l.kept());
    if (kept) return GamePath.resolve(folder.resolve("papers"), path);
    throw noFile(path);
  }

  private static IroningException noFile(String path) {
    return IroningException.of(
        "not-found", path, "The mod has no such file.", "Choose one from its list.");
  }

  /**
   * A text file as it can be shown and edited.
   *
   * @param encoding as it was read, and as it will be written again
   */
  record Text(String text, String encoding, boolean edited) {}

  /**
   * @throws IroningException with code {@code not-text} when it is none, or too large
   */
  Text text(long workspace, long mod, String path) {
    FileRow row = db.file(mod, path);
    Reading.Decoded read = decoded(path, place(workspace, mod, path));
    return new Text(read.text(), read.encoding(), row != null && row.givenSha256() != null);
  }

  static Reading.Decoded decoded(String path, Path file) {
    try {
      if (Files.size(file) > LARGEST_TEXT_BYTES) throw notText(path, "It is larger than 4 MiB.");
      byte[] bytes = Files.readAllBytes(file);
      if (Reading.isBinary(bytes)) throw notText(path, "It holds bytes that are no text.");
      return Reading.text(bytes);
    } catch (IOException e) {
      throw ModStore.failed(path, e);
    }
  }

  private static IroningException notText(String path, String reason) {
    return IroningException.of(
        "not-text", path, reason, "Download a copy and open it with a program that knows it.");
  }

  /**
   * Gives a text file another content, in every profile. What came in the archive is kept.
   *
   * @param sha256 of the file as the user saw it
   * @throws IroningException with code {@code changed-meanwhile}
   */
  @SuppressWarnings("try")
  void edit(long workspace, long mod, String path, String text, String sha256) {
    ModRow row = mods.row(workspace, mod);
    FileRow file = required(mod, path);
    if (!file.sha256().equals(sha256)) {
      throw IroningException.of(
          "changed-meanwhile",
          path,
          "It was changed meanwhile, in another tab or by a script.",
          "Copy what you have written, open the file again, and put it in.");
    }
    Charset charset = Charset.forName(text(workspace, mod, path).encoding());
    if (!charset.newEncoder().canEncode(text)) {
      throw IroningException.of(
          "not-in-encoding",
          path,
          "The file is written as " + charset.name() + ", which has no sign for some of this.",
          "Write it with the letters that the file has; nothing was changed.");
    }
    byte[] bytes = withMark(place(workspace, mod, path), text, charset);
    Path folder = folders.mods(workspace).resolve(row.folder());
    String stored = "edited/" + UUID.randomUUID();
    try (LibraryGate.Pass pass = gate.writing(workspace)) {
      // a name that nobody knows until it is in the database: a crash leaves the one or the other
      disk.createFolders(folder.resolve("edited"));
      disk.write(folder.resolve(stored), bytes);
      disk.flushFolder(folder.resolve("edited"));
      workspaces.changeLibrary(
          workspace,
          "Edited " + path + " of " + name(workspace, mod),
          LibraryChange.BESIDE,
          () -> {
            db.setEdited(mod, path, stored, ContentHash.of(bytes), bytes.length);
            return mod;
          });
      drop(folder, file);
    } catch (IOException e) {
      throw ModStore.failed(path, e);
    }
  }

  /**
   * Gives a file the content of another, in every profile, as an edit does. What came in the
   * archive is kept.
   *
   * @param path as the mod spells it
   */
  @SuppressWarnings("try")
  public void take(long workspace, long mod, String path, Path from) {
    ModRow row = mods.row(workspace, mod);
    FileRow file = required(mod, path);
    Path folder = folders.mods(workspace).resolve(row.folder());
    String stored = "edited/" + UUID.randomUUID();
    Path to = folder.resolve(stored);
    try (LibraryGate.Pass pass = gate.writing(workspace)) {
      disk.createFolders(to.getParent());
      disk.copy(from, to);
      disk.flushTree(to.getParent());
      String sha256 = ContentHash.of(to);
      long size = Files.size(to);
      workspaces.changeLibrary(
          workspace,
          "Took " + path + " into " + name(workspace, mod),
          LibraryChange.BESIDE,
          () -> {
            db.setEdited(mod, path, stored, sha256, size);
            return mod;
          });
      drop(folder, file);
    } catch (IOException e) {
      throw ModStore.failed(path, e);
    }
  }

  // a byte order mark that the file had stays
  private static byte[] withMark(Path before, String text, Charset charset) {
    try {
      byte[] old = Files.readAllBytes(before);
      byte[] mark = "\uFEFF".getBytes(charset);
      boolean marked = old.length >= mark.length && mark.length > 1;
      for (int i = 0; marked && i < mark.length; i++) marked = old[i] == mark[i];
      return ((marked ? "\uFEFF" : "") + text).getBytes(charset);
    } catch (IOException e) {
      throw ModStore.failed(before.toString(), e);
    }
  }

  /** Puts back what came in the archive. */
  void restore(long workspace, long mod, String path) {
    ModRow row = mods.row(workspace, mod);
    FileRow file = required(mod, path);
    if (file.givenSha256() == null) {
      throw IroningException.of(
          "not-edited", path, "It is as it came in the archive.", "Leave it as it is.");
    }
    workspaces.changeLibrary(
        workspace,
        "Put " + path + " of " + name(workspace, mod) + " back as it came",
        LibraryChange.BESIDE,
        () -> {
          db.setRestored(mod, path);
          return mod;
        });
    drop(folders.mods(workspace).resolve(row.folder()), file);
  }

  private FileRow required(long mod, String path) {
    FileRow file = db.file(mod, path);
    if (file == null) throw noFile(path);
    return file;
  }

  private String name(long workspace, long mod) {
    return "“" + workspaces.get(workspace).nameOf(mod) + "”";
  }

  private static void drop(Path folder, FileRow file) {
    if (file.stored() == null) return;
    try {
      Files.deleteIfExists(GamePath.resolve(folder, file.stored()));
    } catch (IOException litter) {
      LOG.warn("{} stays: {}", file.stored(), litter.getMessage());
    }
  }

  /**
   * Holds files and folders back from the game, or lets them in again.
   *
   * @param paths game paths of files, and of folders with {@code /} at the end
   */
  DifferenceView holdBack(
      long workspace, Expected expected, long mod, List<String> paths, boolean hold) {
    OpenWorkspace now = workspaces.get(workspace);
    now.required(mod);
    for (String p : paths) GamePath.check(p.endsWith("/") ? p.substring(0, p.length() - 1) : p);
    return DifferenceView.of(
        workspaces.change(
            workspace,
            expected,
            b -> said(b, mod, paths, hold),
            b -> b.picture().arrangement().withHeldBack(mod, held(b, mod, paths, hold))));
  }

  private static String said(OpenWorkspace open, long mod, List<String> paths, boolean hold) {
    String what = paths.size() == 1 ? paths.get(0) : paths.size() + " paths";
    return (hold ? "Held back " : "Let in ") + what + " of “" + open.nameOf(mod) + "”";
  }

  /** Letting one file of a folder in that is held back splits the folder into its other files. */
  private Set<String> held(OpenWorkspace open, long mod, List<String> paths, boolean hold) {
    Set<String> held =
        new TreeSet<>(open.picture().arrangement().heldBack().getOrDefault(mod, Set.of()));
    for (String path : paths) {
      held.removeIf(h -> path.endsWith("/") && h.startsWith(path));
      if (hold) {
        if (!isCovered(held, path)) held.add(path);
        continue;
      }
      held.remove(path);
      for (String above : foldersAbove(path)) {
        if (!held.remove(above)) continue;
        for (FileRow f : db.allFiles(mod))
          if (f.pack().isEmpty() && f.path().startsWith(above) && !isSame(path, f.path()))
            held.add(f.path());
      }
    }
    return held;
  }

  private static boolean isSame(String path, String file) {
    return path.endsWith("/") ? file.startsWith(path) : file.equals(path);
  }

  private static boolean isCovered(Collection<String> held, String path) {
    return foldersAbove(path).stream().anyMatch(held::contains);
  }

  private static List<String> foldersAbove(String path) {
    List<String> out = new ArrayList<>();
    for (int s = path.indexOf('/'); s >= 0 && s < path.length() - 1; s = path.indexOf('/', s + 1))
      out.add(path.substring(0, s + 1));
    return out;
  }

  /**
   * A file that is not as it was installed.
   *
   * @param found SHA-256 of what lies there; absent when nothing does
   */
  record Amiss(String path, String expected, @MayBeAbsent String found) {}

  /**
   * @param checked how many files were read
   */
  record Verified(int checked, List<Amiss> amiss) {}

  /** Reads every loose file of a mod and compares it with what was installed, or edited. */
  Verified verify(long workspace, long mod) {
    OpenWorkspace open = workspaces.get(workspace);
    open.required(mod);
    List<Amiss> amiss = new ArrayList<>();
    int checked = 0;
    for (FileRow f : db.allFiles(mod)) {
      if (!f.pack().isEmpty()) continue;
      checked++;
      Path place = open.value().locate(mod, f.path());
      try {
        String found = Files.exists(place) ? ContentHash.of(place) : null;
        if (!f.sha256().equals(found)) amiss.add(new Amiss(f.path(), f.sha256(), found));
      } catch (IOException e) {
        throw ModStore.failed(f.path(), e);
      }
    }
    return new Verified(checked, amiss);
  }

  /** What can be read of a mod: files in the game and papers beside them. */
  record Paper(String path, Reading.Kind kind, long sizeBytes, boolean inGame, boolean markdown) {}

  List<Paper> papers(long workspace, long mod) {
    mods.row(workspace, mod);
    List<Paper> out = new ArrayList<>();
    for (StoredLeftOut l : db.leftOut(mod)) if (l.kept()) add(out, l.entry(), l.sizeBytes(), false);
    for (FileRow f : db.filesNamed(mod, Reading.TEXT_NAMES))
      if (Reading.kind(f.path()).filter(k -> k != Reading.Kind.IMAGE).isPresent())
        add(out, f.path(), f.sizeBytes(), true);
    out.sort((a, b) -> a.kind().compareTo(b.kind()));
    return out;
  }

  private static void add(List<Paper> out, String path, long size, boolean inGame) {
    Reading.kind(path)
        .ifPresent(k -> out.add(new Paper(path, k, size, inGame, Reading.isMarkdown(path))));
  }
}
