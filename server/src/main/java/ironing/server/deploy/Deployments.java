package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.FolderDistance;
import ironing.core.deploy.FolderDistance.Count;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import ironing.core.deploy.WantedFiles;
import ironing.core.game.GameFolder;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Events;
import ironing.server.workbench.Bench;
import ironing.server.workbench.ContentStore;
import ironing.server.workbench.FolderUse;
import ironing.server.workbench.FolderUse.Use;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Makes game folders agree with pictures, as jobs, one at a time for a workspace. */
@Component
public class Deployments {
  private final Workbenches benches;
  private final ContentStore content;
  private final Jobs jobs;
  private final Events events;
  private final FolderUse use;
  private final ProfileSettings settings;
  private final Clock clock = Clock.systemUTC();
  private final Map<Path, Noted> notes = new ConcurrentHashMap<>();
  private final Map<Long, WantedBy> wanted = new ConcurrentHashMap<>();
  private final Map<Long, FolderDistance> distances = new ConcurrentHashMap<>();

  /** laid-out.json as it was read at a time of its own, so that asking again costs one stat. */
  private record Noted(FileTime modified, LaidOut laidOut) {}

  /** What one state of a bench wants deployed; the same state is asked many times. */
  private record WantedBy(Bench bench, List<Wanted> files) {}

  Deployments(
      Workbenches benches,
      ContentStore content,
      Jobs jobs,
      Events events,
      FolderUse use,
      ProfileSettings settings) {
    this.use = use;
    this.settings = settings;
    this.benches = benches;
    this.content = content;
    this.jobs = jobs;
    this.events = events;
  }

  /** What is in the game folder now. Nothing when the folder is gone. */
  public LaidOut laidOut(Bench bench) {
    Path note = bench.gameFolder().resolve(".ironing/laid-out.json");
    try {
      FileTime modified = Files.getLastModifiedTime(note);
      Noted known = notes.get(note);
      if (known != null && known.modified().equals(modified)) return known.laidOut();
      LaidOut fresh = deployer(bench).laidOut();
      notes.put(note, new Noted(modified, fresh));
      return fresh;
    } catch (IOException notThere) {
      return LaidOut.nothing();
    }
  }

  /** What deploying would do now. Reads the folder; changes nothing. */
  public DeployPlan plan(Bench bench) {
    GameFolder.requireFolder(bench.gameFolder());
    DeployPlan.Look look = settings.safe(bench, laidOut(bench), deployer(bench).look());
    return DeployPlan.make(wanted(bench), laidOut(bench), profile(bench), look, now());
  }

  /** How far the folder is from the picture by its note alone: cheap enough for every page. */
  public Count distance(Bench bench) {
    LaidOut note = laidOut(bench);
    Count[] count = new Count[1];
    distances.compute(
        bench.workspace(),
        (w, known) -> {
          FolderDistance d =
              known != null && known.isOf(bench.picture(), note)
                  ? known
                  : new FolderDistance(bench.picture(), note);
          count[0] = d.of(bench.picture(), settings.of(bench.profile()));
          return d;
        });
    Count c = count[0];
    // files may agree while the settings that lie there still belong to another profile
    boolean othersSettings = !note.files().isEmpty() && !note.profile().equals(profile(bench));
    return othersSettings && c.total() == 0 ? new Count(0, 1, 0) : c;
  }

  private static Optional<Long> profile(Bench bench) {
    return bench.game().perProfile().isEmpty() ? Optional.empty() : Optional.of(bench.profile());
  }

  /** Whether the plugin list in the folder is the one that the picture wants. */
  public boolean listDeployed(Bench bench) {
    // a plugin that is not the game's own comes from a mod, so with a list there are files to
    // deploy
    return WantedFiles.pluginList(bench.picture())
        .map(
            list -> {
              LaidOut.Item item = laidOut(bench).files().get(list.path());
              return item != null && item.sha256().equals(list.sha256());
            })
        .orElse(true);
  }

  Job deploy(long workspace) {
    Bench bench = benches.get(workspace);
    requireFree(bench);
    requireSlots(bench);
    String title = "Deploy to " + bench.gameFolder();
    return jobs.start(
        workspace, Lane.GAME, "deploy", title, p -> apply(benches.get(workspace), p, false));
  }

