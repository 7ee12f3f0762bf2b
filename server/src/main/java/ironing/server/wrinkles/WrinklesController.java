package ironing.server.wrinkles;

import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.wrinkles.SetAsideMapper.SetAsideRow;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** All wrinkles of a workspace, those that were set aside among them. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/wrinkles")
class WrinklesController {
  private final Wrinkles wrinkles;
  private final OpenWorkspaces workspaces;

  WrinklesController(Wrinkles wrinkles, OpenWorkspaces workspaces) {
    this.wrinkles = wrinkles;
    this.workspaces = workspaces;
  }

  /**
   * @param why the user's reason for setting it aside
   */
  record SetAsideView(Wrinkle wrinkle, String why, String at) {}

  /**
   * @param open the weightiest first
   */
  record WrinklesView(List<Wrinkle> open, List<SetAsideView> setAside) {}

  /**
   * @param key of the wrinkle
   */
  record SetAsideRequest(String key, @MayBeAbsent Optional<String> why) {}

  /** What is wrong, the weightiest first, and what was set aside. */
  @GetMapping
  WrinklesView wrinkles(@PathVariable long workspace) {
    Map<String, SetAsideRow> quiet = new HashMap<>();
    for (SetAsideRow r : wrinkles.setAside(workspace)) quiet.put(r.key(), r);
    List<Wrinkle> open = new ArrayList<>();
    List<SetAsideView> aside = new ArrayList<>();
    for (Wrinkle w : wrinkles.of(workspaces.get(workspace))) {
      SetAsideRow row = quiet.get(w.key());
      if (row == null) open.add(w);
      else aside.add(new SetAsideView(w, row.reason(), row.at()));
    }
    return new WrinklesView(open, aside);
  }

  /**
   * @param key as the fix of the wrinkle names it
   */
  record DropRequest(String key) {}

  /** Drops something that is written down of the workspace and cannot be read. */
  @PostMapping("/drop-unreadable")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void dropUnreadable(@PathVariable long workspace, @RequestBody DropRequest body) {
    workspaces.drop(workspace, body.key());
  }

  /** Sets a wrinkle aside: it stays quiet until its facts change. */
  @PostMapping("/set-aside")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void setAside(@PathVariable long workspace, @RequestBody SetAsideRequest body) {
    wrinkles.setAside(
        workspaces.get(workspace),
        body.key(),
        body.why() == null ? "" : body.why().orElse("").strip());
  }

  /** Takes a wrinkle up again. */
  @DeleteMapping("/set-aside/{key}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void takeUp(@PathVariable long workspace, @PathVariable String key) {
    wrinkles.takeUp(workspaces.get(workspace), key);
  }
}
