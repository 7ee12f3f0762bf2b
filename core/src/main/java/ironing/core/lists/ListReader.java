package ironing.core.lists;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import ironing.core.IroningException;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.lists.PublishedList.Kind;
import ironing.core.path.PathCase;
import ironing.core.text.DecodedText;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * Reads an order of mods or of plugins from CSV, JSON or Markdown, as {@link ModList} writes it and
 * as spreadsheets and people do. docs/formats/lists.md says what is understood. Pure functions.
 */
public final class ListReader {
  /** The largest file that is taken for a list, in bytes. */
  public static final int LARGEST = 32 << 20;

  private static final Pattern BULLET =
      Pattern.compile("\\s{0,3}(?:[-*+]|\\d{1,6}[.)])\\s+(?:\\[([ xX])]\\s+)?(\\S.*)");
  private static final Pattern RULE_OF_TABLE = Pattern.compile("\\|?\\s*:?-+:?\\s*(\\|.*)?");

  /** A spreadsheet's own way of saying by what the columns are parted. */
  private static final Pattern SAID_DELIMITER = Pattern.compile("(?i)sep=(.)\\R");

  private static final Set<String> COLUMNS_OF_NAMES = Set.of("name", "mod", "plugin");
  private static final Set<String> YES = Set.of("yes", "y", "true", "on", "1", "x", "use");
  private static final Set<String> NO = Set.of("no", "n", "false", "off", "0", "skip");

  private final String fileName;
  private final List<String> remarks = new ArrayList<>();
  private String title;

  private ListReader(String fileName) {
    this.fileName = fileName;
    this.title = fileName.replaceFirst("\\.[A-Za-z]{1,8}$", "");
  }

  /**
   * @param fileName what to call it; what it is, its content tells
   * @throws IroningException with code {@code bad-list}
   */
  public static PublishedList read(String fileName, byte[] file) {
    return new ListReader(fileName).read(file);
  }

  private PublishedList read(byte[] file) {
    if (file.length > LARGEST)
      throw bad("It is larger than 32 MiB.", "Publish the order alone, as CSV, JSON or Markdown.");
    DecodedText decoded = DecodedText.of(file);
    decoded.remark().ifPresent(remarks::add);
    String text = decoded.text().replace("\u0000", "");
    if (text.isBlank())
      throw bad("There is nothing in it.", "Choose a file that holds an order of mods or plugins.");
    Table table = table(text);
    return new PublishedList(table.kind, title, entries(table), remarks);
  }

  /** Rows by the names of their columns, in lower case, with the line that each begins in. */
  private static final class Table {
    private Kind kind = Kind.MODS;
    private final List<Map<String, String>> rows = new ArrayList<>();
    private final List<Long> lines = new ArrayList<>();

    void add(long line, Map<String, String> row) {
      lines.add(line);
      rows.add(row);
    }
  }

  private Table table(String text) {
    String start = text.stripLeading();
    if (start.startsWith("{") || start.startsWith("[{")) return json(text);
    // a note of several lines may look like a list of Markdown, so what begins as CSV is CSV
    Optional<Table> markdown = beginsAsCsv(start) ? Optional.empty() : markdown(text);
    return markdown.isPresent() ? markdown.get() : csv(text);
  }

  private static boolean beginsAsCsv(String start) {
    if (SAID_DELIMITER.matcher(start).lookingAt()) return true;
    String first = start.lines().findFirst().orElse("");
    for (String cell : first.split(Pattern.quote(String.valueOf(likeliest(first))), -1))
      if (COLUMNS_OF_NAMES.contains(key(cell.replace("\"", "")))) return true;
    return false;
  }

