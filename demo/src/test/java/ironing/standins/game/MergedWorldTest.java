package ironing.standins.game;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.mends.MergeBuilder;
import ironing.core.mends.MergePlan;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Value;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The second opinion on merges: the stand-in game, which shares no code with the core, reads the
 * same world before and after, under the table of old and new keys.
 */
class MergedWorldTest {
  private static final List<String> OWN = List.of("Skerry.plug", "Isles.plug");
  @TempDir Path temp;

  @Test
  void the_game_reads_the_same_world_before_and_after_a_merge() throws IOException {
    int merged = 0;
    for (long seed = 1; seed <= 160; seed++) {
      Random random = new Random(seed);
      List<Plugin> order = RandomPlugins.ofWhole(seed, 4 + random.nextInt(4));
      List<String> sources =
          order.subList(1, order.size()).stream()
              .map(Plugin::name)
              .filter(n -> random.nextBoolean())
              .toList();
      String target = random.nextBoolean() ? "Merged.plug" : order.get(1).name();
      MergePlan plan =
          MergePlan.of(TestWorld.GAME, TestWorld.index(order, Set.of()), sources, target);
      if (!plan.refused().isEmpty()) continue;
      merged++;
      Map<String, String> before = new TreeMap<>();
      read(order).forEach((key, said) -> before.put(moved(plan, key), moved(plan, said)));
      assertThat(read(after(order, plan))).as("seed " + seed).isEqualTo(before);
    }
    assertThat(merged).as("merges that were not refused").isGreaterThan(60);
  }

  private static List<Plugin> after(List<Plugin> order, MergePlan plan) {
    Map<String, Bytes> files = new HashMap<>();
    for (Plugin p : order) files.put(p.name(), Bytes.of(PluginCodec.encode(p)));
    Plugin merged =
        PluginCodec.decode(plan.target(), MergeBuilder.merged(plan, "Merged", files::get)).plugin();
    List<Plugin> after = new ArrayList<>();
    for (Plugin p : order) {
      if (!plan.sources().contains(p.name()))
        after.add(
            plan.dependents().contains(p.name())
                ? PluginCodec.decode(
                        p.name(), MergeBuilder.rewritten(plan, p.name(), files.get(p.name())))
                    .plugin()
                : p);
      if (p.name().equals(plan.after())) after.add(merged);
    }
    return after;
  }

  /** Every record as the game has it after all plugins, as text in which references stand out. */
  private Map<String, String> read(List<Plugin> order) throws IOException {
    Path game = Files.createTempDirectory(temp, "game");
    Path data = Files.createDirectories(game.resolve("data"));
    for (String own : OWN)
      Files.write(
          data.resolve(own),
          PluginCodec.encode(new Plugin(own, Plugin.Header.of(0, List.of(), 1), List.of())));
    for (Plugin p : order) Files.write(data.resolve(p.name()), PluginCodec.encode(p));
    Files.createDirectories(game.resolve("settings"));
    Files.write(
        game.resolve("settings/roster.txt"), order.stream().map(p -> "use " + p.name()).toList());
    Map<String, String> world = new TreeMap<>();
    try (Journal journal = new Journal(game, new PrintStream(OutputStream.nullOutputStream()))) {
      World read = World.load(game, "1", new DataFiles(game, journal), journal);
      for (String type : List.of("vessel", "harbour"))
        for (World.Current c : read.ofType(type))
          world.put("<" + c.record() + ">", type + " " + said(c.fields()));
    }
    return world;
  }

  private static String said(Object v) {
    if (v instanceof PluginFile.Ref r) return "<" + r.owner() + "/" + r.id() + ">";
    if (v instanceof Map<?, ?> m)
      return new TreeMap<>(m)
          .entrySet().stream()
              .map(e -> e.getKey() + "=" + said(e.getValue()))
              .collect(Collectors.joining(",", "{", "}"));
    if (v instanceof List<?> l)
      return l.stream().map(MergedWorldTest::said).collect(Collectors.joining(",", "[", "]"));
    return String.valueOf(v);
  }

  // every key in a text, be it a reference or inside a note
  private static String moved(MergePlan plan, String text) {
    StringBuilder out = new StringBuilder();
    int done = 0;
    for (int open = text.indexOf('<'); open >= 0; open = text.indexOf('<', done)) {
      int close = text.indexOf('>', open);
      out.append(plan.numbers().text(text.substring(done, open)));
      Value.Ref key = Value.Ref.parse(text.substring(open + 1, close)).orElseThrow();
      out.append('<').append(plan.numbers().of(key)).append('>');
      done = close + 1;
    }
    return out.append(plan.numbers().text(text.substring(done))).toString();
  }
}
