package ironing.server.game;

import ironing.core.IroningException;
import ironing.server.deploy.BeforeUndeploying;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.LibraryRemoval;
import ironing.server.platform.Events;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Deletes workspaces: the game goes back to what it was, and the library goes with them. */
@Component
class Removal {
  private static final long LOOK_ENDS_MS = 60_000;

  private final WorkspaceMapper db;
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;
  private final BeforeUndeploying before;
  private final LibraryRemoval library;
  private final KnownWorkspaces known;
  private final FolderUse use;
  private final Jobs jobs;
  private final Events events;

  Removal(
      WorkspaceMapper db,
      OpenWorkspaces workspaces,
      Deployments deployments,
      BeforeUndeploying before,
      LibraryRemoval library,
      KnownWorkspaces known,
      FolderUse use,
      Jobs jobs,
      Events events) {
    this.db = db;
    this.workspaces = workspaces;
    this.deployments = deployments;
    this.before = before;
    this.library = library;
    this.known = known;
    this.use = use;
    this.jobs = jobs;
    this.events = events;
  }

  /**
   * What deleting a workspace would do.
   *
   * @param folder of the game
   * @param folderThere whether it can be undeployed: its folder is there, and so are its places
   * @param deployed files that are taken out of it first
   * @param profiles of the workspace, with all their arrangements
   * @param settings copies of settings that belong to profiles; they are written to {@code
   *     .ironing/settings} of the game folder
   * @param libraryFolder that is removed
   * @param archives in it, those in the bin too; of {@code archiveBytes} in all
   * @param archivesTo the folder in which they would be kept; absent where there are none
   */
  record RemovalView(
      String title,
      String folder,
      boolean folderThere,
      int deployed,
      int profiles,
      int settings,
      String libraryFolder,
      int mods,
      int archives,
      long archiveBytes,
      @MayBeAbsent String archivesTo) {}

  RemovalView look(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    LibraryRemoval.Holds holds = library.holds(workspace);
    return new RemovalView(
        open.title(),
        open.gameFolder().toString(),
        isThere(open),
        deployments.laidOut(open).files().size(),
        db.profiles(workspace),
        deployments.settingsCopies(open),
        holds.folder(),
        holds.mods(),
        holds.archives(),
        holds.archiveBytes(),
        holds.archives() == 0 ? null : library.keptArchives(workspace).toString());
  }

  /**
   * Undeploys, then deletes.
   *
   * @param keepArchives whether its archives stay on the disk
   * @param leaveFolder whether to go on where the game folder is gone, so that nothing can be taken
   *     out of it
   * @param bringBack whether files come back of which it is not known whether an update has removed
   *     them
   */
  Job remove(long workspace, boolean keepArchives, boolean leaveFolder, boolean bringBack) {
    OpenWorkspace open = workspaces.get(workspace);
    requireReachable(open, leaveFolder);
    if (!bringBack && isThere(open)) before.require(open);
    use.requireStill(open);
    for (Job job : jobs.of(workspace))
      if (job.state() == Job.State.RUNNING && !jobs.isLook(job.id())) throw busy(open, job);
    return jobs.start(
        workspace,
        Lane.GAME,
        "remove-workspace",
        "Delete " + open.title(),
        p -> removeNow(workspace, keepArchives, leaveFolder, p));
  }

  private static IroningException busy(OpenWorkspace open, Job job) {
    return IroningException.of(
        "busy", open.title(), "“" + job.title() + "” is not done yet.", "Wait for it, or stop it.");
  }

  // what comes of a look at an archive is of no use any more
  private void endLooks(long workspace, OpenWorkspace open) {
    List<Job> looks =
        jobs.of(workspace).stream()
            .filter(j -> j.state() == Job.State.RUNNING && jobs.isLook(j.id()))
            .toList();
    looks.forEach(look -> jobs.cancel(look.id()));
    for (Job look : looks)
      if (jobs.await(look.id(), LOOK_ENDS_MS).state() == Job.State.RUNNING) throw busy(open, look);
  }

  private static void requireReachable(OpenWorkspace open, boolean leaveFolder) {
    if (leaveFolder) return;
    Optional<Path> gone = gone(open);
    if (gone.isEmpty()) return;
    throw IroningException.of(
        "game-folder-missing",
        gone.get().toString(),
        "It is not there, so that what is deployed in it cannot be taken out.",
        "Connect its drive; or delete the workspace and leave the folder as it is.");
  }

  private static boolean isThere(OpenWorkspace open) {
    return gone(open).isEmpty();
  }

  /** Of the game's folder and the places beside it one that is not there. */
  private static Optional<Path> gone(OpenWorkspace open) {
    return open.roots().tops().stream()
        .map(open::at)
        .filter(folder -> !Files.isDirectory(folder))
        .findFirst();
  }

  private Long removeNow(
      long workspace, boolean keepArchives, boolean leaveFolder, Jobs.Progress progress) {
    OpenWorkspace open = workspaces.get(workspace);
    requireReachable(open, leaveFolder);
    endLooks(workspace, open);
    boolean there = isThere(open);
    Path keep =
        keepArchives && library.holds(workspace).archives() > 0
            ? library.keptArchives(workspace)
            : null;
    if (there) use.begin(open, FolderUse.Use.CHANGING);
    try {
      if (there && !deployments.laidOut(open).files().isEmpty())
        deployments.undeployNow(workspace, progress);
      if (there) deployments.writeSettingsCopies(open);
      library.remove(
          workspace,
          keep,
          () -> workspaces.remove(workspace, () -> db.remove(workspace)),
          progress);
    } finally {
      if (there) use.end(workspace);
    }
    known.forget(workspace);
    events.tell(workspace, "workspace-removed", Map.of());
    return null;
  }
}
