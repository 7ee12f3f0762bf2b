package ironing.core.lists;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A load order as a list, in three forms that carry the same: CSV (RFC 4180), JSON and Markdown.
 * Pure functions.
 */
public final class PluginList {
  private static final List<String> COLUMNS = List.of("position", "plugin", "on", "from");

  private PluginList() {}

  /**
   * One plugin.
   *
   * @param position 1 is the first to load
   * @param from the mod that brings it
   */
  public record Row(int position, String plugin, boolean on, String from) {
    private List<String> cells() {
      return List.of(String.valueOf(position), plugin, on ? "yes" : "no", from);
    }
  }

  public static String csv(List<Row> rows) {
    return TableText.csv(COLUMNS, rows.stream().map(Row::cells).toList());
  }

  public static String json(String title, List<Row> rows) {
    Map<String, Object> list = new LinkedHashMap<>();
    list.put("format", ModList.FORMAT);
    list.put("title", title);
    list.put("plugins", rows);
    try {
      return new ObjectMapper().writerWithDefaultPrettyPrinter().writeValueAsString(list) + "\n";
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("rows of text are writable", e);
    }
  }

  public static String markdown(String title, List<Row> rows) {
    return TableText.markdown(title, COLUMNS, rows.stream().map(Row::cells).toList());
  }
}
