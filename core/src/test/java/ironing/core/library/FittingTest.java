package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.library.ContentLayout.LeftOut;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Fitting.Asked;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FittingTest {
  private static final String TEXT =
      """
      format: ironing/fitting@1
      in-every-case: [ { from: core/, to: "" } ]
      questions:
        - id: size
          ask: How large?
          take: { min: 1, max: 1 }
          answers:
            - { id: large, say: Large, cost: 400 MB, offer: { not: { mod: small-memory } },
                files: [ { from: large/, to: textures/hulls/, mount: data } ] }
            - { id: small, say: Small, offer: { mod: small-memory },
                files: [ { from: small/, to: textures/hulls/, mount: data } ] }
        - id: patches
          ask: Patches for other mods?
          answers:
            - { id: fog, say: Fog, offer: { all: [ { mod: fog, versions: ">=2" }, { game: ">=1.4" } ] },
                files: [ { from: patches/fog.plug, to: "" } ] }
            - { id: ice, say: Ice, offer: { file: data/textures/ice.png }, files: [] }
        - id: fine
          ask: Fine print?
          if: { answer: size/large }
          answers:
            - { id: yes, say: "Yes", offer: true, files: [ { from: fine.png, to: textures/hulls/a.png } ] }
      """;
  private static final Fitting FITTING = Fitting.read("fitting.yaml", TEXT);
  private static final List<String> ENTRIES =
      List.of(
          "F/fitting.yaml",
          "F/mod-card.yaml",
          "F/core/tables/t.csv",
          "F/core/readme.txt",
          "F/large/a.png",
          "F/small/a.png",
          "F/patches/fog.plug",
          "F/fine.png");

  private record World(Set<String> on, String version, Set<String> files) implements Facts {
    @Override
    public boolean modOn(String id, String versions) {
      return on.contains(id);
    }

    @Override
    public boolean gameIn(String versions) {
      return ironing.core.version.VersionRange.of(versions)
          .contains(ironing.core.version.ModVersion.of(version));
    }

    @Override
    public boolean inPicture(String gamePath) {
      return files.contains(gamePath);
    }
  }

  private static final World BARE = new World(Set.of(), "1.4", Set.of());
  private static final World FULL =
      new World(Set.of("small-memory", "fog"), "1.5", Set.of("data/textures/ice.png"));

  private static Map<String, List<String>> taken(Facts facts, Map<String, List<String>> answers) {
    return Fitting.answers(FITTING.asked(answers, facts));
  }

  @Test
  void what_is_offered_follows_its_condition_and_earlier_answers() {
    assertThat(taken(BARE, Map.of()))
        .containsExactly(
            Map.entry("size", List.of("large")),
            Map.entry("patches", List.of()),
            Map.entry("fine", List.of("yes")));
    assertThat(taken(FULL, Map.of()))
        .containsExactly(
            Map.entry("size", List.of("small")), Map.entry("patches", List.of("fog", "ice")));
    assertThat(taken(FULL, Map.of("size", List.of("large")))).containsKey("fine");
  }

  private static Outcome.Laid laid(Facts facts, Map<String, List<String>> answers) {
    List<Asked> asked = FITTING.asked(answers, facts);
    return (Outcome.Laid)
        ContentLayout.fitted(
            Placing.of(TestWorld.GAME), ENTRIES, Choices.NONE, FITTING.moves(asked));
  }

  @Test
  void the_answers_say_which_files_come_and_the_later_one_wins() {
    Outcome.Laid large = laid(BARE, Map.of());
    assertThat(large.root()).isEqualTo("F");
    assertThat(large.placed())
        .contains(
            new Placed("F/core/tables/t.csv", "data/tables/t.csv", "data"),
            new Placed("F/fine.png", "data/textures/hulls/a.png", "data"))
        .hasSize(2);
    assertThat(large.leftOut())
        .extracting(LeftOut::entry, l -> l.reason().split(" ")[0])
        .contains(
            org.assertj.core.groups.Tuple.tuple("F/core/readme.txt", "No"),
            org.assertj.core.groups.Tuple.tuple("F/small/a.png", "It"),
            org.assertj.core.groups.Tuple.tuple("F/large/a.png", "“F/fine.png”"));
    assertThat(laid(FULL, Map.of()).placed())
        .extracting(Placed::gamePath)
        .contains("data/fog.plug", "data/textures/hulls/a.png");
  }

  @Test
  void what_is_not_there_is_an_error_with_its_name() {
    List<String> without = ENTRIES.stream().filter(e -> !e.contains("large")).toList();
    assertThatThrownBy(
            () ->
                ContentLayout.fitted(
                    Placing.of(TestWorld.GAME),
                    without,
                    Choices.NONE,
                    FITTING.moves(FITTING.asked(Map.of(), BARE))))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("large/");
  }

  @Test
  void too_few_and_too_many_answers_are_told_apart() {
    Asked none = FITTING.asked(Map.of("size", List.of()), BARE).get(0);
    assertThat(none.amiss()).isEqualTo(Optional.of("Take one."));
    Asked both = FITTING.asked(Map.of("size", List.of("large", "small")), BARE).get(0);
    assertThat(both.amiss()).isEqualTo(Optional.of("Take one only."));
    assertThatThrownBy(() -> Fitting.requireFit("X", List.of(none, both)))
        .satisfies(e -> assertThat(((IroningException) e).problems()).hasSize(2));
  }

  @Test
  void when_the_other_mod_has_come_the_answers_follow_and_the_users_own_stay() {
    Map<String, List<String>> mine = Map.of("size", List.of("large"), "patches", List.of("ice"));
    Map<String, Boolean> then = FITTING.truths(BARE);
    World now = new World(Set.of("fog"), "1.4", Set.of());
    assertThat(then).isNotEqualTo(FITTING.truths(now));
    assertThat(FITTING.renewed(mine, Facts.remembered(then), now))
        .containsEntry("size", List.of("large"))
        .containsEntry("patches", List.of("ice", "fog"));
    assertThat(FITTING.renewed(mine, Facts.remembered(then), BARE))
        .containsEntry("patches", List.of("ice"));
    World small = new World(Set.of("small-memory"), "1.4", Set.of());
    assertThat(FITTING.renewed(mine, Facts.remembered(then), small))
        .containsEntry("size", List.of("small"))
        .doesNotContainKey("fine");
  }

  @Test
  void a_file_that_comes_to_two_places_is_left_out_of_neither_list_twice() {
    List<Fitting.Move> moves =
        List.of(
            new Fitting.Move("a.png", "textures/", Optional.of("data"), ""),
            new Fitting.Move("a.png", "textures/copy.png", Optional.of("data"), ""),
            new Fitting.Move("b.png", "textures/a.png", Optional.of("data"), ""),
            new Fitting.Move("a.png", "textures/a.png", Optional.of("data"), ""));
    Outcome.Laid laid =
        (Outcome.Laid)
            ContentLayout.fitted(
                Placing.of(TestWorld.GAME),
                List.of("fitting.yaml", "a.png", "b.png"),
                Choices.NONE,
                moves);
    assertThat(laid.placed())
        .containsExactlyInAnyOrder(
            new Placed("a.png", "data/textures/a.png", "data"),
            new Placed("a.png", "data/textures/copy.png", "data"));
    assertThat(laid.leftOut())
        .extracting(LeftOut::entry)
        .containsExactlyInAnyOrder("fitting.yaml", "b.png");
  }

  @Test
  void a_folder_is_found_however_its_accents_are_composed() {
    String decomposed = "Ka\u0308se/", composed = "K\u00e4se/";
    Outcome.Laid laid =
        (Outcome.Laid)
            ContentLayout.fitted(
                Placing.of(TestWorld.GAME),
                List.of("fitting.yaml", decomposed + "rind.png"),
                Choices.NONE,
                List.of(new Fitting.Move(composed, "textures/", Optional.of("data"), "")));
    assertThat(laid.placed())
        .extracting(Placed::gamePath)
        .containsExactly("data/textures/rind.png");
  }

  @Test
  void choices_go_over_to_another_version_as_far_as_it_has_the_files() {
    Choices old =
        new Choices(
            Optional.empty(),
            List.of("Mod 1/old/", "Mod 1/gone.txt"),
            Map.of("Mod 1/extra/", "data"),
            Map.of("size", List.of("small")),
            false,
            Optional.empty());
    Choices next =
        old.carriedTo(
            Choices.NONE, "Mod 1", "Mod 2", List.of("Mod 2/old/a.png", "Mod 2/extra/b.txt"));
    assertThat(next.leaveOut()).containsExactly("Mod 2/old/");
    assertThat(next.sendTo()).isEqualTo(Map.of("Mod 2/extra/", "data"));
    assertThat(next.answers()).isEqualTo(old.answers());
  }

  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '|',
      value = {
        "take: { min: 3, max: 1 } | nobody can take",
        "answers: [] | needs an answer",
        "if: { answer: later/x } | no earlier question",
        "if: { mod: a, file: b } | one of mod",
        "if: { game: wrong< } | no range",
        "if: { file: ../x } | no game path",
        "answers: [ { id: a, say: A }, { id: a, say: B } ] | two answers",
        "answers: [ { id: a, say: A, offer: maybe } ] | no offer",
        "answers: [ { id: a, say: A, files: [ { from: /etc/passwd, to: x } ] } ] | cannot be used"
      })
  void every_mistake_is_named_with_its_line(String line, String why) {
    String answers = line.startsWith("answers") ? "" : "    answers: [ { id: z, say: Z } ]\n";
    String text =
        "format: ironing/fitting@1\nquestions:\n  - id: q\n    ask: Q?\n    "
            + line
            + "\n"
            + answers;
    IroningException e =
        catchThrowableOfType(IroningException.class, () -> Fitting.read("fitting.yaml", text));
    assertThat(e.problems())
        .anySatisfy(
            p -> {
              assertThat(p.thing()).contains("fitting.yaml, line ");
              assertThat(p.reason()).containsIgnoringCase(why);
            });
  }

  @Test
  void the_schema_takes_what_the_reader_takes() {
    assertThat(Schemas.errorsInYaml("fitting", TEXT)).isEmpty();
    assertThat(Schemas.errorsInYaml("fitting", TEXT.replace("ask: How large?", "asks: x")))
        .isNotEmpty();
  }
}
