package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.server.job.Jobs;

/** Has the files of a mod as they were installed. */
public interface ModRepair {
  /** Whether a mod came in an archive, which is kept. */
  boolean can(long workspace, long mod);

  /**
   * Makes the files of one mod anew from its archive, at once.
   *
   * @throws IroningException with codes {@code no-archive} or {@code other-bytes}
   */
  void again(long workspace, long mod, Jobs.Progress progress);
}
