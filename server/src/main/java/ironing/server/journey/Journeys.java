package ironing.server.journey;

import ironing.core.deploy.LaidOut;
import ironing.core.journey.Journey;
import ironing.core.run.RunLog;
import ironing.server.deploy.Deployments;
import ironing.server.platform.MayBeAbsent;
import ironing.server.run.Runs;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Memory;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Works out journeys, and keeps the last one of each workspace while nothing behind it changes. */
@Component
public class Journeys {
  private static final long BYTES_OF_A_PATH = 16;

  private final Deployments deployments;
  private final Runs runs;
  private final Memory.Kept<Known> known;

  private record Known(Bench bench, LaidOut laidOut, RunLog.Summary run, Journey journey) {}

  Journeys(Deployments deployments, Runs runs, Memory memory) {
    this.known = memory.keeping(k -> BYTES_OF_A_PATH * k.bench().picture().holdings().pathCount());
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
      Journey.Reached reached, int inPlay, int deployed, @MayBeAbsent Integer read) {
    static ModJourney of(Journey.OfMod m) {
      return new ModJourney(m.reached(), m.inPlay(), m.deployed(), m.read().orElse(null));
    }
  }

  /**
   * How far a plugin has come.
   *
   * @param slot in which the last run read it
   */
  public record PluginJourney(Journey.Reached reached, @MayBeAbsent Integer slot) {
    static PluginJourney of(Journey.OfPlugin p) {
      return new PluginJourney(p.reached(), p.slot().orElse(null));
    }
  }

  /** The journeys of one state of a workspace. */
  public record Ways(Journey journey) {
    public ModJourney mod(long mod) {
      return ModJourney.of(journey.mod(mod));
    }

    public PluginJourney plugin(String name) {
      return PluginJourney.of(journey.plugin(name));
    }
  }

  public Ways of(Bench bench) {
    return new Ways(journey(bench));
  }

  @SuppressWarnings("ReferenceEquality")
  private Journey journey(Bench bench) {
    LaidOut laidOut = deployments.laidOut(bench);
    RunLog.Summary run = runs.lastSummary(bench.workspace()).orElse(null);
    return known
        .of(
            bench.workspace(),
            k -> {
              boolean noted = k != null && k.laidOut() == laidOut && k.run() == run;
              if (noted && k.bench() == bench) return k;
              boolean listed = deployments.listDeployed(bench);
              Journey next =
                  noted && k.journey().leadsTo(bench.picture())
                      ? k.journey().rearranged(bench.picture(), listed)
                      : new Journey(bench.picture(), laidOut, Optional.ofNullable(run), listed);
              return new Known(bench, laidOut, run, next);
            })
        .journey();
  }
}
