package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.combinedfiles.PlaceKind;
import ironing.core.mends.Contest;
import ironing.core.mends.Contests;
import ironing.core.mends.SweepingChoice;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workspace.Changed;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** One answer for all that is still asked of a file, of a folder, or of all files. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/combined-files/settle")
class SweepingChoiceController {
  private final Contests contests;
  private final OpenWorkspaces workspaces;

  SweepingChoiceController(Contests contests, OpenWorkspaces workspaces) {
    this.contests = contests;
    this.workspaces = workspaces;
  }

  /**
   * @param take the id of the mod whose version is taken
   * @param path of one file; absent for all below {@code below}
   * @param below a folder of the game, with all that is in it; absent or empty for all files
   * @param kinds only places of these kinds; absent for all
   * @param carry the id of a mod whose change is carried over; absent to combine all
   */
  record SettleAllRequest(
      String take,
      @MayBeAbsent String path,
      @MayBeAbsent String below,
      @MayBeAbsent Set<PlaceKind> kinds,
      @MayBeAbsent String carry) {
    SettleAllRequest {
      Objects.requireNonNull(take, "take");
    }

    boolean isFor(Contest c) {
      if (path != null) return c.path().equals(path);
      String folder = below == null || below.isEmpty() || below.endsWith("/") ? below : below + "/";
      return folder == null || c.path().startsWith(folder);
    }
  }

  /**
   * @param files in how many files something is settled
   * @param places how many places are
   * @param left how many of the places that are asked there stay so
   */
  record SettledView(long revision, int files, int places, int left) {}

  /** Takes one mod's version at every place that is still asked, as one step of the timeline. */
  @PostMapping
  ResponseEntity<SettledView> settleAll(
      @PathVariable long workspace,
      @RequestBody SettleAllRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    SweepingChoice sweep = sweep(open, body);
    Changed changed =
        workspaces.change(
            workspace,
            Expected.of(dryRun, ifMatch),
            b -> "Settled " + sweep.places() + " places of files by " + body.take(),
            b -> {
              Map<String, FileChoices> all = new TreeMap<>(b.picture().arrangement().fileChoices());
              // all files are combined for it: not twice, where nothing has changed meanwhile
              all.putAll((b.revision() == open.revision() ? sweep : sweep(b, body)).choices());
              return b.picture().arrangement().withFileChoices(all);
            });
    long revision = changed.after().revision();
    return ResponseEntity.ok()
        .eTag(Revision.etag(revision))
        .body(new SettledView(revision, sweep.choices().size(), sweep.places(), sweep.left()));
  }

  private SweepingChoice sweep(OpenWorkspace open, SettleAllRequest body) {
    List<Contest> all =
        body.carry() == null
            ? contests.all(open.value())
            : contests.carried(open.value(), body.carry());
    List<Contest> of = all.stream().filter(body::isFor).toList();
    if (of.stream()
        .noneMatch(c -> c.contenders().stream().anyMatch(s -> s.id().equals(body.take()))))
      throw IroningException.of(
          "not-a-side",
          body.take(),
          "No mod of this id changes any of these files.",
          "Take one of those that do.");
    return SweepingChoice.of(
        open.value(), contests, of, body.take(), body.kinds() == null ? Set.of() : body.kinds());
  }
}
