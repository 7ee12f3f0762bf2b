package ironing.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.plugin.FileFormat;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.Shapes;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.jar.JarOutputStream;
import java.util.zip.ZipEntry;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The worked example of docs/plugin-format, compiled, put into a jar and found there. */
class BroughtFormatTest extends FormatKit {
  private static final PluginFormat CASK = FormatExample.load();
  private static final GameDefinition GAME =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: cellar
              title: Cellar
              mounts: [ { id: data, at: data, holds: [ "*.cask" ] } ]
              plugins: { match: "*.cask", mount: data, format: cask-maker/cask@1 }
              """)
          .value();
  @TempDir Path temp;

  @Override
  PluginFormat format() {
    return CASK;
  }

  @Override
  Plugin plugin(long seed) {
    List<Plugin> all = RandomPlugins.of(seed, 4);
    return all.get(Math.floorMod(seed, 4));
  }

  @Override
  String path(Plugin plugin) {
    return "data/" + plugin.name();
  }

  @Override
  Shapes shapes() {
    return Shapes.of(TestWorld.GAME);
  }

  @Test
  void the_example_is_short_and_says_where_it_is_described() throws IOException {
    assertThat(Files.readAllLines(FormatExample.SOURCE)).hasSizeLessThan(300);
    assertThat(Files.readString(Path.of("../docs/formats/plugin-formats.md")))
        .contains("plugin-format/CaskFormat.java");
  }

  @Test
  void a_game_names_a_format_and_one_that_nobody_knows_is_told() {
    PluginFormats formats = new PluginFormats();
    assertThat(formats.of(GAME)).isEmpty();
    assertThatThrownBy(() -> formats.require(GAME))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("cask-maker/cask@1");
    formats.add(List.of(CASK));
    assertThat(formats.require(GAME).id()).isEqualTo("cask-maker/cask@1");
    formats.remove(List.of("cask-maker/cask@1"));
    assertThat(formats.of(GAME)).isEmpty();
  }

  @Test
  void a_jar_that_brings_no_format_is_refused() throws IOException {
    Path empty = temp.resolve("empty.jar");
    try (JarOutputStream jar = new JarOutputStream(Files.newOutputStream(empty))) {
      jar.putNextEntry(new ZipEntry("nothing.txt"));
    }
    Path names = temp.resolve("names.jar");
    try (JarOutputStream jar = new JarOutputStream(Files.newOutputStream(names))) {
      jar.putNextEntry(new ZipEntry("META-INF/services/" + PluginFormat.class.getName()));
      jar.write("no.such.Format\n".getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }
    Path text = Files.writeString(temp.resolve("text.jar"), "no jar");
    for (Path wrong : List.of(empty, names, text, temp.resolve("gone.jar")))
      assertThatThrownBy(() -> FormatJar.load(wrong))
          .as(wrong.toString())
          .isInstanceOf(IroningException.class)
          .extracting(e -> ((IroningException) e).problems().get(0).code())
          .isEqualTo("format-jar-wrong");
  }

  @Test
  void a_jar_whose_code_fails_when_it_is_asked_for_its_name_is_refused() throws IOException {
    Path source = Files.createDirectories(temp.resolve("src")).resolve("Bad.java");
    Files.writeString(
        source,
        """
        import ironing.core.plugin.FileFormat;
        import ironing.core.plugin.Plugin;
        public final class Bad extends FileFormat {
          @Override public String id() { throw new IllegalStateException("no name"); }
          @Override protected Plugin decode(String name, byte[] file) { return null; }
          @Override protected byte[] encode(Plugin plugin) { return null; }
        }
        """);
    Path jar = temp.resolve("bad.jar");
    FormatExample.write(jar, source, "Bad\n");
    assertThatThrownBy(() -> FormatJar.load(jar))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("no name");
  }

  /** What somebody else has made may be wrong in every way: one plugin is told, and no more. */
  @Test
  void a_format_that_breaks_the_contract_is_told_of_the_plugin_and_stops_nothing() {
    for (FileFormat bad : List.of(bad(1), bad(2), bad(3), bad(4))) {
      PluginFormats formats = new PluginFormats();
      formats.add(List.of(bad));
      PluginFormat held = formats.require(GAME);
      Plugin plugin = plugin(1);
      assertThatThrownBy(
              () -> held.table(PluginFormat.Source.of("A.cask", new byte[] {1}), shapes()))
          .isInstanceOf(IroningException.class)
          .hasMessageContaining("A.cask");
      assertThatThrownBy(() -> held.write(plugin, "data/A.cask", List.of()))
          .isInstanceOf(IroningException.class)
          .hasMessageContaining("cask-maker/cask@1");
    }
  }

  private static FileFormat bad(int how) {
    return new FileFormat() {
      @Override
      public String id() {
        return "cask-maker/cask@1";
      }

      @Override
      protected Plugin decode(String name, byte[] file) {
        return switch (how) {
          case 1 -> throw new ArrayIndexOutOfBoundsException(3);
          case 2 -> null;
          case 3 -> decode(name, file);
          default -> new Plugin("Another.cask", Plugin.Header.of(5, List.of(), 1), List.of());
        };
      }

      @Override
      protected byte[] encode(Plugin plugin) {
        if (how == 3) return encode(plugin);
        throw new IllegalStateException("not yet");
      }
    };
  }
}
