package ironing.server.progress;

import ironing.core.deploy.LaidOut;
import ironing.core.progress.Progress;
import ironing.core.testrun.RunLog;
import ironing.server.deploy.Deployments;
import ironing.server.platform.MayBeAbsent;
import ironing.server.testrun.Runs;
import ironing.server.workspace.Memory;
import ironing.server.workspace.OpenWorkspace;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Works out journeys, and keeps the last one of each workspace while nothing behind it changes. */
@Component
public class KnownProgress {
  private static final long BYTES_OF_A_PATH = 16;

  private final Deployments deployments;
  private final Runs runs;
  private final Memory.Kept<Known> known;

  private record Known(OpenWorkspace open, LaidOut laidOut, RunLog.Summary run, Progress journey) {}

  KnownProgress(Deployments deployments, Runs runs, Memory memory) {
    this.known = memory.keeping(k -> BYTES_OF_A_PATH * k.open().picture().holdings().pathCount());
    this.deployments = deployments;
    this.runs = runs;
  }

  /**
   * How far a mod has come, as every list shows it.
   *
   * @param inPlay files that the game should see
   * @param deployed of these, those that lie in the game folder
   * @param read of these, those that the last run read; absent when it cannot be told
   */
  public record ModJourney(
      Progress.Reached reached, int inPlay, int deployed, @MayBeAbsent Integer read) {
    static ModJourney of(Progress.OfMod m) {
      return new ModJourney(m.reached(), m.inPlay(), m.deployed(), m.read().orElse(null));
    }
  }

  /**
   * How far a plugin has come.
   *
   * @param slot in which the last run read it
   */
  public record PluginJourney(Progress.Reached reached, @MayBeAbsent Integer slot) {
    static PluginJourney of(Progress.OfPlugin p) {
      return new PluginJourney(p.reached(), p.slot().orElse(null));
    }
  }

  /** The journeys of one state of a workspace. */
  public record Ways(Progress journey) {
    public ModJourney mod(long mod) {
      return ModJourney.of(journey.mod(mod));
    }

    public PluginJourney plugin(String name) {
      return PluginJourney.of(journey.plugin(name));
    }
  }

  public Ways of(OpenWorkspace open) {
    return new Ways(journey(open));
  }

  @SuppressWarnings("ReferenceEquality")
  private Progress journey(OpenWorkspace open) {
    LaidOut laidOut = deployments.laidOut(open);
    RunLog.Summary run = runs.lastSummary(open.workspace()).orElse(null);
    return known
        .of(
            open.workspace(),
            k -> {
              boolean noted = k != null && k.laidOut() == laidOut && k.run() == run;
              if (noted && k.open() == open) return k;
              boolean listed = deployments.listDeployed(open);
              Progress next =
                  noted && k.journey().leadsTo(open.picture())
                      ? k.journey().rearranged(open.picture(), listed)
                      : new Progress(open.picture(), laidOut, Optional.ofNullable(run), listed);
              return new Known(open, laidOut, run, next);
            })
        .journey();
  }
}
