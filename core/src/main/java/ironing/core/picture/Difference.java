package ironing.core.picture;

import ironing.core.layers.Standing.Change;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.PathCase;
import java.util.List;

/**
 * What another arrangement of the same mods would change in the game.
 *
 * @param files paths whose file in play would have another content, or come or go
 * @param pluginsCome plugins that the game would read and did not
 * @param pluginsGo plugins that it would no longer read
 * @param orderChanges whether those that it reads both times would load in another order
 */
public record Difference(
    List<Change> files, List<String> pluginsCome, List<String> pluginsGo, boolean orderChanges) {
  /** Cost: O(paths). */
  public static Difference between(Picture before, Picture after) {
    List<Entry> was = before.loadOrder().active(), is = after.loadOrder().active();
    return new Difference(
        after.standing().changesSince(before.standing()),
        missingIn(before.loadOrder(), is),
        missingIn(after.loadOrder(), was),
        !common(was, after.loadOrder()).equals(common(is, before.loadOrder())));
  }

  private static List<String> missingIn(LoadOrder other, List<Entry> active) {
    return active.stream().filter(e -> !isOn(other, e)).map(Entry::name).toList();
  }

  private static List<String> common(List<Entry> active, LoadOrder other) {
    return active.stream().filter(e -> isOn(other, e)).map(e -> PathCase.fold(e.name())).toList();
  }

  private static boolean isOn(LoadOrder order, Entry e) {
    return order.find(e.name()).map(Entry::on).orElse(false);
  }

  public boolean isNone() {
    return files.isEmpty() && pluginsCome.isEmpty() && pluginsGo.isEmpty() && !orderChanges;
  }
}
