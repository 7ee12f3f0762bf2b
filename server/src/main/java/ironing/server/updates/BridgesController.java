package ironing.server.updates;

import ironing.server.platform.MayBeAbsent;
import ironing.server.updates.Bridges.Bridge;
import ironing.server.updates.Bridges.Side;
import ironing.server.updates.Bridges.State;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The bridges that have to do with what is on. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/bridges")
class BridgesController {
  private final Bridges bridges;
  private final OpenWorkspaces workspaces;

  BridgesController(Bridges bridges, OpenWorkspaces workspaces) {
    this.bridges = bridges;
    this.workspaces = workspaces;
  }

  /**
   * A bridge that is called for, has lost a side, or waits for one.
   *
   * @param mod its id
   * @param here its number in the library; absent where it is not there
   * @param catalogue the title of the one that offers it; absent where it is in the library
   * @param sides the mods that it is for
   */
  record BridgeView(
      State state,
      String mod,
      String name,
      @MayBeAbsent Long here,
      @MayBeAbsent String catalogue,
      List<SideView> sides) {
    static BridgeView of(Bridge b) {
      return new BridgeView(
          b.state(),
          b.mod(),
          b.name(),
          b.here().orElse(null),
          b.catalogue().orElse(null),
          b.sides().stream().map(SideView::of).toList());
    }
  }

  /**
   * A mod that a bridge is for.
   *
   * @param met whether it is on, in range
   */
  record SideView(String mod, String name, String versions, boolean met) {
    static SideView of(Side s) {
      return new SideView(s.mod(), s.name(), s.versions(), s.met());
    }
  }

  /** The bridges that have to do with what is on; those that are called for come first. */
  @GetMapping
  List<BridgeView> bridges(@PathVariable long workspace) {
    return bridges.of(workspaces.get(workspace)).stream().map(BridgeView::of).toList();
  }
}
