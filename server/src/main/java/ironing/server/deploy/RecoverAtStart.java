package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.server.workbench.Workbenches;
import ironing.server.workbench.WorkspaceIds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/**
 * Before the first request: what a crash left half done in a game folder is finished or cleared.
 */
@Component
class RecoverAtStart implements ApplicationRunner {
  private static final Logger LOG = LoggerFactory.getLogger(RecoverAtStart.class);
  private final WorkspaceIds workspaces;
  private final Workbenches benches;
  private final Deployments deployments;

  RecoverAtStart(WorkspaceIds workspaces, Workbenches benches, Deployments deployments) {
    this.workspaces = workspaces;
    this.benches = benches;
    this.deployments = deployments;
  }

  @Override
  public void run(ApplicationArguments args) {
    for (long w : workspaces.all()) {
      try {
        deployments.recover(benches.get(w));
      } catch (IroningException e) {
        // one game on a drive that is not connected must not keep the others from being served
        LOG.warn("workspace {}: {}", w, e.getMessage());
      }
    }
  }
}
