package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.LaidOut;
import ironing.server.deploy.HistoryMapper.DeploymentRow;
import ironing.server.deploy.HistoryMapper.WholeRow;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Notes what is done to game folders, and goes back to how things were arranged then. */
@Component
class History {
  private static final Logger LOG = LoggerFactory.getLogger(History.class);
  private static final int PACE_OF = 10;
  private final HistoryMapper db;
  private final Profiles profiles;
  private final OpenWorkspaces workspaces;

  History(HistoryMapper db, Profiles profiles, OpenWorkspaces workspaces) {
    this.db = db;
    this.profiles = profiles;
    this.workspaces = workspaces;
  }

  /** Something that is done to a folder. */
  interface Work {
    /** Carries a plan out that was made for it. */
    LaidOut run(Outcome outcome);
  }

  /** What the work has planned, for the note. */
  static final class Outcome {
    private DeployPlan plan;

    DeployPlan planned(DeployPlan plan) {
      this.plan = plan;
      return plan;
    }

    private int put() {
      return plan == null
          ? 0
          : (int) plan.steps().stream().filter(s -> s.wanted().isPresent()).count();
    }

    private int takenOut() {
      return plan == null ? 0 : (int) (plan.count(Act.TAKE_OUT) + plan.count(Act.PUT_BACK));
    }
  }

  /** Does it, and notes how it went. */
  void noting(OpenWorkspace open, String kind, Work work) {
    long id =
        db.begin(
            open.workspace(), open.profile(), kind, profiles.written(open.picture().arrangement()));
    long began = System.nanoTime();
    Outcome outcome = new Outcome();
    String result = "failed", why = "";
    int files = 0;
    try {
      files = work.run(outcome).files().size();
      result = "done";
    } catch (CancellationException cancelled) {
      result = "cancelled";
      throw cancelled;
    } catch (IroningException told) {
      why = told.getMessage();
      throw told;
    } finally {
      boolean done = result.equals("done");
      long ms = (System.nanoTime() - began) / 1_000_000;
      try {
        db.end(id, ms, result, done ? outcome.put() : 0, done ? outcome.takenOut() : 0, files, why);
      } catch (RuntimeException gone) {
        // the folder is as its own note says, whatever is told of it here
        LOG.warn("the end of deployment {} is not in the history: {}", id, gone.toString());
      }
    }
  }

  /** How long so many steps would take, by the pace of the last deployments; empty before any. */
  Optional<Long> expectedMs(OpenWorkspace open, int steps) {
    long ms = 0, done = 0;
    for (DeploymentRow r : db.latest(open.workspace(), PACE_OF)) {
      if (!r.result().equals("done") || r.tookMs() == null) continue;
      ms += r.tookMs();
      done += r.put() + r.takenOut();
    }
    if (done == 0) return Optional.empty();
    return Optional.of(ms * steps / done);
  }

  Optional<WholeRow> lastWholeSince(long workspace, OffsetDateTime since) {
    return Optional.ofNullable(db.lastWholeSince(workspace, since));
  }

  long lastWhole(long workspace) {
    return db.lastWhole(workspace);
  }

  /** The newest first. */
  List<DeploymentRow> latest(OpenWorkspace open, int limit) {
    return db.latest(open.workspace(), limit);
  }

  /**
   * Arranges the profile as it was when something was deployed; one step, which can be undone.
   *
   * @throws IroningException with code {@code not-found} when it was made with another profile
   */
  OpenWorkspace goBack(long workspace, long id, Expected expected) {
    OpenWorkspace open = workspaces.get(workspace);
    String text = db.arrangement(workspace, id, open.profile());
    if (text == null)
      throw IroningException.of(
          "not-found",
          "Deployment " + id,
          "There is no such deployment with the profile " + open.profileName() + ".",
          "Use the profile that it was made with, or choose another from the list.");
    return workspaces
        .change(
            workspace,
            expected,
            b -> "Went back to what was deployed earlier",
            b -> profiles.read(b, text))
        .after();
  }
}
