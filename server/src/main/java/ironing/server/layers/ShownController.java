package ironing.server.layers;

import ironing.server.layers.ShownLayers.ShownLayersWish;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How the list of layers is shown. It changes neither the order nor the game. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/layers/shown")
class ShownController {
  private final ShownLayers shown;

  ShownController(ShownLayers shown) {
    this.shown = shown;
  }

  /** How the list of layers is shown in this workspace. */
  @GetMapping
  ShownLayersWish shownLayers(@PathVariable long workspace) {
    return shown.of(workspace);
  }

  /** Says how the list of layers is to be shown. */
  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void showLayers(@PathVariable long workspace, @RequestBody ShownLayersWish body) {
    shown.keep(workspace, body);
  }
}
