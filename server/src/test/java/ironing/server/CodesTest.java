package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.loadorder.LoadOrderCheck;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The list of codes names all that the product can say, nothing else, and each is tested. */
class CodesTest {
  private static final List<Path> MAIN =
      List.of(Path.of("../core/src/main/java"), Path.of("src/main/java"));
  private static final List<Path> TESTS =
      List.of(Path.of("../core/src/test/java"), Path.of("src/test/java"));

  // where a code is made: the first text of one of these
  private static final Pattern MADE =
      Pattern.compile(
          "(?:IroningException\\.of|new Problem|new Wrinkle|new Note|refuse"
              + "|detail)\\(\\s*\"([a-z]+(?:-[a-z0-9]+)*)\""
              + "|code\\\\\":\\\\\"([a-z-]+)|\"code\":\"([a-z-]+)|CODE = \"([a-z-]+)\"");

  @Test
  void the_list_is_what_the_code_can_say() throws IOException {
    Set<String> made = new TreeSet<>();
    String text = text(MAIN, p -> true);
    for (Matcher m = MADE.matcher(text); m.find(); )
      for (int g = 1; g <= m.groupCount(); g++) if (m.group(g) != null) made.add(m.group(g));
    Arrays.stream(LoadOrderCheck.Code.values()).map(CodesTest::word).forEach(made::add);
    assertThat(listed()).isEqualTo(made);
  }

  @Test
  void every_code_is_the_subject_of_a_test() throws IOException {
    String text = text(TESTS, p -> !p.endsWith("CodesTest.java"));
    Set<String> untold = new TreeSet<>();
    for (String code : listed()) {
      String named = code.toUpperCase(Locale.ROOT).replace('-', '_');
      List<String> ways = List.of("\"" + code + "\"", "\"" + named + "\"", "Code." + named);
      if (ways.stream().noneMatch(text::contains)) untold.add(code);
    }
    // it takes more records than fit into the memory of a test
    assertThat(untold).containsExactly("merge-too-many");
  }

  private static String word(LoadOrderCheck.Code code) {
    return code.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  private static Set<String> listed() throws IOException {
    Properties lines = new Properties();
    try (Reader in = Files.newBufferedReader(Path.of("src/main/resources/codes.properties"))) {
      lines.load(in);
    }
    return new TreeSet<>(lines.stringPropertyNames());
  }

  private static String text(List<Path> folders, Predicate<Path> which) throws IOException {
    StringBuilder all = new StringBuilder();
    for (Path folder : folders)
      try (Stream<Path> files = Files.walk(folder)) {
        for (Path p :
            files
                .filter(f -> f.toString().endsWith(".java"))
                .filter(which)
                .collect(Collectors.toList())) all.append(Files.readString(p)).append('\n');
      }
    return all.toString();
  }
}
