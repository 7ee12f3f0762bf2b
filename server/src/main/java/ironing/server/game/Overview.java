package ironing.server.game;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.deploy.FolderDistance.Count;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.progress.Progress.Reached;
import ironing.core.records.Collision.State;
import ironing.core.testrun.RunLog;
import ironing.core.testrun.RunOutcome;
import ironing.server.deploy.Deployments;
import ironing.server.loadorder.Troubles;
import ironing.server.platform.MayBeAbsent;
import ironing.server.progress.KnownProgress;
import ironing.server.testrun.Runs;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.wrinkles.Wrinkles;
import ironing.server.wrinkles.Wrinkles.Place;
import ironing.server.wrinkles.Wrinkles.Weight;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.nio.file.Files;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** How far a workspace is on its way, and what to do next. */
@Component
class Overview {
  private final Deployments deployments;
  private final KnownProgress journeys;
  private final Runs runs;
  private final Wrinkles wrinkles;

  Overview(Deployments deployments, KnownProgress journeys, Runs runs, Wrinkles wrinkles) {
    this.deployments = deployments;
    this.journeys = journeys;
    this.runs = runs;
    this.wrinkles = wrinkles;
  }

  /**
   * How many mods have come how far.
   *
   * @param read absent when it cannot be told: there was no run, or it wrote no log
   */
  record Counts(int library, int on, int deployed, @MayBeAbsent Integer read) {}

  /** A stage of the way. */
  enum StepId {
    LIBRARY,
    LAYERS,
    LOAD_ORDER,
    RECORDS,
    DEPLOY,
    TEST_RUN
  }

  /**
   * @param done whether nothing is left to do there
   * @param text where it stands, in words
   */
  record Step(StepId id, boolean done, String text) {}

  /**
   * Where the files that the game will see come from.
   *
   * @param game of the unmodded game
   * @param mods of mods, covering nobody
   * @param covering of mods, in the place of another
   * @param mends of mends
   */
  record Makeup(int game, int mods, int covering, int mends) {}

  /**
   * @param places beside the game’s folder
   */
  record OverviewView(
      long id,
      String title,
      String version,
      String folder,
      boolean folderThere,
      List<GamePlaceView> places,
      String profile,
      long revision,
      Counts counts,
      List<Step> steps,
      @MayBeAbsent StepId next,
      Makeup makeup,
      List<Wrinkle> wrinkles) {}

  OverviewView of(OpenWorkspace open) {
    List<Wrinkle> found = wrinkles.open(open);
    List<Step> steps = steps(open, found);
    StepId next = steps.stream().filter(s -> !s.done()).map(Step::id).findFirst().orElse(null);
    return new OverviewView(
        open.workspace(),
        open.title(),
        open.gameVersion().orElse(""),
        open.gameFolder().toString(),
        Files.isDirectory(open.gameFolder()),
        open.game().places().stream().map(p -> GamePlaceView.of(p, open.roots())).toList(),
        open.profileName(),
        open.revision(),
        counts(open),
        steps,
        next,
        makeup(open),
        found);
  }

  private Counts counts(OpenWorkspace open) {
    KnownProgress.Ways ways = journeys.of(open);
    int on = 0, deployed = 0, read = 0;
    for (Layer l : open.picture().arrangement().layers()) {
      Reached reached = ways.mod(l.mod()).reached();
      if (l.on()) on++;
      if (reached.compareTo(Reached.DEPLOYED) >= 0) deployed++;
      if (reached == Reached.READ) read++;
    }
    boolean told = runs.lastSummary(open.workspace()).isPresent();
    return new Counts(open.mods().size(), on, deployed, told ? read : null);
  }

