package ironing.server.library;

import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.workspace.Mod;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.journey.Journeys;
import ironing.server.journey.Journeys.ModJourney;
import ironing.server.library.IntakeController.PartRequest;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.StrandMapper.StrandRow;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Rows;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
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
  private final LibraryMapper db;
  private final StrandMapper strands;
  private final Fittings fittings;
  private final Workbenches benches;
  private final Journeys journeys;
  private final Jobs jobs;
  private final Json json;

  LibraryController(
      Installer installer,
      ModStore mods,
      LibraryMapper db,
      StrandMapper strands,
      Fittings fittings,
      Workbenches benches,
      Journeys journeys,
      Jobs jobs,
      Json json) {
    this.installer = installer;
    this.mods = mods;
    this.db = db;
    this.strands = strands;
    this.fittings = fittings;
    this.benches = benches;
    this.journeys = journeys;
    this.jobs = jobs;
    this.json = json;
  }

  /**
   * @param root the folder of the archive in which the mod begins; absent to have it recognised
   * @param parts one for each mod that is to be made of it; absent for one, as {@code root} says
   */
  record InstallRequest(
      long archive, @MayBeAbsent String root, @MayBeAbsent List<PartRequest> parts) {
    List<Installer.Part> asParts() {
      if (parts != null) return parts.stream().map(PartRequest::part).toList();
      if (root == null) return List.of();
      return List.of(new PartRequest(root, null, null, null, null, null, null, null, null).part());
    }
  }

  /**
   * A mod as the list of the library shows it.
   *
   * @param strand all versions and fittings of one mod share it
   * @param inUse it has a layer; of several versions of one mod, one has
   * @param versions how many versions and fittings of it are here
   * @param betterFitting another choice of its contents would fit better by now
   * @param heldBack how many paths of it are held back
   * @param edited how many of its files were edited here
   */
  record ModView(
      long id,
      long strand,
      boolean inUse,
      int versions,
      String kind,
      String name,
      String version,
      String summary,
      List<String> authors,
      boolean inferred,
      @MayBeAbsent String band,
      String archiveName,
      int files,
      long sizeBytes,
      List<String> plugins,
      List<String> tags,
      boolean betterFitting,
      int heldBack,
      int edited,
      ModJourney journey) {}

  record LibraryView(List<ModView> mods) {}

  /**
   * @param pack the pack that it lies in, absent for a loose file
   * @param edited it is not as it came in the archive
   */
  record ModFile(
      String path,
      @MayBeAbsent String pack,
      String entry,
      long sizeBytes,
      String sha256,
      boolean edited) {}

  /**
   * @param kept it can be read in the library
   * @param chosen the user left it out
   */
  record LeftOut(String entry, String reason, long sizeBytes, boolean kept, boolean chosen) {}

  /**
   * @param found the version that is in the library, absent when there is none
   */
  record NeedView(
      String mod, String versions, Needs.State state, @MayBeAbsent String found, String name) {}

  /**
   * @param name the mod’s, where it is in the library; its id else
   */
  record Clash(String mod, String name, String why) {}

  /**
   * What a card says that its user may know better.
   *
   * @param url and the rest of where it comes from; empty where nothing is said
   */
  record CardText(
      String name,
      String version,
      List<String> authors,
      String summary,
      String url,
      String item,
      String release) {
    static CardText of(ModCard c) {
      ModCard.Source s = c.source().orElse(new ModCard.Source("", "", ""));
      return new CardText(
          c.name(), c.version(), c.authors(), c.summary(), s.url(), s.item(), s.release());
    }
  }

  /** One version or fitting of a mod. */
  record VersionView(
      long mod,
      String version,
      boolean inUse,
      String archiveName,
      String installedAt,
      long sizeBytes,
      boolean fitted) {}

  /**
   * @param inferred name and version were guessed from the archive's name
   * @param gameVersions the game that it is made for, as a range
   * @param given the card as it came, whatever was edited since
   * @param contentRoot the folder of the archive where it begins, empty for its top
   * @param choices what was decided of the archive's contents, so that it can be decided anew
   * @param better another choice that would fit better by now, absent when there is none
   * @param versions all of it that are here, the newest first
   * @param fileCount loose and packed ones; {@code files} holds the first of them
   * @param heldBack what is held back of it: files, and folders with {@code /} at the end
   */
  record ModDetail(
      long id,
      String kind,
      String cardId,
      String name,
      String version,
      List<String> authors,
      String summary,
      boolean inferred,
      @MayBeAbsent String band,
      String gameVersions,
      CardText card,
      CardText given,
      List<String> tags,
      String notes,
      @MayBeAbsent Long archive,
      String archiveName,
      String contentRoot,
      String rootReason,
      String installedAt,
      boolean fitted,
      PartRequest choices,
      @MayBeAbsent Fittings.Better better,
      List<VersionView> versions,
      boolean inUse,
      long sizeBytes,
      List<String> plugins,
      List<NeedView> needs,
      List<Clash> clashes,
      int fileCount,
      List<ModFile> files,
      List<LeftOut> leftOut,
      Set<String> heldBack,
      ModJourney journey) {}

  /** All mods of the library. */
  @GetMapping("/library")
  LibraryView library(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Journeys.Ways ways = journeys.of(bench);
    Map<Long, List<String>> tags = new HashMap<>();
    for (StrandRow s : strands.strands(workspace)) tags.put(s.id(), tags(s));
    Map<Long, Long> versions =
        bench.mods().values().stream()
            .collect(Collectors.groupingBy(Mod::strand, Collectors.counting()));
    Set<Long> better = fittings.better(bench).keySet();
    Set<Long> inUse =
        bench.picture().arrangement().layers().stream()
            .map(l -> l.mod())
            .collect(Collectors.toSet());
    return new LibraryView(
        bench.mods().values().stream()
            .map(
                m ->
                    view(
                        bench,
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

  private static ModView view(
      Bench bench,
      Mod m,
      boolean inUse,
      int versions,
      List<String> tags,
      boolean better,
      ModJourney journey) {
    ModCard card = m.card();
    return new ModView(
        m.id(),
        m.strand(),
        inUse,
        versions,
        m.kind(),
        card.name(),
        card.shownVersion(),
        card.summary(),
        card.authors(),
        card.inferred(),
        card.band().orElse(null),
        m.archiveName(),
        m.files(),
        m.sizeBytes(),
        m.plugins(),
        tags,
        better,
        bench.picture().arrangement().heldBack().getOrDefault(m.id(), Set.of()).size(),
        m.edited().size(),
        journey);
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
    Bench bench = benches.get(workspace);
    ModRow row = mods.row(workspace, mod);
    Mod m = Versions.required(bench, mod);
    ModCard card = m.card();
    StrandRow strand = strands.strand(row.strandId());
    Fittings.Better better =
        row.fitting() == null || !bench.inUse(mod)
            ? null
            : fittings.better(bench, mod).orElse(null);
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
        versions(bench, row.strandId()),
        bench.inUse(mod),
        m.sizeBytes(),
        m.plugins(),
        needs(bench, card),
        card.clashes().stream()
            .map(c -> new Clash(c.mod(), Fittings.nameOf(bench, c.mod()), c.why()))
            .toList(),
        db.fileCount(mod),
        db.files(mod, limit, offset).stream().map(LibraryController::file).toList(),
        db.leftOut(mod).stream()
            .map(l -> new LeftOut(l.entry(), l.reason(), l.sizeBytes(), l.kept(), l.chosen()))
            .toList(),
        bench.picture().arrangement().heldBack().getOrDefault(mod, Set.of()),
        journeys.of(bench).mod(mod));
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

  private List<VersionView> versions(Bench bench, long strand) {
    return bench.mods().values().stream()
        .filter(m -> m.strand() == strand)
        .sorted((a, b) -> Long.compare(b.id(), a.id()))
        .map(
            m -> {
              ModRow row = mods.row(bench.workspace(), m.id());
              return new VersionView(
                  m.id(),
                  m.card().shownVersion(),
                  bench.inUse(m.id()),
                  m.archiveName(),
                  row.installedAt().toString(),
                  m.sizeBytes(),
                  row.fitting() != null);
            })
        .toList();
  }

  private static List<NeedView> needs(Bench bench, ModCard card) {
    return Needs.of(card, bench.installed()).stream()
        .map(
            n ->
                new NeedView(
                    n.need().mod(),
                    n.need().versions(),
                    n.state(),
                    n.found().map(ModCard::version).orElse(null),
                    n.found().map(ModCard::name).orElse(n.need().mod())))
        .toList();
  }

  static ModFile file(FileRow f) {
    String pack = f.pack().isEmpty() ? null : f.pack();
    return new ModFile(
        f.path(), pack, f.entry(), f.sizeBytes(), f.sha256(), f.givenSha256() != null);
  }
}
