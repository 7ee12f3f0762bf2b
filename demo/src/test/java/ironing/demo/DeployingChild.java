package ironing.demo;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.Deployer;
import ironing.core.layers.Holdings;
import ironing.core.path.GameRoots;
import ironing.core.testkit.FaultyDisk;
import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/**
 * The core's deployer as a process of its own, to be killed: {@code WANTED CONTENT PLACE=GAME…}. It
 * deploys to several game folders, each with a thread of its own. Before the change of the disk
 * with the number PLACE each says {@code here} and waits for the end of the process; where there is
 * no such change it says {@code done} and how many there were. A folder of the game’s name with
 * {@code -user} at its end, beside it, is the game’s place {@code user}.
 */
public final class DeployingChild {
  private DeployingChild() {}

  public static void main(String[] args) throws Exception {
    List<Wanted> wanted = args[0].equals("-") ? List.of() : WantedText.read(Path.of(args[0]));
    Path content = Path.of(args[1]);
    List<Thread> all = new ArrayList<>();
    for (String one : List.of(args).subList(2, args.length)) {
      int place = Integer.parseInt(one.substring(0, one.indexOf('=')));
      Path game = Path.of(one.substring(one.indexOf('=') + 1));
      all.add(new Thread(() -> deploy(game, wanted, content, place)));
    }
    all.forEach(Thread::start);
    for (Thread t : all) t.join();
  }

  /**
   * Deploys to some folders in one process, which is killed once it has got to its place in each of
   * them.
   *
   * @param games each with the change of the disk before which it stops
   * @param wanted what to deploy; empty to take everything out
   * @return what it said of all that it did to the end
   */
  static List<String> killed(Map<Path, Integer> games, Optional<Path> wanted, Path content)
      throws Exception {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC"));
    command.addAll(List.of("-cp", System.getProperty("java.class.path")));
    command.add(DeployingChild.class.getName());
    command.addAll(List.of(wanted.map(Path::toString).orElse("-"), content.toString()));
    games.forEach((game, place) -> command.add(place + "=" + game));
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    List<String> done = new ArrayList<>();
    try (BufferedReader out = p.inputReader()) {
      for (int i = 0; i < games.size(); i++) {
        String said = out.readLine();
        if (!"here".equals(said)) done.add(said);
      }
      p.destroyForcibly();
      assertThat(p.waitFor(60, TimeUnit.SECONDS)).isTrue();
    }
    assertThat(done).allMatch(said -> said.startsWith("done "));
    return done;
  }

  private static void deploy(Path game, List<Wanted> wanted, Path content, int place) {
    FaultyDisk disk =
        FaultyDisk.telling(
            n -> {
              if (n == place) waitForTheEnd();
            });
    try {
      Deployer d = new Deployer(disk, roots(game), Optional.empty());
      d.apply(
          DeployPlan.make(wanted, d.laidOut(), Optional.empty(), d.look(), "2026-01-01T00:00:00Z"),
          (mod, path) -> located(game, content, mod, path),
          n -> {});
      System.out.println("done " + disk.changes());
    } catch (RuntimeException e) {
      System.out.println("failed " + e);
    }
  }

  private static Path located(Path game, Path content, long mod, String path) {
    if (mod != Holdings.GAME) return content.resolve(Long.toString(mod)).resolve(path);
    Path kept = Deployer.keptOriginal(roots(game), path);
    return Files.exists(kept) ? kept : roots(game).at(path);
  }

  static GameRoots roots(Path game) {
    Path user = game.resolveSibling(game.getFileName() + "-user");
    return Files.isDirectory(user) ? GameRoots.of(game, Map.of("user", user)) : GameRoots.of(game);
  }

  private static void waitForTheEnd() {
    System.out.println("here");
    while (true) {
      try {
        new CountDownLatch(1).await();
      } catch (InterruptedException goesOn) {
        // it is killed, not asked
      }
    }
  }
}
