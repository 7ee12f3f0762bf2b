package ironing.demo;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.PictureSum;
import ironing.core.deploy.RealDisk;
import ironing.core.deploy.WantedFiles;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GameRoots;
import ironing.core.picture.Picture;
import ironing.core.testkit.FaultyDisk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;

/**
 * The demo is deployed and taken out by a process that is killed with SIGKILL before every change
 * of the disk, which is also after every one before it. Folders are compared by GNU diff and rsync,
 * files are read by sha256sum and counted by find.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class KilledDeploymentTest {
  private static final String NOTE = "laid-out.json";
  // a process takes longer to start than to deploy: each deploys to so many folders before it is
  // killed
  private static final int AT_ONCE = 40, NEVER = 0;
  @TempDir static Path temp;
  private DemoLibrary demo;
  private Path content;
  private Path wantedText;
  private List<Wanted> wanted;
  private Path unmodded;
  private Path deployed;

  @BeforeAll
  void deployOnce() throws Exception {
    demo = new DemoLibrary(Files.createDirectories(temp.resolve("demo")));
    content = demo.library.resolve("content");
    Picture picture = demo.picture(demo.mods("coal-to-kelp"), List.of());
    wanted = WantedFiles.of(picture, m -> "mod " + m, List.of(), List.of());
    wantedText = temp.resolve("wanted.json");
    WantedText.write(wanted, wantedText);
    unmodded = demo.folder;
    deployed = copy(unmodded, "deployed");
    apply(deployed, wanted);
  }

  private static String run(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(String.join(" ", command) + "\n" + said).isZero();
    return said;
  }

  private static Path copy(Path from, String name) throws Exception {
    Path to = temp.resolve(name);
    run("rm", "-rf", to.toString());
    run("cp", "-a", from.toString(), to.toString());
    return to;
  }

  /** What rsync would have to do to make the two the same, every byte read; times do not count. */
  private static String rsync(Path from, Path to, String... without) throws Exception {
    List<String> command = new ArrayList<>(List.of("rsync", "-rlcn", "--delete", "-i"));
    for (String w : without) command.add("--exclude=" + w);
    command.add(from + "/");
    command.add(to + "/");
    return run(command.toArray(String[]::new));
  }

  /** In what two folders differ by GNU diff, every byte read, but for the note. */
  private static String differences(Path a, Path b) throws Exception {
    Process p =
        new ProcessBuilder(
                "diff", "-rq", "--no-dereference", "--exclude=" + NOTE, a.toString(), b.toString())
            .redirectErrorStream(true)
            .start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(said).isEqualTo(said.isEmpty() ? 0 : 1);
    return said;
  }

  private void apply(Path game, List<Wanted> target) {
    // without flushes: the program is stopped here, not the power
    Deployer d = new Deployer(FaultyDisk.sound(), game);
    d.apply(
        DeployPlan.make(target, d.laidOut(), Optional.empty(), d.look(), "2026-01-01T00:00:00Z"),
        (mod, path) ->
            mod != Holdings.GAME
                ? content.resolve(Long.toString(mod)).resolve(path)
                : ofGame(game, path),
        n -> {});
  }

  private static Path ofGame(Path game, String path) {
    Path kept = Deployer.keptOriginal(GameRoots.of(game), path);
    return Files.exists(kept) ? kept : game.resolve(path);
  }

  private List<String> killed(Map<Path, Integer> games, boolean in) throws Exception {
    return DeployingChild.killed(games, in ? Optional.of(wantedText) : Optional.empty(), content);
  }

  @Test
  void killed_before_any_change_of_the_disk_it_is_as_before_or_as_after_and_nothing_is_lost()
      throws Exception {
    Map<String, String> library = sums(content);
    int places = 0;
    for (boolean in : List.of(true, false)) {
      Path counted = begun("counted", in);
      int changes =
          Integer.parseInt(killed(Map.of(counted, NEVER), in).get(0).substring("done ".length()));
      places += changes;
      ExecutorService two = Executors.newFixedThreadPool(2);
      try {
        List<Future<Integer>> all = new ArrayList<>();
        for (int n = 1; n <= changes; n += AT_ONCE) {
          int first = n, last = Math.min(changes, n + AT_ONCE - 1);
          all.add(two.submit(() -> killedAt(in, first, last)));
        }
        int finished = 0;
        for (Future<Integer> f : all) finished += f.get();
        assertThat(finished).as("some are finished, some taken back").isBetween(1, changes - 1);
      } finally {
        two.shutdownNow();
      }
    }
    assertThat(sums(content)).as("the library").isEqualTo(library);
    assertThat(places).as("places at which it was killed").isGreaterThan(200);
  }

  /** A folder as before the change; what is deployed there is linked to the library. */
  private Path begun(String name, boolean in) throws Exception {
    Path game = copy(unmodded, name);
    if (!in) apply(game, wanted);
    return game;
  }

  /**
   * @return how many of them recovery has finished
   */
  private int killedAt(boolean in, int first, int last) throws Exception {
    Map<Path, Integer> games = new LinkedHashMap<>();
    for (int place = first; place <= last; place++)
      games.put(begun((in ? "in-" : "out-") + place, in), place);
    // on several processors the number of changes may be another: then the last ones are not killed
    killed(games, in);
    int finished = 0;
    for (Path game : games.keySet()) if (isAfter(game, in)) finished++;
    return finished;
  }

  /** Recovers a folder: whether it is as after the change then. */
  private boolean isAfter(Path game, boolean in) throws Exception {
    Deployer again = new Deployer(FaultyDisk.sound(), game);
    Deployer.Recovered did = again.recover();
    String name = game.getFileName() + ", then " + did;
    boolean isAfter = differences(game, in ? deployed : unmodded).isEmpty();
    if (!isAfter) assertThat(differences(game, in ? unmodded : deployed)).as(name).isEmpty();
    LaidOut note = again.laidOut();
    assertThat(note.files().isEmpty()).as(name).isEqualTo(isAfter != in);
    if (!note.files().isEmpty()) checkSums(game);
    apply(game, List.of());
    assertThat(differences(game, unmodded)).as("the unmodded game after " + name).isEmpty();
    run("rm", "-rf", game.toString());
    return isAfter;
  }

  private static void checkSums(Path game) throws Exception {
    run(
        "sh",
        "-c",
        "cd \"$1\" && sha256sum --check --quiet --strict .ironing/SHA256SUMS",
        "sh",
        game.toString());
  }

  private static Map<String, String> sums(Path folder) throws Exception {
    Map<String, String> all = new TreeMap<>();
    String lines =
        run(
            "sh",
            "-c",
            "cd \"$1\" && find . -type f -print0 | sort -z | xargs -0 sha256sum",
            "sh",
            folder.toString());
    for (String line : lines.split("\n")) all.put(line.substring(66), line.substring(0, 64));
    return all;
  }

  @Test
  void gnu_tools_find_the_folder_as_a_picture_that_was_built_without_the_core() throws Exception {
    checkSums(deployed);
    Path picture = copy(unmodded, "picture");
    for (long mod : demo.mods("coal-to-kelp")) {
      Path files = content.resolve(Long.toString(mod));
      if (Files.isDirectory(files)) layOver(files, picture);
    }
    StringBuilder roster = new StringBuilder();
    for (LoadOrder.Entry e :
        demo.picture(demo.mods("coal-to-kelp"), List.of()).loadOrder().entries())
      if (!e.own()) roster.append("use ").append(e.name()).append('\n');
    Files.writeString(picture.resolve("settings/roster.txt"), roster);
    assertThat(rsync(deployed, picture, "/.ironing/", "/saves/")).isEmpty();

    String found =
        run(
            "sh",
            "-c",
            "find \"$1\" -path \"$1/.ironing\" -prune -o -type f -print | wc -l",
            "sh",
            deployed.toString());
    long own =
        Long.parseLong(
            run("sh", "-c", "find \"$1\" -type f | wc -l", "sh", unmodded.toString()).strip());
    LaidOut note = new Deployer(new RealDisk(), deployed).laidOut();
    long added = note.files().values().stream().filter(i -> i.replaced().isEmpty()).count();
    assertThat(Long.parseLong(found.strip())).isEqualTo(own + added);

    Picture pictured = demo.picture(demo.mods("coal-to-kelp"), List.of());
    assertThat(PictureSum.of(pictured)).as("the picture’s sum").isEqualTo(sumBySha256sum());

    Path out = begun("out", false);
    apply(out, List.of());
    assertThat(rsync(out, unmodded)).isEmpty();
  }

  /** As the format's page has it, by find, sort and sha256sum alone. */
  private String sumBySha256sum() throws Exception {
    String script =
        """
        cd "$1" && find . -type f ! -path './.ironing/*' ! -path './saves/*' \
          ! -path ./settings/personal.ini ! -path ./logs/last-run.jsonl -printf '%P\\0' |
          LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum
        """;
    return run("sh", "-c", script, "sh", deployed.toString()).substring(0, 64);
  }

  /** Copies files over those of the same names, whatever the case of their letters. */
  private static void layOver(Path from, Path to) throws IOException {
    try (Stream<Path> all = Files.list(from)) {
      for (Path p : all.toList()) {
        Path place = sameName(to, p.getFileName().toString());
        if (Files.isDirectory(p)) {
          Files.createDirectories(place);
          layOver(p, place);
        } else {
          Files.deleteIfExists(place);
          Files.copy(p, place);
        }
      }
    }
  }

  private static Path sameName(Path folder, String name) throws IOException {
    String wanted = name.toLowerCase(Locale.ROOT);
    try (Stream<Path> all = Files.list(folder)) {
      return all.filter(p -> p.getFileName().toString().toLowerCase(Locale.ROOT).equals(wanted))
          .findFirst()
          .orElse(folder.resolve(name));
    }
  }
}
