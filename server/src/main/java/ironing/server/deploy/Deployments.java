package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.BeforeTrials;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.FolderDistance;
import ironing.core.deploy.FolderDistance.Count;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import ironing.core.deploy.WantedFiles;
import ironing.core.game.GameFolder;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.path.GameRoots;
import ironing.core.path.PathCase;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.FolderUse.Use;
import ironing.server.workspace.Memory;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Site;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Makes game folders agree with pictures, as jobs, one at a time for a workspace. */
@Component
public class Deployments {
  private static final long BYTES_OF_A_WANTED_FILE = 300;

  private final OpenWorkspaces workspaces;
  private final Jobs jobs;
  private final Events events;
  private final FolderUse use;
  private final ProfileSettings settings;
  private final History history;
  private final ToolWrites tools;
  private final ModRepair repair;
  private final OwnSaves saves;
  private final StrayOutputs strays;
  private final Folders folders;
  private final Clock clock = Clock.systemUTC();
  private final Map<GameRoots, Deployer> deployers = new ConcurrentHashMap<>();
  private final Memory.Kept<WantedBy> wanted;
  private final Memory.Kept<FolderDistance> distances;

  /** What one state of an open workspace wants deployed; the same state is asked many times. */
  private record WantedBy(OpenWorkspace open, List<Wanted> files) {}

  Deployments(
      OpenWorkspaces workspaces,
      Jobs jobs,
      Events events,
      FolderUse use,
      ProfileSettings settings,
      History history,
      ToolWrites tools,
      StrayOutputs strays,
      ModRepair repair,
      OwnSaves saves,
      Folders folders,
      Memory memory) {
    this.wanted = memory.keeping(w -> BYTES_OF_A_WANTED_FILE * w.files().size());
    this.distances = memory.keeping(FolderDistance::bytes);
    this.repair = repair;
    this.saves = saves;
    this.strays = strays;
    this.folders = folders;
    this.history = history;
    this.tools = tools;
    this.use = use;
    this.settings = settings;
    this.workspaces = workspaces;
    this.jobs = jobs;
    this.events = events;
  }

  /** What is in the game folder now. Nothing when the folder is gone. */
  public LaidOut laidOut(OpenWorkspace open) {
    // a game on a drive that is not connected has nothing deployed that could be looked at
    return Files.isDirectory(open.gameFolder()) ? deployer(open).laidOut() : LaidOut.nothing();
  }

  /** What deploying would do now. Reads the folder; changes nothing. */
  public DeployPlan plan(OpenWorkspace open) {
    requireThere(open);
    DeployPlan.Look look = settings.safe(open, laidOut(open), deployer(open).look());
    return DeployPlan.make(wanted(open), laidOut(open), profile(open), look, now());
  }

  /** How far the folder is from the picture by its note alone: cheap enough for every page. */
  public Count distance(OpenWorkspace open) {
    LaidOut note = laidOut(open);
    Count[] count = new Count[1];
    distances.of(
        open.workspace(),
        known -> {
          FolderDistance d =
              known != null && known.isOf(open.picture(), note)
                  ? known
                  : new FolderDistance(
                      open.picture(),
                      note,
                      tools.written(open.workspace(), open.game().pathCase()));
          count[0] = d.of(open.picture(), settings.of(open.profile()));
          return d;
        });
    Count c = count[0];
    // files may agree while the settings that lie there still belong to another profile
    boolean othersSettings = !note.files().isEmpty() && !note.profile().equals(profile(open));
    return othersSettings && c.total() == 0 ? new Count(0, 1, 0) : c;
  }

  private static Optional<Long> profile(OpenWorkspace open) {
    return open.game().perProfile().isEmpty() ? Optional.empty() : Optional.of(open.profile());
  }

  /** Whether the plugin list in the folder is the one that the picture wants. */
  public boolean listDeployed(OpenWorkspace open) {
    // a plugin that is not the game's own comes from a mod, so with a list there are files to
    // deploy
    return WantedFiles.pluginList(open.picture())
        .map(
            list -> {
              LaidOut.Item item = laidOut(open).files().get(list.path());
              return item != null && item.sha256().equals(list.sha256());
            })
        .orElse(true);
  }

