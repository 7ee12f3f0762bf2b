package ironing.core.combinedfiles;

import static ironing.core.game.CombineWay.INI;
import static ironing.core.game.CombineWay.JSON;
import static ironing.core.game.CombineWay.LIST;
import static ironing.core.game.CombineWay.PROPERTIES;
import static ironing.core.game.CombineWay.TABLE;
import static ironing.core.game.CombineWay.TEXT;
import static ironing.core.game.CombineWay.XML;
import static ironing.core.game.CombineWay.YAML;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.game.CombineWay;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import javax.xml.crypto.OctetStreamData;
import javax.xml.crypto.dsig.CanonicalizationMethod;
import javax.xml.crypto.dsig.TransformService;
import javax.xml.crypto.dsig.spec.TransformParameterSpec;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.statistics.Statistics;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

/** What combining promises, on random files, read back by other libraries than ours. */
class CombinationLawsTest {
  private static final ObjectMapper READER = new ObjectMapper();

  // ---- a model: maps of maps of numbers, combined cell by cell in the plainest way

  private static Map<String, Object> random(Random r, int depth) {
    Map<String, Object> map = new LinkedHashMap<>();
    for (int i = r.nextInt(5); i >= 0; i--) map.put("k" + r.nextInt(9), value(r, depth));
    return map;
  }

