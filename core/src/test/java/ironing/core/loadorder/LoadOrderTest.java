package ironing.core.loadorder;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderCheck.Code;
import ironing.core.loadorder.LoadOrderCheck.Slots;
import ironing.core.loadorder.LoadOrderCheck.Trouble;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.testkit.TestWorld;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LoadOrderTest {
  private static TestWorld world() {
    return new TestWorld().plugin(0, "Base.plug", 0);
  }

  private static List<String> names(TestWorld w) {
    return w.picture().loadOrder().entries().stream().map(Entry::name).toList();
  }

  private static List<Trouble> troubles(TestWorld w, String gameVersion) {
    Picture p = w.picture();
    return LoadOrderCheck.troubles(
        p.game(), Optional.of(gameVersion), p.loadOrder(), p::packInPlay);
  }

  @Test
  void the_games_own_come_first_whatever_anybody_wishes() {
    assertThat(names(world().plugin(1, "A.plug", 0).wish("A.plug", true).wish("Base.plug", false)))
        .containsExactly("Base.plug", "A.plug");
    assertThat(world().wish("Base.plug", false).picture().loadOrder().active())
        .extracting(Entry::name)
        .containsExactly("Base.plug");
  }

  @Test
  void lower_stages_load_first_and_wishes_count_within_a_stage() {
    TestWorld w =
        world()
            .plugin(1, "Late.plug", 7)
            .plugin(1, "Early.plug", 2)
            .plugin(1, "B.plug", 5)
            .plugin(1, "A.plug", 5);
    assertThat(
            names(
                w.wish("Late.plug", true)
                    .wish("B.plug", true)
                    .wish("A.plug", true)
                    .wish("Early.plug", true)))
        .containsExactly("Base.plug", "Early.plug", "B.plug", "A.plug", "Late.plug");
  }

  @Test
  void a_new_plugin_is_on_and_comes_last_in_its_stage_but_before_what_was_generated() {
    TestWorld w =
        world()
            .plugin(1, "Old.plug", 9)
            .plugin(9, "Patch.plug", 9)
            .mend(9)
            .plugin(2, "New.plug", 9)
            .wish("Old.plug", true)
            .wish("Patch.plug", true);
    assertThat(names(w)).containsExactly("Base.plug", "Old.plug", "New.plug", "Patch.plug");
    assertThat(w.picture().loadOrder().active()).hasSize(4);
  }

  @Test
  void names_compare_without_case() {
    LoadOrder order =
        world().plugin(1, "Harbour.plug", 5).wish("HARBOUR.PLUG", false).picture().loadOrder();
    assertThat(order.find("harbour.plug")).map(Entry::on).contains(false);
    assertThat(order.position("HarBour.plug")).isEqualTo(1);
    assertThat(order.position("other.plug")).isEqualTo(-1);
  }

  @Test
  void a_plugin_that_is_away_keeps_its_place_in_the_wishes() {
    LoadOrder order = world().plugin(1, "A.plug", 5).plugin(1, "C.plug", 5).picture().loadOrder();
    List<Wish> old =
        List.of(
            new Wish("First.plug", true),
            new Wish("A.plug", true),
            new Wish("B.plug", false),
            new Wish("C.plug", true));
    assertThat(order.merged(old, List.of(new Wish("C.plug", true), new Wish("a.plug", false))))
        .containsExactly(
            new Wish("First.plug", true),
            new Wish("C.plug", true),
            new Wish("A.plug", false),
            new Wish("B.plug", false));
  }

  @Test
  void the_list_is_written_line_by_line_as_the_definition_says() {
    TestWorld w =
        world()
            .plugin(1, "A.plug", 5)
            .plugin(1, "B.plug", 5)
            .wish("B.plug", false)
            .wish("A.plug", true);
    GameDefinition.ListFile list = TestWorld.GAME.plugins().get().list().get();
    assertThat(
            new String(
                ListText.bytes(list, w.picture().loadOrder(), Optional.empty()),
                StandardCharsets.UTF_8))
        .isEqualTo("skip B.plug\nuse A.plug\n");
    GameDefinition.ListFile other =
        new GameDefinition.ListFile(
            "x", "*{name}", Optional.empty(), false, "\r\n", Optional.empty());
    assertThat(
            new String(
                ListText.bytes(other, w.picture().loadOrder(), Optional.empty()),
                StandardCharsets.UTF_8))
        .isEqualTo("*Base.plug\r\n*A.plug\r\n");
  }

  @Test
  void a_list_that_somebody_changed_is_read_back() {
    GameDefinition.ListFile list =
        TestWorld.GAME.plugins().flatMap(GameDefinition.Plugins::list).orElseThrow();
    ListText.Told told =
        ListText.read(
            list, "use B.plug\r\n\r\nskip  A.plug \nuse b.PLUG\nBase.plug\n".getBytes(UTF_8));
    assertThat(told.wishes()).containsExactly(new Wish("B.plug", true), new Wish("A.plug", false));
    assertThat(told.remarks())
        .containsExactly(
            "Line 4 names b.PLUG again; its first place counts.",
            "Line 5 is not of its form: “Base.plug”.");
    LoadOrder order =
        world()
            .plugin(1, "A.plug", 5)
            .plugin(1, "Ü.plug", 5)
            .wish("A.plug", false)
            .picture()
            .loadOrder();
    byte[] utf16 =
        ("\uFEFF"
                + new String(ListText.bytes(list, order, Optional.empty()), StandardCharsets.UTF_8))
            .getBytes(StandardCharsets.UTF_16LE);
    assertThat(ListText.read(list, utf16).wishes()).isEqualTo(order.asWishes());
  }

  @Test
  void every_trouble_is_told_with_a_remedy() {
    TestWorld w =
        world()
            .plugin(1, "NeedsGone.plug", 5, "Base.plug", "Gone.plug")
            .plugin(1, "Before.plug", 5, "After.plug")
            .plugin(1, "After.plug", 5)
            .plugin(1, "NeedsOff.plug", 5, "Off.plug")
            .plugin(1, "Off.plug", 5)
            .file(1, "data/Broken.plug", "not a plugin")
            .wish("Before.plug", true)
            .wish("After.plug", true)
            .wish("Off.plug", false)
            .wish("NeedsOff.plug", true);
    List<Trouble> all = troubles(w, "1.4");
    assertThat(all)
        .extracting(Trouble::code)
        .containsExactlyInAnyOrder(
            Code.MASTER_MISSING, Code.MASTER_LATE, Code.MASTER_OFF, Code.UNDECODABLE);
    assertThat(all)
        .allSatisfy(
            t -> {
              assertThat(t.stops()).isTrue();
              assertThat(t.remedy()).isNotBlank();
              assertThat(t.text())
                  .contains(t.code() == Code.UNDECODABLE ? "cannot be read" : t.other());
            });
  }

  @Test
  void names_that_differ_only_in_case_are_one_to_the_game_and_that_is_told() {
    TestWorld w =
        new TestWorld(
                TestWorld.game(
                    TestWorld.DEFINITION.replace("pathCase: insensitive", "pathCase: sensitive")))
            .plugin(0, "Base.plug", 0)
            .plugin(1, "Fog.plug", 5)
            .plugin(2, "fog.PLUG", 5)
            .plugin(2, "fog.plug", 5);
    LoadOrder order = w.picture().loadOrder();
    assertThat(order.doubled()).extracting(LoadOrder.Found::name).containsExactly("Fog.plug");
    assertThat(order.entries()).extracting(Entry::name).containsExactly("Base.plug", "fog.plug");
    assertThat(troubles(w, "1"))
        .filteredOn(t -> t.code() == Code.SAME_NAME)
        .singleElement()
        .satisfies(
            t -> {
              assertThat(t.text())
                  .isEqualTo(
                      "fog.plug and Fog.plug are one name to the game; only fog.plug counts.");
              assertThat(t.stops()).isFalse();
            });
  }

  @Test
  void many_missing_masters_of_one_plugin_are_told_together() {
    String[] masters = new String[6];
    for (int i = 0; i < masters.length; i++) masters[i] = "M" + i + ".plug";
    assertThat(troubles(world().plugin(1, "A.plug", 5, masters), "1"))
        .singleElement()
        .satisfies(
            t -> {
              assertThat(t.code()).isEqualTo(Code.MASTER_MISSING);
              assertThat(t.text())
                  .isEqualTo(
                      "A.plug needs 6 plugins that are not in play: M0.plug, M1.plug, M2.plug,"
                          + " M3.plug, M4.plug and 1 more.");
            });
    assertThat(troubles(world().plugin(1, "A.plug", 5, "M0.plug", "M1.plug"), "1")).hasSize(2);
  }

  @Test
  void what_is_off_makes_no_trouble() {
    assertThat(
            troubles(
                world().plugin(1, "NeedsGone.plug", 5, "Gone.plug").wish("NeedsGone.plug", false),
                "1"))
        .isEmpty();
  }

  @Test
  void another_version_of_the_game_and_a_missing_pack_are_told() {
    Plugin.Header h =
        new Plugin.Header(
            5,
            List.of(),
            1,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.of(">=2"),
            List.of("gone.crate"),
            Map.of());
    TestWorld w =
        world().file(1, "data/A.plug", PluginCodec.encode(new Plugin("A.plug", h, List.of())));
    assertThat(troubles(w, "1.4"))
        .extracting(Trouble::code)
        .containsExactly(Code.WRONG_GAME_VERSION, Code.PACK_MISSING);
    assertThat(troubles(w, "2.1")).extracting(Trouble::code).containsExactly(Code.PACK_MISSING);
  }

  /**
   * 256 in all, two for the game's own and one for the save leave 253: common practice, with no
   * published source.
   */
  @ParameterizedTest
  @CsvSource({"256, 1, 2, 253", "96, 1, 2, 93", "8, 1, 1, 6"})
  void slots_for_mods_are_what_the_game_and_the_save_leave(
      int total, int reserved, int own, int left) {
    assertThat(new Slots(own, own, Optional.of(total), reserved).forMods()).contains(left);
    assertThat(new Slots(own, own, Optional.of(total), reserved).left()).contains(left);
    assertThat(new Slots(own, own, Optional.empty(), 0).forMods()).isEmpty();
  }

  @Test
  void one_plugin_too_many_is_told_and_switching_it_off_helps() {
    TestWorld w = world();
    for (int i = 1; i <= 7; i++) w.plugin(1, "P" + i + ".plug", 5);
    assertThat(troubles(w, "1"))
        .singleElement()
        .satisfies(
            t -> {
              assertThat(t.code()).isEqualTo(Code.NO_SLOT);
              assertThat(t.text())
                  .isEqualTo("8 plugins are on and there are only 7 slots for them.");
              assertThat(t.plugin()).isEqualTo("P7.plug");
            });
    assertThat(troubles(w.wish("P3.plug", false), "1")).isEmpty();
  }

  private static LoadOrderProposal propose(TestWorld w, LoadRule... rules) {
    return LoadOrderProposal.propose(w.picture().loadOrder(), List.of(rules), PluginFacts.NONE);
  }

  private static LoadRule card(String plugin, Kind kind, String other) {
    return new LoadRule(
        plugin + " " + kind + " " + other,
        kind,
        Who.named(plugin),
        Who.named(other),
        "the card asks for it",
        "the mod’s card",
        Strength.CARD);
  }

  private static List<LoadRule> gaveWay(LoadOrderProposal p) {
    return p.gaveWay().stream().map(g -> g.rule().orElseThrow()).toList();
  }

  private static List<String> sorted(LoadOrderProposal p) {
    return ((Outcome.Sorted<String>) p.outcome()).order();
  }

  @Test
  void a_proposal_puts_masters_first_and_moves_nothing_else() {
    TestWorld w =
        world()
            .plugin(1, "A.plug", 5, "Base.plug", "C.plug")
            .plugin(1, "B.plug", 5)
            .plugin(1, "C.plug", 5);
    LoadOrderProposal p = propose(w);
    assertThat(sorted(p)).containsExactly("Base.plug", "B.plug", "C.plug", "A.plug");
    List<Move<String>> moves = ((Outcome.Sorted<String>) p.outcome()).moves();
    assertThat(moves)
        .singleElement()
        .satisfies(
            m -> {
              assertThat(m.item()).isEqualTo("A.plug");
              assertThat(m.because().get(0).reason()).isEqualTo("it lists C.plug as a master");
            });
    assertThat(LoadOrderProposal.asWishes(w.picture().loadOrder(), sorted(p)))
        .extracting(Wish::name)
        .containsExactly("B.plug", "C.plug", "A.plug");
  }

  @Test
  void cards_are_heeded_where_the_files_leave_room() {
    TestWorld w =
        world().plugin(1, "A.plug", 5).plugin(1, "B.plug", 5, "A.plug").plugin(1, "E.plug", 2);
    LoadRule fine = card("A.plug", Kind.AFTER, "E.plug"),
        against = card("A.plug", Kind.AFTER, "B.plug"),
        stage = card("E.plug", Kind.AFTER, "A.plug");
    LoadOrderProposal p =
        propose(w, against, fine, stage, card("A.plug", Kind.AFTER, "NotHere.plug"));
    assertThat(sorted(p)).containsExactly("Base.plug", "E.plug", "A.plug", "B.plug");
    assertThat(gaveWay(p)).containsExactlyInAnyOrder(against, stage);
    assertThat(p.gaveWay()).allSatisfy(g -> assertThat(g.ring()).hasSize(2));
  }

  @Test
  void of_cards_that_contradict_one_another_the_later_gives_way() {
    TestWorld w = world().plugin(1, "A.plug", 5).plugin(1, "B.plug", 5).plugin(1, "C.plug", 5);
    LoadRule first = card("A.plug", Kind.AFTER, "B.plug"),
        second = card("B.plug", Kind.AFTER, "A.plug"),
        third = card("C.plug", Kind.BEFORE, "A.plug");
    LoadOrderProposal p = propose(w, first, second, third);
    assertThat(gaveWay(p)).containsExactly(second);
    assertThat(sorted(p)).containsExactly("Base.plug", "B.plug", "C.plug", "A.plug");
  }

  @Test
  void masters_in_a_ring_are_shown_as_the_ring() {
    LoadOrderProposal p =
        propose(world().plugin(1, "A.plug", 5, "B.plug").plugin(1, "B.plug", 5, "A.plug"));
    assertThat(p.outcome())
        .isInstanceOfSatisfying(Outcome.Ring.class, r -> assertThat(r.ring().size()).isEqualTo(2));
  }

  @Test
  void a_master_of_a_later_stage_can_never_come_first_and_the_stages_are_named() {
    LoadOrderProposal p = propose(world().plugin(1, "A.plug", 2, "B.plug").plugin(1, "B.plug", 5));
    assertThat(p.outcome().toString())
        .contains("it lists B.plug as a master")
        .contains("stage 2 before stage 5");
    LoadOrderProposal own =
        propose(new TestWorld().plugin(0, "Base.plug", 0, "A.plug").plugin(1, "A.plug", 5));
    assertThat(own.outcome().toString()).contains("the game’s own plugins before stage 5");
  }
}