  Job deploy(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    requireFree(open);
    requireOwn(open);
    requireSlots(open);
    FolderLimits.require(open, laidOut(open));
    String title = "Deploy to " + open.gameFolder();
    return jobs.start(
        workspace,
        Lane.GAME,
        "deploy",
        title,
        p ->
            changing(
                workspaces.get(workspace),
                b -> {
                  takeStraysIn(b);
                  return apply(workspaces.get(workspace), p, false);
                }));
  }

  private void takeStraysIn(OpenWorkspace open) {
    Map<String, String> taken = strays.takeIn(open, laidOut(open));
    if (!taken.isEmpty()) changer(open).takeOff(taken);
  }

  /** Writes the plugin list alone, as the picture wants it now. */
  public Job putListBack(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    requireFree(open);
    requireOwn(open);
    String list =
        WantedFiles.pluginList(open.picture())
            .map(Wanted::path)
            .filter(laidOut(open).files()::containsKey)
            .orElseThrow(
                () ->
                    IroningException.of(
                        "no-list",
                        open.title(),
                        "No plugin list of ours is deployed there.",
                        "Deploy first."));
    return jobs.start(
        workspace,
        Lane.GAME,
        "list",
        "Put " + list + " back",
        p -> putBackNow(workspace, Set.of(list), p));
  }

  /**
   * Makes some paths of the game folder as they were deployed; what lies there is set aside.
   *
   * @param paths of the note
   */
  public Job putBack(long workspace, Set<String> paths) {
    OpenWorkspace open = workspaces.get(workspace);
    requireFree(open);
    requireOwn(open);
    return jobs.start(
        workspace,
        Lane.GAME,
        "put-back",
        "Put " + paths.size() + (paths.size() == 1 ? " file" : " files") + " back",
        p -> putBackNow(workspace, paths, p));
  }

  /** The same as a part of other work. */
  public Long putBackNow(long workspace, Set<String> paths, Jobs.Progress progress) {
    return changing(workspaces.get(workspace), asked -> putBackNow(asked, paths, progress));
  }

  private Long putBackNow(OpenWorkspace asked, Set<String> paths, Jobs.Progress progress) {
    Deployer deployer = changer(asked);
    deployer.recover();
    LaidOut before = deployer.laidOut();
    OpenWorkspace open = restored(asked, before, paths, true, progress);
    DeployPlan whole =
        DeployPlan.make(wanted(open), before, before.profile(), only(paths, deployer), now());
    history.noting(
        open,
        "put-back",
        outcome ->
            deployer.apply(
                outcome.planned(whole.only(paths, before)),
                open.value()::locate,
                done -> progress.at(done, paths.size(), "files")));
    return null;
  }

  /**
   * Has the folder in use while something is done to it, all of which nobody comes in between;
   * every open page is told afterwards.
   */
  public <T> T changing(OpenWorkspace open, Function<OpenWorkspace, T> work) {
    use.begin(open, Use.CHANGING);
    try {
      return work.apply(open);
    } finally {
      use.end(open.workspace());
      events.tell(open.workspace(), "deployment", Map.of());
    }
  }

  /** A look that reads the files that are meant, and believes the note of all others. */
  private static DeployPlan.Look only(Set<String> paths, Deployer deployer) {
    DeployPlan.Look thorough = deployer.thorough(), trusting = deployer.trusting();
    return new DeployPlan.Look() {
      @Override
      public DeployPlan.Found at(String path, Optional<LaidOut.Item> item) {
        return (paths.contains(path) ? thorough : trusting).at(path, item);
      }

      @Override
      public String sha256(String path) {
        return thorough.sha256(path);
      }
    };
  }

  /**
   * A mod's file that was written to through its link is damaged in the library too: the mod is
   * made anew from its archive first. What was written stays in the folder, to be set aside.
   *
   * @param changed paths of the note that are not as they were deployed
   * @param needed whether it has to come off: else what cannot be made anew stays damaged
   * @return the workspace as it is now
   */
  private OpenWorkspace restored(
      OpenWorkspace open,
      LaidOut note,
      Set<String> changed,
      boolean needed,
      Jobs.Progress progress) {
    Map<Long, String> damaged = damaged(open, note, changed);
    List<Problem> lost = new ArrayList<>();
    for (Map.Entry<Long, String> d : damaged.entrySet()) {
      if (repair.can(open.workspace(), d.getKey())) {
        repair.again(open.workspace(), d.getKey(), progress);
        continue;
      }
      lost.add(
          new Problem(
              "library-damaged",
              d.getValue(),
              "In the library too, the file of "
                  + open.nameOf(d.getKey())
                  + " is no longer what was made, and there is no archive to have it from.",
              "Rebuild the mend, in Mends; then try again."));
    }
    if (needed && !lost.isEmpty()) throw new IroningException(lost);
    if (damaged.isEmpty()) return open;
    wanted.forget(open.workspace());
    return workspaces.get(open.workspace());
  }

