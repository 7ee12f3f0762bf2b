package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ArchiveLimits;
import ironing.core.archive.ContentHash;
import ironing.core.archive.Unpacker;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.ModCard;
import ironing.core.path.GamePath;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.LeftOutRow;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import ironing.server.workbench.WorkspaceIds;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/**
 * Archives in, mods out. Everything is built in a folder of its own and flushed; one rename and one
 * transaction make it part of the library. A crash leaves a whole mod or none.
 */
@Component
public class Library implements ApplicationRunner {
  private static final int ROWS_AT_ONCE = 2000;
  private final LibraryMapper db;
  private final Workbenches benches;
  private final WorkspaceIds workspaces;
  private final Folders folders;
  private final Jobs jobs;
  private final Events events;

  Library(
      LibraryMapper db,
      Workbenches benches,
      WorkspaceIds workspaces,
      Folders folders,
      Jobs jobs,
      Events events) {
    this.db = db;
    this.benches = benches;
    this.workspaces = workspaces;
    this.folders = folders;
    this.jobs = jobs;
    this.events = events;
  }

  /** At start: what a crash left in the incoming folders is litter. */
  @Override
  public void run(ApplicationArguments args) throws IOException {
    for (long w : workspaces.all()) {
      Folders.removeTree(folders.incoming(w));
      Set<String> known =
          new HashSet<>(benches.get(w).mods().keySet().stream().map(String::valueOf).toList());
      Path mods = folders.mods(w);
      if (!Files.isDirectory(mods)) continue;
      List<Path> there;
      try (Stream<Path> list = Files.list(mods)) {
        there = list.toList();
      }
      for (Path p : there) if (!known.contains(p.getFileName().toString())) Folders.removeTree(p);
    }
  }

