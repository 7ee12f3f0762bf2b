package ironing.core.mends;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.game.RecordType;
import ironing.core.mends.MergePlan.Note;
import ironing.core.mends.MergePlan.Shared;
import ironing.core.path.PathCase;
import ironing.core.plugin.OwnFormat;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.records.Version;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.statistics.Statistics;
import org.junit.jupiter.api.Test;

class MergeTest {
  private static Plugin plugin(String name, String masters, String... records) {
    return PluginText.parse(
        name,
        "{\"format\":\"ironing/plugin@1\",\"masters\":["
            + masters
            + "]}\n"
            + String.join("\n", records));
  }

  private static String vessel(String key, String fields) {
    return "{\"type\":\"vessel\",\"id\":\"" + key + "\",\"fields\":{" + fields + "}}";
  }

  private static MergePlan plan(List<Plugin> order, String target, String... sources) {
    return MergePlan.of(TestWorld.GAME, TestWorld.index(order, Set.of()), List.of(sources), target);
  }

  /** The order after a merge: the merged plugin in its place, and what names it rewritten. */
  private static List<Plugin> merged(List<Plugin> order, MergePlan plan) {
    Map<String, Plugin> byName = new LinkedHashMap<>();
    order.forEach(p -> byName.put(p.name(), p));
    byte[] bytes = MergeBuilder.merged(plan, "Merged", n -> file(byName.get(n)));
    Plugin target = PluginCodec.decode(plan.target(), bytes).plugin();
    assertThat(PluginCodec.encode(target)).as("deterministic").isEqualTo(bytes);
    List<Plugin> after = new ArrayList<>();
    if (plan.after().isEmpty()) after.add(target);
    for (Plugin p : order) {
      if (plan.sources().contains(p.name())) continue;
      boolean rewritten = plan.dependents().contains(p.name());
      after.add(
          rewritten
              ? PluginCodec.decode(p.name(), MergeBuilder.rewritten(plan, p.name(), file(p)))
                  .plugin()
              : p);
      if (p.name().equals(plan.after())) after.add(target);
    }
    return after;
  }

  private static Bytes file(Plugin p) {
    return Bytes.of(PluginCodec.encode(p));
  }

  /** The game reads the same: every record under its new key, every reference with it. */
  private static void sameWorld(List<Plugin> before, List<Plugin> after, MergePlan plan) {
    RecordIndex was = TestWorld.index(before, Set.of()), is = TestWorld.index(after, Set.of());
    assertThat(is.size()).isEqualTo(was.size());
    for (int r = 0; r < was.size(); r++) {
      Version used = was.used(r);
      RecordType type =
          TestWorld.GAME.records().getOrDefault(used.type(), RecordType.undescribed(used.type()));
      Plugin.Record wanted =
          plan.numbers().of(new Plugin.Record(used.type(), was.key(r), used.fields()), type);
      int there = is.find(wanted.key());
      assertThat(there).as(wanted.key().toString()).isNotNegative();
      assertThat(is.type(there)).isEqualTo(wanted.type());
      assertThat(is.used(there).fields()).as(wanted.key().toString()).isEqualTo(wanted.fields());
    }
    Set<Ref> keys = new HashSet<>();
    for (int r = 0; r < was.size(); r++) keys.add(plan.numbers().of(was.key(r)));
    assertThat(keys).as("no two records under one number").hasSize(was.size());
  }

  @Property(tries = 1500, seed = "8160")
  void the_game_reads_the_same_after_any_merge_that_is_not_refused(
      @ForAll long seed, @ForAll @IntRange(min = 3, max = 8) int count, @ForAll boolean named) {
    List<Plugin> order = RandomPlugins.of(seed, count);
    Random random = new Random(seed);
    List<String> sources = new ArrayList<>();
    for (Plugin p : order.subList(1, count)) if (random.nextBoolean()) sources.add(p.name());
    if (sources.size() < 2) return;
    String target = named ? sources.get(random.nextInt(sources.size())) : "Merged.plug";
    MergePlan plan = plan(order, target, sources.toArray(String[]::new));
    Statistics.label("refused").collect(!plan.refused().isEmpty());
    if (!plan.refused().isEmpty()) return;
    List<Plugin> after = merged(order, plan);
    sameWorld(order, after, plan);
    assertThat(after).hasSize(order.size() - sources.size() + 1);
    Plugin target2 =
        after.stream().filter(p -> p.name().equals(plan.target())).findFirst().orElseThrow();
    assertThat(target2.header().masters())
        .as("none of the merged")
        .doesNotContainAnyElementsOf(sources);
    mastersLoadFirst(after);
  }

