package ironing.core.lists;

import java.util.List;
import java.util.Optional;

/**
 * An order that somebody has published: what {@link ListReader} makes of a file. Immutable.
 *
 * @param title as the file calls it, or its name
 * @param entries from the lowest layer, or from the plugin that loads first
 * @param remarks what was not plain about the file, each a sentence
 */
public record PublishedList(Kind kind, String title, List<Entry> entries, List<String> remarks) {
  public PublishedList {
    entries = List.copyOf(entries);
    remarks = List.copyOf(remarks);
  }

  /** What it is an order of. */
  public enum Kind {
    MODS,
    PLUGINS
  }

  /**
   * One line of a list. Text that the file does not give is empty.
   *
   * @param id of the mod's card; of a plugin nothing
   * @param name of the mod, or of the plugin
   * @param on whether it is to be on; empty where the list does not say
   * @param from of a plugin the mod that brings it
   */
  public record Entry(
      String id,
      String name,
      String version,
      Optional<Boolean> on,
      String section,
      String note,
      String from) {
    /** What to call it. */
    public String label() {
      return name.isEmpty() ? id : name;
    }
  }
}