  /** The mods of such files, each with one of the paths. */
  private Map<Long, String> damaged(OpenWorkspace open, LaidOut note, Set<String> changed) {
    Holdings holdings = open.picture().holdings();
    Map<Long, String> damaged = new TreeMap<>();
    for (String path : changed) {
      LaidOut.Item item = note.files().get(path);
      if (item == null || item.how() != LaidOut.How.LINK || damaged.containsKey(item.mod()))
        continue;
      int id = holdings.idOf(path);
      int slot = id < 0 ? -1 : holdings.slotOfMod(id, item.mod());
      if (slot < 0) continue;
      try {
        Path file = open.value().locate(item.mod(), holdings.spellingAt(slot));
        if (!ContentHash.of(file).equals(holdings.shaAt(slot))) damaged.put(item.mod(), path);
      } catch (IOException gone) {
        damaged.put(item.mod(), path);
      }
    }
    return damaged;
  }

  /** Moves files that nobody deployed out of the game’s way; nothing is thrown away. */
  public int setAside(long workspace, Set<String> paths) {
    OpenWorkspace open = workspaces.get(workspace);
    requireFree(open);
    return changing(open, b -> changer(b).setAside(paths, now()));
  }

  /** A game with more plugins than slots would stop over them. */
  private static void requireSlots(OpenWorkspace open) {
    LoadOrderCheck.Slots slots = LoadOrderCheck.slots(open.game(), open.picture().loadOrder());
    int left = slots.left().orElse(0);
    if (left >= 0) return;
    throw IroningException.of(
        "no-slots",
        open.title(),
        slots.used()
            + " plugins are on, "
            + -left
            + " more than the "
            + (slots.total().orElse(0) - slots.reserved())
            + " for which the game has slots.",
        "Switch off or merge some; Load order shows which come free cheapest.");
  }

  Job undeploy(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    requireFree(open);
    String title = "Take everything out of " + open.gameFolder();
    return jobs.start(
        workspace, Lane.GAME, "undeploy", title, p -> apply(workspaces.get(workspace), p, true));
  }

  /** Takes everything out as a part of other work. */
  public void undeployNow(long workspace, Jobs.Progress progress) {
    apply(workspaces.get(workspace), progress, true);
  }

  /** How many copies of settings belong to profiles, and lie in no game folder. */
  public int settingsCopies(OpenWorkspace open) {
    return settings.copies(open);
  }

  /**
   * Writes the settings of all profiles to the game folder, where they outlive the workspace; the
   * caller has it in use.
   */
  public void writeSettingsCopies(OpenWorkspace open) {
    use.requireMine(open.workspace());
    settings.writeCopies(open);
  }

  /** Deploys as a part of other work. */
  public void deployNow(long workspace, Jobs.Progress progress) {
    OpenWorkspace open = workspaces.get(workspace);
    requireSlots(open);
    apply(open, progress, false);
  }

  /**
   * Puts a set that is tried into the game folder, as a part of other work. The history of
   * deployments does not have it: whoever tries it notes it.
   *
   * @param trial as {@link OpenWorkspace#as(long, Picture)} gives it
   * @param contents what lies at some paths instead of the mods' files
   */
  public void deployTrial(
      OpenWorkspace trial, Map<String, byte[]> contents, Jobs.Progress progress) {
    requireThere(trial);
    requireOwn(trial);
    changing(trial, t -> deployTrialNow(t, contents, trial.profile(), progress));
  }