  private static Object value(Random r, int depth) {
    return depth > 0 && r.nextInt(3) == 0 ? random(r, depth - 1) : (Object) r.nextInt(4);
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object> edited(Map<String, Object> base, Random r, int depth) {
    Map<String, Object> map = new LinkedHashMap<>();
    for (Map.Entry<String, Object> e : base.entrySet()) {
      int dice = r.nextInt(8);
      if (dice == 0) continue;
      Object v = e.getValue();
      if (dice == 1) v = value(r, depth - 1);
      else if (v instanceof Map) v = edited((Map<String, Object>) v, r, depth - 1);
      map.put(e.getKey(), v);
    }
    if (r.nextInt(3) == 0) map.putIfAbsent("k" + r.nextInt(9), value(r, depth - 1));
    if (map.isEmpty()) map.put("k0", 0);
    return map;
  }

  private static final Object NONE = new Object();

  /** The combination, or empty where something has to be asked. */
  @SuppressWarnings("unchecked")
  private static Optional<Object> model(Object base, Object a, Object b) {
    if (base.equals(a)) return Optional.of(b);
    if (base.equals(b) || a.equals(b)) return Optional.of(a);
    boolean maps = a instanceof Map && b instanceof Map && (base instanceof Map || base == NONE);
    if (!maps) return Optional.empty();
    Map<String, Object> was = base == NONE ? Map.of() : (Map<String, Object>) base;
    Map<String, Object> out = new TreeMap<>();
    Set<String> keys = new HashSet<>(was.keySet());
    keys.addAll(((Map<String, Object>) a).keySet());
    keys.addAll(((Map<String, Object>) b).keySet());
    for (String k : keys) {
      Optional<Object> v =
          model(
              was.getOrDefault(k, NONE),
              ((Map<String, Object>) a).getOrDefault(k, NONE),
              ((Map<String, Object>) b).getOrDefault(k, NONE));
      if (v.isEmpty()) return Optional.empty();
      if (v.get() != NONE) out.put(k, v.get());
    }
    return Optional.of(out);
  }

  // ---- how a model is written, in one of several manners, and read by somebody else

  private static String json(Object v, Random r, String indent) {
    if (!(v instanceof Map<?, ?> m)) return r.nextInt(4) == 0 ? v + ".0" : v.toString();
    if (m.isEmpty()) return "{}";
    boolean lines = r.nextBoolean();
    String inner = indent + "  ";
    return m.entrySet().stream()
        .map(e -> "\"" + e.getKey() + "\": " + json(e.getValue(), r, inner))
        .collect(
            Collectors.joining(
                lines ? ",\n" + inner : ", ",
                lines ? "{\n" + inner : "{ ",
                lines ? "\n" + indent + "}" : " }"));
  }

  private static String yaml(Object v, Random r, String indent) {
    if (!(v instanceof Map<?, ?> m)) return " " + v + (r.nextInt(4) == 0 ? "  # so" : "") + "\n";
    if (m.isEmpty()) return " {}\n";
    StringBuilder out = new StringBuilder(indent.isEmpty() ? "" : "\n");
    for (Map.Entry<?, ?> e : m.entrySet()) {
      if (r.nextInt(6) == 0)
        out.append(r.nextBoolean() ? "\n" : indent + "# of " + e.getKey() + "\n");
      out.append(indent).append(e.getKey()).append(':');
      out.append(yaml(e.getValue(), r, indent + (r.nextBoolean() ? "  " : "    ")));
    }
    return out.toString();
  }

  private static Object readJson(String text) throws IOException {
    return numbers(READER.readValue(text, Object.class));
  }

  private static Object readYaml(String text) {
    return numbers(new Load(LoadSettings.builder().build()).loadFromString(text));
  }

  private static Object numbers(Object v) {
    if (v instanceof Number n) return n.intValue();
    if (v instanceof List<?> l) return l.stream().map(CombinationLawsTest::numbers).toList();
    if (!(v instanceof Map<?, ?> m)) return v;
    Map<String, Object> out = new TreeMap<>();
    m.forEach((k, x) -> out.put(k.toString(), numbers(x)));
    return out;
  }

  @Property(tries = 3000, seed = "8160")
  void json_comes_out_as_a_plain_model_has_it(@ForAll long seed) throws IOException {
    Random r = new Random(seed);
    Map<String, Object> base = random(r, 3), a = edited(base, r, 3), b = edited(base, r, 3);
    String was = json(base, r, ""), one = json(a, r, ""), two = json(b, r, "");
    Optional<Object> wanted = model(base, a, b);
    Statistics.label("asked").collect(wanted.isEmpty());
    CombinedFile c = Combining.of(JSON, was, one, two);
    check(c, wanted, c.outcome().isPresent() ? readJson(c.shown()) : null);
    laws(JSON, was, one, two, c);
  }

  @Property(tries = 3000, seed = "8160")
  void yaml_comes_out_as_a_plain_model_has_it(@ForAll long seed) {
    Random r = new Random(seed);
    Map<String, Object> base = random(r, 3), a = edited(base, r, 3), b = edited(base, r, 3);
    String was = yaml(base, r, ""), one = yaml(a, r, ""), two = yaml(b, r, "");
    CombinedFile c = Combining.of(YAML, was, one, two);
    // “{}” is of another build than lines are, and is taken whole
    boolean flow = (was + one + two).contains("{}");
    Object read = c.outcome().isPresent() ? readYaml(c.shown()) : null;
    if (!flow || c.outcome().isPresent()) check(c, model(base, a, b), read);
    laws(YAML, was, one, two, c);
  }

  private static final List<String> ODD_PROPERTIES =
      List.of(
          "=1",
          " 1",
          ":1",
          "",
          "=",
          "=1\\",
          "=1\\\\",
          "=\\u0041",
          "=1\\\n  2",
          "=1\\\n",
          "=#1",
          "\\ x=1",
          "=1\n#c\\",
          "=\\\\\\",
          "=\n");
  private static final List<String> ODD_YAML =
      List.of(
          ": 1",
          ":",
          ": |\n  t",
          ": |+\n  t\n\n",
          ": |-\n  t\n",
          ": >\n  a\n  b\n\n  c",
          ": \"a\\\n   b\"",
          ": a\n  b",
          ": 'x\n\n  y'",
          ":\n- 1\n- 2",
          ":\n  - 1",
          ": [1,\n  2]",
          ": {q: 1}",
          ":  # c",
          ": !!str 1",
          ": ~",
          ": \"x # y\"",
          ": x #y",
          ": |2\n    t",
          ": >+\n  a\n\n\n",
          ":\n  m: |+\n   t\n\n");
  private static final List<String> ODD_JSON =
      List.of(
          "1",
          "\"a,b\"",
          "[1,\n 2]",
          "{ }",
          "[]",
          "{\"q\":\n1}",
          "\"\\\\\"",
          "\"}\"",
          "null",
          "1e2");

  /** Entries whose values are written oddly, each on its lines, with odd ends of the whole. */
  private static String odd(CombineWay way, Map<String, String> entries, Random r) {
    String end = List.of("", "\n", "\n\n").get(r.nextInt(3));
    String quote = way == JSON ? "\"" : "";
    List<String> lines = new ArrayList<>();
    entries.forEach((k, v) -> lines.add(quote + k + quote + (way == JSON ? ": " : "") + v));
    if (way == JSON) return "{" + String.join(",\n  ", lines) + "}" + end;
    return String.join("\n", lines) + end;
  }

  private static Map<String, String> oddly(
      Map<String, String> base, List<String> values, Random r) {
    Map<String, String> map = new LinkedHashMap<>();
    base.forEach(
        (k, v) -> {
          int dice = r.nextInt(6);
          if (dice > 0) map.put(k, dice == 1 ? values.get(r.nextInt(values.size())) : v);
        });
    for (int i = r.nextInt(3); i > 0; i--)
      map.putIfAbsent("k" + r.nextInt(9), values.get(r.nextInt(values.size())));
    if (map.isEmpty()) map.put("k0", values.get(0));
    return map;
  }

  /** What a value is read as depends on what stands behind it: it is never another one’s. */
  @Property(tries = 6000, seed = "8160")
  void values_that_are_written_oddly_come_out_as_they_are_read(@ForAll long seed) {
    Random r = new Random(seed);
    CombineWay way = List.of(PROPERTIES, YAML, JSON).get(r.nextInt(3));
    List<String> values = way == YAML ? ODD_YAML : way == JSON ? ODD_JSON : ODD_PROPERTIES;
    Map<String, String> base = oddly(Map.of(), values, r);
    Map<String, String> a = oddly(base, values, r), b = oddly(base, values, r);
    String was = odd(way, base, r), one = odd(way, a, r), two = odd(way, b, r);
    CombinedFile c = Combining.of(way, was, one, two);
    Optional<Object> wanted =
        model(entries(meaning(way, was)), entries(meaning(way, one)), entries(meaning(way, two)));
    boolean byKeys = c.remarks().stream().noneMatch(m -> m.code().equals("unparsable"));
    Statistics.label("a model’s outcome").collect(wanted.isPresent() && c.outcome().isPresent());
    if (byKeys && wanted.isPresent() && c.outcome().isPresent())
      assertThat(entries(meaning(way, c.shown())))
          .as("%s + %s + %s = %s", was, one, two, c.shown())
          .isEqualTo(wanted.get());
  }

  private static Object entries(Object read) {
    if (!(read instanceof Map<?, ?> m)) return Map.of();
    Map<String, Object> out = new TreeMap<>();
    m.forEach((k, v) -> out.put(k.toString(), v == null ? "null" : v));
    return out;
  }

  private static void check(CombinedFile c, Optional<Object> wanted, Object read) {
    assertThat(c.outcome().isPresent()).as(c.shown()).isEqualTo(wanted.isPresent());
    wanted.ifPresent(w -> assertThat(read).isEqualTo(numbers(w)));
  }

  private static void laws(CombineWay way, String was, String one, String two, CombinedFile c) {
    assertThat(asked(Combining.of(way, was, two, one))).isEqualTo(asked(c));
    assertThat(meaning(way, Combining.text(way, was, one, was))).isEqualTo(meaning(way, one));
    assertThat(meaning(way, Combining.text(way, was, was, two))).isEqualTo(meaning(way, two));
    assertThat(meaning(way, Combining.text(way, was, one, one))).isEqualTo(meaning(way, one));
    assertThat(Combining.text(way, was, was)).isEqualTo(was);
    if (c.outcome().isEmpty()) return;
    String outcome = c.shown();
    assertThat(meaning(way, Combining.of(way, was, two, one).shown()))
        .isEqualTo(meaning(way, outcome));
    assertThat(Combining.text(way, outcome, outcome, outcome)).isEqualTo(outcome);
    // of lines that several moved nobody can tell which are the same: there it is one side alone
    String again =
        way == TEXT
            ? Combining.text(way, was, outcome)
            : Combining.text(way, was, one, two, outcome);
    assertThat(meaning(way, again))
        .as("combining again changes nothing")
        .isEqualTo(meaning(way, outcome));
  }

  private static Set<String> asked(CombinedFile c) {
    return c.places().stream()
        .filter(p -> p.how() == Place.How.ASKED)
        .map(Place::key)
        .collect(Collectors.toSet());
  }

  /** What a text means, as somebody else reads it, whatever the order of its keys. */
  private static Object meaning(CombineWay way, String text) {
    try {
      return switch (way) {
        case JSON -> readJson(text);
        case YAML -> readYaml(text);
        case LIST ->
            text.lines().map(String::strip).filter(l -> !l.isEmpty()).collect(Collectors.toSet());
        case PROPERTIES -> properties(text);
        case TABLE -> rows(text);
        case INI -> ini(text);
        default -> text;
      };
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  private static Properties properties(String text) throws IOException {
    Properties p = new Properties();
    p.load(new StringReader(text));
    return p;
  }

  private static Map<String, Map<String, String>> rows(String text) throws IOException {
    Map<String, Map<String, String>> rows = new TreeMap<>();
    CSVFormat rfc = CSVFormat.RFC4180.builder().setHeader().setSkipHeaderRecord(true).get();
    for (CSVRecord row : rfc.parse(new StringReader(text))) rows.put(row.get("id"), row.toMap());
    return rows;
  }

  private static Map<String, String> ini(String text) {
    Map<String, String> all = new TreeMap<>();
    String section = "";
    for (String line : text.lines().map(String::strip).toList()) {
      if (line.isEmpty() || line.startsWith(";")) continue;
      if (line.startsWith("[")) section = line.toLowerCase(Locale.ROOT);
      int equals = line.indexOf('=');
      if (equals > 0)
        all.put(
            section + line.substring(0, equals).strip().toLowerCase(Locale.ROOT),
            line.substring(equals + 1).strip());
    }
    return all;
  }

  @Property(tries = 2000, seed = "8160")
  void settings_keep_the_laws(@ForAll long seed) {
    Random r = new Random(seed);
    Map<String, Object> base = random(r, 0), a = edited(base, r, 0), b = edited(base, r, 0);
    String was = flat(base, r), one = flat(a, r), two = flat(b, r);
    for (CombineWay way : List.of(PROPERTIES, INI)) {
      CombinedFile c = Combining.of(way, was, one, two);
      assertThat(c.outcome().isPresent()).isEqualTo(model(base, a, b).isPresent());
      laws(way, was, one, two, c);
    }
    String sections = sections(r, base), sectionsA = sections(r, a), sectionsB = sections(r, b);
    laws(INI, sections, sectionsA, sectionsB, Combining.of(INI, sections, sectionsA, sectionsB));
  }

  private static String flat(Map<String, Object> map, Random r) {
    StringBuilder out = new StringBuilder();
    map.forEach(
        (k, v) -> {
          if (r.nextInt(5) == 0) out.append(r.nextBoolean() ? "\n" : "# of " + k + "\n");
          out.append(k).append(r.nextBoolean() ? "=" : " = ").append(v).append('\n');
        });
    return out.toString();
  }

  private static String sections(Random r, Map<String, Object> map) {
    StringBuilder out = new StringBuilder();
    for (String name : List.of("", "[one]\n", "[two]\n")) {
      if (r.nextInt(4) == 0) continue;
      out.append(name).append(flat(map, r));
    }
    return out.toString();
  }

  /** With its inner line ends taken for letters, a long value is one on a line. */
  @Property(tries = 2000, seed = "8160")
  void long_values_are_combined_as_the_same_values_on_one_line(@ForAll long seed) {
    Random r = new Random(seed);
    Map<String, Object> base = random(r, 0), a = edited(base, r, 0), b = edited(base, r, 0);
    List<String> texts = new ArrayList<>();
    for (Map<String, Object> m : List.of(base, a, b)) {
      StringBuilder text = new StringBuilder("[s]\n");
      m.forEach((key, v) -> text.append(key).append(" = ").append(longValue(v)).append('\n'));
      texts.add(text.toString());
    }
    CombinedFile c = Combining.longIni(texts.get(0), texts.get(1), texts.get(2));
    List<String> flat = texts.stream().map(CombinationLawsTest::flattened).toList();
    CombinedFile f = Combining.of(INI, flat.get(0), flat.get(1), flat.get(2));
    assertThat(c.way()).isEqualTo(INI);
    assertThat(flattened(c.shown())).isEqualTo(f.shown());
    assertThat(c.asked()).isEqualTo(f.asked());
    assertThat(c.places()).hasSameSizeAs(f.places());
  }

  private static String longValue(Object v) {
    int n = v.hashCode();
    return switch (Math.floorMod(n, 4)) {
      case 0 -> "{\n" + "  x = " + n + "\n  y = { 1, {\n 2 } }\n}";
      case 1 -> "one \\\n  " + n + " \\\nthree";
      case 2 -> "\"}{\" {\n" + n + "}";
      default -> Integer.toString(n);
    };
  }

  private static String flattened(String text) {
    return text.replaceAll("\\n(?!k\\d|\\[|$)", "\u0001").replaceAll("\\n\\z", "\n");
  }

  @Property(tries = 2000, seed = "8160")
  void lists_keep_the_laws_and_additions_follow_the_layers(@ForAll long seed) {
    Random r = new Random(seed);
    List<String> texts = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      Set<Integer> lines = new LinkedHashSet<>();
      for (int n = r.nextInt(8); n > 0; n--) lines.add(r.nextInt(12));
      texts.add(lines.stream().map(n -> "line " + n + "\n").collect(Collectors.joining()));
    }
    String base = texts.get(0), a = texts.get(1), b = texts.get(2);
    CombinedFile c = Combining.of(LIST, base, a, b);
    assertThat(c.asked()).isZero();
    List<String> wanted = new ArrayList<>(base.lines().toList());
    for (String side : List.of(a, b)) {
      Set<String> gone = base.lines().collect(Collectors.toSet());
      side.lines().forEach(gone::remove);
      wanted.removeAll(gone);
    }
    for (String side : List.of(a, b))
      side.lines()
          .filter(l -> !wanted.contains(l) && !base.lines().toList().contains(l))
          .forEach(wanted::add);
    assertThat(c.shown().lines().filter(l -> !l.isBlank()).toList()).isEqualTo(wanted);
    laws(LIST, base, a, b, c);
  }

  @Property(tries = 2000, seed = "8160")
  void tables_come_out_as_a_plain_model_has_them(@ForAll long seed) {
    Random r = new Random(seed);
    Map<String, Object> base = table(r);
    Map<String, Object> a = otherCells(base, r), b = otherCells(base, r);
    String was = csv(base, r), one = csv(a, r), two = csv(b, r);
    CombinedFile c = Combining.of(TABLE, was, one, two);
    Optional<Object> wanted = model(base, a, b);
    assertThat(c.outcome().isPresent()).isEqualTo(wanted.isPresent());
    wanted.ifPresent(w -> assertThat(meaning(TABLE, c.shown())).isEqualTo(texts(w)));
    laws(TABLE, was, one, two, c);
  }

  private static Map<String, Object> table(Random r) {
    Map<String, Object> rows = new LinkedHashMap<>();
    for (int i = r.nextInt(6); i >= 0; i--) {
      String id = "" + r.nextInt(20);
      rows.put(id, row(id, r.nextInt(4), r.nextInt(4)));
    }
    return rows;
  }

  private static Map<String, Object> row(String id, int v, int w) {
    return new LinkedHashMap<>(Map.of("id", id, "v", v, "w", w));
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object> otherCells(Map<String, Object> base, Random r) {
    Map<String, Object> rows = new LinkedHashMap<>();
    base.forEach(
        (id, cells) -> {
          if (r.nextInt(6) == 0) return;
          Map<String, Object> row = new LinkedHashMap<>((Map<String, Object>) cells);
          if (r.nextInt(3) == 0) row.put(r.nextBoolean() ? "v" : "w", r.nextInt(4));
          rows.put(id, row);
        });
    if (r.nextInt(2) == 0) {
      String id = "" + (20 + r.nextInt(3));
      rows.put(id, row(id, r.nextInt(2), 0));
    }
    return rows;
  }

  @SuppressWarnings("unchecked")
  private static String csv(Map<String, Object> rows, Random r) {
    StringBuilder out = new StringBuilder("id,v,w\n");
    rows.forEach(
        (id, cells) -> {
          Map<String, Object> row = (Map<String, Object>) cells;
          out.append(cell(row.get("id"), r)).append(',').append(cell(row.get("v"), r));
          out.append(',').append(cell(row.get("w"), r)).append('\n');
        });
    return out.toString();
  }

  private static String cell(Object v, Random r) {
    return r.nextInt(4) == 0 ? "\"" + v + "\"" : v.toString();
  }

  private static Object texts(Object v) {
    if (!(v instanceof Map<?, ?> m)) return v.toString();
    Map<String, Object> out = new TreeMap<>();
    m.forEach((k, x) -> out.put(k.toString(), texts(x)));
    return out;
  }

  /**
   * Cells of several lines, in files whose rows end in different ways; read by Apache Commons CSV,
   * whose RFC4180 is the reference here.
   */
  @Property(tries = 2000, seed = "8160")
  void cells_of_several_lines_are_what_their_mods_made_them(@ForAll long seed) throws IOException {
    Random r = new Random(seed);
    List<String> ends = List.of("\n", "\r\n");
    List<String> cells = List.of("x", "two\nlines", "two\r\nlines", "a \"b\", c", " blank ", "");
    Map<String, String> base = new TreeMap<>(), a = new TreeMap<>(), b = new TreeMap<>();
    for (int i = 0; i < 4; i++) base.put("" + i, cells.get(r.nextInt(cells.size())));
    a.putAll(base);
    b.putAll(base);
    a.put("1", cells.get(r.nextInt(cells.size())));
    b.put("2", cells.get(r.nextInt(cells.size())));
    b.put("9", cells.get(r.nextInt(cells.size())));
    String end = ends.get(r.nextInt(2));
    // both mods' programs end rows in one way, it may be another than the game's
    String other = ends.get(r.nextInt(2));
    CombinedFile c =
        Combining.of(TABLE, lines(base, end, r), lines(a, other, r), lines(b, other, r));
    Map<String, String> wanted = new TreeMap<>(base);
    wanted.put("1", a.get("1"));
    wanted.put("2", b.get("2"));
    wanted.put("9", b.get("9"));
    assertThat(c.asked()).isZero();
    Map<String, String> read = new TreeMap<>();
    try (CSVParser parser = CSVParser.parse(c.shown(), CSVFormat.RFC4180)) {
      parser.stream().skip(1).forEach(row -> read.put(row.get(0), row.get(1)));
    }
    if (end.equals(other)) assertThat(read).isEqualTo(wanted);
    else {
      // what nobody touched stays to the byte; what came in says what the mod says
      for (String key : List.of("0", "3")) assertThat(read).containsEntry(key, base.get(key));
      wanted.replaceAll((k, v) -> v.replace("\r\n", "\n"));
      read.replaceAll((k, v) -> v.replace("\r\n", "\n"));
      assertThat(read).isEqualTo(wanted);
    }
    String row = c.shown().substring(c.shown().indexOf(end) + end.length());
    assertThat(row).endsWith(end);
  }

  private static String lines(Map<String, String> rows, String end, Random r) {
    StringBuilder out = new StringBuilder("id,text").append(end);
    rows.forEach(
        (id, v) -> {
          boolean must = v.contains("\n") || v.contains("\"");
          out.append(id).append(',');
          if (must || r.nextInt(4) == 0)
            out.append('"').append(v.replace("\"", "\"\"")).append('"');
          else out.append(v);
          out.append(end);
        });
    return out.toString();
  }

  @Property(tries = 2000, seed = "8160")
  void texts_keep_the_laws(@ForAll long seed) {
    Random r = new Random(seed);
    List<String> lines = new ArrayList<>();
    for (int i = r.nextInt(30); i >= 0; i--) lines.add("line " + r.nextInt(20));
    String was = String.join("\n", lines), one = other(lines, r), two = other(lines, r);
    laws(TEXT, was, one, two, Combining.of(TEXT, was, one, two));
  }

  private static String other(List<String> lines, Random r) {
    List<String> out = new ArrayList<>(lines);
    for (int i = r.nextInt(3); i > 0; i--) {
      int at = r.nextInt(out.size());
      if (r.nextBoolean()) out.add(at, "new " + r.nextInt(3));
      else if (out.size() > 1) out.remove(at);
    }
    return String.join("\n", out);
  }

  /**
   * RFC 7396 (JSON Merge Patch), appendix A: its originals and results read as a base and one
   * changed side. From memory.
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"a\":\"b\"} | {\"a\":\"c\"}",
        "{\"a\":\"b\"} | {\"a\":\"b\",\"b\":\"c\"}",
        "{\"a\":\"b\"} | {}",
        "{\"a\":\"b\",\"b\":\"c\"} | {\"b\":\"c\"}",
        "{\"a\":[\"b\"]} | {\"a\":\"c\"}",
        "{\"a\":\"c\"} | {\"a\":[\"b\"]}",
        "{\"a\":{\"b\":\"c\"}} | {\"a\":{\"b\":\"d\"}}",
        "{\"a\":[{\"b\":\"c\"}]} | {\"a\":[1]}",
        "[\"a\",\"b\"] | [\"c\",\"d\"]",
        "{\"a\":\"b\"} | [\"c\"]",
        "{\"a\":\"foo\"} | null",
        "{\"a\":\"foo\"} | \"bar\"",
        "{\"e\":null} | {\"e\":null,\"a\":1}",
        "[1,2] | {\"a\":\"b\"}",
        "{} | {\"a\":{\"bb\":{}}}"
      })
  void one_sided_changes_agree_with_rfc_7396(String original, String result) throws IOException {
    one(original, result);
  }

  /**
   * RFC 6902 (JSON Patch), appendix A.1–A.7, A.10, A.14 and A.16: documents before and after, read
   * likewise. From memory.
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"foo\":\"bar\"} | {\"baz\":\"qux\",\"foo\":\"bar\"}",
        "{\"foo\":[\"bar\",\"baz\"]} | {\"foo\":[\"bar\",\"qux\",\"baz\"]}",
        "{\"baz\":\"qux\",\"foo\":\"bar\"} | {\"foo\":\"bar\"}",
        "{\"foo\":[\"bar\",\"qux\",\"baz\"]} | {\"foo\":[\"bar\",\"baz\"]}",
        "{\"baz\":\"qux\",\"foo\":\"bar\"} | {\"baz\":\"boo\",\"foo\":\"bar\"}",
        "{\"foo\":{\"bar\":\"baz\",\"waldo\":\"fred\"},\"qux\":{\"corge\":\"grault\"}}"
            + " | {\"foo\":{\"bar\":\"baz\"},\"qux\":{\"corge\":\"grault\",\"thud\":\"fred\"}}",
        "{\"foo\":[\"all\",\"grass\",\"cows\",\"eat\"]} | {\"foo\":[\"all\",\"cows\",\"eat\",\"grass\"]}",
        "{\"foo\":\"bar\"} | {\"foo\":\"bar\",\"child\":{\"grandchild\":{}}}",
        "{\"/\":9,\"~1\":10} | {\"/\":9,\"~1\":11}",
        "{\"foo\":[\"bar\"]} | {\"foo\":[\"bar\",[\"abc\",\"def\"]]}"
      })
  void one_sided_changes_agree_with_rfc_6902(String before, String after) throws IOException {
    one(before, after);
  }

  private static void one(String before, String after) throws IOException {
    for (String outcome :
        List.of(
            Combining.text(JSON, before, after, before),
            Combining.text(JSON, before, before, after),
            Combining.text(JSON, before, after, after)))
      assertThat(READER.readTree(outcome)).isEqualTo(READER.readTree(after));
  }

  /** Canonical XML 1.0 of the outcome, by the Java platform. */
  @Property(tries = 1000, seed = "8160")
  void xml_comes_out_as_its_canonical_form_has_it(@ForAll long seed) throws Exception {
    Random r = new Random(seed);
    Map<String, Map<String, String>> base = panes(r);
    Map<String, Map<String, String>> a = otherPanes(base, r, "a"), b = otherPanes(base, r, "b");
    CombinedFile c = Combining.of(XML, xml(base, r), xml(a, r), xml(b, r));
    Map<String, Map<String, String>> wanted = new LinkedHashMap<>();
    boolean asks = false;
    Set<String> ids = new LinkedHashSet<>(base.keySet());
    ids.addAll(a.keySet());
    ids.addAll(b.keySet());
    for (String id : ids) {
      Object was = base.containsKey(id) ? base.get(id) : NONE;
      Object one = a.containsKey(id) ? a.get(id) : NONE, two = b.containsKey(id) ? b.get(id) : NONE;
      Optional<Object> v = model(was, one, two);
      if (v.isEmpty()) asks = true;
      else if (v.get() != NONE) wanted.put(id, cast(v.get()));
    }
    assertThat(c.outcome().isEmpty()).isEqualTo(asks);
    if (!asks) assertThat(canonical(c.shown())).isEqualTo(canonical(xml(wanted, r)));
  }

  @SuppressWarnings("unchecked")
  private static Map<String, String> cast(Object map) {
    return new TreeMap<>((Map<String, String>) map);
  }

  private static Map<String, Map<String, String>> panes(Random r) {
    Map<String, Map<String, String>> panes = new LinkedHashMap<>();
    for (int i = r.nextInt(5); i >= 0; i--)
      panes.put("p" + i, new HashMap<>(Map.of("w", attribute(r), "h", attribute(r))));
    return panes;
  }

  private static Map<String, Map<String, String>> otherPanes(
      Map<String, Map<String, String>> base, Random r, String who) {
    Map<String, Map<String, String>> panes = new LinkedHashMap<>();
    base.forEach(
        (id, attributes) -> {
          if (r.nextInt(7) == 0) return;
          Map<String, String> other = new HashMap<>(attributes);
          if (r.nextInt(3) == 0) other.put(r.nextBoolean() ? "w" : "lit", attribute(r));
          if (r.nextInt(6) == 0) other.remove("h");
          panes.put(id, other);
        });
    if (r.nextBoolean()) panes.put("of " + who, Map.of("w", "1"));
    return panes;
  }

  private static String attribute(Random r) {
    return List.of("1", "2", "5\" y=\"6", "it's", "a < b & c > d", "'\"", "").get(r.nextInt(7));
  }

  /** A value as XML 1.0 writes it, between either of its quotes. */
  private static String quoted(String value, Random r) {
    String escaped = value.replace("&", "&amp;").replace("<", "&lt;");
    return r.nextBoolean()
        ? '"' + escaped.replace("\"", "&#34;") + '"'
        : '\'' + escaped.replace("'", "&apos;") + '\'';
  }

  private static String xml(Map<String, Map<String, String>> panes, Random r) {
    StringBuilder out = new StringBuilder("<?xml version=\"1.0\"?>\n<ui>");
    panes.forEach(
        (id, attributes) -> {
          out.append("\n  <pane id=\"").append(id).append('"');
          attributes.forEach((k, v) -> out.append(' ').append(k).append('=').append(quoted(v, r)));
          out.append("/>");
        });
    return out.append("\n</ui>\n").toString();
  }

  private static String canonical(String xml) throws Exception {
    TransformService c14n = TransformService.getInstance(CanonicalizationMethod.INCLUSIVE, "DOM");
    c14n.init((TransformParameterSpec) null);
    OctetStreamData in = new OctetStreamData(new ByteArrayInputStream(xml.getBytes(UTF_8)));
    OctetStreamData out = (OctetStreamData) c14n.transform(in, null);
    return new String(out.getOctetStream().readAllBytes(), StandardCharsets.UTF_8);
  }

  @Test
  void more_than_two_are_combined_whatever_their_order() throws IOException {
    String base = "{\"a\":1,\"b\":1,\"c\":1}";
    List<String> sides =
        List.of(
            "{\"a\":2,\"b\":1,\"c\":1}",
            "{\"a\":1,\"b\":2,\"c\":1}",
            "{\"a\":1,\"b\":1,\"c\":1,\"d\":9}");
    ObjectNode wanted = (ObjectNode) READER.readTree("{\"a\":2,\"b\":2,\"c\":1,\"d\":9}");
    for (int[] order : new int[][] {{0, 1, 2}, {2, 1, 0}, {1, 2, 0}, {2, 0, 1}}) {
      JsonNode outcome =
          READER.readTree(
              Combining.text(
                  JSON, base, sides.get(order[0]), sides.get(order[1]), sides.get(order[2])));
      assertThat(outcome).isEqualTo(wanted);
    }
  }
}
