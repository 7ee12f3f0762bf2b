package ironing.core.lists;

import java.io.IOException;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** Rows of text as CSV and as Markdown; docs/formats/lists.md says how. Pure functions. */
final class TableText {
  private TableText() {}

  /**
   * RFC 4180 with a header row and CR LF. What a spreadsheet would take for a formula begins with
   * an apostrophe.
   */
  static String csv(List<String> columns, List<List<String>> rows) {
    StringBuilder out = new StringBuilder();
    CSVFormat format = CSVFormat.RFC4180.builder().setHeader(columns.toArray(String[]::new)).get();
    try (CSVPrinter printer = new CSVPrinter(out, format)) {
      for (List<String> r : rows) printer.printRecord(r.stream().map(TableText::asText));
    } catch (IOException e) {
      throw new IllegalStateException("a StringBuilder takes any text", e);
    }
    return out.toString();
  }

  private static String asText(String cell) {
    return !cell.isEmpty() && "=+-@".indexOf(cell.charAt(0)) >= 0 ? "'" + cell : cell;
  }

  /** A table (GitHub Flavored Markdown); the first column is of numbers. */
  static String markdown(String title, List<String> columns, List<List<String>> rows) {
    StringBuilder out = new StringBuilder("# ").append(cell(title)).append("\n\n| ");
    out.append(String.join(" | ", columns)).append(" |\n|--:");
    out.append("|---".repeat(columns.size() - 1)).append("|\n");
    for (List<String> r : rows) {
      for (int c = 0; c < r.size(); c++) out.append(c == 0 ? "| " : " | ").append(cell(r.get(c)));
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