  /**
   * @param trialProfile whose sets are tried: what the game has written in one of them is nobody's,
   *     and each set finds what the user has
   */
  private LaidOut deployTrialNow(
      OpenWorkspace trial,
      Map<String, byte[]> contents,
      long trialProfile,
      Jobs.Progress progress) {
    Deployer deployer = changer(trial);
    deployer.recover();
    LaidOut note = deployer.laidOut();
    boolean afterTrial = note.profile().filter(p -> p == trialProfile).isPresent();
    boolean tried = trial.profile() == trialProfile, first = tried && !afterTrial;
    if (!afterTrial) settings.keep(trial, note);
    if (first) beforeTrials(trial).keep(note, trial.game(), deployer.look(), now());
    PathCase paths = trial.game().pathCase();
    Map<String, byte[]> byKey = new HashMap<>();
    contents.forEach((path, bytes) -> byKey.put(paths.key(path), bytes));
    List<Wanted> files = new ArrayList<>();
    for (Wanted w :
        WantedFiles.tried(
            trial.picture(),
            trial::nameOf,
            settings.of(trial.profile()),
            tools.written(trial.workspace(), paths))) {
      byte[] instead = byKey.get(paths.key(w.path()));
      // a set finds what the game had written; afterwards that is given back
      if (instead == null && tried && w.mustCopy())
        instead = beforeTrials(trial).written(w.mod(), w.path()).orElse(null);
      files.add(instead == null ? w : w.with(instead));
    }
    // what a patch of text needs in this set and has not in the library
    contents.forEach(
        (path, bytes) -> {
          if (trial.picture().holdings().idOf(path) < 0) files.add(WantedFiles.made(path, bytes));
        });
    files.sort(Comparator.comparing(Wanted::path));
    DeployPlan.Look look = deployer.look();
    // what the game had written is kept beside, or was written in a set before
    if (first || afterTrial) look = ProfileSettings.gone(trial.game()::isWritable, look);
    look =
        afterTrial
            ? ProfileSettings.gone(trial.game()::isPerProfile, look)
            : settings.safe(trial, note, look);
    return applied(trial, files, profile(trial), look, progress, new History.Outcome());
  }

  private static BeforeTrials beforeTrials(OpenWorkspace open) {
    return new BeforeTrials(new RealDisk(), open.roots());
  }

  /** The number of the last deploying or undeploying by the user; a later one has a higher one. */
  public long lastByUser(long workspace) {
    return history.lastWhole(workspace);
  }

  /**
   * What the user has put into the game folder.
   *
   * @param deployed whether anything: else all was taken out
   */
  public record ByUser(long profile, String arrangement, boolean deployed) {}

  /** What the user has put in, or taken out, last since some moment; empty for nothing. */
  public Optional<ByUser> byUserSince(OpenWorkspace open, OffsetDateTime since) {
    return history
        .lastWholeSince(open.workspace(), since)
        .map(
            w ->
                new ByUser(
                    w.profileId() == null ? open.profile() : w.profileId(),
                    w.arrangement(),
                    w.kind().equals("deploy")));
  }

  /**
   * Makes the game folder as it was before sets were tried there, saves among it.
   *
   * @param before what was arranged then
   * @param deployed whether that was in the folder; else nothing was
   */
  public void afterTrials(
      OpenWorkspace before, long trialProfile, boolean deployed, Jobs.Progress progress) {
    changing(
        before,
        b -> {
          if (deployed) deployTrialNow(b, Map.of(), trialProfile, progress);
          else apply(b, progress, true);
          beforeTrials(b).giveBack(laidOut(b), b.game(), now());
          saves.giveBack(b, trialProfile);
          return null;
        });
  }

  /**
   * Takes files off the game folder that are in the library by now, as a part of work that has the
   * folder in use; one that has changed meanwhile stays.
   *
   * @param files game path to SHA-256
   */
  public void takeOff(OpenWorkspace open, Map<String, String> files) {
    changer(open).takeOff(files);
  }

  /**
   * Leaves what lies at some paths of the note to the game, whose update wrote it there: the
   * original of before is set aside, and what a mod lost by it is made anew. A part of other work.
   */
  public void letGo(long workspace, Set<String> paths, Jobs.Progress progress) {
    OpenWorkspace asked = workspaces.get(workspace);
    requireThere(asked);
    changing(asked, b -> letGoNow(b, paths, progress));
  }

  private LaidOut letGoNow(OpenWorkspace asked, Set<String> paths, Jobs.Progress progress) {
    Deployer deployer = changer(asked);
    deployer.recover();
    LaidOut before = deployer.laidOut();
    OpenWorkspace open = restored(asked, before, paths, true, progress);
    return deployer.apply(
        DeployPlan.letGo(paths, before, now()),
        open.value()::locate,
        done -> progress.at(done, paths.size(), "files"));
  }

