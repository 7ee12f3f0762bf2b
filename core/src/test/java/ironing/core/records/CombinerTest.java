package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import ironing.core.records.Decision.Outcome;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CombinerTest {
  private static final RecordType VESSEL = TestWorld.GAME.records().get("vessel");
  private static final Combiner COMBINER = new Combiner(PathCase.INSENSITIVE);

  private static Optional<Value.Fields> fields(String json) {
    if (json.equals("removed")) return Optional.empty();
    return parse("X.plug", "", json).fields();
  }

  private static Plugin.Record parse(String name, String masters, String json) {
    String list = masters.isEmpty() ? "" : "\"" + masters.replace(" ", "\",\"") + "\",";
    String text =
        "{\"format\":\"ironing/plugin@1\",\"masters\":["
            + list
            + "\"Base.plug\"]}\n{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":"
            + (json.equals("removed") ? "null" : json)
            + "}";
    return PluginText.parse(name, text).records().get(0);
  }

  /** Versions from "Name.plug < Master.plug: {json}", the first being the owner's. */
  private static List<Version> versions(String... lines) {
    List<Version> out = new ArrayList<>();
    for (String line : lines) {
      String head = line.substring(0, line.indexOf(':')),
          json = line.substring(line.indexOf(':') + 1).strip();
      String name = head.split("<")[0].strip(),
          masters = head.contains("<") ? head.split("<")[1].strip() : "";
      List<String> all =
          new ArrayList<>(masters.isEmpty() ? List.of() : Arrays.asList(masters.split(" ")));
      if (!name.equals("Base.plug")) all.add("Base.plug");
      out.add(new Version(name, all, out.size(), "vessel", fields(json)));
    }
    return out;
  }

  private static Combination combine(String base, String one, String two) {
    return COMBINER.combine(
        VESSEL, versions("Base.plug: " + base, "One.plug: " + one, "Two.plug: " + two), Map.of());
  }

  private static String outcome(Combination c) {
    if (!c.settled())
      return "asked "
          + c.cells().stream().filter(x -> x.how() == How.ASKED).map(Cell::place).toList();
    if (c.removed()) return "removed";
    return written(c.outcome());
  }

  private static String written(Optional<Value.Fields> fields) {
    Plugin p =
        new Plugin(
            "X.plug",
            Plugin.Header.of(5, List.of("Base.plug"), 1),
            List.of(new Plugin.Record("vessel", new Value.Ref("Base.plug", 1), fields)));
    // through the codec, which puts keys in its own order
    String line =
        PluginText.write(PluginCodec.decode("X.plug", PluginCodec.encode(p)).plugin())
            .split("\n")[1];
    return line.substring(line.indexOf("\"fields\":") + 9, line.length() - 1);
  }

  private static String canonical(String expected) {
    return expected.startsWith("{") ? written(fields(expected)) : expected;
  }

  /** The rules of docs/formats/combining.md, cell by cell. */
  @ParameterizedTest(name = "{0} + {1} + {2} = {3}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        // changed by one: taken
        "{\"speed\":11} | {\"speed\":12} | {\"speed\":11} | {\"speed\":12}",
        // by several alike: taken; numbers by value
        "{\"speed\":11} | {\"speed\":12} | {\"speed\":12.0} | {\"speed\":12}",
        "{\"speed\":11} | {\"speed\":11.0} | {\"speed\":9} | {\"speed\":9}",
        // differently: asked
        "{\"speed\":11} | {\"speed\":12} | {\"speed\":9} | asked [speed]",
        // removed by one, changed by another: asked; removed by one: taken
        "{\"speed\":11,\"name\":\"A\"} | {\"name\":\"A\"} | {\"speed\":9,\"name\":\"A\"} | asked [speed]",
        "{\"speed\":11,\"name\":\"A\"} | {\"name\":\"A\"} | {\"speed\":11,\"name\":\"B\"} | {\"name\":\"B\"}",
        // null is a value, and a missing field is not null
        "{\"name\":null} | {} | {\"name\":null} | {}",
        "{} | {\"name\":null} | {} | {\"name\":null}",
        "{} | {\"name\":null} | {\"name\":\"A\"} | asked [name]",
        // paths compare as game paths
        "{\"mesh\":\"Hulls/A.obj\"} | {\"mesh\":\"hulls/a.OBJ\"} | {\"mesh\":\"b.obj\"} | {\"mesh\":\"b.obj\"}",
        // text compares exactly
        "{\"name\":\"a\"} | {\"name\":\"A\"} | {\"name\":\"B\"} | asked [name]",
        // what is not described is whole
        "{\"other\":{\"a\":1,\"b\":1}} | {\"other\":{\"a\":2,\"b\":1}} | {\"other\":{\"a\":1,\"b\":2}} | asked [other]",
        // a sequence is whole
        "{\"route\":[1,2]} | {\"route\":[2,1]} | {\"route\":[1,2,3]} | asked [route]",
        "{\"route\":[1,2]} | {\"route\":[2,1]} | {\"route\":[1,2]} | {\"route\":[2,1]}",
        // a set: the base in its order, less every removal, then additions in load order
        "{\"crew\":[1,2,3]} | {\"crew\":[1,2,3,4]} | {\"crew\":[1,3,5]} | {\"crew\":[1,3,4,5]}",
        "{\"crew\":[1,2,3]} | {\"crew\":[3,2,1]} | {\"crew\":[1,2]} | {\"crew\":[1,2]}",
        "{\"crew\":[1,1,2]} | {\"crew\":[2,5]} | {\"crew\":[1,2,4,4]} | {\"crew\":[2,5,4]}",
        "{} | {\"crew\":[2]} | {\"crew\":[1,2]} | {\"crew\":[2,1]}",
        "{\"crew\":[1]} | {} | {\"crew\":[1,2]} | asked [crew]",
        // rows by key, field by field
        "{\"hold\":[{\"goods\":1,\"tonnes\":4},{\"goods\":2,\"tonnes\":6}]} | {\"hold\":[{\"goods\":1,\"tonnes\":4},{\"goods\":2,\"tonnes\":8}]} | {\"hold\":[{\"goods\":1,\"tonnes\":4},{\"goods\":2,\"tonnes\":6},{\"goods\":3,\"tonnes\":5}]} | {\"hold\":[{\"goods\":1,\"tonnes\":4},{\"goods\":2,\"tonnes\":8},{\"goods\":3,\"tonnes\":5}]}",
        "{\"hold\":[{\"goods\":1,\"tonnes\":4}]} | {\"hold\":[{\"goods\":1,\"tonnes\":5}]} | {\"hold\":[{\"goods\":1,\"tonnes\":6}]} | asked [hold[1].tonnes]",
        "{\"hold\":[{\"goods\":1,\"tonnes\":4}]} | {\"hold\":[]} | {\"hold\":[{\"goods\":1,\"tonnes\":6}]} | asked [hold[1]]",
        "{\"hold\":[{\"goods\":1,\"tonnes\":4}]} | {\"hold\":[]} | {\"hold\":[{\"goods\":1,\"tonnes\":4},{\"goods\":2}]} | {\"hold\":[{\"goods\":2}]}",
        "{\"hold\":[]} | {\"hold\":[{\"goods\":7,\"tonnes\":1}]} | {\"hold\":[{\"goods\":7,\"lashed\":true}]} | {\"hold\":[{\"goods\":7,\"tonnes\":1,\"lashed\":true}]}",
        // rows without the key, or with one key twice, are whole
        "{\"hold\":[{\"goods\":1}]} | {\"hold\":[{\"goods\":1},{\"goods\":1}]} | {\"hold\":[{\"goods\":2}]} | asked [hold]",
        "{\"hold\":[{\"goods\":1}]} | {\"hold\":[{\"tonnes\":1}]} | {\"hold\":[{\"goods\":2}]} | asked [hold]",
        // whole records
        "{\"speed\":1} | removed | {\"speed\":1} | removed",
        "{\"speed\":1} | removed | removed | removed",
        "{\"speed\":1} | removed | {\"speed\":2} | asked [(record)]",
        "removed | {\"speed\":1} | removed | {\"speed\":1}"
      })
  void fields_combine_three_ways(String base, String one, String two, String expected) {
    assertThat(outcome(combine(base, one, two))).isEqualTo(canonical(expected));
  }

  @Test
  void a_version_stands_for_those_of_its_masters() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "Fix.plug: {\"speed\":12,\"name\":\"A\"}",
            "Patch.plug < Fix.plug: {\"speed\":11,\"name\":\"A\"}",
            "Other.plug: {\"speed\":11,\"name\":\"B\"}");
    Combination c = COMBINER.combine(VESSEL, v, Map.of());
    assertThat(c.leaves()).extracting(l -> l.plugin()).containsExactly("Patch.plug", "Other.plug");
    assertThat(outcome(c))
        .as("Patch takes Fix's speed back, and that is no change")
        .isEqualTo(canonical("{\"speed\":11,\"name\":\"B\"}"));
  }

  @Test
  void what_one_takes_back_gives_way_to_anothers_change() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11}",
            "Fix.plug: {\"speed\":12}",
            "Back.plug < Fix.plug: {\"speed\":11}",
            "Other.plug: {\"speed\":9}");
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of())))
        .isEqualTo(canonical("{\"speed\":9}"));
  }

  @Test
  void all_are_measured_against_the_last_version_that_all_could_see() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "Fix.plug: {\"speed\":12,\"name\":\"A\"}",
            "One.plug < Fix.plug: {\"speed\":12,\"name\":\"B\"}",
            "Two.plug < Fix.plug: {\"speed\":13,\"name\":\"A\"}");
    Combination c = COMBINER.combine(VESSEL, v, Map.of());
    assertThat(c.base().plugin()).isEqualTo("Fix.plug");
    assertThat(outcome(c)).isEqualTo(canonical("{\"speed\":13,\"name\":\"B\"}"));
    assertThat(Combiner.seenBy(v.get(2), v).plugin()).isEqualTo("Fix.plug");
    assertThat(Combiner.seenBy(v.get(1), v).plugin()).isEqualTo("Base.plug");
  }

  @Test
  void a_decision_settles_what_was_asked_and_is_told_apart() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11}", "One.plug: {\"speed\":12}", "Two.plug: {\"speed\":9}");
    Combination c = COMBINER.combine(VESSEL, v, Map.of("speed", Decided.take("one.PLUG")));
    assertThat(outcome(c)).isEqualTo(canonical("{\"speed\":12}"));
    assertThat(c.cells().get(0).how()).isEqualTo(How.DECIDED);
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("speed", Decided.of(Outcome.AS_BEFORE)))))
        .isEqualTo(canonical("{\"speed\":11}"));
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("speed", Decided.take("Gone.plug")))))
        .as("a choice of one that takes no side any more")
        .isEqualTo("asked [speed]");
  }

  @Test
  void a_decision_can_overrule_a_joined_set_and_settle_one_row() {
    List<Version> crew =
        versions(
            "Base.plug: {\"crew\":[1]}",
            "One.plug: {\"crew\":[1,2]}",
            "Two.plug: {\"crew\":[1,3]}");
    assertThat(outcome(COMBINER.combine(VESSEL, crew, Map.of("crew", Decided.take("Two.plug")))))
        .isEqualTo(canonical("{\"crew\":[1,3]}"));
    List<Version> hold =
        versions(
            "Base.plug: {\"hold\":[{\"goods\":1,\"tonnes\":4}]}",
            "One.plug: {\"hold\":[{\"goods\":1,\"tonnes\":5}]}",
            "Two.plug: {\"hold\":[{\"goods\":1,\"tonnes\":6}]}");
    assertThat(
            outcome(
                COMBINER.combine(VESSEL, hold, Map.of("hold[1].tonnes", Decided.take("One.plug")))))
        .isEqualTo(canonical("{\"hold\":[{\"goods\":1,\"tonnes\":5}]}"));
  }

  @ParameterizedTest(name = "{0} + {1} + {2} = {3}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "[1,2,3,4] | [9,2,3,4] | [1,2,3,8] | [9,2,3,8]",
        "[1,2,3,4] | [1,3,4] | [1,2,3,4,5] | [1,3,4,5]",
        // both alike in one place, and one in another
        "[1,2,3,4] | [7,2,3,4] | [7,2,3,5] | [7,2,3,5]",
        // the same stretch, or one that touches it
        "[1,2,3] | [1,8,3] | [1,9,3] | none",
        "[1,2,3] | [8,2,3] | [1,9,3] | none",
        "[1,2] | [1,2,8] | [1,2,9] | none",
        "[] | [1] | [2] | none"
      })
  void a_sequence_is_offered_laid_into_one_another_and_never_taken_unasked(
      String base, String one, String two, String expected) {
    String[] routes = {base, one, two};
    for (int i = 0; i < 3; i++) routes[i] = "{\"route\":" + routes[i].strip() + "}";
    Combination c = combine(routes[0], routes[1], routes[2]);
    assertThat(outcome(c)).isEqualTo("asked [route]");
    List<Version> v =
        versions("Base.plug: " + routes[0], "One.plug: " + routes[1], "Two.plug: " + routes[2]);
    String merged =
        outcome(COMBINER.combine(VESSEL, v, Map.of("route", Decided.of(Outcome.MERGED))));
    if (expected.equals("none")) {
      assertThat(c.cells().get(0).suggested()).isEmpty();
      assertThat(merged).as("there is nothing to take").isEqualTo("asked [route]");
    } else {
      assertThat(c.cells().get(0).suggested()).isPresent();
      assertThat(merged).isEqualTo(canonical("{\"route\":" + expected + "}"));
    }
  }

  @Test
  void the_user_may_write_a_value_whoever_changed_the_field_or_take_it_out() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}", "One.plug: {\"speed\":12,\"name\":\"A\"}");
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("speed", Decided.own("13")))))
        .as("instead of what was taken without a question")
        .isEqualTo(canonical("{\"speed\":13,\"name\":\"A\"}"));
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("mesh", Decided.own("\"m.obj\"")))))
        .as("where there was nothing")
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"A\",\"mesh\":\"m.obj\"}"));
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("name", Decided.of(Outcome.REMOVED)))))
        .isEqualTo(canonical("{\"speed\":12}"));
    assertThat(outcome(COMBINER.combine(VESSEL, v, Map.of("speed", Decided.own("{")))))
        .as("what is no value does not count")
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"A\"}"));
  }

  @Test
  void a_decision_is_asked_for_again_only_where_a_side_says_something_else_since() {
    List<Version> then =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "One.plug: {\"speed\":12,\"name\":\"A\"}",
            "Two.plug: {\"speed\":9,\"name\":\"A\"}");
    Cell asked = COMBINER.combine(VESSEL, then, Map.of()).cells().get(0);
    Map<String, Decided> decided =
        Map.of("speed", new Decided(new Decision.Take("One.plug"), Combiner.seen(asked)));
    assertThat(outcome(COMBINER.combine(VESSEL, then, decided)))
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"A\"}"));
    List<Version> elsewhere =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "One.plug: {\"speed\":12,\"name\":\"A\"}",
            "Two.plug: {\"speed\":9,\"name\":\"B\"}");
    assertThat(outcome(COMBINER.combine(VESSEL, elsewhere, decided)))
        .as("another field has changed")
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"B\"}"));
    List<Version> now =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "One.plug: {\"speed\":12,\"name\":\"A\"}",
            "Two.plug: {\"speed\":8,\"name\":\"A\"}");
    assertThat(outcome(COMBINER.combine(VESSEL, now, decided))).isEqualTo("asked [speed]");
    List<Version> agreed =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "One.plug: {\"speed\":12,\"name\":\"A\"}",
            "Two.plug: {\"speed\":12,\"name\":\"A\"}");
    assertThat(outcome(COMBINER.combine(VESSEL, agreed, decided)))
        .as("even where they agree now: the user had said something")
        .isEqualTo("asked [speed]");
  }

  @Test
  void one_plugins_version_can_be_taken_whole_and_edited() {
    List<Version> v =
        versions(
            "Base.plug: {\"speed\":11,\"name\":\"A\"}",
            "One.plug: {\"speed\":12,\"name\":\"A\"}",
            "Two.plug: {\"speed\":9,\"name\":\"B\"}");
    Map<String, Decided> whole = Map.of(Combiner.WHOLE_RECORD, Decided.take("One.plug"));
    assertThat(outcome(COMBINER.combine(VESSEL, v, whole)))
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"A\"}"));
    Map<String, Decided> edited =
        Map.of(Combiner.WHOLE_RECORD, Decided.take("One.plug"), "name", Decided.own("\"C\""));
    assertThat(outcome(COMBINER.combine(VESSEL, v, edited)))
        .isEqualTo(canonical("{\"speed\":12,\"name\":\"C\"}"));
  }

  // ---- laws

  @Provide
  Arbitrary<String> vessels() {
    Arbitrary<String> speed = Arbitraries.of("", "\"speed\":1,", "\"speed\":2,", "\"speed\":null,");
    Arbitrary<String> crew =
        Arbitraries.of("", "\"crew\":[],", "\"crew\":[1,2],", "\"crew\":[2,3],", "\"crew\":[1],");
    Arbitrary<String> hold =
        Arbitraries.of(
            "",
            "\"hold\":[{\"goods\":1,\"tonnes\":1}],",
            "\"hold\":[{\"goods\":1,\"tonnes\":2},{\"goods\":2}],",
            "\"hold\":[{\"goods\":2,\"tonnes\":2}],",
            "\"hold\":[{}],");
    return Combinators.combine(
            speed, crew, hold, Arbitraries.of("\"name\":\"A\"", "\"name\":\"B\""))
        .as((s, c, h, n) -> "{" + s + c + h + n + "}");
  }

  private static Map<String, Object> unordered(Combination c) {
    Map<String, Object> cells = new HashMap<>();
    for (Cell cell : c.cells()) {
      RecordType.Field field = VESSEL.field(cell.place());
      Object value =
          cell.outcome()
              .map(v -> new Equality(PathCase.INSENSITIVE).canonical(field, v))
              .orElse("");
      cells.put(cell.place(), List.of(cell.how(), value));
    }
    return cells;
  }

  @Property(seed = "8160")
  void swapping_the_sides_changes_nothing_but_the_order_of_additions(
      @ForAll("vessels") String base,
      @ForAll("vessels") String one,
      @ForAll("vessels") String two) {
    assertThat(unordered(combine(base, one, two))).isEqualTo(unordered(combine(base, two, one)));
  }

  @Property(seed = "8160")
  void a_side_that_changed_nothing_gives_way_to_the_other(
      @ForAll("vessels") String base, @ForAll("vessels") String one) {
    Combination c = combine(base, one, base);
    assertThat(c.settled()).isTrue();
    assertThat(COMBINER.same(VESSEL, c.outcome(), fields(one))).isTrue();
  }

  @Property(seed = "8160")
  void sides_that_agree_give_what_they_agree_on(
      @ForAll("vessels") String base, @ForAll("vessels") String one) {
    Combination c = combine(base, one, one);
    assertThat(c.settled()).isTrue();
    assertThat(COMBINER.same(VESSEL, c.outcome(), fields(one))).isTrue();
  }

  @Property(seed = "8160")
  void combining_an_outcome_again_changes_nothing(
      @ForAll("vessels") String base,
      @ForAll("vessels") String one,
      @ForAll("vessels") String two) {
    Combination c = combine(base, one, two);
    if (!c.settled()) return;
    String again = outcome(c);
    assertThat(outcome(combine(base, again, again))).isEqualTo(again);
  }

  /**
   * RFC 7396 (JSON Merge Patch), appendix A, read as a base and one changed side: for its object
   * rows without null the merged result is what taking that side gives.
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"a\":\"b\"} | {\"a\":\"c\"}",
        "{\"a\":\"b\"} | {\"a\":\"b\",\"b\":\"c\"}",
        "{\"a\":\"b\",\"b\":\"c\"} | {\"b\":\"c\"}",
        "{\"a\":[\"b\"]} | {\"a\":\"c\"}",
        "{\"a\":\"c\"} | {\"a\":[\"b\"]}",
        "{\"a\":{\"b\":\"c\"}} | {\"a\":{\"b\":\"d\"}}",
        "{\"a\":[{\"b\":\"c\"}]} | {\"a\":[1]}",
        "{\"e\":null} | {\"e\":null,\"a\":1}"
      })
  void one_sided_changes_agree_with_rfc_7396(String original, String result) {
    assertThat(outcome(combine(original, result, original)))
        .isEqualTo(outcome(combine(original, result, result)));
    assertThat(COMBINER.same(VESSEL, combine(original, original, result).outcome(), fields(result)))
        .isTrue();
  }
}