  private Table json(String text) {
    try {
      JsonNode root =
          new ObjectMapper()
              .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
              .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
              .readTree(text);
      if (root.path("format").isTextual() && !root.path("format").asText().equals(ModList.FORMAT)) {
        String format = root.path("format").asText();
        throw bad("Its format is “" + format + "”.", "It must be " + ModList.FORMAT + ".");
      }
      if (root.path("title").isTextual() && !root.path("title").asText().isBlank())
        title = root.path("title").asText().strip();
      Table table = new Table();
      JsonNode rows = root.isArray() ? root : root.path("layers");
      if (!rows.isArray()) {
        rows = root.path("plugins");
        table.kind = Kind.PLUGINS;
      }
      if (!rows.isArray())
        throw bad(
            "It has neither “layers” nor “plugins”.",
            "docs/formats/lists.md shows what a list looks like.");
      for (JsonNode r : rows) {
        Map<String, String> row = new LinkedHashMap<>();
        r.properties().forEach(e -> row.put(key(e.getKey()), e.getValue().asText()));
        table.add(table.rows.size() + 1L, row);
      }
      return table;
    } catch (JsonProcessingException e) {
      int line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
      throw bad("It is not JSON: line " + line + " cannot be read.", "Publish it again.");
    }
  }

  private Optional<Table> markdown(String text) {
    String[] lines = text.split("\\R", -1);
    Table table = new Table();
    List<String> head = null;
    boolean bullets = false;
    for (int i = 0; i < lines.length; i++) {
      String line = lines[i];
      if (head == null
          && i + 1 < lines.length
          && line.contains("|")
          && lines[i + 1].contains("-")
          && RULE_OF_TABLE.matcher(lines[i + 1].strip()).matches()) {
        head = cells(line).stream().map(ListReader::key).toList();
        table.rows.clear();
        table.lines.clear();
        bullets = false;
        i++;
      } else if (head != null) {
        if (!line.contains("|")) break;
        List<String> cells = cells(line);
        Map<String, String> row = new LinkedHashMap<>();
        for (int c = 0; c < Math.min(head.size(), cells.size()); c++)
          row.put(head.get(c), cells.get(c));
        table.add(i + 1, row);
      } else if (line.startsWith("# ")) {
        title = unescaped(line.substring(2).strip());
      } else {
        Matcher bullet = BULLET.matcher(line);
        if (!bullet.matches()) continue;
        bullets = true;
        Map<String, String> row = new LinkedHashMap<>();
        row.put("name", unescaped(bullet.group(2).strip()));
        if (bullet.group(1) != null) row.put("on", bullet.group(1).isBlank() ? "no" : "yes");
        table.add(i + 1, row);
      }
    }
    if (head == null && !bullets) return Optional.empty();
    if (head != null) table.kind = kind(head);
    return Optional.of(table);
  }

  private static List<String> cells(String line) {
    String row = line.strip();
    if (row.startsWith("|")) row = row.substring(1);
    List<String> cells = new ArrayList<>();
    StringBuilder cell = new StringBuilder();
    for (int i = 0; i < row.length(); i++) {
      char c = row.charAt(i);
      if (c == '\\' && i + 1 < row.length()) cell.append(c).append(row.charAt(++i));
      else if (c == '|') {
        cells.add(unescaped(cell.toString().strip()));
        cell.setLength(0);
      } else cell.append(c);
    }
    if (!cell.toString().isBlank()) cells.add(unescaped(cell.toString().strip()));
    return cells;
  }

  private static String unescaped(String cell) {
    return cell.replaceAll("(?i)(?<!\\\\)<br */?>", "\n")
        .replaceAll("\\\\([\\p{Punct}])", "$1")
        .strip();
  }

  private Table csv(String text) {
    String body = text;
    char delimiter = 0;
    Matcher said = SAID_DELIMITER.matcher(text);
    if (said.lookingAt()) {
      delimiter = said.group(1).charAt(0);
      body = text.substring(said.end());
    }
    String first = body.lines().filter(l -> !l.isBlank()).findFirst().orElse("");
    if (delimiter == 0) delimiter = likeliest(first);
    if (delimiter != ',')
      remarks.add(
          "Its columns are separated by "
              + (delimiter == ';'
                  ? "semicolons"
                  : delimiter == '\t' ? "tabs" : "“" + delimiter + "”")
              + ", not by commas.");
    CSVFormat format = CSVFormat.RFC4180.builder().setDelimiter(delimiter).get();
    try (CSVParser parser = CSVParser.parse(body, format)) {
      Table table = new Table();
      List<String> head = null;
      for (CSVRecord r : parser) {
        if (r.stream().allMatch(String::isBlank)) continue;
        if (head == null) {
          head = r.stream().map(ListReader::key).toList();
          table.kind = kind(head);
          continue;
        }
        Map<String, String> row = new LinkedHashMap<>();
        for (int c = 0; c < Math.min(head.size(), r.size()); c++)
          row.put(head.get(c), withoutMark(r.get(c)));
        table.add(parser.getCurrentLineNumber(), row);
      }
      return table;
    } catch (IOException | UncheckedIOException | IllegalStateException e) {
      throw bad("A cell of it cannot be read: a quotation mark has no end.", "Publish it again.");
    }
  }

