package ironing.server.library;

import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.IroningException;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.library.Choices;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.ModCard;
import ironing.core.library.Reading;
import ironing.core.path.GamePath;
import ironing.server.library.Installer.Part;
import ironing.server.library.Intake.Plan;
import ironing.server.library.IntakeViews.Gets;
import ironing.server.library.IntakeViews.Here;
import ironing.server.library.IntakeViews.IntakeView;
import ironing.server.library.IntakeViews.MountView;
import ironing.server.library.IntakeViews.Page;
import ironing.server.library.IntakeViews.PartRequest;
import ironing.server.library.IntakeViews.StaysOut;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.ModStore.Place;
import ironing.server.library.Staging.Staged;
import ironing.server.platform.Rows;
import ironing.server.platform.Served;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the game would get from an archive. Nothing here writes anything. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/archives/{archive}")
class IntakeController {
  private final Archives archives;
  private final Staging staging;
  private final Intake intake;
  private final Versions versions;
  private final OpenWorkspaces workspaces;

  IntakeController(
      Archives archives,
      Staging staging,
      Intake intake,
      Versions versions,
      OpenWorkspaces workspaces) {
    this.archives = archives;
    this.staging = staging;
    this.intake = intake;
    this.versions = versions;
    this.workspaces = workspaces;
  }

  /**
   * What the game would get from it under these choices. Unpacks it first where need be.
   *
   * @param limit how many files of each kind are listed at most
   * @param below only files whose path in the game, or in the archive where they stay out, begins
   *     so are listed; empty for all
   */
  @PostMapping("/intake")
  IntakeView intake(
      @PathVariable long workspace,
      @PathVariable long archive,
      @RequestBody PartRequest body,
      @RequestParam(defaultValue = "5000") @Min(0) @Max(Rows.MOST) int limit,
      @RequestParam(defaultValue = "") String below) {
    ArchiveRow row = archives.get(workspace, archive);
    Staged staged = staging.get(workspace, row, (done, total, unit) -> {});
    OpenWorkspace open = workspaces.get(workspace);
    Part part = body.part();
    Optional<Long> instead =
        part.place() instanceof Place.InsteadOf i ? Optional.of(i.mod()) : Optional.empty();
    Set<Long> own = instead.map(i -> Intake.strandOf(open, i)).orElse(Set.of());
    Choices choices =
        part.carry() && instead.isPresent()
            ? intake.carried(workspace, staged, part.choices(), instead.get())
            : part.choices();
    Plan plan = intake.plan(workspace, row, staged, choices, own);
    return view(row, open, plan, instead, own, new Page(limit, below));
  }

  private IntakeView view(
      ArchiveRow row,
      OpenWorkspace open,
      Plan plan,
      Optional<Long> instead,
      Set<Long> own,
      Page page) {
    Map<String, Long> sizes = new HashMap<>();
    for (Unpacked u : plan.staged().entries()) sizes.put(u.path(), u.sizeBytes());
    Outcome.Laid laid = plan.outcome() instanceof Outcome.Laid l ? l : null;
    List<Placed> placed = laid == null ? List.of() : laid.placed();
    List<String> paths = placed.stream().map(Placed::gamePath).toList();
    List<StaysOut> out = IntakeViews.staysOut(plan, laid, sizes);
    ModCard card = plan.card();
    boolean asks =
        plan.staged().entries().stream()
            .anyMatch(u -> GamePath.name(u.path()).equals(ContentLayout.FITTING));
    return new IntakeView(
        row.id(),
        row.name(),
        IntakeViews.state(plan.outcome()),
        laid == null ? plan.choices().root().orElse("") : laid.root(),
        laid == null ? "" : laid.reason(),
        plan.outcome() instanceof Outcome.Several s ? s.roots() : List.of(),
        plan.choices().leaveOut(),
        plan.choices().sendTo(),
        plan.choices().answers(),
        card.name(),
        card.shownVersion(),
        card.summary(),
        card.inferred(),
        plan.flaws(),
        plan.warnings(),
        placed.size(),
        placed.stream().mapToLong(p -> sizes.get(p.entry())).sum(),
        placed.stream()
            .filter(p -> p.gamePath().startsWith(page.below()))
            .limit(page.limit())
            .map(p -> new Gets(p.entry(), p.gamePath(), p.mount(), sizes.get(p.entry())))
            .toList(),
        out.size(),
        out.stream()
            .filter(o -> o.entry().startsWith(page.below()))
            // what can be read is shown apart, however much there is besides
            .sorted(Comparator.comparing(o -> o.reading() == null))
            .limit(page.limit())
            .toList(),
        open.game().mounts().stream().map(m -> new MountView(m.id(), m.at())).toList(),
        asks,
        plan.fitting().map(IntakeViews::questions).orElse(List.of()),
        Versions.collisions(open, paths, own),
        here(open, card.id()),
        instead.map(i -> versions.compare(open, i, IntakeViews.files(plan, placed))).orElse(null),
        LibraryViews.needs(open, card),
        LibraryViews.clashes(open, card),
        card.gameVersions());
  }

  private List<Here> here(OpenWorkspace open, String cardId) {
    return versions.ofId(open.workspace(), cardId).stream()
        .map(m -> open.mods().get(m))
        .filter(m -> m != null)
        .map(m -> new Here(m.id(), m.card().shownVersion(), open.inUse(m.id())))
        .toList();
  }

  /** An image or a text out of it, to be read before it is installed. */
  @GetMapping("/entry")
  @io.swagger.v3.oas.annotations.responses.ApiResponse(
      responseCode = "200",
      content =
          @Content(
              mediaType = "application/octet-stream",
              schema = @Schema(type = "string", format = "binary")))
  ResponseEntity<Resource> entry(
      @PathVariable long workspace, @PathVariable long archive, @RequestParam String path) {
    return Served.file(path, placeOf(workspace, archive, path), false);
  }

  /** The text of a file in an archive that is not installed. */
  @GetMapping("/entry-text")
  ModFiles.Text entryText(
      @PathVariable long workspace, @PathVariable long archive, @RequestParam String path) {
    Reading.Decoded read = ModFiles.decoded(path, placeOf(workspace, archive, path));
    return new ModFiles.Text(read.text(), read.encoding(), false);
  }

  private Path placeOf(long workspace, long archive, String path) {
    ArchiveRow row = archives.get(workspace, archive);
    Staged staged = staging.get(workspace, row, (done, total, unit) -> {});
    Path place = GamePath.resolve(staged.tree(), path);
    if (Files.isRegularFile(place)) return place;
    throw IroningException.of(
        "not-found", path, "The archive has no such file.", "Choose one from its list.");
  }
}