  private List<Step> steps(OpenWorkspace open, List<Wrinkle> found) {
    List<Step> steps = new ArrayList<>();
    int mods = open.mods().size();
    steps.add(
        new Step(
            StepId.LIBRARY,
            mods > 0,
            mods == 0
                ? "Bring in the archives of your mods."
                : count(mods, "mod") + " in the library."));
    long on = open.picture().arrangement().layers().stream().filter(Layer::on).count();
    long inLayers =
        found.stream().filter(w -> w.place() == Place.LAYERS && w.weight() != Weight.HINT).count();
    String layers = count(on, "layer") + " switched on";
    steps.add(
        new Step(
            StepId.LAYERS,
            on > 0 && inLayers == 0,
            on == 0
                ? "Switch on the mods that you want, and put them in order."
                : layers + (inLayers > 0 ? "; " + count(inLayers, "clash") + "." : ".")));
    if (open.game().plugins().isPresent()) {
      long stopping = Troubles.of(open).stream().filter(Troubles.TroubleView::stops).count();
      int plugins = open.picture().loadOrder().active().size();
      steps.add(
          new Step(
              StepId.LOAD_ORDER,
              stopping == 0,
              stopping > 0
                  ? count(stopping, "plugin") + " would stop the game."
                  : count(plugins, "plugin") + ", each after its masters."));
      steps.add(records(open));
    }
    steps.add(deploy(open));
    if (open.game().run().isPresent()) steps.add(testRun(open));
    return steps;
  }

  private Step records(OpenWorkspace open) {
    Map<State, Integer> counts = open.get(COLLISIONS).counts();
    int asked = counts.get(State.NEEDS_YOU), combine = counts.get(State.COMBINES);
    String text = "No record loses a change.";
    if (asked > 0)
      text = count(asked, "record") + " need" + (asked == 1 ? "s" : "") + " a decision.";
    else if (combine > 0) text = count(combine, "record") + " can go into a patch.";
    return new Step(StepId.RECORDS, asked + combine == 0, text);
  }

  private Step deploy(OpenWorkspace open) {
    Count d = deployments.distance(open);
    int files = deployments.laidOut(open).files().size();
    if (d.total() > 0) {
      return new Step(
          StepId.DEPLOY, false, count(d.total(), "file") + " to add, replace or take out.");
    }
    boolean any = files > 0;
    return new Step(
        StepId.DEPLOY,
        any,
        any ? "The game folder is as you arranged it." : "Nothing to deploy yet.");
  }

  private Step testRun(OpenWorkspace open) {
    Optional<Runs.Ended> last = runs.lastEnded(open.workspace());
    String at = deployments.laidOut(open).at();
    if (last.isEmpty())
      return new Step(StepId.TEST_RUN, false, "Start the game and look whether it works.");
    boolean since = at.isEmpty() || !last.get().startedAt().isBefore(OffsetDateTime.parse(at));
    if (!since) return new Step(StepId.TEST_RUN, false, "Not started since the last deployment.");
    if (last.get().outcome() == RunOutcome.ENDED)
      return new Step(
          StepId.TEST_RUN, true, "The last run ended with code 0; what it read cannot be told.");
    boolean well = last.get().outcome() == RunOutcome.PLAYED;
    String fault =
        last.get()
            .summary()
            .flatMap(RunLog.Summary::fault)
            .map(RunLog.Fault::text)
            .or(() -> Optional.of(last.get().saidFault()).filter(said -> !said.isEmpty()))
            .orElse("It stopped.");
    return new Step(StepId.TEST_RUN, well, well ? "The last run went to its end." : fault);
  }

  private static String count(long n, String what) {
    if (n == 1) return "1 " + what;
    return n + " " + what + (what.endsWith("sh") ? "es" : "s");
  }

  private static Makeup makeup(OpenWorkspace open) {
    Standing standing = open.picture().standing();
    int game = 0, mods = 0, covering = 0, mends = 0;
    for (Holdings.Source s : open.picture().holdings().sources()) {
      int alone = standing.count(s.id(), Way.IN_PLAY), over = standing.count(s.id(), Way.COVERING);
      if (s.mod() == Holdings.GAME) game += alone + over;
      else if (open.mods().get(s.mod()).isMend()) mends += alone + over;
      else {
        mods += alone;
        covering += over;
      }
    }
    return new Makeup(game, mods, covering, mends);
  }
}
