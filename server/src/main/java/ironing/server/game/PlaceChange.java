package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.Markers;
import ironing.core.drift.Drift.Own;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.path.GameRoots;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Folders;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.GameFiles;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Gives places of a game other folders, and takes the files in as the unmodded game's that lie in
 * what is new. Nothing may be deployed in a place meanwhile.
 */
@Component
class PlaceChange {
  private final Places places;
  private final GameFiles own;
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;
  private final FolderUse use;
  private final Jobs jobs;

  PlaceChange(
      Places places,
      GameFiles own,
      OpenWorkspaces workspaces,
      Deployments deployments,
      FolderUse use,
      Jobs jobs) {
    this.places = places;
    this.own = own;
    this.workspaces = workspaces;
    this.deployments = deployments;
    this.use = use;
    this.jobs = jobs;
  }

  /**
   * What is to be written for it.
   *
   * @param left tops that are no places any more, or lie elsewhere now
   * @param found the unmodded files of those that are new
   */
  record Change(GameRoots from, GameRoots to, List<String> left, List<Own> found) {
    boolean isNone() {
      return from.equals(to);
    }
  }

  /**
   * Says which folder a place is.
   *
   * @throws IroningException with code {@code not-found}, {@code place-wrong} or {@code
   *     place-in-use}
   */
  Job say(long workspace, String place, String folder) {
    OpenWorkspace open = workspaces.get(workspace);
    if (open.game().places().stream().noneMatch(p -> p.id().equals(place)))
      throw IroningException.of(
          "not-found", place, "The game has no such place.", "Choose one from the list.");
    Map<String, String> named = Map.of(place, Folders.named(folder).toString());
    requireSettled(open, open.game(), named);
    use.requireStill(open);
    return jobs.start(
        workspace,
        Lane.GAME,
        "place",
        "Look at " + folder,
        p -> {
          OpenWorkspace now = workspaces.get(workspace);
          Change change = of(now, open.game(), named, p);
          workspaces.changeLibrary(
              workspace,
              "Said where “" + place + "” lies",
              LibraryChange.BESIDE,
              () -> {
                write(workspace, change);
                return 0;
              });
          return null;
        });
  }

  private GameRoots settled(OpenWorkspace open, GameDefinition game, Map<String, String> named) {
    return places.settled(
        game, open.gameFolder(), open.roots().places(), named, Optional.of(open.workspace()));
  }

  /**
   * @throws IroningException for all that {@link #of} would refuse
   */
  void requireSettled(OpenWorkspace open, GameDefinition game, Map<String, String> named) {
    requireFree(open, settled(open, game, named));
  }

  /**
   * A folder that was moved with what is deployed in it is the same place.
   *
   * @throws IroningException with code {@code place-in-use} when something is deployed in a place
   *     that would be another
   */
  private void requireFree(OpenWorkspace open, GameRoots to) {
    if (open.roots().equals(to)) return;
    LaidOut note = deployments.laidOut(open);
    Optional<String> there =
        note.files().keySet().stream().filter(p -> p.startsWith("@")).findFirst();
    if (there.isEmpty() || isMoved(open.roots(), to)) return;
    throw IroningException.of(
        "place-in-use",
        there.get(),
        "Mods are deployed in a place of this game, and what is noted of them would lead elsewhere.",
        "Undeploy first; then say where the place is, and deploy again.");
  }

  private static boolean isMoved(GameRoots from, GameRoots to) {
    if (!from.places().keySet().equals(to.places().keySet())) return false;
    for (String id : from.places().keySet()) {
      boolean same = from.places().get(id).equals(to.places().get(id));
      boolean moved = !Files.exists(from.places().get(id)) && Markers.isDeployedTo(to, id);
      if (!same && !moved) return false;
    }
    return true;
  }

  /**
   * What another definition, or another folder, makes of the places; nothing is written.
   *
   * @param named folders by place, beside those that are known
   */
  Change of(
      OpenWorkspace open, GameDefinition game, Map<String, String> named, Jobs.Progress progress) {
    GameRoots from = open.roots(), to = settled(open, game, named);
    requireFree(open, to);
    List<String> left = new ArrayList<>(), fresh = new ArrayList<>();
    for (String top : from.tops()) if (!top.isEmpty() && !isSame(from, to, top)) left.add(top);
    for (String top : to.tops()) if (!top.isEmpty() && !isSame(from, to, top)) fresh.add(top);
    try {
      List<Own> found =
          Workspaces.unmodded(
              to,
              deployments.laidOut(open),
              GameFolder.scan(to, fresh, n -> progress.at(n, n, "files")));
      return new Change(from, to, left, found);
    } catch (IOException e) {
      throw DiskTrouble.of(to, e);
    }
  }

  private static boolean isSame(GameRoots from, GameRoots to, String top) {
    String id = top.substring(1);
    return from.places().containsKey(id) && from.places().get(id).equals(to.places().get(id));
  }

  /** Inside the caller’s transaction. */
  void write(long workspace, Change change) {
    if (change.isNone()) return;
    for (String top : change.left()) own.forgetPlace(workspace, top);
    boolean before = !change.from().places().isEmpty(), after = !change.to().places().isEmpty();
    if (before != after) own.respell(workspace, after);
    own.add(workspace, change.found(), List.of());
    places.keep(workspace, change.to());
  }
}
