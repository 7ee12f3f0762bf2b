package ironing.server.library;

import ironing.core.library.ModCard;
import ironing.core.workspace.Mod;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.library.IntakeViews.PartRequest;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryViews.CardText;
import ironing.server.library.LibraryViews.InstallRequest;
import ironing.server.library.LibraryViews.LeftOut;
import ironing.server.library.LibraryViews.LibraryView;
import ironing.server.library.LibraryViews.ModDetail;
import ironing.server.library.LibraryViews.VersionView;
import ironing.server.library.StrandMapper.StrandRow;
import ironing.server.platform.Json;
import ironing.server.platform.Rows;
import ironing.server.progress.KnownProgress;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The mods of a library, and making one of an archive. */
@RestController
@RequestMapping("/api/workspaces/{workspace}")
class LibraryController {
  private final Installer installer;
  private final ModStore mods;
  private final ModWords words;
  private final Fittings fittings;
  private final OpenWorkspaces workspaces;
  private final KnownProgress journeys;
  private final Jobs jobs;
  private final Json json;

  LibraryController(
      Installer installer,
      ModStore mods,
      ModWords words,
      Fittings fittings,
      OpenWorkspaces workspaces,
      KnownProgress journeys,
      Jobs jobs,
      Json json) {
    this.installer = installer;
    this.mods = mods;
    this.words = words;
    this.fittings = fittings;
    this.workspaces = workspaces;
    this.journeys = journeys;
    this.jobs = jobs;
    this.json = json;
  }

  /** All mods of the library. */
  @GetMapping("/library")
  LibraryView library(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    KnownProgress.Ways ways = journeys.of(open);
    Map<Long, List<String>> tags = new HashMap<>();
    for (StrandRow s : words.strands(workspace)) tags.put(s.id(), tags(s));
    Map<Long, Long> versions =
        open.mods().values().stream()
            .collect(Collectors.groupingBy(Mod::strand, Collectors.counting()));
    Set<Long> better = fittings.better(open).keySet();
    Set<Long> inUse =
        open.picture().arrangement().layers().stream()
            .map(l -> l.mod())
            .collect(Collectors.toSet());
    return new LibraryView(
        open.mods().values().stream()
            .map(
                m ->
                    LibraryViews.view(
                        open,
                        m,
                        inUse.contains(m.id()),
                        versions.get(m.strand()).intValue(),
                        tags.getOrDefault(m.strand(), List.of()),
                        better.contains(m.id()),
                        ways.mod(m.id())))
            .toList());
  }

  private List<String> tags(StrandRow s) {
    return Arrays.asList(json.read(s.tags(), String[].class));
  }

  /** Makes mods of an archive. The job's result is the number of the last. */
  @PostMapping("/mods")
  ResponseEntity<Job> install(
      @PathVariable long workspace,
      @RequestBody InstallRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Job job = installer.install(workspace, body.archive(), body.asParts());
    return JobController.accepted(jobs, job, prefer);
  }

  /** One mod with its first files; {@code fileCount} says how many there are. */
  @GetMapping("/mods/{mod}")
  ModDetail mod(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "1000") @Min(0) @Max(Rows.MOST) int limit,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset) {
    OpenWorkspace open = workspaces.get(workspace);
    ModRow row = mods.row(workspace, mod);
    Mod m = open.required(mod);
    ModCard card = m.card();
    StrandRow strand = words.strand(row);
    Fittings.Better better =
        row.fitting() == null || !open.inUse(mod) ? null : fittings.better(open, mod).orElse(null);
    return new ModDetail(
        mod,
        m.kind(),
        card.id(),
        card.name(),
        card.shownVersion(),
        card.authors(),
        card.summary(),
        card.inferred(),
        card.band().orElse(null),
        card.gameVersions(),
        CardText.of(card),
        CardText.of(json.read(row.cardGiven(), ModCard.class)),
        tags(strand),
        strand.notes(),
        row.archiveId() == 0 ? null : row.archiveId(),
        m.archiveName(),
        row.contentRoot(),
        row.rootReason(),
        row.installedAt().toString(),
        row.fitting() != null,
        choices(row),
        better,
        versions(open, row.strandId()),
        open.inUse(mod),
        m.sizeBytes(),
        m.plugins(),
        LibraryViews.needs(open, card),
        LibraryViews.clashes(open, card),
        mods.fileCount(mod),
        mods.files(mod, limit, offset).stream().map(LibraryViews::file).toList(),
        mods.leftOut(mod).stream()
            .map(l -> new LeftOut(l.entry(), l.reason(), l.sizeBytes(), l.kept(), l.chosen()))
            .toList(),
        open.picture().arrangement().heldBack().getOrDefault(mod, Set.of()),
        journeys.of(open).mod(mod));
  }

  private PartRequest choices(ModRow row) {
    ironing.core.library.Choices c = json.read(row.choices(), ironing.core.library.Choices.class);
    return new PartRequest(
        c.root().orElse(null),
        c.leaveOut(),
        c.sendTo(),
        c.answers(),
        c.plain(),
        c.name().orElse(null),
        row.id(),
        null,
        null);
  }

  private List<VersionView> versions(OpenWorkspace open, long strand) {
    return open.mods().values().stream()
        .filter(m -> m.strand() == strand)
        .sorted((a, b) -> Long.compare(b.id(), a.id()))
        .map(
            m -> {
              ModRow row = mods.row(open.workspace(), m.id());
              return new VersionView(
                  m.id(),
                  m.card().shownVersion(),
                  open.inUse(m.id()),
                  m.archiveName(),
                  row.installedAt().toString(),
                  m.sizeBytes(),
                  row.fitting() != null);
            })
        .toList();
  }
}
