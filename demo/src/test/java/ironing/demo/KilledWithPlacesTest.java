package ironing.demo;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer;
import ironing.core.testkit.FaultyDisk;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A game with a place beside its folder is deployed to, and taken out, by a process that is killed
 * with SIGKILL before every change of the disk. What is there then is compared by GNU diff.
 */
class KilledWithPlacesTest {
  private static final int NEVER = 0;
  @TempDir Path temp;
  private Path content;
  private Path unmodded, deployed;
  private Path wantedText;
  private List<Wanted> wanted;

  @BeforeEach
  void games() throws Exception {
    content = temp.resolve("content");
    unmodded = temp.resolve("unmodded");
    Trees.write(unmodded.resolve("data/stone.png"), "the game's stone");
    Trees.write(user(unmodded).resolve("mods/base/a.json"), "{}");
    Trees.write(user(unmodded).resolve("enabled.json"), "[]");
    wanted = new ArrayList<>();
    wanted.add(file("data/stone.png", Writer.NOBODY));
    wanted.add(file("data/new/a.png", Writer.NOBODY));
    wanted.add(file("@user/mods/base/a.json", Writer.NOBODY));
    for (int i = 0; i < 6; i++)
      wanted.add(file("@user/mods/more/deep/" + i + ".json", Writer.NOBODY));
    wanted.add(file("@user/settings.ini", Writer.GAME));
    byte[] list = "[\"more\"]".getBytes(StandardCharsets.UTF_8);
    wanted.add(
        new Wanted(
            "@user/enabled.json",
            ContentHash.of(list),
            list.length,
            0,
            "Ironing",
            Writer.NOBODY,
            new Content.Text(list)));
    wantedText = temp.resolve("wanted.json");
    WantedText.write(wanted, wantedText);
    deployed = copy("deployed");
    apply(deployed, wanted);
  }

  private static Path user(Path game) {
    return game.resolveSibling(game.getFileName() + "-user");
  }

  private Wanted file(String path, Writer writer) throws IOException {
    String spelled = path.replace("@user", "user");
    Path file = Trees.write(content.resolve("1").resolve(spelled), path + " of a mod");
    return new Wanted(
        path, ContentHash.of(file), Files.size(file), 1, "Mod", writer, new Content.File(spelled));
  }

  private Path copy(String name) throws Exception {
    Path to = temp.resolve(name);
    for (Path p : List.of(to, user(to))) Trees.remove(p);
    run("cp", "-a", unmodded.toString(), to.toString());
    run("cp", "-a", user(unmodded).toString(), user(to).toString());
    return to;
  }

  private static String run(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    p.waitFor();
    return said;
  }

  /** By GNU diff, every byte read; the notes name folders and inodes of their own. */
  private static String differences(Path a, Path b) throws Exception {
    String said = "";
    for (List<Path> two : List.of(List.of(a, b), List.of(user(a), user(b))))
      said +=
          run(
              "diff",
              "-rq",
              "--no-dereference",
              "--exclude=.ironing",
              two.get(0).toString(),
              two.get(1).toString());
    return said;
  }

  private void apply(Path game, List<Wanted> target) {
    Deployer d = new Deployer(FaultyDisk.sound(), DeployingChild.roots(game), Optional.empty());
    d.apply(
        DeployPlan.make(target, d.laidOut(), Optional.empty(), d.look(), "2026-01-01T00:00:00Z"),
        (mod, path) -> content.resolve(Long.toString(mod)).resolve(path),
        n -> {});
  }

  private Optional<Path> wanted(boolean in) {
    return in ? Optional.of(wantedText) : Optional.empty();
  }

  private Path begun(String name, boolean in) throws Exception {
    Path game = copy(name);
    if (!in) apply(game, wanted);
    return game;
  }

  @Test
  void killed_before_any_change_of_the_disk_all_places_are_as_before_or_all_as_after()
      throws Exception {
    for (boolean in : List.of(true, false)) {
      String never =
          DeployingChild.killed(Map.of(begun("counted", in), NEVER), wanted(in), content).get(0);
      int changes = Integer.parseInt(never.substring("done ".length()));
      Map<Path, Integer> games = new LinkedHashMap<>();
      for (int n = 1; n <= changes; n++) games.put(begun("at-" + n, in), n);
      DeployingChild.killed(games, wanted(in), content);
      int finished = 0;
      for (Path game : games.keySet()) {
        Deployer again =
            new Deployer(FaultyDisk.sound(), DeployingChild.roots(game), Optional.empty());
        String did = game.getFileName() + ", then " + again.recover();
        boolean after = differences(game, in ? deployed : unmodded).isEmpty();
        if (after) finished++;
        else assertThat(differences(game, in ? unmodded : deployed)).as(did).isEmpty();
        assertThat(again.laidOut().files().isEmpty()).as(did).isEqualTo(after != in);
        apply(game, List.of());
        assertThat(differences(game, unmodded)).as("the unmodded game after " + did).isEmpty();
        assertThat(game.resolve(".ironing")).as(did).doesNotExist();
        assertThat(user(game).resolve(".ironing")).as(did).doesNotExist();
      }
      assertThat(finished).isBetween(1, changes - 1);
    }
  }
}
