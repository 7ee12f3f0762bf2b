package ironing.server.overlaps;

import ironing.core.IroningException;
import ironing.core.layers.Holdings;
import ironing.core.library.Reading;
import ironing.core.path.GamePath;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Served;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** One path with all who hold it, and what each of them has there. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/path")
class ContentsController {
  private static final long LARGEST_TEXT_BYTES = 4L << 20;
  private static final int HEX_BYTES = 4_096;
  private final OpenWorkspaces workspaces;

  ContentsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * @param combinesAs how the definition says that such files can be combined; absent for whole
   */
  record OnePath(long revision, PathView path, @MayBeAbsent String combinesAs) {}

  /**
   * What one holder has at a path.
   *
   * @param text absent when it is none, or larger than 4 MiB
   * @param hex the first 4,096 bytes; absent when there is a text
   */
  record Contents(
      @MayBeAbsent String text,
      @MayBeAbsent String encoding,
      @MayBeAbsent String hex,
      long sizeBytes,
      String sha256) {}

  /** Who contends for a path, and who is in play. */
  @GetMapping
  OnePath path(@PathVariable long workspace, @RequestParam String path) {
    OpenWorkspace open = workspaces.get(workspace);
    int id = open.picture().holdings().idOf(path);
    if (id < 0 || open.picture().standing().inPlay(id) < 0) throw notThere(path);
    return new OnePath(
        open.revision(),
        new PathViews(open).of(id),
        open.game().combines(path).map(c -> c.as().word()).orElse(null));
  }

  /**
   * The content of a path from one of its contenders.
   *
   * @param mod 0 for the game
   * @param pack the pack that it lies in; absent for a loose file
   */
  @GetMapping("/contents")
  Contents contents(
      @PathVariable long workspace,
      @RequestParam String path,
      @RequestParam long mod,
      @RequestParam Optional<String> pack) {
    OpenWorkspace open = workspaces.get(workspace);
    int slot = slot(open, path, mod, pack);
    Holdings holdings = open.picture().holdings();
    long size = holdings.sizeAt(slot);
    byte[] bytes;
    try {
      bytes =
          open.value()
              .read(slot, (int) (size > LARGEST_TEXT_BYTES ? HEX_BYTES : LARGEST_TEXT_BYTES));
    } catch (IOException e) {
      throw unreadable(path, e);
    }
    boolean binary = size > LARGEST_TEXT_BYTES || Reading.isBinary(bytes);
    if (binary) {
      String hex =
          HexFormat.of().formatHex(Arrays.copyOf(bytes, Math.min(bytes.length, HEX_BYTES)));
      return new Contents(null, null, hex, size, holdings.shaAt(slot));
    }
    Reading.Decoded read = Reading.text(bytes);
    return new Contents(read.text(), read.encoding(), null, size, holdings.shaAt(slot));
  }

  /** The bytes themselves, as an image to look at or a download. */
  @GetMapping("/file")
  ResponseEntity<Resource> file(
      @PathVariable long workspace,
      @RequestParam String path,
      @RequestParam long mod,
      @RequestParam Optional<String> pack) {
    OpenWorkspace open = workspaces.get(workspace);
    int slot = slot(open, path, mod, pack);
    try {
      if (pack.isPresent())
        return Served.bytes(
            GamePath.name(path), open.value().read(slot, Integer.MAX_VALUE - 8), false);
      return Served.file(
          path, open.value().locate(mod, open.picture().holdings().spellingAt(slot)), false);
    } catch (IOException e) {
      throw unreadable(path, e);
    }
  }

  private static int slot(OpenWorkspace open, String path, long mod, Optional<String> pack) {
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(path);
    if (id < 0) throw notThere(path);
    for (Holdings.Source s : holdings.sourcesOf(id))
      if (s.mod() == mod && s.pack().equals(pack)) return holdings.slotOf(id, s.id());
    throw notThere(path);
  }

  private static IroningException notThere(String path) {
    return IroningException.of(
        "not-found", path, "Nobody brings a file there.", "Choose one from the list of paths.");
  }

  private static IroningException unreadable(String path, IOException e) {
    return IroningException.of(
        "file-unreadable",
        path,
        "It cannot be read: " + e.getMessage() + ".",
        "Check its mod in the library, or install it again.",
        e);
  }
}
