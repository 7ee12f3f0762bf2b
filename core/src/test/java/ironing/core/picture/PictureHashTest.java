package ironing.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PictureHashTest {
  @TempDir Path temp;

  /** The text is what GNU sha256sum writes of the same files, sorted by GNU sort. */
  @Test
  void it_is_the_hash_of_what_sha256sum_writes() throws Exception {
    Map<String, String> files = new TreeMap<>();
    files.put("data/textures/a.png", "game");
    files.put("data/textures/ä.png", "accent");
    files.put("data/textures/\uD83D\uDD14.png", "bell");
    files.put("data/textures/\uFF5E.png", "wide");
    files.put("settings/x.ini", "x");
    TestWorld world = new TestWorld();
    for (Map.Entry<String, String> f : files.entrySet()) {
      world.file(1, f.getKey(), f.getValue());
      Path file = temp.resolve("files").resolve(f.getKey());
      Files.createDirectories(file.getParent());
      Files.writeString(file, f.getValue());
    }
    String script =
        "cd \"$0\" && find . -type f -printf '%P\\n' | LC_ALL=C sort | tr '\\n' '\\0'"
            + " | xargs -0 sha256sum | sha256sum | cut -c1-64";
    assertThat(PictureHash.of(world.picture())).isEqualTo(said(script));
  }

  private String said(String script) throws IOException, InterruptedException {
    Process p =
        new ProcessBuilder("sh", "-c", script, temp.resolve("files").toString())
            .redirectErrorStream(true)
            .start();
    String text = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(text).isZero();
    return text.strip();
  }

  @Test
  void another_content_or_another_order_makes_another_one() {
    TestWorld one = new TestWorld().file(0, "data/textures/a.png", "game");
    TestWorld two =
        new TestWorld()
            .file(0, "data/textures/a.png", "game")
            .file(1, "data/textures/a.png", "mod");
    TestWorld same =
        new TestWorld()
            .file(0, "data/textures/a.png", "game")
            .file(1, "data/textures/a.png", "game");
    assertThat(PictureHash.of(two.picture())).isNotEqualTo(PictureHash.of(one.picture()));
    assertThat(PictureHash.of(same.picture())).isEqualTo(PictureHash.of(one.picture()));
  }
}
