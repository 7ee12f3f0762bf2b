package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.mends.PatchBuilder;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision.State;
import ironing.core.testkit.TestWorld;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class CollisionTest {
  private static final Plugin BASE =
      plugin(
          "Base.plug",
          "",
          "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Aud\",\"speed\":11,\"crew\":[1]}}",
          "{\"type\":\"person\",\"id\":\"Base.plug/9\",\"fields\":{}}");
  private static final Plugin ONE =
      plugin(
          "One.plug",
          "\"Base.plug\"",
          "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Aud\",\"speed\":12,\"crew\":[1,2]}}");
  private static final Plugin TWO =
      plugin(
          "Two.plug",
          "\"Base.plug\"",
          "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Aud\",\"speed\":9,\"crew\":[1,{\"ref\":\"Two.plug/5\"}]}}",
          "{\"type\":\"person\",\"id\":\"Two.plug/5\",\"fields\":{}}");

  private static Plugin plugin(String name, String masters, String... records) {
    return PluginText.parse(
        name,
        "{\"format\":\"ironing/plugin@1\",\"masters\":["
            + masters
            + "]}\n"
            + String.join("\n", records));
  }

  private static List<String> names(Plugin... order) {
    return Arrays.stream(order).map(Plugin::name).toList();
  }

  private static List<Collision> collisions(
      List<Plugin> order, Set<String> patches, Map<String, Decided> decisions) {
    RecordIndex index = TestWorld.index(order, patches);
    Map<String, Map<String, Decided>> all =
        decisions.isEmpty() ? Map.of() : Map.of("Base.plug/1", decisions);
    Collisions found = Collisions.in(TestWorld.GAME, index, all);
    return IntStream.range(0, found.size()).mapToObj(i -> found.of(found.record(i))).toList();
  }

  private static Collision only(
      List<Plugin> order, Set<String> patches, Map<String, Decided> decisions) {
    List<Collision> all = collisions(order, patches, decisions);
    assertThat(all).hasSize(1);
    return all.get(0);
  }

  @Test
  void what_two_change_differently_needs_you_and_says_what_is_lost_meanwhile() {
    Collision c = only(List.of(BASE, ONE, TWO), Set.of(), Map.of());
    assertThat(c.state()).isEqualTo(State.NEEDS_YOU);
    assertThat(c.label()).isEqualTo("Aud");
    assertThat(c.used().plugin()).isEqualTo("Two.plug");
    assertThat(c.lost()).containsExactlyInAnyOrder("speed", "crew");
    assertThat(c.wantsPatch(TestWorld.GAME)).isFalse();
  }

  @Test
  void decided_it_combines_and_once_a_patch_has_it_it_is_settled() {
    Map<String, Decided> decided = Map.of("speed", Decided.take("One.plug"));
    Collision open = only(List.of(BASE, ONE, TWO), Set.of(), decided);
    assertThat(open.state()).isEqualTo(State.COMBINES);
    Plugin patch =
        PatchBuilder.build("Patch.plug", "Patch", "", names(BASE, ONE, TWO), List.of(open));
    Collision settled = only(List.of(BASE, ONE, TWO, patch), Set.of("patch.plug"), decided);
    assertThat(settled.state()).isEqualTo(State.SETTLED);
    assertThat(settled.lost()).isEmpty();
    Collision stale =
        only(
            List.of(BASE, ONE, TWO, patch),
            Set.of("patch.plug"),
            Map.of("speed", Decided.take("Two.plug")));
    assertThat(stale.state())
        .as("the patch no longer says what was decided")
        .isEqualTo(State.COMBINES);
  }

  @Test
  void nothing_is_lost_where_the_last_has_everything_already() {
    Plugin all =
        plugin(
            "Three.plug",
            "\"Base.plug\"",
            "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Aud\",\"speed\":12.0,\"crew\":[2,1]}}");
    Collision c = only(List.of(BASE, ONE, all), Set.of(), Map.of());
    assertThat(c.state()).isEqualTo(State.SETTLED);
    assertThat(c.lost()).isEmpty();
  }

  @Test
  void one_that_stands_for_the_others_makes_no_collision() {
    Plugin byHand =
        plugin(
            "Hand.plug",
            "\"Base.plug\",\"One.plug\",\"Two.plug\"",
            "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{}}");
    assertThat(only(List.of(BASE, ONE, TWO, byHand), Set.of(), Map.of()).state())
        .isEqualTo(State.ONE_CHANGES);
    assertThat(only(List.of(BASE, ONE), Set.of(), Map.of()).state()).isEqualTo(State.ONE_CHANGES);
    Plugin idle =
        plugin(
            "Idle.plug",
            "\"Base.plug\"",
            "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Aud\",\"speed\":11.0,\"crew\":[1]}}");
    assertThat(only(List.of(BASE, idle), Set.of(), Map.of()).state()).isEqualTo(State.SAME);
  }

  @Test
  void a_patch_has_complete_masters_in_load_order_and_the_same_bytes_every_time() {
    Collision c =
        only(List.of(BASE, ONE, TWO), Set.of(), Map.of("speed", Decided.take("Two.plug")));
    Plugin unrelated = plugin("Unrelated.plug", "");
    List<Plugin> order = List.of(BASE, unrelated, ONE, TWO);
    List<String> names = order.stream().map(Plugin::name).toList();
    Plugin patch = PatchBuilder.build("Patch.plug", "Patch", "", names, List.of(c));
    assertThat(patch.header().masters()).containsExactly("Base.plug", "One.plug", "Two.plug");
    assertThat(patch.header().stage()).isEqualTo(9);
    assertThat(patch.records())
        .singleElement()
        .satisfies(r -> assertThat(r.key().toString()).isEqualTo("Base.plug/1"));
    assertThat(PluginCodec.encode(patch))
        .isEqualTo(
            PluginCodec.encode(PatchBuilder.build("Patch.plug", "Patch", "", names, List.of(c))));
    RecordIndex with = TestWorld.index(List.of(BASE, ONE, TWO, patch), Set.of());
    assertThat(with.used(c.key()).get().fields()).isEqualTo(c.combination().outcome());
  }

  @Test
  void a_record_removed_by_decision_is_removed_in_the_patch() {
    Plugin removes =
        plugin(
            "Zero.plug",
            "\"Base.plug\"",
            "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":null}");
    List<Plugin> order = List.of(BASE, removes, TWO);
    Collision c = only(order, Set.of(), Map.of(Combiner.WHOLE_RECORD, Decided.take("Zero.plug")));
    assertThat(c.state()).isEqualTo(State.COMBINES);
    assertThat(
            PatchBuilder.build("Patch.plug", "P", "", names(BASE, removes, TWO), List.of(c))
                .records()
                .get(0)
                .fields())
        .isEmpty();
  }

  @Test
  void what_still_waits_for_the_user_cannot_be_put_into_a_patch() {
    Collision c = only(List.of(BASE, ONE, TWO), Set.of(), Map.of());
    assertThatThrownBy(
            () -> PatchBuilder.build("Patch.plug", "P", "", names(BASE, ONE, TWO), List.of(c)))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("Base.plug/1");
  }

  @Test
  void a_record_that_nobody_defines_or_of_another_type_is_odd_and_never_combined() {
    Plugin odd =
        plugin(
            "Odd.plug",
            "\"Base.plug\"",
            "{\"type\":\"harbour\",\"id\":\"Base.plug/1\",\"fields\":{}}",
            "{\"type\":\"vessel\",\"id\":\"Base.plug/77\",\"fields\":{}}");
    RecordIndex v = TestWorld.index(List.of(BASE, ONE, odd), Set.of());
    assertThat(v.odd())
        .extracting(o -> o.key().toString())
        .containsExactlyInAnyOrder("Base.plug/1", "Base.plug/77");
    assertThat(v.odd()).allSatisfy(o -> assertThat(o.reason()).contains("Base.plug"));
    // the game knows nothing of types or owners: it reads the last one
    for (RecordIndex.Odd o : v.odd()) {
      int record = v.find(o.key());
      assertThat(v.isOdd(record)).isTrue();
      assertThat(v.used(record).plugin()).isEqualTo("Odd.plug");
      assertThat(v.type(record)).isEqualTo(v.used(record).type());
      Collision c =
          Collision.of(
              TestWorld.GAME, v, record, Map.of(Combiner.WHOLE_RECORD, Decided.take("Base.plug")));
      assertThat(c.state()).isEqualTo(Collision.State.ODD);
      assertThat(c.combination().cells()).isEmpty();
      assertThat(c.used().plugin()).isEqualTo("Odd.plug");
    }
    assertThat(v.versions(v.find(new Ref("Base.plug", 1))))
        .extracting(Version::plugin)
        .containsExactly("Base.plug", "One.plug", "Odd.plug");
    assertThat(v.versions(v.find(new Ref("base.plug", 77))))
        .extracting(Version::plugin)
        .containsExactly("Odd.plug");
    Collisions all =
        Collisions.in(TestWorld.GAME, v, Map.of("Base.plug/1", Map.of("name", Decided.take("x"))));
    assertThat(all.size()).isZero();
    assertThat(all.counts()).containsEntry(Collision.State.ODD, 2);
    assertThat(v.overrides(1)).isEqualTo(1);
    assertThat(v.overrides(2)).isEqualTo(2);
    assertThat(RecordFindings.of(v, path -> true)).isEmpty();
  }

  @Test
  void an_override_before_its_owner_is_odd_and_what_the_owner_has_is_read() {
    RecordIndex v = TestWorld.index(List.of(ONE, BASE), Set.of());
    int record = v.find(new Ref("Base.plug", 1));
    assertThat(v.used(record).plugin()).isEqualTo("Base.plug");
    assertThat(v.odd()).isNotEmpty();
    assertThat(v.isOdd(record)).isFalse();
  }

  @Test
  void another_order_reads_exactly_those_records_differently_whose_content_differs() {
    RecordIndex one = TestWorld.index(List.of(BASE, ONE, TWO), Set.of()),
        other = TestWorld.index(List.of(BASE, TWO, ONE), Set.of());
    assertThat(RecordDifference.between(one, other))
        .singleElement()
        .satisfies(
            d -> {
              assertThat(d.key().toString()).isEqualTo("Base.plug/1");
              assertThat(d.before()).contains("Two.plug");
              assertThat(d.after()).contains("One.plug");
              assertThat(d.label()).isEqualTo("Aud");
            });
    RecordIndex without = TestWorld.index(List.of(BASE, ONE), Set.of());
    assertThat(RecordDifference.between(one, without))
        .extracting(d -> d.key().toString())
        .containsExactly("Base.plug/1", "Two.plug/5");
    assertThat(RecordDifference.between(without, one))
        .extracting(d -> d.key().toString())
        .containsExactly("Base.plug/1", "Two.plug/5");
    assertThat(RecordDifference.between(one, one)).isEmpty();
  }

  @Test
  void a_type_that_the_game_does_not_describe_is_whole_field_by_field() {
    Plugin base =
        plugin(
            "Base.plug",
            "",
            "{\"type\":\"thing\",\"id\":\"Base.plug/3\",\"fields\":{\"a\":[1],\"b\":1}}");
    Plugin one =
        plugin(
            "One.plug",
            "\"Base.plug\"",
            "{\"type\":\"thing\",\"id\":\"Base.plug/3\",\"fields\":{\"a\":[1,2],\"b\":1}}");
    Plugin two =
        plugin(
            "Two.plug",
            "\"Base.plug\"",
            "{\"type\":\"thing\",\"id\":\"Base.plug/3\",\"fields\":{\"a\":[1],\"b\":2}}");
    Collision c = only(List.of(base, one, two), Set.of(), Map.of());
    assertThat(c.state()).isEqualTo(State.COMBINES);
    assertThat(c.label()).as("with no name to go by").isEqualTo("Base.plug/3");
  }
}
