package ironing.server.library;

import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What is done with several mods of a library at once. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/library")
class SeveralController {
  private final ModWords words;
  private final Bin bin;

  SeveralController(ModWords words, Bin bin) {
    this.words = words;
    this.bin = bin;
  }

  /**
   * @param add tags that all of them get; absent for none
   * @param remove tags that none of them has any more; absent for none
   */
  record ChangeTagsRequest(
      List<Long> mods, @MayBeAbsent List<String> add, @MayBeAbsent List<String> remove) {
    ChangeTagsRequest {
      Objects.requireNonNull(mods, "mods");
      add = add == null ? List.of() : add;
      remove = remove == null ? List.of() : remove;
    }
  }

  /**
   * @param withArchive whether their archives go too, those that nothing else is made of; absent
   *     for no
   */
  record RemoveModsRequest(List<Long> mods, @MayBeAbsent Boolean withArchive) {
    RemoveModsRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  /** Gives tags to mods, and takes tags from them; all of them or none. */
  @PostMapping("/tags")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void changeTags(@PathVariable long workspace, @RequestBody ChangeTagsRequest body) {
    words.changeTags(workspace, body.mods(), body.add(), body.remove());
  }

  /** Removes mods, into the bin; none where one of them is not there. */
  @PostMapping("/remove")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeMods(@PathVariable long workspace, @RequestBody RemoveModsRequest body) {
    bin.removeAll(workspace, body.mods(), Boolean.TRUE.equals(body.withArchive()));
  }
}