  private static char likeliest(String head) {
    char best = ',';
    long most = 0;
    for (char c : new char[] {',', ';', '\t'}) {
      long n = head.chars().filter(x -> x == c).count();
      if (n > most) {
        best = c;
        most = n;
      }
    }
    return best;
  }

  private static String withoutMark(String cell) {
    return cell.matches("(?s)'[=+\\-@].*") ? cell.substring(1) : cell;
  }

  private Kind kind(List<String> head) {
    if (head.contains("mod") || head.contains("name")) return Kind.MODS;
    if (head.contains("plugin")) return Kind.PLUGINS;
    throw bad(
        "None of its columns is called name, mod or plugin.",
        "Give the file a first row with the names of its columns.");
  }

  private static String key(String column) {
    return column.strip().toLowerCase(Locale.ROOT);
  }

  private List<Entry> entries(Table table) {
    List<Entry> entries = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (int r : inOrder(table)) {
      Map<String, String> row = table.rows.get(r);
      long line = table.lines.get(r);
      Entry e = entry(table.kind, row, line);
      if (e.label().isEmpty()) {
        remarks.add("Line " + line + " names nothing, and was passed over.");
      } else if (!seen.add(e.id().isEmpty() ? "name " + alike(e.name()) : "id " + e.id())) {
        remarks.add("Line " + line + " names " + e.label() + " again; its first place counts.");
      } else {
        entries.add(e);
      }
    }
    if (entries.isEmpty())
      throw bad("No line of it names a mod or a plugin.", "Look whether it is the right file.");
    return entries;
  }

  private Entry entry(Kind kind, Map<String, String> row, long line) {
    String on = cell(row, "on").toLowerCase(Locale.ROOT);
    Optional<Boolean> isOn =
        YES.contains(on)
            ? Optional.of(true)
            : NO.contains(on) ? Optional.of(false) : Optional.empty();
    if (!on.isEmpty() && isOn.isEmpty())
      remarks.add("Line " + line + " says “" + on + "” under “on”; it counts as not said.");
    if (kind == Kind.PLUGINS) {
      String name = cell(row, "plugin");
      return new Entry(
          "",
          name.isEmpty() ? cell(row, "name") : name,
          "",
          isOn,
          "",
          cell(row, "note"),
          cell(row, "from"));
    }
    return new Entry(
        cell(row, "mod"),
        cell(row, "name"),
        cell(row, "version"),
        isOn,
        cell(row, "section"),
        cell(row, "note"),
        "");
  }

  private static String cell(Map<String, String> row, String column) {
    return row.getOrDefault(column, "").strip();
  }

  /** By their positions where every row has one of its own, else as they stand in the file. */
  private List<Integer> inOrder(Table table) {
    List<Integer> rows = new ArrayList<>();
    List<Integer> positions = new ArrayList<>();
    for (int i = 0; i < table.rows.size(); i++) {
      rows.add(i);
      String position = cell(table.rows.get(i), "position");
      if (position.matches("\\d{1,9}")) positions.add(Integer.parseInt(position));
    }
    if (positions.isEmpty()) return rows;
    if (positions.size() < rows.size() || new HashSet<>(positions).size() < positions.size()) {
      remarks.add("Some of its positions are missing or doubled; the order of its lines counts.");
      return rows;
    }
    rows.sort((a, b) -> Integer.compare(positions.get(a), positions.get(b)));
    return rows;
  }

  /** How a name is compared: without case, and whatever blanks are in it. */
  static String alike(String name) {
    String one = Normalizer.normalize(name, Normalizer.Form.NFKC).strip().replaceAll("\\s+", " ");
    return PathCase.fold(one);
  }

  private IroningException bad(String reason, String remedy) {
    return IroningException.of("bad-list", fileName, reason, remedy);
  }
}
