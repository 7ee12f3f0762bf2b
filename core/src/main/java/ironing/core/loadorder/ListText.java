package ironing.core.loadorder;

import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Entry;

/**
 * The list file that tells the game its load order: one line for each plugin, the last one ended
 * too.
 */
public final class ListText {
  private ListText() {}

  public static String write(GameDefinition.ListFile list, LoadOrder order) {
    StringBuilder out = new StringBuilder();
    for (Entry e : order.entries()) {
      if (e.own() && list.omitOwn()) continue;
      // a game without a word for "off" does not get to see such a plugin at all
      if (e.on()) out.append(list.on().replace("{name}", e.name())).append(list.newline());
      else
        list.off()
            .ifPresent(off -> out.append(off.replace("{name}", e.name())).append(list.newline()));
    }
    return out.toString();
  }
}