  /** Writes the plugin list alone, as the picture wants it now. */
  public Job putListBack(long workspace) {
    Bench bench = benches.get(workspace);
    requireFree(bench);
    String list =
        WantedFiles.pluginList(bench.picture())
            .map(Wanted::path)
            .filter(laidOut(bench).files()::containsKey)
            .orElseThrow(
                () ->
                    IroningException.of(
                        "no-list",
                        bench.title(),
                        "No plugin list of ours is deployed there.",
                        "Deploy first."));
    return jobs.start(
        workspace,
        Lane.GAME,
        "list",
        "Put " + list + " back",
        p -> {
          Bench now = benches.get(workspace);
          use.begin(now, Use.CHANGING);
          try {
            Deployer deployer = deployer(now);
            deployer.recover();
            LaidOut before = deployer.laidOut();
            DeployPlan whole =
                DeployPlan.make(wanted(now), before, before.profile(), deployer.look(), now());
            deployer.apply(
                whole.only(list, before),
                (mod, spelled) -> content.locate(now, mod, spelled),
                done -> {});
            return null;
          } finally {
            use.end(workspace);
            events.tell(workspace, "deployment", Map.of());
          }
        });
  }

  /** A game with more plugins than slots would stop over them. */
  private static void requireSlots(Bench bench) {
    LoadOrderCheck.Slots slots = LoadOrderCheck.slots(bench.game(), bench.picture().loadOrder());
    int left = slots.left().orElse(0);
    if (left >= 0) return;
    throw IroningException.of(
        "no-slots",
        bench.title(),
        slots.used()
            + " plugins are on, "
            + -left
            + " more than the "
            + (slots.total().orElse(0) - slots.reserved())
            + " for which the game has slots.",
        "Switch off or merge some; Load order shows which come free cheapest.");
  }

  Job undeploy(long workspace) {
    Bench bench = benches.get(workspace);
    requireFree(bench);
    String title = "Take everything out of " + bench.gameFolder();
    return jobs.start(
        workspace, Lane.GAME, "undeploy", title, p -> apply(benches.get(workspace), p, true));
  }

  private Long apply(Bench bench, Jobs.Progress progress, boolean undeploy) {
    GameFolder.requireFolder(bench.gameFolder());
    use.begin(bench, Use.CHANGING);
    try {
      return applyNow(bench, progress, undeploy);
    } finally {
      use.end(bench.workspace());
      events.tell(bench.workspace(), "deployment", Map.of());
    }
  }

  private Long applyNow(Bench bench, Jobs.Progress progress, boolean undeploy) {
    Deployer deployer = deployer(bench);
    deployer.recover();
    LaidOut before = deployer.laidOut();
    settings.keep(bench, before);
    wanted.remove(bench.workspace());
    List<Wanted> target = undeploy ? List.of() : wanted(bench);
    DeployPlan.Look look = settings.safe(bench, before, deployer.look());
    Optional<Long> profile = undeploy ? Optional.empty() : profile(bench);
    DeployPlan plan = DeployPlan.make(target, before, profile, look, now());
    int total = plan.steps().size();
    deployer.apply(
        plan,
        (mod, spelled) -> content.locate(bench, mod, spelled),
        done -> progress.at(done, total, "files"));
    return null;
  }

  /**
   * Finishes or clears what a crash left in a game folder.
   *
   * @throws IroningException when the disk refuses that
   */
  Deployer.Recovered recover(Bench bench) {
    if (!Files.isDirectory(bench.gameFolder())) return Deployer.Recovered.NOTHING;
    return deployer(bench).recover();
  }

  private void requireFree(Bench bench) {
    GameFolder.requireFolder(bench.gameFolder());
    use.requireStill(bench);
  }

  private List<Wanted> wanted(Bench bench) {
    return wanted
        .compute(
            bench.workspace(),
            (w, known) ->
                known != null && known.bench() == bench
                    ? known
                    : new WantedBy(
                        bench,
                        WantedFiles.of(
                            bench.picture(), bench::nameOf, settings.of(bench.profile()))))
        .files();
  }

  /** What a profile wants has changed beside its arrangement. */
  void forget(long workspace) {
    wanted.remove(workspace);
  }

  private static Deployer deployer(Bench bench) {
    return new Deployer(new RealDisk(), bench.gameFolder());
  }

  private String now() {
    return clock.instant().truncatedTo(ChronoUnit.SECONDS).toString();
  }
}
