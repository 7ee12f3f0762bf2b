package ironing.core.lists;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * An install order as a list, in three forms that carry the same: CSV (RFC 4180), JSON and
 * Markdown. docs/formats/lists.md says how each is written. Pure functions.
 */
public final class ModList {
  static final String FORMAT = "ironing/list@1";
  private static final List<String> COLUMNS =
      List.of("position", "mod", "name", "version", "on", "section", "note");

  private ModList() {}

  /**
   * One layer.
   *
   * @param position 1 is the lowest
   * @param mod the id of its card
   * @param section the name of its section, empty for none
   */
  public record Row(
      int position,
      String mod,
      String name,
      String version,
      boolean on,
      String section,
      String note) {
    private List<String> cells() {
      return List.of(
          String.valueOf(position), mod, name, version, on ? "yes" : "no", section, note);
    }
  }

  public static String csv(List<Row> rows) {
    return TableText.csv(COLUMNS, rows.stream().map(Row::cells).toList());
  }

  public static String json(String title, List<Row> rows) {
    Map<String, Object> list = new LinkedHashMap<>();
    list.put("format", FORMAT);
    list.put("title", title);
    list.put("layers", rows);
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
