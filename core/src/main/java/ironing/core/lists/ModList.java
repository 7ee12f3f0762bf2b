package ironing.core.lists;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * An install order as a list, in three forms that carry the same: CSV (RFC 4180), JSON and
 * Markdown. docs/formats/lists.md says how each is written. Pure functions.
 */
public final class ModList {
  private static final String FORMAT = "ironing/list@1";
  private static final String[] COLUMNS = {
    "position", "mod", "name", "version", "on", "section", "note"
  };

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
      String note) {}

  /**
   * RFC 4180 with a header row and CR LF. What a spreadsheet would take for a formula begins with
   * an apostrophe.
   */
  public static String csv(List<Row> rows) {
    StringBuilder out = new StringBuilder();
    CSVFormat format = CSVFormat.RFC4180.builder().setHeader(COLUMNS).get();
    try (CSVPrinter printer = new CSVPrinter(out, format)) {
      for (Row r : rows) {
        printer.printRecord(
            r.position(),
            asText(r.mod()),
            asText(r.name()),
            asText(r.version()),
            r.on() ? "yes" : "no",
            asText(r.section()),
            asText(r.note()));
      }
    } catch (IOException e) {
      throw new IllegalStateException("a StringBuilder takes any text", e);
    }
    return out.toString();
  }

  private static String asText(String cell) {
    return !cell.isEmpty() && "=+-@".indexOf(cell.charAt(0)) >= 0 ? "'" + cell : cell;
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

  /** A table (GitHub Flavored Markdown), the lowest layer first. */
  public static String markdown(String title, List<Row> rows) {
    StringBuilder out = new StringBuilder("# ").append(cell(title)).append("\n\n");
    out.append("| position | mod | name | version | on | section | note |\n");
    out.append("|--:|---|---|---|---|---|---|\n");
    for (Row r : rows) {
      out.append("| ").append(r.position());
      for (String c :
          List.of(r.mod(), r.name(), r.version(), r.on() ? "yes" : "no", r.section(), r.note()))
        out.append(" | ").append(cell(c));
      out.append(" |\n");
    }
    return out.toString();
  }

  // what would end a cell, a row or begin markup is taken for what it is
  private static String cell(String text) {
    return text.replace("\\", "\\\\")
        .replaceAll("([|`*_\\[\\]<])", "\\\\$1")
        .replaceAll("\\R", "<br>")
        .strip();
  }
}
