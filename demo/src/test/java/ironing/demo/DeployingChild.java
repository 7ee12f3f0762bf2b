package ironing.demo;

import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.Deployer;
import ironing.core.layers.Holdings;
import ironing.core.testkit.FaultyDisk;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * The core's deployer as a process of its own, to be killed: {@code GAME WANTED CONTENT PLACE}.
 * Before the change of the disk with the number PLACE it says {@code here} and waits for its end;
 * where there is no such change it says {@code done} and how many there were.
 */
public final class DeployingChild {
  private DeployingChild() {}

  public static void main(String[] args) throws IOException {
    Path game = Path.of(args[0]), content = Path.of(args[2]);
    int place = Integer.parseInt(args[3]);
    FaultyDisk disk =
        FaultyDisk.telling(
            n -> {
              if (n == place) waitForTheEnd();
            });
    Deployer d = new Deployer(disk, game);
    d.apply(
        DeployPlan.make(
            args[1].equals("-") ? List.of() : WantedText.read(Path.of(args[1])),
            d.laidOut(),
            Optional.empty(),
            d.look(),
            "2026-01-01T00:00:00Z"),
        (mod, path) -> located(game, content, mod, path),
        n -> {});
    System.out.println("done " + disk.changes());
  }

  private static Path located(Path game, Path content, long mod, String path) {
    if (mod != Holdings.GAME) return content.resolve(Long.toString(mod)).resolve(path);
    Path kept = Deployer.keptOriginal(game, path);
    return Files.exists(kept) ? kept : game.resolve(path);
  }

  private static void waitForTheEnd() {
    System.out.println("here");
    while (true) {
      try {
        Thread.sleep(60_000);
      } catch (InterruptedException goesOn) {
        // it is killed, not asked
      }
    }
  }
}
