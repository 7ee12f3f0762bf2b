package ironing.server.downloads;

import ironing.core.Problem;
import ironing.server.downloads.Downloads.Queued;
import ironing.server.downloads.Downloads.State;
import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Objects;
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

/** The queue of downloads of a workspace. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/downloads")
class DownloadsController {
  private final Downloads downloads;

  DownloadsController(Downloads downloads) {
    this.downloads = downloads;
  }

  /**
   * A file that is fetched, or was.
   *
   * @param name of the archive
   * @param received bytes that have come
   * @param bytesASecond lately; 0 where it does not run
   * @param archive its number in the library; absent before it is whole
   * @param problem why it rests or has failed; absent else
   */
  record DownloadView(
      long id,
      String mod,
      String version,
      String name,
      State state,
      long sizeBytes,
      long received,
      long bytesASecond,
      @MayBeAbsent Long archive,
      @MayBeAbsent Problem problem) {
    static DownloadView of(Queued q) {
      return new DownloadView(
          q.id(),
          q.row().mod(),
          q.row().version(),
          q.row().name(),
          q.state(),
          q.row().sizeBytes(),
          q.received(),
          q.bytesASecond(),
          q.archive().orElse(null),
          q.problem().orElse(null));
    }
  }

  /**
   * @param order the numbers of all downloads, in the order in which they are fetched
   */
  record DownloadOrderRequest(List<Long> order) {
    DownloadOrderRequest {
      Objects.requireNonNull(order, "order");
    }
  }

  /**
   * @param bytesASecond how many all downloads together may take; absent for as many as come
   */
  record SpeedLimit(@MayBeAbsent Long bytesASecond) {}

  /** How fast the downloads of this workspace may be. */
  @GetMapping("/limit")
  SpeedLimit speedLimit(@PathVariable long workspace) {
    return new SpeedLimit(downloads.limit(workspace).orElse(null));
  }

  /** Says how fast they may be; those that run keep to it at once. */
  @PutMapping("/limit")
  SpeedLimit setSpeedLimit(@PathVariable long workspace, @RequestBody SpeedLimit body) {
    downloads.setLimit(workspace, Optional.ofNullable(body.bytesASecond()));
    return speedLimit(workspace);
  }

  /** The queue, in its order. */
  @GetMapping
  List<DownloadView> downloads(@PathVariable long workspace) {
    return downloads.all(workspace).stream().map(DownloadView::of).toList();
  }

  /** Says in which order they are fetched. */
  @PutMapping("/order")
  List<DownloadView> orderDownloads(
      @PathVariable long workspace, @RequestBody DownloadOrderRequest body) {
    downloads.arrange(workspace, body.order());
    return downloads(workspace);
  }

  /** Stops one for now; what has come stays. */
  @PostMapping("/{download}/pause")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void pauseDownload(@PathVariable long workspace, @PathVariable long download) {
    downloads.pause(workspace, download);
  }

  /** Goes on with one that was stopped, rests or has failed. */
  @PostMapping("/{download}/resume")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void resumeDownload(@PathVariable long workspace, @PathVariable long download) {
    downloads.resume(workspace, download);
  }

  /** Takes one out of the queue; what is whole stays in the library. */
  @DeleteMapping("/{download}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeDownload(@PathVariable long workspace, @PathVariable long download) {
    downloads.remove(workspace, download);
  }
}
