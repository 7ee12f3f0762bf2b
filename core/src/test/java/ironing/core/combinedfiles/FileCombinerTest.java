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

import ironing.core.combinedfiles.Place.How;
import ironing.core.game.CombineWay;
import java.nio.charset.Charset;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class FileCombinerTest {
  private static Arguments example(
      String what, CombineWay way, String base, String a, String b, String outcome) {
    return Arguments.of(what, way, base, a, b, outcome);
  }

  /** What two change in different places stands beside one another; all else stays as written. */
  static Stream<Arguments> examples() {
    return Stream.of(
        example(
            "text: different lines",
            TEXT,
            "a\nb\nc\nd\n",
            "A\nb\nc\nd\n",
            "a\nb\nc\nD\n",
            "A\nb\nc\nD\n"),
        example("text: alike", TEXT, "a\nb\n", "x\nb\n", "x\nb\n", "x\nb\n"),
        example(
            "text: ends of lines are the base's",
            TEXT,
            "a\r\nb\r\nc",
            "A\nb\nc\n",
            "a\r\nb\r\nC\r\n",
            "A\r\nb\r\nC"),
        example(
            "json: members, and its layout stays",
            JSON,
            "{\n  \"a\" : 1,\n\n  \"b\": [1,2],\n  \"c\": {\"x\": 1}\n}\n",
            "{\"a\":1.0,\"b\":[1,2,3],\"c\":{\"x\":1}}",
            "{\"c\":{\"x\":1,\"y\":{\"z\":true}},\"a\":2,\"b\":[1,2]}",
            "{\n  \"a\" : 2,\n\n  \"b\": [1,2,3],\n  \"c\": {\"x\": 1,\"y\":{\"z\":true}}\n}\n"),
        example(
            "json: additions in layer order, indented as they stand",
            JSON,
            "{\n    \"a\": 1\n}",
            "{\n  \"a\": 1,\n  \"b\": {\n    \"c\": 2\n  }\n}",
            "{\n  \"d\": 3,\n  \"a\": 1\n}",
            "{\n    \"a\": 1,\n    \"b\": {\n      \"c\": 2\n    },\n    \"d\": 3\n}"),
        example(
            "json: the first and the last go",
            JSON,
            "{ \"a\": 1, \"b\": 2, \"c\": 3 }",
            "{ \"b\": 2, \"c\": 3 }",
            "{ \"a\": 1, \"b\": 2 }",
            "{ \"b\": 2 }"),
        example(
            "json: elements by key, and sets",
            JSON,
            "{\"widgets\": [{\"id\": \"log\", \"at\": 1}], \"tags\": [\"x\", \"y\"]}",
            "{\"widgets\": [{\"id\": \"log\", \"at\": 2}], \"tags\": [\"y\", \"z\"]}",
            "{\"widgets\": [{\"id\": \"map\"}, {\"id\": \"log\", \"at\": 1}], \"tags\": [\"x\", \"y\", \"w\"]}",
            "{\"widgets\": [{\"id\": \"log\", \"at\": 2}, {\"id\": \"map\"}], \"tags\": [\"y\", \"z\", \"w\"]}"),
        example(
            "json: into what is empty",
            JSON,
            "{\n  \"a\": {}\n}\n",
            "{\n  \"a\": {\n    \"b\": 1\n  }\n}\n",
            "{\n  \"a\": {\n    \"c\": 2\n  }\n}\n",
            "{\n  \"a\": {\n    \"b\": 1,\n    \"c\": 2\n  }\n}\n"),
        example(
            "yaml: comments and order stay",
            YAML,
            "# panel\nsize: 3   # units\n\nparts:\n  bell: {at: 1}\n  wheel: {at: 2}\n",
            "size: 4\nparts:\n  bell: {at: 1}\n  wheel: {at: 2, turn: slow}\n",
            "size: 3.0\nparts:\n  wheel: {at: 2}\n  bell: {at: 1}\n  lamp:\n    at: 9\n    lit: true\n",
            "# panel\nsize: 4   # units\n\nparts:\n  bell: {at: 1}\n  wheel: {at: 2, turn: slow}\n"
                + "  lamp:\n    at: 9\n    lit: true\n"),
        example(
            "yaml: sets and elements by key in lines",
            YAML,
            "tags:\n  - a\n  - b\nwidgets:\n  - id: log\n    at: 1\n",
            "tags:\n- b\n- c\nwidgets:\n- id: log\n  at: 1\n",
            "tags:\n  - a\n  - b\nwidgets:\n  - id: log\n    at: 2\n  - id: map\n    at: 3\n",
            "tags:\n  - b\n  - c\nwidgets:\n  - id: log\n    at: 2\n  - id: map\n    at: 3\n"),
        example(
            "ini: keys, sections, comments",
            INI,
            "; settings\n[sound]\nvolume = 7\nbell=on\n\n; what is seen\n[view]\nfog=1\n",
            "[Sound]\nVolume=9\nbell=on\n[view]\nfog=1\nhaze=2\n[new]\nx=1\n",
            "[sound]\nvolume=7\n[view]\nfog=1\n",
            "; settings\n[sound]\nvolume = 9\n\n; what is seen\n[view]\nfog=1\nhaze=2\n[new]\nx=1\n"),
        example(
            "ini: keys before any section",
            INI,
            "[a]\nx=1\n",
            "top=1\n[a]\nx=1\n",
            "[a]\nx=2\n",
            "top=1\n[a]\nx=2\n"),
        example(
            "properties: escapes and lines that go on",
            PROPERTIES,
            "# names\nship.one = Aud\nlong = a \\\n  b\n",
            "ship.one:Aud\nlong=a b\nport=W\\u00fck\n",
            "ship.one=Bo\nlong=a b\n",
            "# names\nship.one = Bo\nlong = a \\\n  b\nport=W\\u00fck\n"),
        example(
            "list: a set that keeps its order",
            LIST,
            "north\nwest\n\neast\n",
            "north\nwest\neast\nsouth\n",
            "west\neast\nnorth\nmid\n",
            "north\nwest\n\neast\nsouth\nmid\n"),
        example(
            "table: cells, rows and columns",
            TABLE,
            "id,name,dues\r\n1,Wick,5\r\n2,\"Tarn, old\",6\r\n3,Lee,7\r\n",
            "id,name,dues\r\n1,Wick,9\r\n2,\"Tarn, old\",6\r\n",
            "id,name,dues,pilot\r\n1,Wick,5,yes\r\n2,Tarn,6,\r\n3,Lee,7,\r\n4,New,8,no\r\n",
            "id,name,dues,pilot\r\n1,Wick,9,yes\r\n2,\"Tarn\",6,\r\n4,New,8,no\r\n"),
        example(
            "xml: attributes and elements, comments stay",
            XML,
            "<?xml version=\"1.0\"?>\n<ui>\n  <!-- top -->\n  <pane id=\"a\" w='3'/>\n  <pane id=\"b\">text</pane>\n</ui>\n",
            "<ui><pane id=\"a\" w=\"4\"/><pane id=\"b\">text</pane></ui>",
            "<ui>\n<pane id=\"a\" w=\"3\"><lamp/></pane>\n<pane id=\"b\" h=\"1\">other</pane>\n<pane id=\"c\"/>\n</ui>",
            "<?xml version=\"1.0\"?>\n<ui>\n  <!-- top -->\n  <pane id=\"a\" w='4'><lamp/></pane>\n"
                + "  <pane id=\"b\" h=\"1\">other</pane>\n  <pane id=\"c\"/>\n</ui>\n"));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("examples")
  void what_different_ones_change_stands_beside_one_another(
      String what, CombineWay way, String base, String a, String b, String outcome) {
    assertThat(Combining.text(way, base, a, b)).isEqualTo(outcome);
  }

  /** What two change differently is asked, once, and any answer is taken. */
  static Stream<Arguments> questions() {
    return Stream.of(
        Arguments.of(TEXT, "a\nb\nc\n", "a\nx\nc\n", "a\ny\nc\n", "a\nz\nc\n", "z"),
        Arguments.of(
            JSON,
            "{\"a\": 1, \"b\": 2}",
            "{\"a\":3,\"b\":2}",
            "{\"a\":4,\"b\":2}",
            "{\"a\": 5, \"b\": 2}",
            "5"),
        Arguments.of(YAML, "a: 1\nb: 2\n", "a: 3\nb: 2\n", "a: 4\nb: 2\n", "a: 5\nb: 2\n", "5"),
        Arguments.of(INI, "[s]\na = 1\n", "[s]\na=3\n", "[s]\na=4\n", "[s]\na = 5\n", "5"),
        Arguments.of(PROPERTIES, "a=1\n", "a=3\n", "a=4\n", "a=5\n", "5"),
        Arguments.of(TABLE, "id,v\n1,1\n", "id,v\n1,3\n", "id,v\n1,4\n", "id,v\n1,5\n", "5"),
        Arguments.of(XML, "<a x=\"1\"/>", "<a x=\"3\"/>", "<a x=\"4\"/>", "<a x=\"5\"/>", "5"));
  }

  @ParameterizedTest
  @MethodSource("questions")
  void what_two_change_differently_is_asked_and_the_answer_is_remembered_by_the_content(
      CombineWay way, String base, String a, String b, String typed, String answer) {
    CombinedFile asked = Combining.of(way, base, a, b);
    assertThat(asked.outcome()).isEmpty();
    assertThat(asked.places()).singleElement().matches(p -> p.how() == How.ASKED);
    String key = asked.places().get(0).key();
    assertThat(outcome(way, key, Choice.of("A"), base, a, b)).isEqualTo(expected(way, typed, a));
    assertThat(outcome(way, key, Choice.of(), base, a, b)).isEqualTo(base);
    assertThat(outcome(way, key, Choice.typed(answer), base, a, b)).isEqualTo(typed);
    // the sides the other way round are the same question
    assertThat(Combining.of(way, base, b, a).places().get(0).key()).isEqualTo(key);
    // another content is another one
    CombinedFile later = Combining.of(way, Map.of(key, Choice.of("A")), base, a, typed);
    assertThat(later.asked()).isOne();
  }

  private static String expected(CombineWay way, String typed, String a) {
    if (way == TEXT) return a;
    return typed.replace("5", "3");
  }

  private static String outcome(
      CombineWay way, String key, Choice c, String base, String... sides) {
    return new String(
        Combining.of(way, Map.of(key, c), base, sides).outcome().orElseThrow(), UTF_8);
  }

  @Test
  void both_sides_of_a_text_stand_in_either_order() {
    CombinedFile asked = Combining.of(TEXT, "a\nc\n", "a\nx\nc\n", "a\ny\nc\n");
    String key = asked.places().get(0).key();
    assertThat(asked.places().get(0).where()).isEqualTo("behind line 1");
    assertThat(outcome(TEXT, key, Choice.of("A", "B"), "a\nc\n", "a\nx\nc\n", "a\ny\nc\n"))
        .isEqualTo("a\nx\ny\nc\n");
    assertThat(outcome(TEXT, key, Choice.of("B", "A"), "a\nc\n", "a\nx\nc\n", "a\ny\nc\n"))
        .isEqualTo("a\ny\nx\nc\n");
  }

  @Test
  void what_one_removes_and_another_changes_is_asked() {
    assertThat(Combining.of(JSON, "{\"a\":{\"b\":1}}", "{}", "{\"a\":{\"b\":2}}").asked()).isOne();
    assertThat(Combining.of(TABLE, "id,v\n1,1\n2,2\n", "id,v\n2,2\n", "id,v\n1,5\n2,2\n").asked())
        .isOne();
    assertThat(Combining.of(TABLE, "id,v\n1,1\n", "id\n1\n", "id,v\n1,5\n").asked()).isOne();
    assertThat(Combining.of(INI, "[s]\na=1\n", "", "[s]\na=2\n").asked()).isOne();
  }

  @Test
  void who_brought_what_is_told_line_by_line() {
    CombinedFile c = Combining.of(TEXT, "a\nb\nc\n", "A\nb\nc\n", "a\nb\nc\nd\n", "A\nb\nc\n");
    assertThat(c.pieces())
        .extracting(p -> p.text() + p.of())
        .containsExactly("A\n[A, C]", "b\nc\n[]", "d\n[B]");
    assertThat(String.join("", c.pieces().stream().map(CombinedFile.Piece::text).toList()))
        .isEqualTo(c.shown());
  }

  @Test
  void a_name_that_may_stand_once_and_comes_from_two_is_asked() {
    String base = "routine day\nend\n";
    String a = "routine night\nend\n" + base, b = base + "routine night\n  bell\nend\n";
    CombinedFile c = Combining.of(TEXT, base, a, b);
    assertThat(c.asked()).isOne();
    Place p = c.places().get(c.places().size() - 1);
    assertThat(p.where()).isEqualTo("“night” stands 2 times");
    assertThat(Combining.of(TEXT, Map.of(p.key(), Choice.of("A", "B")), base, a, b).outcome())
        .isPresent();
  }

  @Test
  void what_does_not_parse_is_combined_by_lines_and_says_why() {
    CombinedFile c = Combining.of(JSON, "{\n\"a\":1\n}\n", "{\n\"a\":1\n}\n\n", "{\n\"a\":1,\n}\n");
    assertThat(c.way()).isEqualTo(TEXT);
    assertThat(c.remarks()).anyMatch(r -> r.of().equals("B") && r.text().contains("line 3"));
    for (CombineWay way : List.of(YAML, XML, INI, PROPERTIES, TABLE)) {
      String bad =
          switch (way) {
            case YAML -> "a: [1\n";
            case XML -> "<a><b></a>";
            case INI -> "[open\n";
            case PROPERTIES -> "a=\\u00zz\n";
            default -> "id,id\n";
          };
      c = Combining.of(way, bad, bad + "\n");
      assertThat(c.way()).as(way.word()).isEqualTo(TEXT);
      assertThat(c.remarks()).as(way.word()).isNotEmpty();
    }
  }

  @Test
  void what_cannot_be_told_by_keys_is_explained() {
    String entity = "<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><a>&x;</a>";
    String laughs = "<!DOCTYPE a [<!ENTITY x \"ha\"><!ENTITY y \"&x;&x;\">]><a>&y;</a>";
    for (String bad : List.of(entity, laughs)) {
      CombinedFile c = Combining.of(XML, bad, "<a/>", bad);
      assertThat(c.remarks().get(0).text()).contains("document type");
    }
    String deep = "[".repeat(100_000) + "]".repeat(100_000);
    for (CombineWay way : List.of(JSON, YAML)) {
      CombinedFile c = Combining.of(way, deep, deep + "\n");
      assertThat(c.remarks().get(0).text()).contains("combined line by line");
    }
    String deepXml = "<a>".repeat(10_000) + "</a>".repeat(10_000);
    assertThat(Combining.of(XML, deepXml, deepXml + "\n").way()).isEqualTo(TEXT);
    assertThat(Combining.of(YAML, "a: &x 1\nb: *x\n", "a: 2\n").remarks().get(0).text())
        .contains("anchors");
    assertThat(Combining.of(TABLE, "id,v\n1,1\n1,2\n", "id,v\n1,1\n").remarks().get(0).text())
        .contains("Rows 1 and 2 have one key");
    // a key twice makes the object whole, and no more than that
    CombinedFile twice =
        Combining.of(
            JSON,
            "{\"o\":{\"a\":1,\"a\":2},\"b\":1}",
            "{\"o\":{\"a\":1,\"a\":3},\"b\":1}",
            "{\"o\":{\"a\":1,\"a\":2},\"b\":2}");
    assertThat(twice.shown()).isEqualTo("{\"o\":{\"a\":1,\"a\":3},\"b\":2}");
    assertThat(
            Combining.text(
                INI,
                "[s]\na=1\na=2\n[t]\nx=1\n",
                "[s]\na=1\na=3\n[t]\nx=1\n",
                "[s]\na=1\na=2\n[t]\nx=2\n"))
        .isEqualTo("[s]\na=1\na=3\n[t]\nx=2\n");
  }

  @Test
  void a_key_that_stands_twice_where_several_change_it_is_combined_by_lines_and_says_whose() {
    CombinedFile c =
        Combining.of(
            INI,
            "[s]\na=1\nb=1\nc=1\nd=1\n",
            "[s]\na=1\na=2\nb=1\nc=1\nd=1\n",
            "[s]\na=1\nb=1\nc=1\nd=2\n");
    assertThat(c.way()).isEqualTo(TEXT);
    assertThat(c.outcome()).hasValue("[s]\na=1\na=2\nb=1\nc=1\nd=2\n".getBytes(UTF_8));
    assertThat(c.remarks())
        .containsExactly(
            new Remark(
                "unparsable",
                "A",
                "“a” stands twice in [s]. So the files are combined line by line."));
    // above the first section too, where nothing has a name
    c = Combining.of(INI, "a=1\na=2\nb=1\n", "a=1\na=2\nb=2\n", "a=1\na=3\nb=1\n");
    assertThat(c.way()).isEqualTo(TEXT);
    assertThat(c.places()).noneMatch(p -> p.where().isEmpty());
    assertThat(c.remarks().get(0).of()).isEqualTo("base");
    c = Combining.of(JSON, "{\"o\":{\"a\":1}}", "{\"o\":{\"a\":1,\"a\":2}}", "{\"o\":{\"a\":3}}");
    assertThat(c.remarks()).anyMatch(r -> r.text().contains("“a” stands twice in one object"));
  }

  /** java.util.Properties reads “d=4\\” and “c=3” below it as one entry, “4c=3”. */
  @Test
  void where_what_comes_behind_a_value_would_become_a_part_of_it_lines_are_combined() {
    CombinedFile c = Combining.of(PROPERTIES, "a=1\nb=2\n", "a=1\nb=2\nd=4\\", "a=1\nb=2\nc=3\n");
    assertThat(c.way()).isEqualTo(TEXT);
    assertThat(c.asked()).isEqualTo(1);
    assertThat(c.remarks())
        .singleElement()
        .satisfies(
            r -> {
              assertThat(r.code()).isEqualTo("by-lines");
              assertThat(r.text()).contains("“d”");
            });
    // the blank line is a part of the value, as YAML 1.2, 8.1.1.2 has it of “+”
    c = Combining.of(YAML, "a: 1", "a: 1\nb: |+\n  text\n\n", "a: 1\nc: 2");
    assertThat(c.remarks()).anyMatch(r -> r.code().equals("by-lines"));
    assertThat(c.asked()).isEqualTo(1);
  }

  @Test
  void arrays_below_any_member_can_be_named_and_a_rule_in_vain_is_told() {
    String base = "{\"x\":{\"requires\":[\"a\"]},\"y\":{\"requires\":[]}}";
    CombinedFile c =
        Combining.json(
            "/*/requires",
            "",
            base,
            "{\"x\":{\"requires\":[\"a\",\"b\"]},\"y\":{\"requires\":[]}}",
            "{\"x\":{\"requires\":[\"a\",\"c\"]},\"y\":{\"requires\":[\"d\"]}}");
    assertThat(c.outcome())
        .hasValue(
            "{\"x\":{\"requires\":[\"a\",\"b\",\"c\"]},\"y\":{\"requires\":[\"d\"]}}"
                .getBytes(UTF_8));
    assertThat(c.remarks()).extracting(Remark::code).containsExactly("parses");
    c = Combining.json("/*/needs", "", base, base.replace("\"a\"", "\"b\""));
    assertThat(c.remarks()).extracting(Remark::code).contains("array-not-there");
    c = Combining.json("/l", "id", "{\"l\":[{\"id\":1}]}", "{\"l\":[{\"id\":1},{}]}");
    assertThat(c.remarks())
        .anySatisfy(
            r -> {
              assertThat(r.code()).isEqualTo("array-whole");
              assertThat(r.of()).isEqualTo("A");
              assertThat(r.text()).contains("/l").contains("“id”");
            });
  }

  @Test
  void values_over_several_lines_are_read_where_the_definition_says_so() {
    String base = "[s]\nlist = {\n  a = 1\n}\npath = one \\\n  two\nlast = 1\n";
    CombinedFile c =
        Combining.longIni(
            base, base.replace("a = 1", "a = 2\n  b = 3"), base.replace("last = 1", "last = 2"));
    assertThat(c.shown())
        .isEqualTo("[s]\nlist = {\n  a = 2\n  b = 3\n}\npath = one \\\n  two\nlast = 2\n");
    assertThat(c.places()).extracting(Place::where).containsExactly("[s] list", "[s] last");
    c = Combining.longIni("a = {\nb = 1\n", "a = {}\nb = 1\n");
    assertThat(c.remarks().get(0).text()).contains("line 1").contains("brace");
    // a brace in a text is none
    c = Combining.longIni("a = \"{\"\nb = 1\n", "a = \"{\"\nb = 2\n");
    assertThat(c.way()).isEqualTo(INI);
    // without the word of the definition every line is an entry of its own
    assertThat(Combining.of(INI, base, base.replace("last = 1", "last = 2")).way()).isEqualTo(TEXT);
  }

  @Test
  void bytes_that_are_no_text_are_left_whole() {
    Contender base = new Contender("base", "a\n".getBytes(UTF_8));
    Contender binary = new Contender("A", new byte[] {1, 0, 2});
    CombinedFile c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(binary), Map.of());
    assertThat(c.possible()).isFalse();
    assertThat(c.remarks()).singleElement().matches(r -> r.code().equals("binary"));
  }

  @Test
  void another_encoding_is_remarked_and_one_that_would_lose_bytes_is_left_whole() {
    Contender base = new Contender("base", "a\nb\n".getBytes(UTF_8));
    Contender accents = new Contender("A", "\u00e9\nb\n".getBytes(Charset.forName("windows-1252")));
    CombinedFile c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(accents), Map.of());
    assertThat(c.remarks()).extracting(Remark::code).containsExactly("encoding");
    // UTF-16 with half of a pair: no text that is read of it gives these bytes again
    Contender half = new Contender("A", new byte[] {(byte) 0xFF, (byte) 0xFE, 0x3D, (byte) 0xD8});
    c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(half), Map.of());
    assertThat(c.possible()).isFalse();
    assertThat(c.remarks()).extracting(Remark::code).containsExactly("encoding-unclear");
  }

  @Test
  void the_outcome_is_written_as_the_base_is_or_not_at_all() {
    Charset windows = Charset.forName("windows-1252");
    Contender base = new Contender("base", "é\nb\nc\n".getBytes(windows));
    Contender a = new Contender("A", "é\nb\nü\n".getBytes(UTF_8));
    CombinedFile c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(a), Map.of());
    assertThat(c.outcome()).contains("é\nb\nü\n".getBytes(windows));
    Contender cat = new Contender("A", "é\nb\n猫\n".getBytes(UTF_8));
    c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(cat), Map.of());
    assertThat(c.outcome()).isEmpty();
    assertThat(c.remarks()).anyMatch(r -> r.code().equals("unwritable"));
    byte[] marked = "\uFEFFa\n".getBytes(UTF_8);
    c =
        FileCombiner.combine(
            Combining.rule(TEXT),
            new Contender("base", marked),
            List.of(new Contender("A", "b\n".getBytes(UTF_8))),
            Map.of());
    assertThat(c.outcome()).contains("\uFEFFb\n".getBytes(UTF_8));
  }

  @Test
  void what_was_typed_has_to_parse() {
    CombinedFile asked = Combining.of(JSON, "{\"a\":1}", "{\"a\":2}", "{\"a\":3}");
    String key = asked.places().get(0).key();
    CombinedFile c =
        Combining.of(JSON, Map.of(key, Choice.typed("}")), "{\"a\":1}", "{\"a\":2}", "{\"a\":3}");
    assertThat(c.outcome()).isEmpty();
    assertThat(c.remarks()).anyMatch(r -> r.code().equals("unparsed"));
  }

  @Test
  void a_value_comes_in_between_the_quotes_of_the_base() {
    assertThat(
            Combining.text(
                XML, "<a x=\"1\" y='1'/>", "<a x='5\" z=\"6' y='1'/>", "<a x='1' y=\"it's\"/>"))
        .isEqualTo("<a x=\"5&quot; z=&quot;6\" y='it&apos;s'/>");
    CombinedFile asked = Combining.of(XML, "<a x=\"1\"/>", "<a x=\"2\"/>", "<a x=\"3\"/>");
    String key = asked.places().get(0).key();
    CombinedFile typed =
        Combining.of(
            XML,
            Map.of(key, Choice.typed("say \"x\"")),
            "<a x=\"1\"/>",
            "<a x=\"2\"/>",
            "<a x=\"3\"/>");
    assertThat(new String(typed.outcome().orElseThrow(), UTF_8))
        .isEqualTo("<a x=\"say &quot;x&quot;\"/>");
  }

  @Test
  void rows_that_come_in_are_quoted_and_ended_as_the_base_is() {
    assertThat(
            Combining.text(
                TABLE,
                "id,v\r\n\"1\",\"a\"\r\n",
                "id,v\n1,a\n2,b\n",
                "\"id\",\"v\"\n\"1\",\"a\"\n\"3\",\"c\"\n"))
        .isEqualTo("id,v\r\n\"1\",\"a\"\r\n\"2\",\"b\"\r\n\"3\",\"c\"\r\n");
    assertThat(Combining.text(TABLE, "id,v\n1,a\n", "id,v\n1,a\n\"2\",\"b\"\n", "id,v\n1,c\n"))
        .isEqualTo("id,v\n1,c\n2,b\n");
  }

  @Test
  void a_line_that_ends_in_cr_alone_and_an_empty_one_behind_it_are_two() {
    String b = "a\r\nb\r\n\r\n";
    assertThat(Combining.of(TEXT, "a\r\nb\r#\nc", "A\nb\nc\n", b).possible()).isTrue();
  }

  @Test
  void a_mapping_whose_entries_all_go_is_written_as_an_empty_one_beside_its_comments() {
    String base = "k6:\n  # of k7\n  k7: 0\n  k0: 0\nk2: 0\n";
    String outcome = Combining.text(YAML, base, "k6:\n  k7: 0\nk2: 0\n", "k6:\n  k0: 0\nk2: 0\n");
    assertThat(outcome).isEqualTo("k6:\n  # of k7\n  {}\nk2: 0\n");
  }

  /** Files as they come: with characters put in, taken out and doubled at random. */
  @Property(tries = 4000, seed = "8160")
  void no_file_breaks_it(@ForAll long seed) {
    Random r = new Random(seed);
    Arguments example = examples().toList().get(r.nextInt((int) examples().count()));
    CombineWay way = (CombineWay) example.get()[1];
    String base = broken((String) example.get()[2], r);
    String a = broken((String) example.get()[3], r), b = broken((String) example.get()[4], r);
    CombinedFile c = Combining.of(way, base, a, b);
    assertThat(c.possible() || !c.remarks().isEmpty()).isTrue();
    if (c.outcome().isPresent() && c.way() == way && way != TEXT)
      assertThat(c.remarks()).anyMatch(x -> x.code().equals("parses"));
    // nothing is lost: whatever only one changed is in what comes out
    assertThat(Combining.of(way, base, base, base).outcome()).contains(base.getBytes(UTF_8));
  }

  private static String broken(String text, Random r) {
    StringBuilder out = new StringBuilder(text);
    for (int i = r.nextInt(3); i > 0 && !out.isEmpty(); i--) {
      int at = r.nextInt(out.length());
      switch (r.nextInt(3)) {
        case 0 -> out.deleteCharAt(at);
        case 1 -> out.insert(at, "{}[]<>\"',:=\n\\# é".charAt(r.nextInt(16)));
        default -> out.insert(at, out.substring(at, Math.min(out.length(), at + 5)));
      }
    }
    return out.toString();
  }

  @Test
  void what_is_larger_than_can_be_combined_is_left_whole() {
    byte[] line = new byte[FileCombiner.MOST_BYTES + 1];
    Arrays.fill(line, (byte) 'x');
    Contender base = new Contender("base", line);
    Contender a = new Contender("A", "b\n".getBytes(UTF_8));
    CombinedFile c = FileCombiner.combine(Combining.rule(TEXT), base, List.of(a), Map.of());
    assertThat(c.possible()).isFalse();
    assertThat(c.remarks()).singleElement().matches(x -> x.code().equals("too-large"));
  }

  @Test
  void long_lines_and_letters_beyond_the_first_plane_are_combined_like_others() {
    StringBuilder base = new StringBuilder("{"),
        a = new StringBuilder("{"),
        b = new StringBuilder("{");
    for (int i = 0; i < 40_000; i++) {
      base.append("\"k").append(i).append("\":{\"v\":1,\"w\":1},");
      a.append("\"k").append(i).append("\":{\"v\":2,\"w\":1},");
      b.append("\"k").append(i).append("\":{\"v\":1,\"w\":2},");
    }
    String end = "\"end\":0}";
    assertThat(Combining.text(JSON, base + end, a + end, b + end))
        .isEqualTo(base.toString().replace(":1", ":2") + end);
    String yaml = "# \uD83D\uDEA2\na: \"\uD83D\uDD14\"\nb: 1\n";
    assertThat(Combining.text(YAML, yaml, yaml.replace("b: 1", "b: 2"), yaml + "c: 3\n"))
        .isEqualTo(yaml.replace("b: 1", "b: 2") + "c: 3\n");
  }

  @Test
  void an_entity_that_nobody_declared_is_explained_wherever_it_stands() {
    String bad = "<a>" + "x".repeat(9_000) + " &nobody; y</a>";
    assertThat(Combining.of(XML, bad, bad + "\n").way()).isEqualTo(TEXT);
  }
}
