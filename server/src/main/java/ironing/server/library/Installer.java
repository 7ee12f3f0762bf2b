package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ArchiveLimits;
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
import ironing.server.job.Jobs.Lane;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.ModStore.BuiltFile;
import ironing.server.library.ModStore.LeftOutEntry;
import ironing.server.library.ModStore.Made;
import ironing.server.platform.Folders;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Archives in, mods out, as jobs: one after another, in the order in which they were given. */
@Component
class Installer {
  private final Archives archives;
  private final ModStore mods;
  private final Workbenches benches;
  private final Jobs jobs;

  Installer(Archives archives, ModStore mods, Workbenches benches, Jobs jobs) {
    this.archives = archives;
    this.mods = mods;
    this.benches = benches;
    this.jobs = jobs;
  }

  /**
   * Unpacks an archive that is here and makes a mod of it, on top of the others.
   *
   * @param root the folder of the archive where the mod begins; empty to have it recognised
   */
  Job install(long workspace, long archive, Optional<String> root) {
    ArchiveRow row = archives.get(workspace, archive);
    if (row.mod() != 0) {
      throw IroningException.of(
          "already-there", row.name(), "It is installed already.", "Look for it in the library.");
    }
    root.filter(r -> !r.isEmpty()).ifPresent(GamePath::check);
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "install",
        "Install " + row.name(),
        p -> installNow(workspace, row, root, p));
  }

  /** Brings in and installs every archive of a folder on this machine, one after another. */
  Job bringInFolder(long workspace, String folderName) {
    benches.game(workspace);
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
    if (files.isEmpty()) {
      throw IroningException.of(
          "folder-wrong",
          folderName,
          "There is no file in this folder.",
          "Name the folder with the archives in it.");
    }
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "bring-in-folder",
        "Bring in " + folder,
        p -> bringIn(workspace, files, p));
  }

  private Long bringIn(long workspace, List<Path> files, Jobs.Progress progress)
      throws IOException {
    List<Problem> problems = new ArrayList<>();
    for (int i = 0; i < files.size(); i++) {
      progress.at(i, files.size(), "archives");
      try (InputStream in = Files.newInputStream(files.get(i))) {
        ArchiveRow row = archives.store(workspace, files.get(i).getFileName().toString(), in);
        if (row.mod() == 0) {
          installNow(workspace, row, Optional.empty(), (done, total, unit) -> {});
        }
      } catch (IroningException e) {
        // one that is refused must not keep the others out; all are told at the end
        problems.addAll(e.problems());
      }
    }
    progress.at(files.size(), files.size(), "archives");
    if (!problems.isEmpty()) throw new IroningException(problems);
    return null;
  }

  private Long installNow(
      long workspace, ArchiveRow row, Optional<String> root, Jobs.Progress progress)
      throws IOException {
    GameDefinition game = benches.game(workspace);
    Path work = null;
    try {
      work = mods.workFolder(workspace);
      Path tree = Files.createDirectories(work.resolve("tree"));
      Path archive = archives.file(workspace, row);
      List<Unpacked> entries =
          Unpacker.unpack(
              archive,
              row.name(),
              tree,
              ArchiveLimits.DEFAULT,
              bytes -> progress.at(bytes, 0, "bytes"));
      Outcome.Laid laid = laid(game, row.name(), entries, root);
      ModCard card = card(row.name(), tree, laid.root());
      Path built = work.resolve("mod");
      List<BuiltFile> files = place(game, tree, built, laid.placed(), entries);
      List<LeftOutEntry> leftOut =
          laid.leftOut().stream().map(l -> new LeftOutEntry(l.entry(), l.reason())).toList();
      Made made = new Made(row.id(), "archive", card, laid.root(), laid.reason(), files, leftOut);
      return mods.add(workspace, made, built, mod -> {});
    } catch (IOException e) {
      throw ModStore.failed(row.name(), e);
    } finally {
      if (work != null) mods.discard(work);
    }
  }

  private static Outcome.Laid laid(
      GameDefinition game, String archive, List<Unpacked> entries, Optional<String> root) {
    List<String> paths = entries.stream().map(Unpacked::path).toList();
    Outcome outcome =
        root.map(r -> ContentLayout.at(game, paths, r, "you chose this folder"))
            .orElseGet(() -> ContentLayout.of(game, paths));
    if (outcome instanceof Outcome.Laid laid) return laid;
    if (outcome instanceof Outcome.Several several) {
      String reason =
          "“"
              + archive
              + "” holds several folders that could each be the mod; this is one of them.";
      throw new IroningException(
          several.roots().stream()
              .map(
                  r ->
                      new Problem(
                          "several-mods", r, reason, "Choose the folder in which the mod begins."))
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
    if (!Files.exists(file)) return ModCard.inferredFrom(archive);
    // bytes that are no UTF-8 become marks in the text: a name may look odd, nothing is refused
    String text = new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
    return ModCard.read(archive + " › " + ContentLayout.CARD, text);
  }

  /** Moves the files to where the game will see them, and lists what is in packs. */
  private static List<BuiltFile> place(
      GameDefinition game, Path tree, Path built, List<Placed> placed, List<Unpacked> entries)
      throws IOException {
    Map<String, Unpacked> byPath = new HashMap<>();
    for (Unpacked u : entries) byPath.put(u.path(), u);
    Path content = Files.createDirectories(built.resolve("content"));
    List<BuiltFile> files = new ArrayList<>();
    for (Placed p : placed) {
      Unpacked u = byPath.get(p.entry());
      Path target = GamePath.resolve(content, p.gamePath());
      Files.createDirectories(target.getParent());
      Files.move(GamePath.resolve(tree, p.entry()), target);
      files.add(new BuiltFile("", p.gamePath(), p.entry(), u.sizeBytes(), u.sha256()));
      if (game.isPack(p.gamePath())) files.addAll(inPack(game, p, target));
    }
    return files;
  }

  private static List<BuiltFile> inPack(GameDefinition game, Placed pack, Path file) {
    List<BuiltFile> files = new ArrayList<>();
    Set<String> taken = new HashSet<>();
    for (GameFolder.Packed f : GameFolder.packContent(game, pack.gamePath(), file)) {
      if (!taken.add(game.pathCase().key(f.path()))) continue;
      files.add(new BuiltFile(pack.gamePath(), f.path(), pack.entry(), f.sizeBytes(), f.sha256()));
    }
    return files;
  }
}
