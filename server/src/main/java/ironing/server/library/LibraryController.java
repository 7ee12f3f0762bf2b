package ironing.server.library;

import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.IroningException;
import ironing.core.library.ModCard;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.LeftOutRow;
import ironing.server.library.LibraryMapper.ModDetailRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.annotation.Nullable;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
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
  private final Library library;
  private final LibraryMapper db;
  private final Workbenches benches;
  private final Jobs jobs;

  LibraryController(Library library, LibraryMapper db, Workbenches benches, Jobs jobs) {
    this.library = library;
    this.db = db;
    this.benches = benches;
    this.jobs = jobs;
  }

  /**
   * @param mod the mod that was made of it, absent when it is not installed
   */
  record Archive(long id, String name, String sha256, long sizeBytes, @Nullable Long mod) {
    static Archive of(ArchiveRow row) {
      return new Archive(
          row.id(), row.name(), row.sha256(), row.sizeBytes(), row.mod() == 0 ? null : row.mod());
    }
  }

  /**
   * @param root the folder of the archive in which the mod begins; absent to have it recognised
   */
  record InstallRequest(long archive, @Nullable String root) {}

  record FolderRequest(String folder) {}

  /**
   * @param pack the pack that it lies in, absent for a loose file
   */
  record ModFile(String path, @Nullable String pack, String entry, long sizeBytes, String sha256) {}

  record LeftOut(String entry, String reason) {}

  record Need(String mod, String versions) {}

  record Clash(String mod, String why) {}

  /**
   * @param inferred name and version were guessed from the archive's name
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
      @Nullable String band,
      String archiveName,
      String contentRoot,
      String rootReason,
      String installedAt,
      List<Need> needs,
      List<Clash> clashes,
      List<ModFile> files,
      int fileCount,
      List<LeftOut> leftOut) {}

  @GetMapping("/archives")
  List<Archive> archives(@PathVariable long workspace) {
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
    return Archive.of(library.store(workspace, name, request.getInputStream()));
  }

  @PostMapping("/archives/from-folder")
  ResponseEntity<Job> bringInFolder(
      @PathVariable long workspace,
      @RequestBody FolderRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, library.bringInFolder(workspace, body.folder()), prefer);
  }

  @PostMapping("/mods")
  ResponseEntity<Job> install(
      @PathVariable long workspace,
      @RequestBody InstallRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs, library.install(workspace, body.archive(), Optional.ofNullable(body.root())), prefer);
  }

  /** One mod with its first files; {@code fileCount} says how many there are. */
  @GetMapping("/mods/{mod}")
  ModDetail mod(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "500") int limit,
      @RequestParam(defaultValue = "0") int offset) {
    Bench bench = benches.get(workspace);
    ModDetailRow row = db.mod(workspace, mod);
    Bench.Mod m = bench.mods().get(mod);
    if (row == null || m == null)
      throw IroningException.of(
          "not-found",
          "Mod " + mod,
          "There is no such mod in this library.",
          "Choose one from the list.");
    ModCard card = m.card();
    List<ModFile> files =
        db.files(mod, limit, offset).stream().map(LibraryController::file).toList();
    List<LeftOut> leftOut =
        db.leftOut(mod).stream().map((LeftOutRow l) -> new LeftOut(l.entry(), l.reason())).toList();
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
        m.archiveName(),
        row.contentRoot(),
        row.rootReason(),
        row.installedAt().toString(),
        card.needs().stream().map(n -> new Need(n.mod(), n.versions())).toList(),
        card.clashes().stream().map(c -> new Clash(c.mod(), c.why())).toList(),
        files,
        m.files(),
        leftOut);
  }

  private static ModFile file(FileRow f) {
    return new ModFile(
        f.path(), f.pack().isEmpty() ? null : f.pack(), f.entry(), f.sizeBytes(), f.sha256());
  }
}
