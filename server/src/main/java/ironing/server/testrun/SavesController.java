package ironing.server.testrun;

import ironing.core.IroningException;
import ironing.server.deploy.OwnSaves;
import ironing.server.testrun.Saves.Save;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Saves of the game, and the plugins that they were made with. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/saves")
class SavesController {
  private final Saves saves;
  private final OwnSaves own;
  private final OpenWorkspaces workspaces;

  SavesController(Saves saves, OwnSaves own, OpenWorkspaces workspaces) {
    this.saves = saves;
    this.own = own;
    this.workspaces = workspaces;
  }

  /**
   * What one profile has.
   *
   * @param inFolder whether they lie in the game folder; else they are kept until the game is
   *     started with that profile
   * @param inUse whether it is the profile in use
   * @param deleted whether the profile is no more
   */
  record SavesOfProfile(
      long profile, String name, int count, boolean inFolder, boolean inUse, boolean deleted) {}

  /**
   * @param own whether each profile of this game has saves of its own
   * @param profiles those that have any, and the one in use; none where they are shared
   */
  record SavesOfProfiles(boolean own, List<SavesOfProfile> profiles) {}

  /**
   * @param from the profile whose saves are copied to the one in use
   */
  record CopySaves(long from) {}

  /**
   * @param copied how many; what the profile in use has by the same name stays as it is
   */
  record SavesCopied(int copied) {}

  /** The saves of each profile. */
  @GetMapping("/profiles")
  SavesOfProfiles savesOfProfiles(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return new SavesOfProfiles(
        own.has(open),
        own.all(open).stream()
            .map(
                p ->
                    new SavesOfProfile(
                        p.profile().id(),
                        p.profile().name(),
                        p.count(),
                        p.inFolder(),
                        p.profile().id() == open.profile(),
                        p.profile().deleted()))
            .toList());
  }

  /** Copies saves of another profile into the one in use. */
  @PostMapping("/copies")
  SavesCopied copySaves(@PathVariable long workspace, @RequestBody CopySaves asked) {
    OpenWorkspace open = workspaces.get(workspace);
    boolean known = own.all(open).stream().anyMatch(p -> p.profile().id() == asked.from());
    if (!known || asked.from() == open.profile())
      throw IroningException.of(
          "not-found",
          "Profile " + asked.from(),
          "No other profile of this workspace with that number has saves of its own.",
          "Ask for the saves of the profiles, and name one that has some.");
    return new SavesCopied(own.copy(open, asked.from()));
  }

  /**
   * Saves, the newest first.
   *
   * @param plugin only those that were made with one of these; none for all
   */
  @GetMapping
  List<Save> saves(
      @PathVariable long workspace, @RequestParam(defaultValue = "") List<String> plugin)
      throws IOException {
    List<String> wanted = plugin.stream().filter(p -> !p.isEmpty()).toList();
    return wanted.isEmpty()
        ? saves.of(workspaces.get(workspace))
        : saves.madeWith(workspaces.get(workspace), wanted);
  }
}
