package ironing.server.library;

import ironing.core.library.ModCard;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.library.InboxController.FolderRequest;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Where a library lies and what it takes, the bin, and installing everything again. */
@RestController
@RequestMapping("/api/workspaces/{workspace}")
class StorageController {
  private final Storage storage;
  private final Bin bin;
  private final Reinstaller reinstaller;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;
  private final Json json;

  StorageController(
      Storage storage,
      Bin bin,
      Reinstaller reinstaller,
      OpenWorkspaces workspaces,
      Jobs jobs,
      Json json) {
    this.storage = storage;
    this.bin = bin;
    this.reinstaller = reinstaller;
    this.workspaces = workspaces;
    this.jobs = jobs;
    this.json = json;
  }

  /** A mod or an archive in the bin. */
  record Binned(long id, String name, String version, String binnedAt, long sizeBytes) {}

  record BinView(List<Binned> mods, List<Binned> archives) {}

  /** What the workspace takes of its drives. */
  @GetMapping("/storage")
  Storage.Use storage(@PathVariable long workspace) {
    return storage.use(workspace);
  }

  /** Moves the library to a folder; an empty name moves it back to where it lay at first. */
  @PostMapping("/storage/move")
  ResponseEntity<Job> moveLibrary(
      @PathVariable long workspace,
      @RequestBody FolderRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, storage.move(workspace, body.folder()), prefer);
  }

  /** Makes the files of every mod of the profile anew from their archives. */
  @PostMapping("/reinstall")
  ResponseEntity<Job> reinstallAll(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, reinstaller.all(workspace), prefer);
  }

  /** What was removed and can come back. */
  @GetMapping("/bin")
  BinView bin(@PathVariable long workspace) {
    workspaces.game(workspace);
    return new BinView(
        bin.mods(workspace).stream()
            .map(
                m -> {
                  ModCard card = json.read(m.card(), ModCard.class);
                  return new Binned(
                      m.id(), card.name(), card.version(), m.binnedAt().toString(), m.sizeBytes());
                })
            .toList(),
        bin.archives(workspace).stream()
            .map(a -> new Binned(a.id(), a.name(), "", a.binnedAt().toString(), a.sizeBytes()))
            .toList());
  }

  /** Brings a mod back from the bin, to the layer that it had. */
  @PostMapping("/bin/mods/{mod}/return")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void returnMod(@PathVariable long workspace, @PathVariable long mod) {
    bin.returnMod(workspace, mod);
  }

  /** Brings an archive back from the bin. */
  @PostMapping("/bin/archives/{archive}/return")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void returnArchive(@PathVariable long workspace, @PathVariable long archive) {
    bin.returnArchive(workspace, archive);
  }

  /** Deletes for good what lies in the bin. */
  @DeleteMapping("/bin")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void emptyBin(@PathVariable long workspace) {
    bin.empty(workspace);
  }
}
