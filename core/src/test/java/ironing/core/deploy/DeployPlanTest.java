package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.testkit.TestWorld;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DeployPlanTest {
  private static Wanted wanted(String sha256, boolean gameWrites) {
    return new Wanted(
        "p", sha256, 1, 7, "Mod", gameWrites ? Writer.GAME : Writer.NOBODY, new Content.File("p"));
  }

  private static LaidOut laidOut(String sha256, boolean replaced, LaidOut.How how) {
    LaidOut.Item item =
        new LaidOut.Item(
            "p", sha256, 1, 7, "Mod", how, replaced ? Optional.of("original") : Optional.empty());
    return new LaidOut("then", Map.of("p", item), List.of(), Optional.empty());
  }

  private static DeployPlan.Look look(Found found) {
    return new DeployPlan.Look() {
      @Override
      public Found at(String path, Optional<LaidOut.Item> item) {
        return found;
      }

      @Override
      public String sha256(String path) {
        return "original";
      }
    };
  }

  /** Every cell of the table over {@link DeployPlan#make}. */
  @ParameterizedTest(name = "{0}, laid out {1}, found {2}, game writes {3}: {4}")
  @CsvSource({
    "new, nothing, ABSENT, false, ADD",
    "new, nothing, FOREIGN, false, REPLACE",
    "new, new, AS_LAID_OUT, false, none",
    "new, new, AS_LAID_OUT, true, none",
    "new, new, DRIFTED, false, SWAP",
    "new, new, DRIFTED, true, none",
    "new, new, ABSENT, false, SWAP",
    "new, new, ABSENT, true, SWAP",
    "new, old, AS_LAID_OUT, false, SWAP",
    "new, old, DRIFTED, true, SWAP",
    "nothing, old, AS_LAID_OUT, false, TAKE_OUT",
    "nothing, old, DRIFTED, false, TAKE_OUT",
    "nothing, old-over-original, AS_LAID_OUT, false, PUT_BACK",
    "nothing, nothing, FOREIGN, false, none"
  })
  void one_path_gets_one_act(
      String want, String laid, Found found, boolean gameWrites, String act) {
    LaidOut before =
        laid.equals("nothing")
            ? LaidOut.nothing()
            : laidOut(
                laid.replace("-over-original", ""),
                laid.endsWith("original"),
                gameWrites ? LaidOut.How.COPY : LaidOut.How.LINK);
    DeployPlan plan =
        DeployPlan.make(
            want.equals("nothing") ? List.of() : List.of(wanted(want, gameWrites)),
            before,
            Optional.empty(),
            look(found),
            "now");
    if (act.equals("none")) {
      assertThat(plan.isEmpty()).isTrue();
      return;
    }
    assertThat(plan.steps()).extracting(Step::act).containsExactly(Act.valueOf(act));
    assertThat(plan.steps().get(0).changed()).isEqualTo(found == Found.DRIFTED);
    assertThat(plan.count(Act.valueOf(act))).isEqualTo(1);
  }

  @Test
  void a_link_is_laid_anew_as_a_copy_when_somebody_comes_to_write_to_it() {
    for (Writer writer : Writer.values()) {
      Wanted w = new Wanted("p", "x", 1, 7, "Mod", writer, new Content.File("p"));
      DeployPlan plan =
          DeployPlan.make(
              List.of(w),
              laidOut("x", false, LaidOut.How.LINK),
              Optional.empty(),
              look(Found.AS_LAID_OUT),
              "now");
      assertThat(plan.isEmpty()).isEqualTo(writer == Writer.NOBODY);
    }
  }

  @Test
  void what_was_replaced_stays_on_the_note_through_every_later_change() {
    DeployPlan first =
        DeployPlan.make(
            List.of(wanted("new", false)),
            LaidOut.nothing(),
            Optional.empty(),
            look(Found.FOREIGN),
            "now");
    assertThat(first.after().files().get("p").replaced()).contains("original");
    DeployPlan second =
        DeployPlan.make(
            List.of(wanted("newer", false)),
            first.after(),
            Optional.empty(),
            look(Found.AS_LAID_OUT),
            "later");
    assertThat(second.after().files().get("p"))
        .satisfies(
            i -> {
              assertThat(i.replaced()).contains("original");
              assertThat(i.sha256()).isEqualTo("newer");
            });
  }

  private static TestWorld world() {
    return new TestWorld()
        .file(0, "data/textures/Stone.png", "stone")
        .file(0, "settings/own.ini", "own")
        .file(0, "saves/day.json", "save")
        .plugin(0, "Base.plug", 0)
        .file(1, "Data/Textures/STONE.png", "better")
        .file(1, "data/textures/new/New.png", "new")
        .plugin(1, "One.plug", 5)
        .packed(1, "data/one.crate", "data/textures/packed.png", "packed");
  }

  private static List<Wanted> wantedOf(TestWorld w, long... mods) {
    return WantedFiles.of(
        w.picture(w.arrangement(mods)), mod -> "Mod " + mod, List.of(), List.of());
  }

  @Test
  void wanted_is_what_mods_have_in_play_the_list_and_a_guard_for_what_the_game_writes() {
    List<Wanted> wanted = wantedOf(world(), 1);
    assertThat(wanted)
        .extracting(Wanted::path)
        .containsExactly(
            "data/One.plug",
            "data/one.crate",
            "data/textures/Stone.png",
            "data/textures/new/New.png",
            "settings/list.txt",
            "settings/own.ini");
    assertThat(wanted)
        .filteredOn(Wanted::guards)
        .extracting(Wanted::path)
        .containsExactly("settings/own.ini");
    assertThat(wanted)
        .filteredOn(Wanted::mustCopy)
        .extracting(Wanted::path)
        .containsExactly("settings/list.txt", "settings/own.ini");
    assertThat(wanted.get(2).content())
        .as("as its holder spells it")
        .isEqualTo(new Content.File("Data/Textures/STONE.png"));
    assertThat(new String(((Content.Text) wanted.get(4).content()).utf8(), StandardCharsets.UTF_8))
        .isEqualTo("use One.plug\n");
  }

  @Test
  void with_no_mod_in_play_nothing_is_wanted_at_all() {
    assertThat(wantedOf(world())).isEmpty();
  }
}
