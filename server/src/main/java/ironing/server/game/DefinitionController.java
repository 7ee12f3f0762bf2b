package ironing.server.game;

import ironing.core.Problem;
import ironing.server.game.WorkspacesController.MatchView;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The definition of a workspace's game: what it is, and changing it. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/definition")
class DefinitionController {
  private static final int SHOWN = 200;
  private final Redefinition redefinition;
  private final Jobs jobs;

  DefinitionController(Redefinition redefinition, Jobs jobs) {
    this.redefinition = redefinition;
    this.jobs = jobs;
  }

  /**
   * @param definition the text of a game.yaml
   */
  record DefinitionText(String definition) {
    DefinitionText {
      Objects.requireNonNull(definition, "definition");
    }
  }

  /**
   * A mod that would be installed otherwise.
   *
   * @param more how many game paths it would bring anew; {@code gone} how many no longer
   * @param asIs why it stays as it is all the same; absent where it is installed anew
   */
  record OtherwiseView(long mod, String name, int more, int gone, @MayBeAbsent String asIs) {}

  /**
   * What another definition would change.
   *
   * @param matches what each part of it matches in the unmodded game
   * @param mods those that would be installed otherwise
   * @param more the first game paths that mods whose layers are on would bring anew, of {@code
   *     moreInAll}
   * @param gone the first that they would bring no longer, of {@code goneInAll}
   * @param newPlugins file names that the load order would gain
   * @param gonePlugins file names that it would lose
   * @param places beside the game’s folder that are not known of it yet
   */
  record DefinitionLook(
      String title,
      List<Problem> warnings,
      List<MatchView> matches,
      List<OtherwiseView> mods,
      int moreInAll,
      List<String> more,
      int goneInAll,
      List<String> gone,
      List<String> newPlugins,
      List<String> gonePlugins,
      List<GamePlaceView> places) {}

  /**
   * @param definition the text of a game.yaml
   * @param places folders of places that are new, by their ids; for those that are absent the one
   *     that is found
   */
  record DefinitionRequest(String definition, @MayBeAbsent Map<String, String> places) {
    DefinitionRequest {
      Objects.requireNonNull(definition, "definition");
    }
  }

  /** The definition that holds now. */
  @GetMapping
  DefinitionText definition(@PathVariable long workspace) {
    return new DefinitionText(redefinition.text(workspace));
  }

  /** What another definition would change. Changes nothing. */
  @PostMapping("/look")
  DefinitionLook lookAtDefinition(@PathVariable long workspace, @RequestBody DefinitionText body) {
    Redefinition.Look l = redefinition.look(workspace, body.definition());
    return new DefinitionLook(
        l.game().title(),
        l.warnings(),
        l.preview().parts().stream()
            .map(p -> new MatchView(p.what(), p.name(), p.count(), p.first()))
            .toList(),
        l.mods().stream()
            .map(
                o ->
                    new OtherwiseView(
                        o.mod(), o.name(), o.more().size(), o.gone().size(), o.asIs().orElse(null)))
            .toList(),
        l.more().size(),
        first(l.more()),
        l.gone().size(),
        first(l.gone()),
        first(l.newPlugins()),
        first(l.gonePlugins()),
        l.places().stream().map(GamePlaceView::of).toList());
  }

  private static List<String> first(Collection<String> all) {
    return all.stream().limit(SHOWN).toList();
  }

  /** Takes another definition, and installs anew what it installs otherwise. */
  @PutMapping
  ResponseEntity<Job> changeDefinition(
      @PathVariable long workspace,
      @RequestBody DefinitionRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs,
        redefinition.change(workspace, body.definition(), GamePlaceView.named(body.places())),
        prefer);
  }
}