  @Property(tries = 1500, seed = "8160")
  void combined_it_reads_as_the_sources_with_a_patch_over_them(
      @ForAll long seed, @ForAll @IntRange(min = 3, max = 8) int count) {
    List<Plugin> order = RandomPlugins.of(seed, count);
    Random random = new Random(seed);
    List<String> sources = new ArrayList<>();
    for (Plugin p : order.subList(1, count)) if (random.nextInt(4) > 0) sources.add(p.name());
    if (sources.size() < 2) return;
    RecordIndex index = TestWorld.index(order, Set.of());
    Collisions all = Collisions.in(TestWorld.GAME, index, Map.of());
    MergePlan plan = MergePlan.of(TestWorld.GAME, index, all, true, sources, "Merged.plug");
    Statistics.label("refused").collect(!plan.refused().isEmpty());
    if (!plan.refused().isEmpty()) return;
    List<Collision> combined =
        plan.shared().stream().filter(Shared::combines).map(s -> all.of(s.record())).toList();
    Statistics.label("combined").collect(!combined.isEmpty());
    List<String> names = order.stream().map(Plugin::name).toList();
    List<Plugin> patched = new ArrayList<>(order);
    if (!combined.isEmpty())
      patched.add(PatchBuilder.build("Patch.plug", "Patch", "", names, combined));
    sameWorld(patched, merged(order, plan), plan);
  }

