package ironing.server.deploy;

import ironing.server.workspace.OpenWorkspace;

/** What has to be known before the game’s own files go back to where files of mods lay. */
public interface BeforeUndeploying {
  /**
   * @throws ironing.core.IroningException naming the files of which it is not known whether the
   *     game has them still
   */
  void require(OpenWorkspace open);
}
