package ironing.server.gameversion;

import ironing.core.gameversion.ModStanding.State;
import ironing.core.version.ModVersion;
import ironing.server.gameversion.ModStandings.OfMods;
import ironing.server.gameversion.ModStandings.Said;
import ironing.server.gameversion.ModStandings.Standings;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How the mods stand with the version of the game. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/game-version/mods")
class ModStandingsController {
  private final ModStandings standings;
  private final OpenWorkspaces workspaces;

  ModStandingsController(ModStandings standings, OpenWorkspaces workspaces) {
    this.standings = standings;
    this.workspaces = workspaces;
  }

  /**
   * How the mods stand.
   *
   * @param game its version; absent where it tells none
   * @param since when that version was taken in; absent where it was so from the start
   * @param mods in the order of their layers
   */
  record StandingsView(
      @MayBeAbsent String game, @MayBeAbsent String since, List<ModStandingView> mods) {}

  /**
   * How one mod stands.
   *
   * @param essential whether you cannot do without it
   * @param reason of the state, in words
   * @param comes the version in a catalogue that is for the game, where this one is not; absent for
   *     none
   * @param waitsFor the point of the playthrough at which you want it on; empty for none
   */
  record ModStandingView(
      long mod,
      String name,
      String version,
      boolean on,
      boolean essential,
      State state,
      String reason,
      @MayBeAbsent String comes,
      String waitsFor) {
    static ModStandingView of(OfMods m) {
      return new ModStandingView(
          m.mod().id(),
          m.mod().card().name(),
          m.version(),
          m.on(),
          m.essential(),
          m.standing().state(),
          m.standing().reason(),
          m.standing().comes().map(ModVersion::toString).orElse(null),
          m.waitsFor());
    }
  }

  /**
   * What you say of a mod.
   *
   * @param essential whether you cannot do without it
   * @param said of the version of the game that is here
   * @param waitsFor the point of the playthrough that it waits for; empty for none
   */
  record GameWordRequest(boolean essential, Said said, String waitsFor) {
    GameWordRequest {
      Objects.requireNonNull(said, "said");
      Objects.requireNonNull(waitsFor, "waitsFor");
    }
  }

  /** How each mod in use stands with the version of the game. */
  @GetMapping
  StandingsView standings(@PathVariable long workspace) {
    Standings s = standings.of(workspaces.get(workspace));
    return new StandingsView(
        s.game().orElse(null),
        s.since().orElse(null),
        s.mods().stream().map(ModStandingView::of).toList());
  }

  /** Says how a mod stands, whatever else is known. */
  @PutMapping("/{mod}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void sayStanding(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody GameWordRequest body) {
    standings.say(workspaces.get(workspace), mod, body.essential(), body.said(), body.waitsFor());
  }
}
