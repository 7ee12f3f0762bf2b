package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.testkit.TestWorld;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class PluginFoldersTest {
  private static GameDefinition game(String holds) {
    return TestWorld.game(
        """
        format: ironing/game@1
        id: bells
        title: Bells
        mounts:
          - { id: pictures, at: pictures, holds: [ "*.svg" ] }
          - { id: bells, at: bells, holds: [ %s ] }
        plugins:
          match: "bells/*/foundry.json"
          is: folder
          header: { as: json, name: "$.id" }
        """
            .formatted(holds));
  }

  private static Map<String, String> laid(GameDefinition game, String... entries) {
    Outcome o =
        ContentLayout.of(Placing.of(game).ofArchive("Heavier Tenors-1.1.zip"), List.of(entries));
    Map<String, String> places = new TreeMap<>();
    assertThat(o).as(o.toString()).isInstanceOf(Outcome.Laid.class);
    for (Placed p : ((Outcome.Laid) o).placed()) places.put(p.entry(), p.gamePath());
    return places;
  }

  @Test
  void a_folder_with_a_manifest_goes_whole_to_where_plugins_are() {
    for (String holds : List.of("\"*/**\"", "\"nothing\""))
      assertThat(
              laid(
                  game(holds),
                  "tenors/foundry.json",
                  "tenors/casts/a.json",
                  "tenors/deep/er/b.bin",
                  "tower.svg"))
          .as(holds)
          .isEqualTo(
              Map.of(
                  "tenors/foundry.json", "bells/tenors/foundry.json",
                  "tenors/casts/a.json", "bells/tenors/casts/a.json",
                  "tenors/deep/er/b.bin", "bells/tenors/deep/er/b.bin",
                  "tower.svg", "pictures/tower.svg"));
  }

  @Test
  void a_manifest_at_the_top_gets_a_folder_called_as_the_archive() {
    assertThat(laid(game("\"*/**\""), "foundry.json", "casts/a.json", "readme.txt"))
        .isEqualTo(
            Map.of(
                "foundry.json", "bells/heavier-tenors/foundry.json",
                "casts/a.json", "bells/heavier-tenors/casts/a.json",
                "readme.txt", "bells/heavier-tenors/readme.txt"));
  }

  @Test
  void folders_around_it_are_passed_over_and_several_stand_beside_one_another() {
    assertThat(
            laid(
                game("\"nothing\""),
                "pack/mods/one/foundry.json",
                "pack/mods/two/foundry.json",
                "pack/mods/two/inner/foundry.json"))
        .isEqualTo(
            Map.of(
                "pack/mods/one/foundry.json", "bells/one/foundry.json",
                "pack/mods/two/foundry.json", "bells/two/foundry.json",
                "pack/mods/two/inner/foundry.json", "bells/two/inner/foundry.json"));
    assertThat(laid(game("\"*/**\""), "bells/one/foundry.json", "bells/one/x"))
        .containsEntry("bells/one/x", "bells/one/x");
  }
}
