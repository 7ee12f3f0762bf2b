package ironing.server.library;

import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.IroningException;
import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.journey.Journeys;
import ironing.server.journey.Journeys.ModJourney;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryMapper.ModDetailRow;
import ironing.server.library.LibraryMapper.StoredFile;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}")
class LibraryController {
  private final Archives archives;
  private final Installer installer;
  private final LibraryMapper db;
  private final Workbenches benches;
  private final Journeys journeys;
  private final Jobs jobs;

  LibraryController(
      Archives archives,
      Installer installer,
      LibraryMapper db,
      Workbenches benches,
      Journeys journeys,
      Jobs jobs) {
    this.archives = archives;
    this.installer = installer;
    this.db = db;
    this.benches = benches;
    this.journeys = journeys;
    this.jobs = jobs;
  }

  /**
   * @param mod the mod that was made of it, absent when it is not installed
   */
  record Archive(
      long id,
      String name,
      String sha256,
      long sizeBytes,
      String broughtAt,
      @MayBeAbsent Long mod) {
    static Archive of(ArchiveRow row) {
      return new Archive(
          row.id(),
          row.name(),
          row.sha256(),
          row.sizeBytes(),
          row.broughtAt().toString(),
          row.mod() == 0 ? null : row.mod());
    }
  }

  /**
   * @param root the folder of the archive in which the mod begins; absent to have it recognised
   */
  record InstallRequest(long archive, @MayBeAbsent String root) {}

  record FolderRequest(String folder) {
    FolderRequest {
      Objects.requireNonNull(folder, "folder");
    }
  }

  /** A mod as the list of the library shows it. */
  record ModView(
      long id,
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
      ModJourney journey) {}

  record LibraryView(List<ModView> mods, List<Archive> notInstalled) {}

  /**
   * @param pack the pack that it lies in, absent for a loose file
   */
  record ModFile(
      String path, @MayBeAbsent String pack, String entry, long sizeBytes, String sha256) {}

  record LeftOut(String entry, String reason) {}

  /**
   * @param found the version that is in the library, absent when there is none
   */
  record NeedView(
      String mod, String versions, Needs.State state, @MayBeAbsent String found, String name) {}

  record Clash(String mod, String why) {}

  /**
   * @param inferred name and version were guessed from the archive's name
   * @param gameVersions the game that it is made for, as a range
   * @param contentRoot the folder of the archive where it begins, empty for its top
   * @param fileCount loose and packed ones; {@code files} holds the first of them
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
      String archiveName,
      String contentRoot,
      String rootReason,
      String installedAt,
      long sizeBytes,
      List<String> plugins,
      List<NeedView> needs,
      List<Clash> clashes,
      int fileCount,
      List<ModFile> files,
      List<LeftOut> leftOut,
      ModJourney journey) {}

  @GetMapping("/library")
  LibraryView library(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Journeys.Ways ways = journeys.of(bench);
    List<ModView> mods =
        bench.mods().values().stream().map(m -> view(m, ways.mod(m.id()))).toList();
    List<Archive> waiting =
        db.archives(workspace).stream().filter(a -> a.mod() == 0).map(Archive::of).toList();
    return new LibraryView(mods, waiting);
  }

  private static ModView view(Bench.Mod m, ModJourney journey) {
    ModCard card = m.card();
    return new ModView(
        m.id(),
        m.kind(),
        card.name(),
        card.version(),
        card.summary(),
        card.authors(),
        card.inferred(),
        card.band().orElse(null),
        m.archiveName(),
        m.files(),
        m.sizeBytes(),
        m.plugins(),
        journey);
  }

  @GetMapping("/archives")
  List<Archive> archives(@PathVariable long workspace) {
    benches.game(workspace);
    return db.archives(workspace).stream().map(Archive::of).toList();
  }

  /** The body is the archive's bytes, whatever the content type says. */
  @PostMapping(value = "/archives", consumes = "application/octet-stream")
  @ResponseStatus(HttpStatus.CREATED)
  @io.swagger.v3.oas.annotations.parameters.RequestBody(
      content =
          @Content(
              mediaType = "application/octet-stream",
              schema = @Schema(type = "string", format = "binary")))
  Archive bringIn(
      @PathVariable long workspace,
      @RequestParam String name,
      @Parameter(hidden = true) HttpServletRequest request)
      throws IOException {
    return Archive.of(archives.store(workspace, name, request.getInputStream()));
  }

  /** Brings in and installs every archive of a folder on this machine. */
  @PostMapping("/archives/from-folder")
  ResponseEntity<Job> bringInFolder(
      @PathVariable long workspace,
      @RequestBody FolderRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, installer.bringInFolder(workspace, body.folder()), prefer);
  }

  /** Makes a mod of an archive. The job's result is its number. */
  @PostMapping("/mods")
  ResponseEntity<Job> install(
      @PathVariable long workspace,
      @RequestBody InstallRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Job job = installer.install(workspace, body.archive(), Optional.ofNullable(body.root()));
    return JobController.accepted(jobs, job, prefer);
  }

  /** One mod with its first files; {@code fileCount} says how many there are. */
  @GetMapping("/mods/{mod}")
  ModDetail mod(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "1000") int limit,
      @RequestParam(defaultValue = "0") int offset) {
    Bench bench = benches.get(workspace);
    ModDetailRow row = db.mod(workspace, mod);
    Bench.Mod m = bench.mods().get(mod);
    if (row == null || m == null) {
      throw IroningException.of(
          "not-found",
          "Mod " + mod,
          "There is no such mod in this library.",
          "Choose one from the list.");
    }
    ModCard card = m.card();
    return new ModDetail(
        mod,
        m.kind(),
        card.id(),
        card.name(),
        card.version(),
        card.authors(),
        card.summary(),
        card.inferred(),
        card.band().orElse(null),
        card.gameVersions(),
        m.archiveName(),
        row.contentRoot(),
        row.rootReason(),
        row.installedAt().toString(),
        m.sizeBytes(),
        m.plugins(),
        needs(bench, card),
        card.clashes().stream().map(c -> new Clash(c.mod(), c.why())).toList(),
        db.fileCount(mod),
        db.files(mod, limit, offset).stream().map(LibraryController::file).toList(),
        db.leftOut(mod).stream().map(l -> new LeftOut(l.entry(), l.reason())).toList(),
        journeys.of(bench).mod(mod));
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

  private static ModFile file(StoredFile f) {
    String pack = f.pack().isEmpty() ? null : f.pack();
    return new ModFile(f.path(), pack, f.entry(), f.sizeBytes(), f.sha256());
  }
}