  /** Stores an archive as it comes in. The same bytes brought in again are the same archive. */
  ArchiveRow store(long workspace, String name, InputStream bytes) {
    benches.get(workspace);
    String plainName = plainName(name);
    Path temp = null;
    try {
      Path incoming = Files.createDirectories(folders.incoming(workspace));
      temp = incoming.resolve(UUID.randomUUID() + ".part");
      MessageDigest sha = ContentHash.digest();
      long size = 0;
      try (OutputStream out = Files.newOutputStream(temp)) {
        byte[] buffer = new byte[64 * 1024];
        int n;
        while ((n = bytes.read(buffer)) >= 0) {
          sha.update(buffer, 0, n);
          out.write(buffer, 0, n);
          size += n;
        }
      }
      if (size == 0)
        throw IroningException.of(
            "archive-unreadable",
            plainName,
            "It is empty.",
            "Download it again: nothing of it arrived.");
      String hex = HexFormat.of().formatHex(sha.digest());
      Path place = folders.archive(workspace, hex);
      Files.createDirectories(place.getParent());
      flush(temp);
      Files.move(temp, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      db.addArchive(workspace, plainName, hex, size);
      events.tell(workspace, "library", Map.of());
      return db.archiveBySha(workspace, hex);
    } catch (IOException e) {
      throw libraryFailed(plainName, e);
    } finally {
      deleteQuietly(temp);
    }
  }

  /** Unpacks an archive that is here and makes a mod of it, on top of the others. */
  Job install(long workspace, long archive, Optional<String> root) {
    ArchiveRow row = db.archive(workspace, archive);
    if (row == null)
      throw IroningException.of(
          "not-found",
          "Archive " + archive,
          "There is no such archive in this library.",
          "Choose one from the list.");
    if (row.mod() != 0)
      throw IroningException.of(
          "already-there", row.name(), "It is installed already.", "Look for it in the library.");
    return jobs.start(workspace, "install", row.name(), p -> installNow(workspace, row, root, p));
  }

  /** Brings in and installs every archive of a folder on this machine, one after another. */
  Job bringInFolder(long workspace, String folderName) {
    Path folder = Folders.named(folderName);
    List<Path> files;
    try (Stream<Path> list = Files.list(folder)) {
      files =
          list.filter(Files::isRegularFile)
              .filter(f -> !f.getFileName().toString().startsWith("."))
              .sorted()
              .toList();
    } catch (IOException e) {
      throw IroningException.of(
          "folder-wrong",
          folderName,
          "This folder cannot be read.",
          "Check whether you may read it.",
          e);
    }
    if (files.isEmpty())
      throw IroningException.of(
          "folder-wrong",
          folderName,
          "There is no file in this folder.",
          "Name the folder with the archives in it.");
    return jobs.start(
        workspace,
        "bring-in-folder",
        "Bring in " + folder,
        progress -> {
          List<Problem> problems = new ArrayList<>();
          for (int i = 0; i < files.size(); i++) {
            progress.at(i, files.size(), "archives");
            try (InputStream in = Files.newInputStream(files.get(i))) {
              ArchiveRow row = store(workspace, files.get(i).getFileName().toString(), in);
              if (row.mod() == 0)
                installNow(workspace, row, Optional.empty(), (done, total, unit) -> {});
            } catch (IroningException e) {
              problems.addAll(e.problems());
            }
          }
          progress.at(files.size(), files.size(), "archives");
          if (!problems.isEmpty()) throw new IroningException(problems);
          return null;
        });
  }

  private Long installNow(
      long workspace, ArchiveRow row, Optional<String> root, Jobs.Progress progress)
      throws IOException {
    Bench bench = benches.get(workspace);
    Path work =
        Files.createDirectories(folders.incoming(workspace).resolve(UUID.randomUUID().toString()));
    try {
      Path tree = Files.createDirectories(work.resolve("tree"));
      List<Unpacked> entries =
          Unpacker.unpack(
              folders.archive(workspace, row.sha256()),
              row.name(),
              tree,
              ArchiveLimits.DEFAULT,
              bytes -> progress.at(bytes, 0, "bytes"));
      Outcome.Laid laid = laid(bench.game(), row.name(), entries, root);
      ModCard card = card(row.name(), tree, laid.root());
      List<FileRow> files = place(bench.game(), tree, work.resolve("mod"), laid.placed(), entries);
      Folders.removeTree(tree);
      flushTree(work);
      return commit(
          workspace,
          row.id(),
          "archive",
          card,
          laid.root(),
          laid.reason(),
          files,
          laid.leftOut().stream().map(l -> new LeftOutRow(l.entry(), l.reason())).toList(),
          work.resolve("mod"),
          "Brought in “" + card.name() + "”");
    } catch (FileSystemException e) {
      throw libraryFailed(row.name(), e);
    } finally {
      Folders.removeTree(work);
    }
  }

  /**
   * Makes a mod of a folder that holds {@code content/}, whole or not at all.
   *
   * @return its number
   */
  public long commit(
      long workspace,
      Long archive,
      String kind,
      ModCard card,
      String root,
      String reason,
      List<FileRow> files,
      List<LeftOutRow> leftOut,
      Path mod,
      String said) {
    long[] id = new long[1];
    benches.changeLibrary(
        workspace,
        said,
        () -> {
          id[0] = db.addMod(workspace, archive, kind, benches.toJson(card), root, reason);
          for (int i = 0; i < files.size(); i += ROWS_AT_ONCE)
            db.addFiles(id[0], files.subList(i, Math.min(files.size(), i + ROWS_AT_ONCE)));
          for (int i = 0; i < leftOut.size(); i += ROWS_AT_ONCE)
            db.addLeftOut(id[0], leftOut.subList(i, Math.min(leftOut.size(), i + ROWS_AT_ONCE)));
          try {
            Path place = folders.mods(workspace).resolve(Long.toString(id[0]));
            Files.createDirectories(place.getParent());
            Files.move(mod, place, StandardCopyOption.ATOMIC_MOVE);
            flush(place.getParent());
          } catch (IOException e) {
            throw libraryFailed(card.name(), e);
          }
        });
    return id[0];
  }

  private static Outcome.Laid laid(
      GameDefinition game, String archive, List<Unpacked> entries, Optional<String> root) {
    List<String> paths = entries.stream().map(Unpacked::path).toList();
    Outcome outcome =
        root.map(r -> ContentLayout.at(game, paths, r, "you chose this folder"))
            .orElseGet(() -> ContentLayout.of(game, paths));
    if (outcome instanceof Outcome.Laid laid) return laid;
    if (outcome instanceof Outcome.Several several) {
      throw new IroningException(
          several.roots().stream()
              .map(
                  r ->
                      new Problem(
                          "several-mods",
                          r,
                          "“"
                              + archive
                              + "” holds several folders that could each be the mod; this is one of them.",
                          "Choose the folder in which the mod begins."))
              .toList());
    }
    throw IroningException.of(
        "nothing-for-the-game",
        archive,
        "It holds no file that " + game.title() + " would read.",
        "Check that it is for this game; if it is, extend the mounts of its definition.");
  }

  private static ModCard card(String archive, Path tree, String root) throws IOException {
    Path file = tree.resolve(root).resolve(ContentLayout.CARD);
    return Files.exists(file)
        ? ModCard.read(archive + " › " + ContentLayout.CARD, Files.readString(file))
        : ModCard.inferredFrom(archive);
  }

  /** Moves the files to where the game will see them, and lists what is in packs. */
  private static List<FileRow> place(
      GameDefinition game, Path tree, Path mod, List<Placed> placed, List<Unpacked> entries)
      throws IOException {
    Map<String, Unpacked> byPath = new HashMap<>();
    for (Unpacked u : entries) byPath.put(u.path(), u);
    Path content = mod.resolve("content");
    Files.createDirectories(content);
    List<FileRow> rows = new ArrayList<>();
    Set<String> taken = new HashSet<>();
    for (Placed p : placed) {
      // two spellings of one path, on a game that ignores case: the first one counts
      if (!taken.add(game.pathCase().key(p.gamePath()))) continue;
      Unpacked u = byPath.get(p.entry());
      Path target = GamePath.resolve(content, p.gamePath());
      Files.createDirectories(target.getParent());
      Files.move(GamePath.resolve(tree, p.entry()), target);
      rows.add(new FileRow("", p.gamePath(), p.entry(), u.sizeBytes(), u.sha256()));
      if (!game.isPack(p.gamePath())) continue;
      Set<String> inPack = new HashSet<>();
      for (GameFolder.Packed f : GameFolder.packContent(game, p.gamePath(), target)) {
        if (inPack.add(game.pathCase().key(f.path())))
          rows.add(new FileRow(p.gamePath(), f.path(), p.entry(), f.sizeBytes(), f.sha256()));
      }
    }
    return rows;
  }

  private static String plainName(String name) {
    String last = name.replace('\\', '/');
    last = last.substring(last.lastIndexOf('/') + 1).replaceAll("[\\p{Cntrl}]", "").strip();
    if (last.isEmpty())
      throw IroningException.of(
          "archive-unreadable",
          "The archive",
          "It comes without a name.",
          "Send its file name as ?name=.");
    return last.length() > 200 ? last.substring(last.length() - 200) : last;
  }

  private static void flush(Path path) throws IOException {
    try (var channel = FileChannel.open(path, StandardOpenOption.READ)) {
      channel.force(true);
    }
  }

  // One flush of the file system for a whole archive: thousands of single ones would cost more than
  // the work.
  private static void flushTree(Path folder) throws IOException {
    try {
      Process sync =
          new ProcessBuilder("sync", "-f", folder.toString()).redirectErrorStream(true).start();
      if (sync.waitFor() != 0) throw new IOException("sync failed for " + folder);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while flushing", e);
    }
  }

  private static void deleteQuietly(Path temp) {
    try {
      if (temp != null) Files.deleteIfExists(temp);
    } catch (IOException litter) {
      // the next start clears the incoming folder
    }
  }

  private static IroningException libraryFailed(String thing, IOException e) {
    boolean full =
        String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT).contains("no space left");
    return full
        ? IroningException.of(
            "disk-full",
            thing,
            "There is no space left on the drive of the library; nothing of it was kept.",
            "Free some space there and bring it in again.",
            e)
        : IroningException.of(
            "library-failed",
            thing,
            "The library’s drive refused: " + e.getMessage() + ".",
            "See that the drive is connected and may be written to, then try again.",
            e);
  }
}
