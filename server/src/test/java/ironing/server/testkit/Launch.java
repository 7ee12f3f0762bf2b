package ironing.server.testkit;

import ironing.core.testkit.Trees;
import ironing.server.IroningServer;
import java.io.File;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.spi.ToolProvider;
import java.util.stream.Stream;

/**
 * How the server is started as a process of its own: from jars alone, and with its classes as an
 * earlier start has left them, which halves the time that it takes. Made once for the classes of
 * the day, by whichever test comes first.
 */
final class Launch {
  private static final Path FOLDER = Path.of("target", "launch").toAbsolutePath();
  private static final Path CLASSES = FOLDER.resolve("classes.jsa");
  private static List<String> prepared;

  private Launch() {}

  /** The command that starts the server. */
  static synchronized List<String> command() throws IOException {
    if (prepared == null) {
      Files.createDirectories(FOLDER.getParent());
      Path lock = FOLDER.resolveSibling("launch.lock");
      // other processes of tests wait for the one that makes it
      try (FileChannel channel =
              FileChannel.open(lock, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
          FileLock held = channel.lock()) {
        if (held.isValid()) prepared = prepare();
      }
    }
    return prepared;
  }

  private static List<String> prepare() throws IOException {
    List<String> classPath =
        Stream.of(System.getProperty("java.class.path").split(File.pathSeparator, -1))
            .filter(e -> !e.isBlank())
            .toList();
    String today = newest(classPath) + " " + classPath;
    Path of = FOLDER.resolve("of");
    if (!Files.exists(of) || !Files.readString(of).equals(today)) {
      Trees.remove(FOLDER);
      Files.createDirectories(FOLDER);
      Files.writeString(FOLDER.resolve("class-path"), packed(classPath));
      train();
      Files.writeString(of, today);
    }
    return java("-XX:SharedArchiveFile=" + CLASSES);
  }

  private static List<String> java(String archive) throws IOException {
    return List.of(
        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
        "-XX:TieredStopAtLevel=1",
        "-XX:+UseSerialGC",
        "-Xshare:auto",
        "-Xlog:disable",
        archive,
        "-cp",
        Files.readString(FOLDER.resolve("class-path")),
        IroningServer.class.getName());
  }

  /** Starts the server once, and ends it: what it has loaded by then is kept. */
  private static void train() throws IOException {
    try (ServerProcess first =
        new ServerProcess(FOLDER.resolve("home"), java("-XX:ArchiveClassesAtExit=" + CLASSES))) {
      first.up();
      first.down();
    }
    Trees.remove(FOLDER.resolve("home"));
  }

  /** The class path without folders, of which no archive of classes can be made. */
  private static String packed(List<String> classPath) {
    ToolProvider jar = ToolProvider.findFirst("jar").orElseThrow();
    List<String> entries = new ArrayList<>();
    for (String entry : classPath) {
      if (!Files.isDirectory(Path.of(entry))) {
        entries.add(entry);
        continue;
      }
      String to = FOLDER.resolve("classes-" + entries.size() + ".jar").toString();
      int failed = jar.run(System.out, System.err, "-c", "-0", "-f", to, "-C", entry, ".");
      if (failed != 0) throw new IllegalStateException(entry + " cannot be packed");
      entries.add(to);
    }
    return String.join(File.pathSeparator, entries);
  }

  /** When the last of the classes was written. */
  private static long newest(List<String> classPath) throws IOException {
    long newest = 0;
    for (String entry : classPath) {
      try (Stream<Path> all = Files.walk(Path.of(entry))) {
        Optional<Long> last = all.map(p -> p.toFile().lastModified()).max(Long::compare);
        newest = Math.max(newest, last.orElse(0L));
      }
    }
    return newest;
  }
}
