package ironing.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.documents.DocumentPreview;
import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.testkit.TestWorld;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class PluginPathsTest {
  private static final GameDefinition GAME =
      TestWorld.game(
          """
          format: ironing/game@1
          id: nested
          title: Nested
          mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
          plugins:
            match: "m/**/x.json"
            is: folder
            header: { as: json }
            records: [ { files: "**/r.json", as: json, each: "$.*", id: key, type: thing } ]
          """);

  /** Whatever the folders and the manifest are called: what sorts before a slash, and behind. */
  @Test
  void a_manifest_below_another_folder_is_none() {
    Map<String, String> files = new TreeMap<>();
    for (String folder : new String[] {"m/a", "m/a/b", "m/a/z/c", "m/a-b", "m/a.b/c", "m/ab"})
      files.put(folder + "/x.json", "{}");
    files.put("m/a/b/r.json", "{\"one\":1}");
    TestWorld world = new TestWorld(GAME);
    files.forEach((path, text) -> world.file(1, path, text));
    assertThat(world.picture(world.arrangement(1)).loadOrder().entries().stream().map(Entry::name))
        .containsExactlyInAnyOrder("a", "a-b", "c", "ab");
    DocumentPreview seen =
        DocumentPreview.of(
            GAME, files.keySet(), p -> files.get(p).getBytes(StandardCharsets.UTF_8));
    assertThat(seen.remarks()).isEmpty();
    assertThat(seen.parts().get(0).count()).as("of the outer one alone").isEqualTo(1);
  }
}
