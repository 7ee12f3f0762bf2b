package ironing.core.combinedfiles;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.combinedfiles.Place.How;
import ironing.core.testkit.Tries;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Merges by lines against {@code git merge-file} and GNU {@code diff3 -m}: where those two agree on
 * the bytes, so do we, and where they agree on the number of conflicts.
 */
class LineMergeToolsTest {
  private static final int TRIPLES = Tries.of(2_000);

  @TempDir Path temp;

  /** What a tool made of a triple. */
  private record Made(String text, int conflicts) {}

  @Test
  void thousands_of_triples_come_out_as_both_tools_have_them() {
    Map<String, Integer> counts = new ConcurrentSkipListMap<>();
    List<String> unlike =
        IntStream.range(0, TRIPLES)
            .parallel()
            .mapToObj(seed -> unlike(seed, counts))
            .flatMap(Optional::stream)
            .toList();
    assertThat(unlike).as("of %s", counts).isEmpty();
    assertThat(counts).containsKeys("clean", "asked");
  }

  private Optional<String> unlike(int seed, Map<String, Integer> counts) {
    Random random = new Random(seed);
    List<String> base = lines(random);
    String was = text(base), one = text(edited(base, random)), two = text(edited(base, random));
    Made git = tool(List.of("git", "merge-file", "-p", "one", "base", "two"), was, one, two);
    Made diff3 = tool(List.of("diff3", "-m", "one", "base", "two"), was, one, two);
    Made ours = ours(was, one, two);
    if (git.conflicts == 0 && diff3.conflicts == 0) {
      if (!git.text.equals(diff3.text)) return Optional.empty();
      counts.merge("clean", 1, Integer::sum);
      boolean same = ours.text.equals(git.text) && ours.conflicts == 0;
      return same ? Optional.empty() : Optional.of("triple " + seed + " comes out unlike");
    }
    if (git.conflicts != diff3.conflicts) return Optional.empty();
    counts.merge("asked", 1, Integer::sum);
    return ours.conflicts == git.conflicts
        ? Optional.empty()
        : Optional.of(
            "triple " + seed + " asks " + ours.conflicts + ", not " + git.conflicts + " times");
  }

  private static Made ours(String was, String one, String two) {
    Places places = new Places(Map.of(), 0);
    TextCombiner t = new TextCombiner(was, List.of("one", "two"), List.of(one, two), places);
    String text = t.combine();
    int asked = (int) places.all().stream().filter(p -> p.how() == How.ASKED).count();
    return new Made(text, asked);
  }

  private Made tool(List<String> command, String was, String one, String two) {
    try {
      return ran(command, was, one, two);
    } catch (IOException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private Made ran(List<String> command, String was, String one, String two)
      throws IOException, InterruptedException {
    Path folder = Files.createTempDirectory(temp, "triple");
    Files.writeString(folder.resolve("base"), was);
    Files.writeString(folder.resolve("one"), one);
    Files.writeString(folder.resolve("two"), two);
    Path out = folder.resolve("out");
    Process p =
        new ProcessBuilder(command)
            .directory(folder.toFile())
            .redirectOutput(out.toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    assertThat(p.waitFor(20, TimeUnit.SECONDS)).isTrue();
    assertThat(p.exitValue()).as(command.toString()).isLessThan(128);
    String text = Files.readString(out, StandardCharsets.UTF_8);
    int conflicts = (int) text.lines().filter(l -> l.startsWith("<<<<<<<")).count();
    return new Made(text, conflicts);
  }

  private static List<String> lines(Random random) {
    List<String> lines = new ArrayList<>();
    int count = 5 + random.nextInt(40), kinds = random.nextInt(4) == 0 ? 6 : 1_000;
    for (int i = 0; i < count; i++) lines.add("line " + random.nextInt(kinds));
    return lines;
  }

  private static List<String> edited(List<String> base, Random random) {
    List<String> lines = new ArrayList<>(base);
    for (int edits = random.nextInt(4); edits > 0; edits--) {
      int at = random.nextInt(lines.size() + 1);
      int gone = Math.min(random.nextInt(3), lines.size() - at);
      for (int i = 0; i < gone; i++) lines.remove(at);
      for (int i = random.nextInt(3); i > 0; i--) lines.add(at, "new " + random.nextInt(6));
    }
    return lines;
  }

  private static String text(List<String> lines) {
    return lines.isEmpty() ? "" : String.join("\n", lines) + "\n";
  }
}
