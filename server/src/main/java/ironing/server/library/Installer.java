package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.FolderPacker;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.library.Choices;
import ironing.core.library.ContentLayout.LeftOut;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Fitting;
import ironing.core.library.ModCard;
import ironing.core.library.Reading;
import ironing.core.library.WholeFolders;
import ironing.core.path.GamePath;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.Intake.Decision;
import ironing.server.library.Intake.Look;
import ironing.server.library.Intake.Plan;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.ModStore.BuiltFile;
import ironing.server.library.ModStore.Fitted;
import ironing.server.library.ModStore.LeftOutEntry;
import ironing.server.library.ModStore.Made;
import ironing.server.library.ModStore.Place;
import ironing.server.library.Staging.Staged;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
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
  private final Staging staging;
  private final Intake intake;
  private final ModStore mods;
  private final LibraryMapper db;
  private final OpenWorkspaces workspaces;
  private final Json json;
  private final Jobs jobs;

  Installer(
      Archives archives,
      Staging staging,
      Intake intake,
      ModStore mods,
      LibraryMapper db,
      OpenWorkspaces workspaces,
      Json json,
      Jobs jobs) {
    this.archives = archives;
    this.staging = staging;
    this.intake = intake;
    this.mods = mods;
    this.db = db;
    this.workspaces = workspaces;
    this.json = json;
    this.jobs = jobs;
  }

  /**
   * One mod out of an archive, and where it stands.
   *
   * @param carry nothing was chosen: what was chosen for the version that it replaces is taken over
   */
  record Part(Choices choices, Place place, boolean carry) {
    Part(Choices choices, Place place) {
      this(choices, place, false);
    }
  }

  /**
   * Makes mods of an archive that is here.
   *
   * @param parts one for each mod; none to take it as its look says
   */
  Job install(long workspace, long archive, List<Part> parts) {
    ArchiveRow row = archives.get(workspace, archive);
    boolean anew =
        parts.stream()
            .allMatch(
                p -> p.place() instanceof Place.OnTop || p.place() instanceof Place.AnotherOnTop);
    if (row.mods() != 0 && anew && parts.stream().allMatch(p -> p.choices().equals(Choices.NONE))) {
      throw IroningException.of(
          "already-there", row.name(), "It is installed already.", "Look for it in the library.");
    }
    for (Part p : parts) p.choices().root().filter(r -> !r.isEmpty()).ifPresent(GamePath::check);
    List<Part> all = parts.isEmpty() ? List.of(new Part(Choices.NONE, new Place.OnTop())) : parts;
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "install",
        "Install " + row.name(),
        p -> {
          long last = 0;
          for (long mod : installNow(workspace, row, all, p)) last = mod;
          return last;
        });
  }

  /**
   * Installs every archive of the inbox that needs no decision.
   *
   * @param first those that come first, in this order; the others follow as they came in
   */
  Job installReady(long workspace, List<Long> first) {
    List<ArchiveRow> ready =
        db.archives(workspace).stream()
            .filter(a -> a.mods() == 0 && a.look() != null)
            .filter(a -> isReady(workspace, a))
            .sorted(Comparator.comparingInt(a -> place(first, a.id())))
            .toList();
    if (ready.isEmpty()) {
      throw IroningException.of(
          "nothing-ready",
          "The inbox",
          "No archive in it can be installed without a decision.",
          "Open one and decide.");
    }
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "install-ready",
        "Install " + ready.size() + (ready.size() == 1 ? " archive" : " archives"),
        p -> {
          each(ready.size(), p, i -> installIfReady(workspace, ready.get(i)));
          return null;
        });
  }

  private boolean isReady(long workspace, ArchiveRow row) {
    return intake.asOfNow(workspace, row.look()).decision() == Decision.NONE;
  }

  // one before it may have been another version of the same mod: then it waits for its user
  private void installIfReady(long workspace, ArchiveRow row) {
    if (isReady(workspace, row)) installNow(workspace, row, asItIs(), quiet());
  }

  /**
   * Makes a mod of an archive if that needs no decision. It stays off: a new mod by its layer on
   * top, another version of one that is here beside that.
   *
   * @return the mod; empty where the archive waits in the inbox
   * @throws IroningException where it cannot be a mod at all
   */
  Optional<Long> installOff(long workspace, ArchiveRow row, Jobs.Progress progress) {
    if (row.mods() != 0) return Optional.of(row.mod());
    Look look = intake.lookNow(workspace, row, progress);
    Place place =
        switch (look.decision()) {
          case NONE -> new Place.OnTopOff();
          case VERSION -> new Place.Beside(look.here());
          case REFUSED, NOTHING -> throw refusal(workspace, row, look);
          default -> null;
        };
    if (place == null) return Optional.empty();
    Part part = new Part(Choices.NONE, place);
    return Optional.of(installNow(workspace, row, List.of(part), progress).get(0));
  }

  private IroningException refusal(long workspace, ArchiveRow row, Look look) {
    staging.drop(row.id());
    return look.problems().isEmpty()
        ? nothing(workspaces.game(workspace), row.name())
        : new IroningException(look.problems());
  }

  private static int place(List<Long> order, long archive) {
    int at = order.indexOf(archive);
    return at < 0 ? Integer.MAX_VALUE : at;
  }

  private static List<Part> asItIs() {
    return List.of(new Part(Choices.NONE, new Place.OnTop()));
  }

  private static Jobs.Progress quiet() {
    return (done, total, unit) -> {};
  }

  private interface Step {
    void at(int index) throws IOException;
  }

  /** One that is refused must not keep the others out; all are told at the end. */
  private static void each(int count, Jobs.Progress progress, Step step) throws IOException {
    List<Problem> problems = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      progress.at(i, count, "archives");
      try {
        step.at(i);
      } catch (IroningException e) {
        problems.addAll(e.problems());
      }
    }
    progress.at(count, count, "archives");
    if (!problems.isEmpty()) throw new IroningException(problems);
  }

  /** Brings in and installs every archive of a folder on this machine, one after another. */
  Job bringInFolder(long workspace, String folderName) {
    workspaces.game(workspace);
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
        p -> {
          each(
              files.size(),
              p,
              i -> {
                Folders.requireInside(folder, files.get(i));
                bringIn(workspace, files.get(i));
              });
          return null;
        });
  }

  private void bringIn(long workspace, Path file) throws IOException {
    ArchiveRow row;
    try (InputStream in = Files.newInputStream(file)) {
      row = archives.store(workspace, file.getFileName().toString(), in);
    }
    if (row.mods() != 0) return;
    Look look = intake.lookNow(workspace, row, quiet());
    // what needs a decision waits in the inbox
    if (look.decision() == Decision.NONE) installNow(workspace, row, asItIs(), quiet());
    else if (look.decision() == Decision.REFUSED || look.decision() == Decision.NOTHING)
      throw refusal(workspace, row, look);
  }

  /** Packs a plain folder as an archive and keeps that, so that it is like any other. */
  Job bringInPlain(long workspace, String folderName) {
    workspaces.game(workspace);
    Path folder = Folders.named(folderName);
    return jobs.start(
        workspace,
        Lane.LOOK,
        "bring-in-plain",
        "Take in " + folder,
        p -> {
          ArchiveRow row = packed(workspace, folder);
          if (row.mods() == 0) intake.lookNow(workspace, row, p);
          return row.id();
        });
  }

  private ArchiveRow packed(long workspace, Path folder) throws IOException {
    try (ModStore.WorkFolder work = mods.workFolder(workspace)) {
      Path zip = work.path().resolve("folder.zip");
      try (OutputStream out = Files.newOutputStream(zip)) {
        FolderPacker.pack(folder, out);
      }
      try (InputStream in = Files.newInputStream(zip)) {
        return archives.store(workspace, folder.getFileName() + ".zip", in);
      }
    } catch (IOException e) {
      throw ModStore.failed(folder.toString(), e);
    }
  }

  @SuppressWarnings("try")
  private List<Long> installNow(
      long workspace, ArchiveRow row, List<Part> parts, Jobs.Progress progress) {
    try (Staging.Hold hold = staging.hold(row.id())) {
      Staged staged = staging.get(workspace, row, progress);
      List<Plan> plans = new ArrayList<>();
      // refused here, what is unpacked stays for the next try
      for (Part part : parts) plans.add(settled(workspace, row, staged, part));
      try {
        List<Long> made = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
          boolean last = i == parts.size() - 1;
          made.add(build(workspace, row, parts.get(i), plans.get(i), last));
        }
        return made;
      } finally {
        // files were moved away: the rest is of no use
        staging.drop(row.id());
      }
    }
  }

  /**
   * Installs a mod again from its archive, with what was chosen for it, as the game's definition
   * says by now; its number, its layer and its card stay.
   */
  @SuppressWarnings("try")
  void layOutAnew(long workspace, long mod, Jobs.Progress progress) {
    LibraryMapper.ModRow m = mods.row(workspace, mod);
    ArchiveRow row = archives.get(workspace, m.archiveId());
    try (Staging.Hold hold = staging.hold(row.id());
        ModStore.WorkFolder work = mods.workFolder(workspace)) {
      // under another definition other archives inside it may stay files
      staging.drop(row.id());
      Staged staged = staging.get(workspace, row, progress);
      Choices choices = json.read(m.choices(), Choices.class);
      Plan plan = intake.plan(workspace, row, staged, choices, Set.of(mod));
      // where it was decided to begin it begins still
      if (plan.outcome() instanceof Outcome.Several) choices = choices.withRoot(m.contentRoot());
      Part part = new Part(choices, new Place.InsteadOf(mod));
      Plan settled = settled(workspace, row, staged, part);
      Path built = work.path().resolve("mod");
      Made made = made(workspace, row, settled, built, true);
      String said = "Installed “" + workspaces.get(workspace).nameOf(mod) + "” as defined now";
      mods.layOutAnew(workspace, mod, made, built, said);
    } catch (IOException e) {
      throw ModStore.failed(row.name(), e);
    } finally {
      staging.drop(row.id());
    }
  }

  /** The plan of one part, found fit to be carried out. */
  private Plan settled(long workspace, ArchiveRow row, Staged staged, Part part) {
    Set<Long> own =
        part.place() instanceof Place.InsteadOf instead
            ? Intake.strandOf(workspaces.get(workspace), instead.mod())
            : Set.of();
    Choices choices =
        part.carry() && part.place() instanceof Place.InsteadOf i
            ? intake.carried(workspace, staged, part.choices(), i.mod())
            : part.choices();
    Plan plan = intake.plan(workspace, row, staged, choices, own);
    // taken as it is, a card or a fitting that cannot be read does not count
    if (!plan.flaws().isEmpty() && !part.choices().plain())
      throw new IroningException(plan.flaws());
    plan.fitting().ifPresent(f -> Fitting.requireFit(plan.card().name(), f.asked()));
    if (part.place() instanceof Place.OnTop) requireNew(workspace, plan.card());
    if (plan.outcome() instanceof Outcome.Laid) return plan;
    if (plan.outcome() instanceof Outcome.Several several) {
      String reason =
          "“" + row.name() + "” could begin at several folders; this is " + "one of them.";
      throw new IroningException(
          several.roots().stream()
              .map(
                  r ->
                      new Problem(
                          "several-mods",
                          r.isEmpty() ? "The archive’s top" : r,
                          reason,
                          "Choose the folder in which the mod begins."))
              .toList());
    }
    throw nothing(workspaces.game(workspace), row.name());
  }

  /** Two layers of one mod are only made on a word. */
  private void requireNew(long workspace, ModCard card) {
    if (db.modsOfId(workspace, card.id()).isEmpty()) return;
    throw IroningException.of(
        "version-here",
        card.name(),
        "A version of this mod (“" + card.id() + "”) is in the library already.",
        "Say which version it is to replace, or lie beside, or that it is another mod.");
  }

  private static IroningException nothing(GameDefinition game, String archive) {
    return IroningException.of(
        "nothing-for-the-game",
        archive,
        "It holds no file that " + game.title() + " would read.",
        "Check that it is for this game; if it is, open it in the inbox and say where its files"
            + " go.");
  }

  private long build(long workspace, ArchiveRow row, Part part, Plan plan, boolean last) {
    try (ModStore.WorkFolder work = mods.workFolder(workspace)) {
      Path built = work.path().resolve("mod");
      Made made = made(workspace, row, plan, built, last);
      return mods.add(workspace, made, part.place(), built, mod -> {});
    } catch (IOException e) {
      throw ModStore.failed(row.name(), e);
    }
  }

  /**
   * Builds what a plan says in a folder.
   *
   * @param last nobody needs the unpacked files after this, so that they are moved, not copied
   */
  private Made made(long workspace, ArchiveRow row, Plan plan, Path built, boolean last)
      throws IOException {
    Outcome.Laid laid = (Outcome.Laid) plan.outcome();
    GameDefinition game = workspaces.game(workspace);
    Map<String, Unpacked> byPath = new HashMap<>();
    for (Unpacked u : plan.staged().entries()) byPath.put(u.path(), u);
    Path tree = plan.staged().tree();
    List<LeftOutEntry> leftOut = keepPapers(tree, built, laid.leftOut(), byPath);
    List<BuiltFile> files = place(game, tree, built, laid.placed(), byPath, last);
    return new Made(
        row.id(),
        "archive",
        plan.card(),
        laid.root(),
        laid.reason(),
        plan.settled(),
        plan.fitting().map(f -> fitted(f, plan)),
        files,
        leftOut);
  }

  private static Fitted fitted(Intake.FittingPlan f, Plan plan) {
    return new Fitted(
        f.text(),
        Fitting.answers(f.asked()),
        f.truths(),
        plan.staged().entries().stream()
            .map(u -> new Fitted.Entry(u.path(), u.sizeBytes(), u.sha256()))
            .toList());
  }

  /** What is left out of the game and there to be read stays with the mod. */
  private static List<LeftOutEntry> keepPapers(
      Path tree, Path built, List<LeftOut> leftOut, Map<String, Unpacked> byPath)
      throws IOException {
    Path papers = built.resolve("papers");
    List<LeftOutEntry> out = new ArrayList<>();
    for (LeftOut l : leftOut) {
      Unpacked u = byPath.get(l.entry());
      boolean keep = Reading.kind(l.entry()).isPresent() && u.sizeBytes() <= Reading.LARGEST_BYTES;
      if (keep) {
        Path target = GamePath.resolve(papers, l.entry());
        Files.createDirectories(target.getParent());
        Files.copy(GamePath.resolve(tree, l.entry()), target);
      }
      out.add(new LeftOutEntry(l.entry(), l.reason(), u.sizeBytes(), keep, l.chosen()));
    }
    return out;
  }

  /** Brings the files to where the game will see them, and lists what is in packs. */
  private static List<BuiltFile> place(
      GameDefinition game,
      Path tree,
      Path built,
      List<Placed> placed,
      Map<String, Unpacked> byPath,
      boolean last)
      throws IOException {
    Path content = Files.createDirectories(built.resolve("content"));
    Map<String, Integer> uses = new HashMap<>();
    for (Placed p : placed) uses.merge(p.entry(), 1, Integer::sum);
    Map<String, String> whole = last ? WholeFolders.of(byPath.keySet(), placed) : Map.of();
    Set<Path> made = new HashSet<>();
    for (Map.Entry<String, String> f : whole.entrySet()) {
      Path target = GamePath.resolve(content, f.getValue());
      makeParent(target, made);
      Files.move(GamePath.resolve(tree, f.getKey()), target);
    }
    List<BuiltFile> files = new ArrayList<>();
    for (Placed p : placed) {
      Unpacked u = byPath.get(p.entry());
      Path target = GamePath.resolve(content, p.gamePath());
      if (!isIn(whole, p.entry())) {
        Path source = GamePath.resolve(tree, p.entry());
        makeParent(target, made);
        // an answer may bring one file to two places
        if (last && uses.merge(p.entry(), -1, Integer::sum) == 0) Files.move(source, target);
        else Files.copy(source, target);
      }
      files.add(new BuiltFile("", p.gamePath(), p.entry(), u.sizeBytes(), u.sha256()));
      if (game.isPack(p.gamePath())) files.addAll(inPack(game, p, target));
    }
    return files;
  }

  private static void makeParent(Path file, Set<Path> made) throws IOException {
    if (made.add(file.getParent())) Files.createDirectories(file.getParent());
  }

  private static boolean isIn(Map<String, String> folders, String entry) {
    for (String f = GamePath.folder(entry); !f.isEmpty(); f = GamePath.folder(f))
      if (folders.containsKey(f)) return true;
    return false;
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
