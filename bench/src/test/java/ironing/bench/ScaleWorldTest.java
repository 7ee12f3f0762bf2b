package ironing.bench;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinitionReader;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The made-up world is what its figures say it is. */
class ScaleWorldTest {
  private static final int MODS = 12, FILES = 1_500;
  @TempDir Path temp;

  @Test
  void has_so_many_mods_and_files_and_is_the_same_at_every_making() throws IOException {
    ScaleWorld.write(temp.resolve("a"), MODS, FILES);
    ScaleWorld.write(temp.resolve("b"), MODS, FILES);
    Map<String, Integer> sizes = new TreeMap<>();
    Map<String, Integer> bringers = new HashMap<>();
    for (Path archive : archives(temp.resolve("a"))) {
      List<String> names = names(archive);
      sizes.put(archive.getFileName().toString(), names.size());
      names.forEach(n -> bringers.merge(n, 1, Integer::sum));
      assertThat(temp.resolve("b/archives").resolve(archive.getFileName()))
          .hasSameBinaryContentAs(archive);
    }
    assertThat(sizes).hasSize(MODS);
    assertThat(sizes.values().stream().mapToInt(Integer::intValue).sum()).isEqualTo(FILES);
    assertThat(bringers.values()).as("some paths are contested").anyMatch(n -> n > 1);
  }

  @Test
  void its_definition_can_be_read_and_every_plugin_finds_its_masters_before_it()
      throws IOException {
    ScaleWorld.write(temp, MODS, FILES);
    Path game = temp.resolve("game");
    GameDefinitionReader.read("game.yaml", Files.readString(game.resolve("game.yaml")));
    Set<String> earlier = new HashSet<>();
    String own = "Tidewater.plug";
    earlier.add(decoded(own, Files.readAllBytes(game.resolve("data").resolve(own))).name());
    int plugins = 0;
    for (Path archive : archives(temp)) {
      try (ZipFile zip = new ZipFile(archive.toFile())) {
        for (ZipEntry e : zip.stream().filter(z -> z.getName().endsWith(".plug")).toList()) {
          String name = e.getName().substring("data/".length());
          Plugin plugin = decoded(name, zip.getInputStream(e).readAllBytes());
          assertThat(earlier).as(name).containsAll(plugin.header().masters());
          earlier.add(name);
          plugins++;
        }
      }
    }
    assertThat(plugins).isEqualTo(MODS / 2);
  }

  private static Plugin decoded(String name, byte[] bytes) {
    return PluginCodec.decode(name, bytes).plugin();
  }

  private static List<Path> archives(Path world) throws IOException {
    try (Stream<Path> all = Files.list(world.resolve("archives"))) {
      return all.sorted().toList();
    }
  }

  private static List<String> names(Path archive) {
    try (ZipFile zip = new ZipFile(archive.toFile())) {
      return zip.stream().map(ZipEntry::getName).toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
