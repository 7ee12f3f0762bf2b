package ironing.server.loadorder;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.PathCase;
import ironing.core.records.RecordIndex;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who takes the slots, and what would come free cheapest. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order/slots")
class SlotsController {
  private static final int MOST = 40;
  private final OpenWorkspaces workspaces;

  SlotsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * @param mod 0 for the game
   */
  record SlotTaker(long mod, String name, int plugins) {}

  /** A plugin that nobody that is on has as a master. */
  record CheapPlugin(String name, long mod, String modName, int records) {}

  /**
   * @param takers those that take most first
   * @param cheapest the fewest records first
   */
  record SlotTakers(List<SlotTaker> takers, List<CheapPlugin> cheapest) {}

  /** Who takes the slots of plugins, and which come free cheapest. */
  @GetMapping
  SlotTakers slotTakers(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Map<Long, Integer> counts = new LinkedHashMap<>();
    Set<String> masters = new HashSet<>();
    RecordIndex index = open.get(RECORDS).index();
    for (Entry e : open.picture().loadOrder().active()) {
      counts.merge(e.plugin().mod(), 1, Integer::sum);
      e.plugin().masters().forEach(m -> masters.add(PathCase.fold(m)));
    }
    List<SlotTaker> takers = new ArrayList<>();
    counts.forEach((mod, n) -> takers.add(new SlotTaker(mod, open.nameOf(mod), n)));
    takers.sort(Comparator.comparingInt(SlotTaker::plugins).reversed());
    List<CheapPlugin> cheapest = new ArrayList<>();
    for (Entry e : open.picture().loadOrder().active()) {
      if (e.own() || masters.contains(PathCase.fold(e.name()))) continue;
      long mod = e.plugin().mod();
      int at = index.position(e.name());
      int size = at < 0 ? 0 : index.table(at).size();
      cheapest.add(new CheapPlugin(e.name(), mod, open.nameOf(mod), size));
    }
    cheapest.sort(Comparator.comparingInt(CheapPlugin::records));
    return new SlotTakers(
        takers.stream().limit(MOST).toList(), cheapest.stream().limit(MOST).toList());
  }
}
