package ironing.server.library;

import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.library.Intake.Look;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.Watched.Arrived;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Archives that come in, and what of them waits to be installed. */
@RestController
@RequestMapping("/api/workspaces/{workspace}")
class InboxController {
  private final Archives archives;
  private final Uploads uploads;
  private final Installer installer;
  private final Intake intake;
  private final Watched watched;
  private final Bin bin;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  InboxController(
      Archives archives,
      Uploads uploads,
      Installer installer,
      Intake intake,
      Watched watched,
      Bin bin,
      OpenWorkspaces workspaces,
      Jobs jobs) {
    this.archives = archives;
    this.uploads = uploads;
    this.installer = installer;
    this.intake = intake;
    this.watched = watched;
    this.bin = bin;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * @param mods how many mods were made of it
   * @param mod the first of them, absent when it is not installed
   * @param look what looking into it came to; absent before
   */
  record Archive(
      long id,
      String name,
      String sha256,
      long sizeBytes,
      String broughtAt,
      int mods,
      @MayBeAbsent Long mod,
      @MayBeAbsent Look look) {}

  private Archive view(long workspace, ArchiveRow row) {
    return new Archive(
        row.id(),
        row.name(),
        row.sha256(),
        row.sizeBytes(),
        row.broughtAt().toString(),
        row.mods(),
        row.mod() == 0 ? null : row.mod(),
        row.look() == null ? null : intake.asOfNow(workspace, row.look()));
  }

  /**
   * @param waiting archives that are here and not installed
   * @param watched the folder in which new ones are looked for, absent for none
   * @param arrived what lies in it and was not brought in
   */
  record Inbox(List<Archive> waiting, @MayBeAbsent String watched, List<Arrived> arrived) {}

  record FolderRequest(String folder) {
    FolderRequest {
      Objects.requireNonNull(folder, "folder");
    }
  }

  /**
   * @param upload the address that the upload protocol gave
   */
  record UploadRequest(String upload, String name) {
    UploadRequest {
      Objects.requireNonNull(upload, "upload");
      Objects.requireNonNull(name, "name");
    }
  }

  /**
   * @param first archives that come before the others, the lowest layer first
   */
  record ReadyRequest(@MayBeAbsent List<Long> first) {}

  record NamesRequest(List<String> names) {
    NamesRequest {
      Objects.requireNonNull(names, "names");
    }
  }

  /** What has come in and waits to be installed. */
  @GetMapping("/inbox")
  Inbox inbox(@PathVariable long workspace) {
    workspaces.game(workspace);
    List<Archive> waiting =
        archives.all(workspace).stream()
            .filter(a -> a.mods() == 0)
            .map(a -> view(workspace, a))
            .toList();
    return new Inbox(waiting, watched.folder(workspace).orElse(null), watched.arrived(workspace));
  }

  /** Installs every archive that needs no decision, those that are named in their order first. */
  @PostMapping("/inbox/install-ready")
  ResponseEntity<Job> installReady(
      @PathVariable long workspace,
      @RequestBody(required = false) ReadyRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    List<Long> order = body == null || body.first() == null ? List.of() : body.first();
    return JobController.accepted(jobs, installer.installReady(workspace, order), prefer);
  }

  /** Watches a folder from now on; an empty name watches none. */
  @PutMapping("/inbox/watched")
  Inbox watch(@PathVariable long workspace, @RequestBody FolderRequest body) {
    watched.watch(workspace, body.folder());
    return inbox(workspace);
  }

  /** Brings files of the watched folder in. */
  @PostMapping("/inbox/take-in")
  ResponseEntity<Job> takeIn(
      @PathVariable long workspace,
      @RequestBody NamesRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, watched.take(workspace, body.names()), prefer);
  }

  /** All archives of the library, the oldest first. */
  @GetMapping("/archives")
  List<Archive> archives(@PathVariable long workspace) {
    workspaces.game(workspace);
    return archives.all(workspace).stream().map(a -> view(workspace, a)).toList();
  }

  /** One archive. */
  @GetMapping("/archives/{archive}")
  Archive archive(@PathVariable long workspace, @PathVariable long archive) {
    return view(workspace, archives.get(workspace, archive));
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
    return looked(workspace, archives.store(workspace, name, request.getInputStream()));
  }

  /** Makes an archive of an upload that is whole. */
  @PostMapping("/archives/from-upload")
  @ResponseStatus(HttpStatus.CREATED)
  Archive fromUpload(@PathVariable long workspace, @RequestBody UploadRequest body) {
    return looked(workspace, uploads.take(workspace, body.upload(), body.name()));
  }

  private Archive looked(long workspace, ArchiveRow row) {
    if (row.mods() == 0 && row.look() == null) intake.look(workspace, row);
    return view(workspace, row);
  }

  /** Brings in every archive of a folder on this machine, and installs what needs no decision. */
  @PostMapping("/archives/from-folder")
  ResponseEntity<Job> bringInFolder(
      @PathVariable long workspace,
      @RequestBody FolderRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, installer.bringInFolder(workspace, body.folder()), prefer);
  }

  /** Takes a plain folder in as if it were an archive. The job's result is the archive's number. */
  @PostMapping("/archives/plain-folder")
  ResponseEntity<Job> bringInPlain(
      @PathVariable long workspace,
      @RequestBody FolderRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, installer.bringInPlain(workspace, body.folder()), prefer);
  }

  /** Looks into an archive once more, where the first look did not come to an end. */
  @PostMapping("/archives/{archive}/look")
  ResponseEntity<Job> lookAgain(
      @PathVariable long workspace,
      @PathVariable long archive,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs, intake.look(workspace, archives.get(workspace, archive)), prefer);
  }

  /** Takes an archive out of the inbox, into the bin. */
  @DeleteMapping("/archives/{archive}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeArchive(@PathVariable long workspace, @PathVariable long archive) {
    bin.removeArchive(workspace, archive);
  }
}
