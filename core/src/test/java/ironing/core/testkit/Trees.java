package ironing.core.testkit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Folders as values, so that before and after can be compared. */
public final class Trees {
  private Trees() {}

  /** Every file with its text and every folder with "/", {@code .ironing} aside. */
  public static Map<String, String> of(Path root) {
    Map<String, String> tree = new TreeMap<>();
    try (Stream<Path> all = Files.walk(root)) {
      for (Path p : all.toList()) {
        String path = root.relativize(p).toString();
        if (path.isEmpty() || path.equals(".ironing") || path.startsWith(".ironing/")) continue;
        tree.put(path, Files.isDirectory(p, LinkOption.NOFOLLOW_LINKS) ? "/" : text(p));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return tree;
  }

  private static String text(Path file) throws IOException {
    try {
      return Files.readString(file);
    } catch (MalformedInputException noText) {
      return Files.readString(file, StandardCharsets.ISO_8859_1);
    }
  }

  public static Path write(Path file, String text) {
    try {
      Files.createDirectories(file.getParent());
      return Files.writeString(file, text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public static void remove(Path root) {
    if (!Files.exists(root)) return;
    try (Stream<Path> all = Files.walk(root)) {
      for (Path p : all.sorted((a, b) -> b.compareTo(a)).toList()) Files.delete(p);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
