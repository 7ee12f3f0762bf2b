package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.trouble.Answer;
import ironing.core.trouble.FaultSearch;
import ironing.core.trouble.Members;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Next;
import ironing.core.trouble.Suspicions;
import ironing.core.trouble.TriedSets;
import ironing.core.trouble.TriedSets.Tried;
import ironing.demo.ApiClient;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * What a search costs besides the game: the next set among 2,000 mods, worked out by the core
 * alone; and a set put into the game folder, with 400 mods of 500 files each, by a search by hand
 * of a game that does nothing. The first sets differ by half of the files, the last by one mod.
 * Beside it what GNU {@code cp -al} and {@code rm} take for half of the files, on the same drive.
 * Prints JSON.
 *
 * <p>Usage: {@code Trials URL FOLDER}.
 */
public final class Trials {
  private static final int MEMBERS = 2_000, MODS = 400, FILES = 500;

  private Trials() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    double[] next = next();
    StringBuilder steps = new StringBuilder();
    for (double[] s : steps(new ApiClient(args[0]), Path.of(args[1])))
      steps
          .append(steps.isEmpty() ? "" : ",")
          .append("{\"files\":%.0f,\"ms\":%.0f}".formatted(s[0], s[1]));
    double[] plain = plain(Path.of(args[1]));
    System.out.printf(
        "{\"sets\":%.0f,\"longestNextMs\":%.1f,\"steps\":[%s],\"cpMs\":%.0f,\"rmMs\":%.0f}%n",
        next[0], next[1], steps, plain[0], plain[1]);
  }

  /** What cp -al and rm take for half of the files, in milliseconds. */
  private static double[] plain(Path folder) throws IOException, InterruptedException {
    Path from = folder.resolve("plain");
    for (int m = 0; m < MODS / 2; m++) {
      for (int d = 0; d < 7; d++) Files.createDirectories(from.resolve(m + "/" + d));
      for (int f = 0; f < FILES; f++)
        Files.writeString(from.resolve(m + "/" + f % 7 + "/" + f + ".txt"), m + " " + f);
    }
    String to = folder.resolve("copy").toString();
    return new double[] {took("cp", "-al", from.toString(), to), took("rm", "-r", to)};
  }

  private static double took(String... command) throws IOException, InterruptedException {
    long began = System.nanoTime();
    int code = new ProcessBuilder(command).inheritIO().start().waitFor();
    if (code != 0) throw new IOException(String.join(" ", command) + " ended with " + code);
    return (System.nanoTime() - began) / 1e6;
  }

  /** How many sets a whole search takes, and the longest that working one out did. */
  private static double[] next() {
    Random random = new Random(25);
    List<Need> needs = new ArrayList<>();
    for (int i = 1; i < MEMBERS; i++)
      while (random.nextInt(3) == 0) needs.add(new Need(i, random.nextInt(i)));
    double[] suspicion = new double[MEMBERS];
    for (int i = 0; i < MEMBERS; i++) suspicion[i] = Suspicions.ofRank(random.nextInt(MEMBERS));
    FaultSearch search = new FaultSearch(new Members(MEMBERS, needs), suspicion, true);
    double longest = 0;
    int sets = 0;
    // the first round is not counted: the program is warm then
    for (int round = 0; round < 2; round++) {
      List<Tried> tries = new ArrayList<>();
      longest = 0;
      while (true) {
        long began = System.nanoTime();
        Next now = search.next(new TriedSets(tries));
        longest = Math.max(longest, (System.nanoTime() - began) / 1e6);
        if (!(now instanceof Next.Try t)) break;
        BitSet set = t.set();
        boolean shows = set.get(700) && set.get(1500) && set.get(1900);
        tries.add(new Tried(set, shows ? Answer.FAILS : Answer.WORKS));
      }
      sets = tries.size();
    }
    return new double[] {sets, longest};
  }

  /**
   * For each set that is tried, by how many files it differs from the one before, and how long it
   * took.
   */
  private static List<double[]> steps(ApiClient api, Path folder)
      throws IOException, InterruptedException {
    Path game = Files.createDirectories(folder.resolve("game"));
    Files.writeString(
        game.resolve("game.yaml"),
        """
        format: ironing/game@1
        id: tried
        title: Tried
        mounts:
          - { id: data, at: ".", holds: [ "files/" ] }
        run: { command: [ "true" ] }
        """);
    long workspace = api.newWorkspace(game.toRealPath());
    String base = "/workspaces/" + workspace;
    Path archive = folder.resolve("mod.zip");
    for (int m = 0; m < MODS; m++) {
      Path named = folder.resolve("mod-" + m + "-1.zip");
      Files.write(archive, archive(m));
      Files.move(archive, named);
      api.bringIn(workspace, named);
      Files.delete(named);
    }
    api.job(base + "/deploy", Map.of());
    JsonNode search =
        api.post(
            base + "/searches",
            Map.of(
                "fault",
                Map.of("kind", "WORDS", "name", "odd"),
                "automatic",
                false,
                "mends",
                "KEPT"));
    String at = base + "/searches/" + search.path("search").path("id").asLong();
    List<double[]> out = new ArrayList<>();
    BitSet before = set(search);
    for (int n = 0; search.has("asked"); n++) {
      BitSet now = set(search);
      BitSet differs = (BitSet) before.clone();
      differs.xor(now);
      // the unmodded game is not played: its set differs by everything
      if (n != 1) {
        long began = System.nanoTime();
        api.job(at + "/play", Map.of());
        double ms = (System.nanoTime() - began) / 1e6;
        if (n > 0) out.add(new double[] {differs.cardinality() * (double) FILES, ms});
        before = now;
      }
      search = api.post(at + "/answers", Map.of("answer", n == 0 ? "FAILS" : "WORKS"));
      if (n > 12) break;
    }
    return out;
  }

  private static BitSet set(JsonNode search) {
    BitSet out = new BitSet();
    search.path("asked").path("members").forEach(m -> out.set(m.asInt()));
    return out;
  }

  private static byte[] archive(int m) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      for (int f = 0; f < FILES; f++) {
        zip.putNextEntry(new ZipEntry("files/" + m + "/" + f % 7 + "/" + f + ".txt"));
        zip.write((m + " " + f).getBytes(StandardCharsets.UTF_8));
      }
    }
    return bytes.toByteArray();
  }
}
