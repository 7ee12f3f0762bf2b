package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.game.GameDefinition;
import ironing.core.library.ContentLayout.LeftOut;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.testkit.TestWorld;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ContentLayoutTest {
  private static Outcome of(String... entries) {
    return ContentLayout.of(Placing.of(TestWorld.GAME), List.of(entries));
  }

  private static List<String> placed(Outcome o) {
    return ((Outcome.Laid) o).placed().stream().map(Placed::gamePath).toList();
  }

  @ParameterizedTest(name = "{0} begins at “{1}”")
  @CsvSource({
    "textures/a.png, '', data/textures/a.png",
    "data/textures/a.png, '', data/textures/a.png",
    "Mod/textures/a.png, Mod, data/textures/a.png",
    "Mod/data/textures/a.png, Mod, data/textures/a.png",
    "one/two/settings/x.ini, one/two, settings/x.ini",
    "Mod/One.plug, Mod, data/One.plug",
    "x.ini, '', settings/x.ini"
  })
  void the_content_begins_at_the_highest_folder_that_the_game_knows(
      String entry, String root, String path) {
    Outcome o = of(entry);
    assertThat(((Outcome.Laid) o).root()).isEqualTo(root);
    assertThat(placed(o)).containsExactly(path);
  }

  @Test
  void a_card_says_where_it_begins_and_what_lies_beside_is_listed() {
    Outcome o =
        of(
            "readme.txt",
            "textures/stray.png",
            "Mod/mod-card.yaml",
            "Mod/textures/a.png",
            "Mod/notes.txt",
            "Mod/fitting.yaml");
    assertThat(((Outcome.Laid) o).reason()).contains("card");
    assertThat(placed(o)).containsExactly("data/textures/a.png");
    assertThat(((Outcome.Laid) o).leftOut())
        .extracting(LeftOut::entry)
        .containsExactly(
            "readme.txt",
            "textures/stray.png",
            "Mod/mod-card.yaml",
            "Mod/notes.txt",
            "Mod/fitting.yaml");
  }

  @Test
  void several_folders_side_by_side_are_for_the_user_to_pick_from() {
    assertThat(of("Small/textures/a.png", "Large/textures/a.png"))
        .isEqualTo(new Outcome.Several(List.of("Large", "Small")));
    assertThat(of("A/mod-card.yaml", "B/mod-card.yaml", "A/textures/x"))
        .isEqualTo(new Outcome.Several(List.of("A", "B")));
    assertThat(
            placed(
                ContentLayout.of(
                    Placing.of(TestWorld.GAME),
                    List.of("Small/textures/a.png", "Large/textures/b.png"),
                    Choices.NONE.withRoot("Small"))))
        .containsExactly("data/textures/a.png");
  }

  @Test
  void moves_that_speak_of_what_is_not_there_are_refused_each() {
    String fitting =
        """
        format: ironing/fitting@1
        in-every-case: [ { from: gone/, to: "" }, { from: a.png, to: "", mount: nowhere } ]
        questions: []
        """;
    Fitting read = Fitting.read("fitting.yaml", fitting);
    IroningException e =
        catchThrowableOfType(
            IroningException.class,
            () ->
                ContentLayout.fitted(
                    Placing.of(TestWorld.GAME),
                    List.of("fitting.yaml", "textures/a.png"),
                    Choices.NONE,
                    read.moves(List.of())));
    assertThat(e.problems()).extracting(Problem::code).containsOnly("fitting-wrong");
    assertThat(e.problems())
        .extracting(Problem::thing)
        .containsExactly(
            "fitting.yaml, line 2, column 18: from: gone/",
            "fitting.yaml, line 2, column 43: mount: nowhere");
  }

  private static final String ANYTHING =
      """
      format: ironing/game@1
      id: plain
      title: Plain
      pathCase: insensitive
      mounts: [ { id: data, at: Data, holds: [ "**" ] }, { id: top, at: ".", holds: [ "**" ] } ]
      """;

  private static Outcome ofAnything(List<String> own, String... entries) {
    GameDefinition game = TestWorld.game(ANYTHING);
    return ContentLayout.of(new Placing(game, KnownPlaces.of(game, own)), List.of(entries));
  }

  @ParameterizedTest(name = "{0} begins at “{1}”")
  @CsvSource({
    "top/Data/x, top, Data/x",
    "data/x, '', Data/x",
    "top/maps/a.map, top, Data/maps/a.map",
    "maps/new/a.map, '', Data/maps/new/a.map",
    "top/bin/tool, top, bin/tool",
    "one/two/readme.txt, one/two, readme.txt",
    "new.map, '', Data/new.map",
    "one/Data/Data/x, one, Data/Data/x"
  })
  void where_a_mount_holds_anything_the_games_own_paths_say_where_it_begins(
      String entry, String root, String path) {
    Outcome o = ofAnything(List.of("Data/Maps/a.map", "bin/run", "readme.txt"), entry);
    assertThat(o).isInstanceOf(Outcome.Laid.class);
    assertThat(((Outcome.Laid) o).root()).isEqualTo(root);
    assertThat(placed(o)).containsExactly(path);
  }

  @Test
  void without_evidence_or_with_divided_evidence_it_is_a_decision() {
    List<String> own = List.of("Data/maps/a.map", "bin/run");
    assertThat(ofAnything(own, "top/new/x"))
        .isEqualTo(new Outcome.Several(List.of("", "top", "top/new")));
    assertThat(ofAnything(own, "docs/read.txt", "A/Data/x", "B/Data/x"))
        .isEqualTo(new Outcome.Several(List.of("A", "B")));
    assertThat(ofAnything(own, "maps/b.map", "extra/Data/maps/c.map"))
        .isEqualTo(new Outcome.Several(List.of("", "extra")));
    assertThat(ofAnything(List.of(), "docs/read.txt", "A/x", "B/x"))
        .isEqualTo(new Outcome.Several(List.of("", "A", "B", "docs")));
    assertThat(ofAnything(own)).isInstanceOf(Outcome.Nothing.class);
    // many folders beside one another are no variants
    String[] many =
        IntStream.range(0, 20).mapToObj(i -> "top/new" + i + "/x").toArray(String[]::new);
    assertThat(ofAnything(own, many)).isEqualTo(new Outcome.Several(List.of("", "top")));
  }

  @Test
  void what_a_pattern_names_needs_no_evidence() {
    String yaml = ANYTHING.replace("holds: [ \"**\" ] }, {", "holds: [ \"**\", \"*/**\" ] }, {");
    GameDefinition game = TestWorld.game(yaml);
    assertThat(placed(ContentLayout.of(Placing.of(game), List.of("Mod/x"))))
        .containsExactly("Data/Mod/x");
  }

  @Test
  void nothing_for_the_game_is_said() {
    assertThat(of("readme.txt", "docs/more.txt")).isInstanceOf(Outcome.Nothing.class);
    assertThat(of()).isInstanceOf(Outcome.Nothing.class);
  }

  @Test
  void of_two_spellings_of_one_place_the_second_is_left_out_and_says_for_whom() {
    Outcome o = of("textures/A.png", "textures/a.png");
    assertThat(placed(o)).containsExactly("data/textures/A.png");
    assertThat(((Outcome.Laid) o).leftOut())
        .singleElement()
        .satisfies(l -> assertThat(l.reason()).contains("textures/A.png"));
  }

  @Test
  void a_protected_place_is_never_laid_out() {
    String yaml = TestWorld.DEFINITION.replace("saves/**", "settings/own.ini");
    Outcome o =
        ContentLayout.of(
            Placing.of(TestWorld.game(yaml)), List.of("settings/own.ini", "settings/other.ini"));
    assertThat(placed(o)).containsExactly("settings/other.ini");
    assertThat(((Outcome.Laid) o).leftOut().get(0).reason()).contains("protects");
  }

  @Test
  void a_card_is_read_and_every_mistake_in_it_told() {
    ModCard c =
        ModCard.read(
            "mod-card.yaml",
            """
        format: ironing/mod@1
        id: ledger
        name: Ledger
        version: 2.10
        authors: [ A, B ]
        game: { id: test-game, versions: ">=1.4 <2" }
        needs: [ { mod: rope-locker, versions: ">=1.2" } ]
        plugins: { "L.plug": { after: [ "F.plug" ] } }
        """);
    assertThat(c.version()).isEqualTo("2.10");
    assertThat(c.gameVersions()).isEqualTo(">=1.4 <2");
    assertThat(c.needs()).containsExactly(new ModCard.Need("rope-locker", ">=1.2"));
    assertThat(c.plugins().get("L.plug").after()).containsExactly("F.plug");
    assertThat(c.inferred()).isFalse();
    IroningException e =
        catchThrowableOfType(
            IroningException.class,
            () ->
                ModCard.read(
                    "mod-card.yaml",
                    "format: other\nid: NO\nneeds: [ { mod: x, versions: '>' } ]\nband: loud\n"));
    assertThat(e.problems())
        .extracting(Problem::thing)
        .allMatch(t -> t.startsWith("mod-card.yaml, line"));
    assertThat(e.problems()).hasSizeGreaterThanOrEqualTo(6);
  }

  @ParameterizedTest
  @CsvSource({
    "Bigger Bollards 1.0.zip, Bigger Bollards, 1.0, bigger-bollards",
    "quiet_gulls-v0.9b.7z, quiet gulls, 0.9b, quiet-gulls",
    "Åse's Mod.tar.gz, Åse's Mod, 0, ase-s-mod",
    "hull-textures-large-2.0.7z, hull textures large, 2.0, hull-textures-large",
    "字.zip, 字, 0, mod"
  })
  void without_a_card_name_and_version_come_from_the_archives_name(
      String archive, String name, String version, String id) {
    ModCard c = ModCard.inferredFrom(archive);
    assertThat(List.of(c.name(), c.version(), c.id())).containsExactly(name, version, id);
    assertThat(c.inferred()).isTrue();
  }

  private static Choices choices(List<String> leaveOut, Map<String, String> sendTo) {
    return new Choices(Optional.empty(), leaveOut, sendTo, Map.of(), false, Optional.empty());
  }

  @Test
  void the_user_leaves_files_and_folders_out_and_sends_parts_elsewhere() {
    List<String> entries =
        List.of(
            "Mod/textures/a.png",
            "Mod/textures/old/b.png",
            "Mod/extra/keys.ini",
            "Mod/extra/deep/more.txt",
            "docs/note.txt");
    Outcome.Laid laid =
        (Outcome.Laid)
            ContentLayout.of(
                Placing.of(TestWorld.GAME),
                entries,
                choices(
                    List.of("Mod/textures/old/"),
                    Map.of("Mod/extra/", "settings", "docs/note.txt", "data")));
    assertThat(placed(laid))
        .containsExactly(
            "data/textures/a.png", "settings/keys.ini", "settings/deep/more.txt", "data/note.txt");
    assertThat(laid.leftOut())
        .containsExactly(new LeftOut(entries.get(1), "You left it out.", true));
  }

  @Test
  void names_that_windows_cannot_hold_stay_out_unless_they_are_sent_in() {
    List<String> entries =
        List.of("textures/aux.png", "textures/a:b.png", "textures/end.", "textures/fine.png");
    Outcome.Laid laid = (Outcome.Laid) ContentLayout.of(Placing.of(TestWorld.GAME), entries);
    assertThat(placed(laid)).containsExactly("data/textures/fine.png");
    assertThat(laid.leftOut())
        .extracting(LeftOut::reason)
        .allMatch(r -> r.contains("Windows"))
        .anyMatch(r -> r.contains("“aux.png”"));
    Choices in = choices(List.of(), Map.of("textures/aux.png", "data"));
    assertThat(placed(ContentLayout.of(Placing.of(TestWorld.GAME), entries, in)))
        .contains("data/aux.png");
  }

  @Test
  void two_spellings_of_one_name_are_told_apart_by_no_game_that_ignores_case() {
    String composed = "textures/\u00e9.png", decomposed = "textures/e\u0301.png";
    Outcome.Laid laid = (Outcome.Laid) of("textures/A.png", "textures/a.PNG", composed, decomposed);
    assertThat(placed(laid)).containsExactly("data/textures/A.png", "data/" + composed);
    assertThat(laid.leftOut())
        .extracting(LeftOut::entry)
        .containsExactly("textures/a.PNG", decomposed);
  }
}
