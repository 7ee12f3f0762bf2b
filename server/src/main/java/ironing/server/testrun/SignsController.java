package ironing.server.testrun;

import ironing.core.IroningException;
import ironing.core.library.Sign;
import ironing.core.trouble.SignCheck.Seen;
import ironing.server.platform.MayBeAbsent;
import ironing.server.testrun.Signs.Checked;
import ironing.server.testrun.Signs.Checklist;
import ironing.server.testrun.Signs.OfMod;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What shows in the game that mods work. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/signs")
class SignsController {
  private static final int LONGEST_TEXT = 500;
  private final Signs signs;
  private final OpenWorkspaces workspaces;

  SignsController(Signs signs, OpenWorkspaces workspaces) {
    this.signs = signs;
    this.workspaces = workspaces;
  }

  /**
   * A sign, and what the last run has shown of it.
   *
   * @param own its number, where you have written it; absent for one of the mod’s card
   * @param kind by what it is told
   * @param says in a sentence
   * @param what the name of a report, a file of the mod, or where to look
   * @param place of a sign to look for, where one goes for it; empty for others
   * @param wanted the value that is to be reported, with its unit; empty where any will do
   * @param is that value alone; absent where any will do
   * @param found what was reported; empty for nothing
   * @param path of a file, where it lies in the game folder; empty for others, and for one that the
   *     mod does not have
   * @param seen whether it was seen
   */
  record SignView(
      @MayBeAbsent Long own,
      Sign.Kind kind,
      String says,
      String what,
      String place,
      String wanted,
      @MayBeAbsent String is,
      String found,
      String path,
      Seen seen) {
    static SignView of(Checked c) {
      Sign s = c.sign();
      return new SignView(
          c.own() == 0 ? null : c.own(),
          s.kind(),
          s.says(),
          s.what(),
          s.kind() == Sign.Kind.LOOK ? s.place() : "",
          s.is().map(v -> (v + " " + s.unit().orElse("")).strip()).orElse(""),
          s.is().orElse(null),
          c.found(),
          c.path(),
          c.seen());
    }
  }

  /**
   * A mod that is on, and what the last run has shown of it.
   *
   * @param name what it is called
   * @param inGame whether something of it lies in the game folder
   * @param signs of its card and yours
   * @param read how many of its files in play the run has read
   * @param files how many it has in play
   * @param slots the slots of its plugins, by name
   */
  record SignsOfMod(
      long mod,
      String name,
      boolean inGame,
      List<SignView> signs,
      int read,
      int files,
      Map<String, Integer> slots) {
    static SignsOfMod of(OfMod m) {
      return new SignsOfMod(
          m.mod(),
          m.name(),
          m.inGame(),
          m.signs().stream().map(SignView::of).toList(),
          m.read(),
          m.files(),
          m.slots());
    }
  }

  /**
   * The checklist of the last run.
   *
   * @param run its number; absent where the game was not played yet
   * @param mods in layer order
   */
  record ChecklistView(@MayBeAbsent Long run, List<SignsOfMod> mods) {}

  /**
   * A sign of yours.
   *
   * @param kind by what it is told
   * @param says in a sentence
   * @param what the name of a report, a file as it lies in the mod, or where to look
   * @param is the value that is to be reported; absent where any will do
   * @param unit that the report is to have; absent where any will do
   */
  record SignRequest(
      long mod,
      Sign.Kind kind,
      String says,
      String what,
      @MayBeAbsent String is,
      @MayBeAbsent String unit) {
    Sign sign() {
      boolean empty = says.isBlank() || what.isBlank();
      if (empty || says.length() > LONGEST_TEXT || what.length() > LONGEST_TEXT)
        throw IroningException.of(
            "sign-invalid",
            says.isBlank() ? "The sign" : says.substring(0, Math.min(says.length(), 40)),
            empty
                ? "It does not say what shows, or by what that is told."
                : "One of its texts is longer than " + LONGEST_TEXT + " letters.",
            "Write a sentence, and the name of a report, a file of the mod, or where to look.");
      return new Sign(
          kind, says.strip(), what.strip(), Optional.ofNullable(is), Optional.ofNullable(unit));
    }
  }

  /**
   * What you have seen.
   *
   * @param says the sign
   * @param seen whether you have seen it; absent for not looked yet
   */
  record SignTickRequest(long mod, String says, @MayBeAbsent Optional<Boolean> seen) {}

  /** What the last run has shown of each mod that is on. */
  @GetMapping
  ChecklistView signs(@PathVariable long workspace) {
    Checklist list = signs.of(workspaces.get(workspace));
    return new ChecklistView(
        list.run() == 0 ? null : list.run(), list.mods().stream().map(SignsOfMod::of).toList());
  }

  /** Writes a sign of yours down for a mod. */
  @PostMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void addSign(@PathVariable long workspace, @RequestBody SignRequest body) {
    signs.add(workspaces.get(workspace), body.mod(), body.sign());
  }

  /** Takes a sign of yours away. */
  @DeleteMapping("/{sign}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeSign(@PathVariable long workspace, @PathVariable long sign) {
    signs.remove(workspaces.get(workspace), sign);
  }

  /** Says whether you have seen a sign to look for, in the last run. */
  @PutMapping("/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tickSign(@PathVariable long workspace, @RequestBody SignTickRequest body) {
    signs.tick(workspaces.get(workspace), body.mod(), body.says(), body.seen());
  }
}
