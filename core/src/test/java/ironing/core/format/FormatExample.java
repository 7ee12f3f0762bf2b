package ironing.core.format;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.plugin.PluginFormat;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.jar.JarOutputStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import javax.tools.JavaCompiler;
import javax.tools.ToolProvider;

/** The jar of the worked example in docs/plugin-format, made as its page says. */
public final class FormatExample {
  static final Path SOURCE = Path.of("../docs/plugin-format/CaskFormat.java");
  private static final Path SERVICES =
      Path.of("../docs/plugin-format/META-INF/services/" + PluginFormat.class.getName());

  private FormatExample() {}

  static PluginFormat load() {
    try {
      Path jar = Files.createTempDirectory("format").resolve("cask.jar");
      write(jar);
      List<PluginFormat> found = FormatJar.load(jar);
      assertThat(found).hasSize(1);
      return found.get(0);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Compiles the example, and puts it into a jar. */
  public static void write(Path jar) throws IOException {
    write(jar, SOURCE, Files.readString(SERVICES));
  }

  static void write(Path jar, Path source, String provider) throws IOException {
    Path classes = Files.createTempDirectory("classes");
    JavaCompiler javac = ToolProvider.getSystemJavaCompiler();
    int failed =
        javac.run(
            null,
            null,
            null,
            "-Xlint:all",
            "-Werror",
            "-cp",
            Path.of("../core/target/classes").toString(),
            "-d",
            classes.toString(),
            source.toString());
    assertThat(failed).isZero();
    try (JarOutputStream out = new JarOutputStream(Files.newOutputStream(jar));
        Stream<Path> all = Files.walk(classes)) {
      for (Path p : all.filter(Files::isRegularFile).sorted().toList()) {
        out.putNextEntry(new ZipEntry(classes.relativize(p).toString()));
        out.write(Files.readAllBytes(p));
      }
      out.putNextEntry(new ZipEntry("META-INF/services/" + SERVICES.getFileName()));
      out.write(provider.getBytes(StandardCharsets.UTF_8));
    }
  }
}