  @Test
  void what_its_sources_change_in_different_fields_of_one_record_is_combined_when_asked_for() {
    Plugin one =
        plugin("One.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":9,\"name\":\"A\""));
    Plugin two =
        plugin("Two.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":1,\"name\":\"B\""));
    Plugin base = plugin("Base.plug", "", vessel("Base.plug/1", "\"speed\":1,\"name\":\"A\""));
    RecordIndex index = TestWorld.index(List.of(base, one, two), Set.of());
    Collisions all = Collisions.in(TestWorld.GAME, index, Map.of());
    List<String> sources = List.of("One.plug", "Two.plug");
    for (boolean combining : new boolean[] {true, false}) {
      MergePlan plan = MergePlan.of(TestWorld.GAME, index, all, combining, sources, "M.plug");
      assertThat(plan.shared()).singleElement().matches(Shared::combines);
      List<Plugin> after = merged(List.of(base, one, two), plan);
      Value.Fields read =
          TestWorld.index(after, Set.of()).used(index.key(0)).orElseThrow().fields().orElseThrow();
      assertThat(read.map().get("name")).isEqualTo(new Value.Text("B"));
      assertThat(read.map().get("speed")).isEqualTo(new Value.Int(combining ? 9 : 1));
    }
  }

  @Test
  void the_difference_of_two_states_names_what_comes_goes_and_changes() throws IOException {
    String more = vessel("M.plug/3", "");
    Plugin was =
        plugin("M.plug", "", vessel("M.plug/1", "\"speed\":1"), vessel("M.plug/2", ""), more);
    Plugin is =
        plugin("M.plug", "", vessel("M.plug/1", "\"speed\":2"), more, vessel("M.plug/4", ""));
    byte[] before = PluginCodec.encode(was), after = PluginCodec.encode(is);
    Shapes shapes = Shapes.of(TestWorld.GAME);
    MendDifference d = MendDifference.between(OwnFormat.ONE, "M.plug", before, after, shapes, 2);
    assertThat(d.inAll()).isEqualTo(3);
    assertThat(d.changes()).extracting(c -> c.key().id()).containsExactly(1, 2);
    assertThat(d.changes().get(0).after()).contains(is.records().get(0));
    assertThat(d.changes().get(1).after()).isEmpty();
    assertThat(MendDifference.between(OwnFormat.ONE, "M.plug", after, after, shapes, 2).inAll())
        .isZero();
  }

  private static void mastersLoadFirst(List<Plugin> order) {
    Set<String> loaded = new HashSet<>();
    for (Plugin p : order) {
      for (String m : p.header().masters()) assertThat(loaded).contains(PathCase.fold(m));
      loaded.add(PathCase.fold(p.name()));
    }
  }

  private static final Plugin BASE =
      plugin("Base.plug", "", vessel("Base.plug/1", "\"speed\":1"), vessel("Base.plug/2", ""));

  @Test
  void numbers_stay_where_they_are_free_and_the_others_are_given_in_load_order() {
    Plugin one =
        plugin("One.plug", "\"Base.plug\"", vessel("One.plug/5", ""), vessel("One.plug/7", ""));
    Plugin two =
        plugin(
            "Two.plug",
            "\"Base.plug\",\"One.plug\"",
            vessel("Two.plug/5", "\"crew\":[{\"ref\":\"One.plug/5\"},{\"ref\":\"Two.plug/6\"}]"),
            vessel("Two.plug/6", ""));
    MergePlan plan = plan(List.of(BASE, one, two), "New.plug", "Two.plug", "One.plug");
    assertThat(plan.refused()).isEmpty();
    assertThat(plan.sources()).containsExactly("One.plug", "Two.plug");
    assertThat(plan.numbers().of("One.plug"))
        .extracting(m -> m.from() + "=" + m.to())
        .containsExactly("One.plug/5=New.plug/5", "One.plug/7=New.plug/7");
    assertThat(plan.numbers().of("Two.plug"))
        .extracting(m -> m.from() + "=" + m.to())
        .containsExactly("Two.plug/5=New.plug/8", "Two.plug/6=New.plug/6");
    assertThat(plan.numbers().changed()).isEqualTo(1);
    assertThat(plan.numbers().nextId()).isEqualTo(9);
    MergePlan intoTwo = plan(List.of(BASE, one, two), "Two.plug", "One.plug", "Two.plug");
    assertThat(intoTwo.numbers().of(new Ref("Two.plug", 5)))
        .as("the target keeps its own")
        .isEqualTo(new Ref("Two.plug", 5));
    assertThat(intoTwo.numbers().of(new Ref("One.plug", 5))).isEqualTo(new Ref("Two.plug", 8));
  }

  @Test
  void ids_inside_texts_follow_and_the_longest_name_counts() {
    Plugin one = plugin("One.plug", "\"Base.plug\"", vessel("One.plug/5", ""));
    Plugin other = plugin("Not One.plug", "\"Base.plug\"", vessel("Not One.plug/5", ""));
    Plugin two = plugin("Two.plug", "\"Base.plug\"", vessel("Two.plug/5", ""));
    MergePlan plan = plan(List.of(BASE, one, other, two), "New.plug", "One.plug", "Two.plug");
    assertThat(
            plan.numbers()
                .text("One.plug/5, (Two.plug/5) Not One.plug/5 one.PLUG/5x One.plug/05 a/b /5"))
        .isEqualTo("New.plug/5, (New.plug/6) Not One.plug/5 New.plug/5x One.plug/05 a/b /5");
  }

  @Test
  void what_loses_to_a_plugin_between_is_left_out() {
    Plugin one = plugin("One.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":2"));
    Plugin between = plugin("Between.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":3"));
    Plugin two = plugin("Two.plug", "\"Base.plug\"", vessel("Base.plug/2", "\"speed\":4"));
    List<Plugin> order = List.of(BASE, one, between, two);
    MergePlan plan = plan(order, "New.plug", "One.plug", "Two.plug");
    assertThat(plan.leftOut()).extracting(Note::thing).containsExactly("Base.plug/1");
    assertThat(plan.leftOut()).extracting(Note::code).containsExactly("merge-loses");
    assertThat(plan.leftOut().get(0).reason()).contains("Between.plug");
    assertThat(plan.after()).isEqualTo("Between.plug");
    assertThat(plan.overrides()).isEqualTo(1);
    sameWorld(order, merged(order, plan), plan);
  }

  @Test
  void where_no_place_keeps_the_meaning_it_is_refused_with_the_records() {
    Plugin one = plugin("One.plug", "\"Base.plug\"", vessel("One.plug/1", ""));
    Plugin needs =
        plugin(
            "Needs.plug",
            "\"Base.plug\",\"One.plug\"",
            vessel("Base.plug/1", "\"speed\":3"),
            vessel("One.plug/1", "\"speed\":3"));
    Plugin two = plugin("Two.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":4"));
    MergePlan plan = plan(List.of(BASE, one, needs, two), "New.plug", "One.plug", "Two.plug");
    assertThat(plan.refused()).extracting(Note::code).containsExactly("merge-no-place");
    assertThat(plan.refused().get(0).reason()).contains("Base.plug/1").contains("Needs.plug");
    Plugin plain = plugin("Plain.plug", "\"Base.plug\"", vessel("Base.plug/1", "\"speed\":5"));
    Plugin only = plugin("Needs.plug", "\"Base.plug\",\"One.plug\"", vessel("One.plug/1", ""));
    MergePlan between =
        plan(List.of(BASE, one, only, plain, two), "New.plug", "One.plug", "Two.plug");
    assertThat(between.refused().get(0).reason())
        .as("who is covered, and who needs the merge below it, may be two")
        .contains("Two.plug must go on covering Plain.plug")
        .contains("before Needs.plug, which needs it");
    assertThat(between.refused().get(0).remedy()).contains("Needs.plug");
    assertThatThrownBy(() -> MergeBuilder.merged(plan, "T", n -> Bytes.of(new byte[0])))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void a_ring_of_masters_is_refused_with_both_ends() {
    Plugin one = plugin("One.plug", "\"Base.plug\"", vessel("One.plug/1", ""));
    Plugin middle =
        plugin("Middle.plug", "\"Base.plug\",\"One.plug\"", vessel("Middle.plug/1", ""));
    Plugin two = plugin("Two.plug", "\"Base.plug\",\"Middle.plug\"", vessel("Two.plug/1", ""));
    List<Plugin> order = List.of(BASE, one, middle, two);
    MergePlan plan = plan(order, "New.plug", "One.plug", "Two.plug");
    assertThat(plan.refused()).extracting(Note::code).containsExactly("merge-ring");
    assertThat(plan.refused().get(0).thing()).isEqualTo("Middle.plug");
    MergePlan all = plan(order, "New.plug", "One.plug", "Middle.plug", "Two.plug");
    assertThat(all.refused()).isEmpty();
    assertThat(all.masters()).containsExactly("Base.plug");
  }

  @Test
  void what_cannot_be_merged_is_told_with_a_remedy() {
    Plugin one = plugin("One.plug", "\"Base.plug\"", vessel("One.plug/1", ""));
    List<Plugin> order = List.of(BASE, one);
    assertThat(plan(order, "New.plug", "One.plug").refused())
        .extracting(Note::code)
        .containsExactly("merge-too-few");
    assertThat(plan(order, "Base.plug", "One.plug", "Gone.plug").refused())
        .extracting(Note::code)
        .contains("merge-not-on", "merge-name-taken");
    assertThat(plan(order, "New.plug", "One.plug", "Base.plug").refused())
        .extracting(Note::code)
        .contains("merge-own");
    assertThat(plan(order, "New.plug", "One.plug", "Base.plug").refused())
        .allSatisfy(n -> assertThat(n.remedy()).isNotBlank());
  }

  @Test
  void a_reference_that_leads_nowhere_does_not_lead_to_anothers_record() {
    Plugin one =
        plugin(
            "One.plug",
            "\"Base.plug\"",
            vessel("One.plug/1", "\"crew\":[{\"ref\":\"One.plug/9\"}]"));
    Plugin two = plugin("Two.plug", "\"Base.plug\"", vessel("Two.plug/9", ""));
    List<Plugin> order = List.of(BASE, one, two);
    MergePlan plan = plan(order, "New.plug", "One.plug", "Two.plug");
    RecordIndex after = TestWorld.index(merged(order, plan), Set.of());
    Value crew = after.used(new Ref("New.plug", 1)).get().fields().get().map().get("crew");
    Ref to = (Ref) ((Value.Array) crew).items().get(0);
    assertThat(after.find(to)).isEqualTo(-1);
    assertThat(Arrays.asList(plan.numbers().of(new Ref("Two.plug", 9)).id()))
        .doesNotContain(to.id());
  }

  @Test
  void packs_and_authors_follow() {
    Plugin one = withPacks("One.plug", "Ada", "one.crate"),
        two = withPacks("Two.plug", "Bo", "two.crate");
    List<Plugin> order = List.of(BASE, one, two);
    MergePlan plan = plan(order, "New.plug", "One.plug", "Two.plug");
    Plugin made = merged(order, plan).get(1);
    assertThat(made.header().packs()).containsExactly("one.crate", "two.crate");
    assertThat(made.header().author()).contains("Ada, Bo");
    assertThat(made.header().about().get()).contains("One.plug, Two.plug");
  }

  private static Plugin withPacks(String name, String author, String pack) {
    Plugin.Header h =
        new Plugin.Header(
            5,
            List.of("Base.plug"),
            1,
            Optional.empty(),
            Optional.of(author),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            List.of(pack),
            Map.of());
    return new Plugin(name, h, List.of());
  }

  @Test
  void a_master_that_is_off_a_patch_and_a_record_that_does_not_fit_are_refused() {
    Plugin one = plugin("One.plug", "\"Base.plug\",\"Off.plug\"", vessel("One.plug/1", ""));
    Plugin two = plugin("Two.plug", "\"Base.plug\"", vessel("Two.plug/1", ""));
    RecordIndex index = TestWorld.index(List.of(BASE, one, two), Set.of("two.plug"));
    MergePlan plan =
        MergePlan.of(TestWorld.GAME, index, List.of("One.plug", "Two.plug"), "New.plug");
    assertThat(plan.refused())
        .extracting(Note::code)
        .containsExactlyInAnyOrder("merge-master-missing", "merge-patch");
    Plugin odd =
        plugin(
            "Odd.plug",
            "\"Base.plug\"",
            "{\"type\":\"port\",\"id\":\"Base.plug/1\",\"fields\":{}}");
    plan = plan(List.of(BASE, odd, two), "New.plug", "Odd.plug", "Two.plug");
    assertThat(plan.refused()).extracting(Note::code).containsExactly("merge-odd");
  }
}
