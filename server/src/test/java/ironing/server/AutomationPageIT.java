package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Trees;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Runs what docs/automation.md shows, as it stands there. */
@ExtendWith(SharedServer.class)
class AutomationPageIT {
  private static final Pattern SHELL =
      Pattern.compile("^```sh\n(.*?)^```$", Pattern.DOTALL | Pattern.MULTILINE);
  @TempDir Path temp;

  @Test
  void what_the_page_shows_goes_from_archives_to_a_tested_game_and_back(TestServer server)
      throws Exception {
    DemoWorld world = DemoWorld.in(temp);
    StringBuilder script = new StringBuilder("set -euo pipefail\n");
    Matcher m = SHELL.matcher(Files.readString(Path.of("../docs/automation.md")));
    while (m.find()) script.append(m.group(1)).append('\n');
    Path file = Trees.write(temp.resolve("way.sh"), script.toString());
    ProcessBuilder bash = new ProcessBuilder("bash", file.toString()).redirectErrorStream(true);
    bash.environment().put("IRONING", server.url());
    bash.environment().put("GAME", world.game().toString());
    bash.environment().put("ARCHIVES", world.archives().toString());
    Process way = bash.start();
    String said = new String(way.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(way.waitFor()).as(said).isZero();
    assertThat(said)
        .contains("Harbourmaster’s Ledger 2.1.0:")
        .contains("files would come from another mod")
        .containsPattern("\\.png: .* \\([0-9a-f]{12}\\) over ")
        .containsPattern("patch\\.plug: [1-9]\\d* records")
        .containsPattern("[1-9]\\d* to add, ")
        .contains("PLAYED with exit code 0")
        .containsPattern("skerry\\.ini is set_aside");
  }
}
