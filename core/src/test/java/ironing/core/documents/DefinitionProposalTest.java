package ironing.core.documents;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.DefinitionPreview.Part;
import ironing.core.game.DefinitionPreview.What;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.testkit.Schemas;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class DefinitionProposalTest {
  private static final Map<String, String> GAME =
      Map.of(
          "bells/base/foundry.json",
              "{\"id\":\"base\",\"title\":\"Base\",\"version\":1,\"needs\":[]}",
          "bells/more/foundry.json", "{\"id\":\"more\",\"needs\":[{\"id\":\"base\"}]}",
          "bells/base/casts/a.json", "{\"casts\":[{\"id\":\"x\",\"weight\":1},{\"id\":\"y\"}]}",
          "bells/base/rules/r.xml", "<rules><rule name='a' at='1'/><rule name='b'/></rules>",
          "bells/base/alloys.csv", "copper,tin,price\n80,20,1\n80,21,1\n",
          "bells/base/words/w.json", "{\"hello\":\"Hallo\",\"bye\":\"Ade\"}",
          "bells/more/rooms.ini", "[belfry]\nsteps=3\n",
          "enabled.json", "{\"volume\":7,\"order\":[]}",
          "readme.txt", "hello");

  private static Optional<DefinitionProposal> propose(Map<String, String> files) {
    return DefinitionProposal.of(
        "Kelder: Bells", files.keySet(), p -> files.get(p).getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void what_is_proposed_reads_the_folder_that_it_was_made_of() {
    DefinitionProposal p = propose(GAME).orElseThrow();
    assertThat(Schemas.errorsInYaml("game", p.definition())).as(p.definition()).isEmpty();
    GameDefinition game = GameDefinitionReader.read("game.yaml", p.definition()).value();
    DocumentPreview seen =
        DocumentPreview.of(
            game, GAME.keySet(), path -> GAME.get(path).getBytes(StandardCharsets.UTF_8));
    assertThat(seen.remarks()).isEmpty();
    Map<String, Integer> counts = new HashMap<>();
    for (Part part : seen.parts()) counts.put(part.name(), part.count());
    assertThat(counts)
        .isEqualTo(
            Map.of("base", 1, "more", 1, "cast", 2, "rule", 2, "alloy", 2, "word", 2, "room", 1));
    assertThat(seen.parts()).filteredOn(x -> x.what() == What.OWN_PLUGINS).hasSize(2);
    assertThat(game.plugins().orElseThrow().list().orElseThrow().file()).isEqualTo("enabled.json");
    assertThat(game.plugins().orElseThrow().documents().orElseThrow().patch()).isPresent();
    assertThat(p.guesses())
        .anySatisfy(
            g -> {
              assertThat(g.what()).contains("foundry.json");
              assertThat(g.evidence()).contains("2 folders").contains("id: base");
            })
        .anySatisfy(g -> assertThat(g.evidence()).contains("no two have one copper and tin"));
  }

  @Test
  void of_a_folder_without_manifests_nothing_is_proposed() {
    assertThat(propose(Map.of("a.txt", "x", "settings/b.json", "[1]"))).isEmpty();
    assertThat(propose(Map.of("x/y/m.json", "{not json"))).isEmpty();
  }

  /** Whatever lies there, a proposal is a definition that can be read. */
  @Property(tries = 200, seed = "7")
  void what_is_proposed_can_always_be_read(@ForAll long seed) {
    Random random = new Random(seed);
    String[] contents = GAME.values().toArray(String[]::new);
    String[] odd = {
      "{\"id\":\"a \\\" {b}\"}",
      "[{\"id\":1}]",
      "{\"x y\":[{\"id\":\"q\"}]}",
      "a,a\n1,1\n",
      "<a:b xmlns:a='u'/>",
      "{\"needs\":\"no list\",\"name\":\"n\"}",
      "",
      "id: yes\nname: on\n"
    };
    String[] names = {"m.json", "a b.json", "r.xml", "t.csv", "k.ini", "l.yaml", "order.json"};
    String[] folders = {"", "p/", "p/q/", "p/'r/", "p/q/#s/", "p/ü: x/"};
    Map<String, String> files = new HashMap<>();
    for (int i = 0; i < 14; i++)
      files.put(
          folders[random.nextInt(folders.length)] + names[random.nextInt(names.length)],
          random.nextBoolean()
              ? odd[random.nextInt(odd.length)]
              : contents[random.nextInt(contents.length)]);
    propose(files)
        .ifPresent(
            p ->
                assertThat(GameDefinitionReader.read("game.yaml", p.definition()).value())
                    .isNotNull());
  }
}