  private Long apply(OpenWorkspace open, Jobs.Progress progress, boolean undeploy) {
    requireThere(open);
    // again: it may have waited for other work
    if (!undeploy) requireOwn(open);
    return changing(open, b -> applyNow(b, progress, undeploy));
  }

  private Long applyNow(OpenWorkspace open, Jobs.Progress progress, boolean undeploy) {
    Deployer deployer = changer(open);
    deployer.recover();
    history.noting(
        open,
        undeploy ? "undeploy" : "deploy",
        outcome -> {
          settings.keep(open, deployer.laidOut());
          wanted.forget(open.workspace());
          LaidOut after =
              applied(
                  open,
                  undeploy ? List.of() : wanted(open),
                  undeploy ? Optional.empty() : profile(open),
                  settings.safe(open, deployer.laidOut(), deployer.look()),
                  progress,
                  outcome);
          // of a search that waits meanwhile
          if (!undeploy) beforeTrials(open).giveBack(after, open.game(), now());
          return after;
        });
    return null;
  }

  private LaidOut applied(
      OpenWorkspace open,
      List<Wanted> target,
      Optional<Long> profile,
      DeployPlan.Look look,
      Jobs.Progress progress,
      History.Outcome outcome) {
    Deployer deployer = changer(open);
    LaidOut before = deployer.laidOut();
    DeployPlan plan = DeployPlan.make(target, before, profile, look, now());
    Set<String> changed = new TreeSet<>();
    for (DeployPlan.Step s : plan.steps()) if (s.changed()) changed.add(s.path());
    OpenWorkspace now = restored(open, before, changed, !target.isEmpty(), progress);
    int total = plan.steps().size();
    return deployer.apply(
        outcome.planned(plan), now.value()::locate, done -> progress.at(done, total, "files"));
  }

  /**
   * Finishes or clears what a crash left in a game folder.
   *
   * @throws IroningException when the disk refuses that
   */
  Deployer.Recovered recover(Site site) {
    if (!Files.isDirectory(site.gameFolder())) return Deployer.Recovered.NOTHING;
    use.begin(site, Use.CHANGING);
    try {
      return deployer(site.workspace(), site.roots()).recover();
    } finally {
      use.end(site.workspace());
    }
  }

  private static void requireThere(OpenWorkspace open) {
    GameFolder.requireFolder(open.gameFolder());
    open.roots().requirePlaces();
  }

  private void requireFree(OpenWorkspace open) {
    requireThere(open);
    use.requireStill(open);
  }

  @SuppressWarnings("ReferenceEquality")
  private List<Wanted> wanted(OpenWorkspace open) {
    return wanted
        .of(
            open.workspace(),
            known ->
                known != null && known.open() == open
                    ? known
                    : new WantedBy(
                        open,
                        WantedFiles.of(
                            open.picture(),
                            open::nameOf,
                            settings.of(open.profile()),
                            tools.written(open.workspace(), open.game().pathCase()))))
        .files();
  }

  /** What is wanted of a folder has changed beside the arrangement. */
  public void forget(long workspace) {
    distances.forget(workspace);
    wanted.forget(workspace);
  }

  /** For whoever changes the folder: only while it is in use for that. */
  private Deployer changer(OpenWorkspace open) {
    use.requireMine(open.workspace());
    return deployer(open);
  }

  private Deployer deployer(OpenWorkspace open) {
    return deployer(open.workspace(), open.roots());
  }

  // one for each folder: it remembers the note as long as nobody changes it
  private Deployer deployer(long workspace, GameRoots roots) {
    String owner = owner(workspace);
    return deployers.computeIfAbsent(
        roots, r -> new Deployer(new RealDisk(), r, Optional.of(owner)));
  }

  private String owner(long workspace) {
    return folders.installation() + "/" + workspace;
  }

  /** What another workspace has deployed there is its own to change; taking it out is for all. */
  private void requireOwn(OpenWorkspace open) {
    LaidOut there = laidOut(open);
    boolean own = there.owner().map(owner(open.workspace())::equals).orElse(true);
    if (own || there.files().isEmpty()) return;
    throw IroningException.of(
        "deployed-by-another",
        open.gameFolder().toString(),
        "Another workspace has deployed " + there.files().size() + " files there.",
        "Take everything out first, here or there; the game is unmodded then. After that, deploy.");
  }

  private String now() {
    return clock.instant().truncatedTo(ChronoUnit.SECONDS).toString();
  }
}
