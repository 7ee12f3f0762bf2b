package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Site;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;

/**
 * Before the first request: what a crash left half done in a game folder is finished or cleared.
 * For that the files of the mods need not be read.
 */
@Component
class RecoverAtStart implements SmartInitializingSingleton {
  private static final Logger LOG = LoggerFactory.getLogger(RecoverAtStart.class);
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;
  private final OwnSaves saves;

  RecoverAtStart(OpenWorkspaces workspaces, Deployments deployments, OwnSaves saves) {
    this.workspaces = workspaces;
    this.deployments = deployments;
    this.saves = saves;
  }

  @Override
  public void afterSingletonsInstantiated() {
    for (long w : workspaces.all()) {
      try {
        Site site = workspaces.site(w);
        deployments.recover(site);
        saves.recover(site);
      } catch (IroningException e) {
        // one game on a drive that is not connected must not keep the others from being served
        LOG.warn("workspace {}: {}", w, e.getMessage());
      }
    }
  }
}
