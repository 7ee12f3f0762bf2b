package ironing.server.library;

import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.layers.DifferenceView;
import ironing.server.library.LibraryViews.CardText;
import ironing.server.library.LibraryViews.ModFile;
import ironing.server.library.ModFiles.Paper;
import ironing.server.library.ModFiles.Text;
import ironing.server.library.ModFiles.Verified;
import ironing.server.library.ModViews.EditRequest;
import ironing.server.library.ModViews.HoldRequest;
import ironing.server.library.ModViews.NotesRequest;
import ironing.server.library.ModViews.PathRequest;
import ironing.server.library.ModViews.TagsRequest;
import ironing.server.library.Versions.Replacement;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.platform.Served;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.List;
import org.springframework.core.io.Resource;
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

/** One mod: its files, what there is to read, its card, its versions, and taking it away. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/mods/{mod}")
class ModController {
  private final OpenWorkspaces workspaces;
  private final ModStore mods;
  private final ModWords words;
  private final ModFiles files;
  private final Versions versions;
  private final Bin bin;
  private final Reinstaller reinstaller;
  private final Jobs jobs;

  ModController(
      OpenWorkspaces workspaces,
      ModStore mods,
      ModWords words,
      ModFiles files,
      Versions versions,
      Bin bin,
      Reinstaller reinstaller,
      Jobs jobs) {
    this.workspaces = workspaces;
    this.mods = mods;
    this.words = words;
    this.files = files;
    this.versions = versions;
    this.bin = bin;
    this.reinstaller = reinstaller;
    this.jobs = jobs;
  }

  /** Files of a mod, loose ones first, then those in packs; each kind by path. */
  @GetMapping("/files")
  List<ModFile> files(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "2000") @Min(0) @Max(Rows.MOST) int limit,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset) {
    mods.row(workspace, mod);
    return mods.files(mod, limit, offset).stream().map(LibraryViews::file).toList();
  }

  /** The bytes of a file, or of an entry that was left out and kept. Images are shown as such. */
  @GetMapping("/file")
  @io.swagger.v3.oas.annotations.responses.ApiResponse(
      responseCode = "200",
      content =
          @Content(
              mediaType = "application/octet-stream",
              schema = @Schema(type = "string", format = "binary")))
  ResponseEntity<Resource> file(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam String path,
      @RequestParam(defaultValue = "false") boolean download) {
    return Served.file(path, files.place(workspace, mod, path), download);
  }

  /** The text of a file of a mod. */
  @GetMapping("/text")
  Text text(@PathVariable long workspace, @PathVariable long mod, @RequestParam String path) {
    return files.text(workspace, mod, path);
  }

  /** The header of a plugin, as its text form has it; with the number of its records. */
  @GetMapping("/plugin-header")
  PluginLooks.HeaderView pluginHeader(
      @PathVariable long workspace, @PathVariable long mod, @RequestParam String path) {
    return PluginLooks.header(workspaces.get(workspace), path, files.place(workspace, mod, path));
  }

  /** What of a mod is there to be read. */
  @GetMapping("/papers")
  List<Paper> papers(@PathVariable long workspace, @PathVariable long mod) {
    return files.papers(workspace, mod);
  }

  /** Gives a text file another content; what came in the archive is kept. */
  @PutMapping("/text")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void editText(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody EditRequest body) {
    files.edit(workspace, mod, body.path(), body.text(), body.sha256());
  }

  /** Puts a file back as it came in the archive. */
  @PostMapping("/restore")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void restoreFile(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody PathRequest body) {
    files.restore(workspace, mod, body.path());
  }

  /** Keeps files of a mod out of the game in this profile, or lets them in again. */
  @PostMapping("/held-back")
  ResponseEntity<DifferenceView> holdBack(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestBody HoldRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    DifferenceView d =
        files.holdBack(workspace, Expected.of(dryRun, ifMatch), mod, body.paths(), body.hold());
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }

  /** Reads every file of it and compares it with what was installed. */
  @PostMapping("/verify")
  Verified verify(@PathVariable long workspace, @PathVariable long mod) {
    return files.verify(workspace, mod);
  }

  /** Makes its files anew from its archive, to the same bytes. */
  @PostMapping("/reinstall")
  ResponseEntity<Job> reinstall(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, reinstaller.mod(workspace, mod), prefer);
  }

  /** Sets the tags of a mod. */
  @PutMapping("/tags")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void setTags(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody TagsRequest body) {
    words.setTags(workspace, mod, body.tags());
  }

  /** Writes the notes on a mod. */
  @PutMapping("/notes")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void setNotes(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody NotesRequest body) {
    words.setNotes(workspace, mod, body.notes());
  }

  /** Says what the card should say; the card as it came is kept. */
  @PutMapping("/card")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void setCard(@PathVariable long workspace, @PathVariable long mod, @RequestBody CardText body) {
    words.setCard(workspace, mod, body);
  }

  /** What another version in its place would change. */
  @GetMapping("/compare")
  Replacement compare(
      @PathVariable long workspace, @PathVariable long mod, @RequestParam long with) {
    return versions.compare(workspace, mod, with);
  }

  /** Puts this version in the place of another. */
  @PostMapping("/use")
  ResponseEntity<Void> use(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam long instead,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = versions.use(workspace, Expected.of(ifMatch), instead, mod);
    return ResponseEntity.noContent().eTag(Revision.etag(open.revision())).build();
  }

  /** What removing it would mean. */
  @GetMapping("/removal")
  Bin.Removal removal(@PathVariable long workspace, @PathVariable long mod) {
    return bin.removal(workspace, mod);
  }

  /** Removes it, into the bin. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "false") boolean archive) {
    bin.remove(workspace, mod, archive);
  }
}
