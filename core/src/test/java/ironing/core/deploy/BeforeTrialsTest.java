package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Look;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.path.GameRoots;
import ironing.core.testkit.FaultyDisk;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BeforeTrialsTest {
  private static final String NOW = "2026-12-01T10:00:00Z";
  @TempDir Path temp;
  private final GameDefinition game =
      GameDefinitionReader.read(
              "game.yaml",
              """
          format: ironing/game@1
          id: plain
          title: Plain Sailing
          mounts:
            - { id: data, at: data, holds: [ "*.ini" ] }
          writable: [ "data/*.ini" ]
          """)
          .value();

  private static LaidOut.Item item(String path, long mod) {
    return new LaidOut.Item(
        path, "0".repeat(64), 1, mod, "Mod", LaidOut.How.COPY, Optional.empty(), Optional.empty());
  }

  private static LaidOut laid(LaidOut.Item... items) {
    Map<String, LaidOut.Item> files = new TreeMap<>();
    for (LaidOut.Item i : items) files.put(i.path(), i);
    return new LaidOut(NOW, files, List.of(), Optional.empty(), Optional.empty());
  }

  private static final Look DRIFTED =
      new Look() {
        @Override
        public Found at(String path, Optional<LaidOut.Item> item) {
          return path.endsWith("as.ini") ? Found.AS_LAID_OUT : Found.DRIFTED;
        }

        @Override
        public String sha256(String path) {
          throw new UnsupportedOperationException();
        }
      };

  private Path folder(String name) throws IOException {
    Path folder = Files.createDirectories(temp.resolve(name)).toRealPath();
    Trees.write(folder.resolve("data/a.ini"), "written a");
    Trees.write(folder.resolve("data/b.ini"), "written b");
    Trees.write(folder.resolve("data/as.ini"), "as it came");
    return folder;
  }

  private static final LaidOut BOTH =
      laid(item("data/a.ini", 1), item("data/b.ini", 2), item("data/as.ini", 1));

  @Test
  void what_was_written_comes_back_to_the_same_mods_file_and_to_no_others() throws IOException {
    Path folder = folder("game");
    BeforeTrials trials = new BeforeTrials(new RealDisk(), GameRoots.of(folder));
    trials.keep(BOTH, game, DRIFTED, NOW);
    Trees.write(folder.resolve("data/a.ini"), "fresh");
    Trees.write(folder.resolve("data/b.ini"), "fresh");
    assertThat(trials.written(1, "data/a.ini"))
        .hasValueSatisfying(b -> assertThat(b).asString().isEqualTo("written a"));
    assertThat(trials.written(3, "data/a.ini")).isEmpty();
    assertThat(trials.written(1, "data/as.ini")).isEmpty();
    // b's mod is gone, and another one has brought a file of that name
    trials.giveBack(laid(item("data/a.ini", 1), item("data/b.ini", 3)), game, NOW);
    assertThat(folder.resolve("data/a.ini")).hasContent("written a");
    assertThat(folder.resolve("data/b.ini")).hasContent("fresh");
    assertThat(folder.resolve(".ironing/changed/2026-12-01T10-00-00Z/data/b.ini"))
        .as("nothing is thrown away")
        .hasContent("written b");
    assertThat(folder.resolve(".ironing/before-trials")).doesNotExist();
    trials.giveBack(BOTH, game, NOW);
    assertThat(folder.resolve("data/b.ini")).hasContent("fresh");
  }

  @Test
  void a_crash_at_any_step_loses_nothing() throws IOException {
    for (int at = 1; ; at++) {
      Path folder = folder("game-" + at);
      FaultyDisk dying = FaultyDisk.dyingAt(at);
      boolean died = false;
      try {
        BeforeTrials trials = new BeforeTrials(dying, GameRoots.of(folder));
        trials.keep(BOTH, game, DRIFTED, NOW);
        // a set that is tried has neither of the two; then both are there again as they came
        Files.delete(folder.resolve("data/a.ini"));
        Files.delete(folder.resolve("data/b.ini"));
        Trees.write(folder.resolve("data/a.ini"), "fresh");
        Trees.write(folder.resolve("data/b.ini"), "fresh");
        trials.giveBack(BOTH, game, NOW);
      } catch (FaultyDisk.Died cut) {
        died = true;
      }
      new BeforeTrials(new RealDisk(), GameRoots.of(folder)).giveBack(BOTH, game, NOW);
      assertThat(folder.resolve("data/a.ini")).as("dying at " + at).hasContent("written a");
      assertThat(folder.resolve("data/b.ini")).as("dying at " + at).hasContent("written b");
      assertThat(folder.resolve(".ironing/before-trials")).doesNotExist();
      if (!died) {
        assertThat(at).isGreaterThan(5);
        return;
      }
    }
  }
}
