package ironing.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class JsonPlaceTest {
  private static final JsonMapper JSON =
      JsonMapper.builder()
          .enable(JsonReadFeature.ALLOW_JAVA_COMMENTS, JsonReadFeature.ALLOW_TRAILING_COMMA)
          .build();

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"a\": 1, \"b\": 2} | a | {\"a\": 9, \"b\": 2}",
        "{ \"a\" : { \"b\" : [ 1, {} ] } } | a b | { \"a\" : { \"b\" : 9 } }",
        "{\"a\":\"x\\\"}\"} | a | {\"a\":9}",
        "{} | a | {\"a\":9}",
        "{ } | a b | {\"a\":{\"b\":9} }",
        "{\"a\":{\"c\":[]}} | a b | {\"a\":{\"c\":[],\"b\":9}}",
        "// no\\n{ \"a\": 1, /* c */ \"b\": 2, } | b | // no\\n{ \"a\": 1, /* c */ \"b\": 9, }",
        "{\"a\":-1.5e3 } | a | {\"a\":9 }",
        "{\"a\":true,\"c\":null} | c | {\"a\":true,\"c\":9}"
      })
  void all_else_keeps_its_bytes(String before, String names, String after)
      throws JsonPlace.NoPlace {
    String text = before.replace("\\n", "\n");
    assertThat(JsonPlace.put(text, true, List.of(names.split(" ")), "9"))
        .isEqualTo(after.replace("\\n", "\n"));
  }

  @Test
  void what_is_missing_is_made() throws JsonPlace.NoPlace {
    assertThat(JsonPlace.put("", false, List.of("a", "b"), "[]")).isEqualTo("{\"a\":{\"b\":[]}}\n");
  }

  @Test
  void a_last_comma_is_not_doubled() throws IOException, JsonPlace.NoPlace {
    String put = JsonPlace.put("{ \"a\": 1, }", true, List.of("b"), "9");
    assertThat(JSON.readTree(put)).isEqualTo(JSON.readTree("{\"a\":1,\"b\":9}"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"[]", "{\"a\":[]}", "{\"a\":1", "{\"a\":{\"b\":1},\"a\":{}}", "7"})
  void what_has_no_such_place_is_refused(String text) {
    assertThatThrownBy(() -> JsonPlace.put(text, false, List.of("a", "b"), "9"))
        .isInstanceOf(JsonPlace.NoPlace.class)
        .hasMessageMatching("it is n.*|what stands.*|“a” stands twice.*");
  }

  /** Real documents: the manifests of the packages that the page is built with. */
  @Test
  void in_real_documents_just_that_place_is_another() throws Exception {
    List<Path> manifests;
    try (Stream<Path> all = Files.walk(Path.of("../node_modules"), 3)) {
      manifests = all.filter(p -> p.endsWith("package.json")).sorted().toList();
    }
    assertThat(manifests).hasSizeGreaterThan(200);
    for (Path p : manifests) {
      String text = Files.readString(p);
      JsonNode before = JSON.readTree(text);
      for (List<String> names :
          List.of(List.of("version"), List.of("ironing", "rank"), List.of("dependencies", "x"))) {
        if (before.has(names.get(0)) && names.size() > 1 && !before.get(names.get(0)).isObject())
          continue;
        String put = JsonPlace.put(text, false, names, "[12]");
        ObjectNode expected = before.deepCopy();
        ObjectNode at = expected;
        for (String n : names.subList(0, names.size() - 1)) at = at.withObjectProperty(n);
        at.set(names.get(names.size() - 1), JSON.readTree("[12]"));
        assertThat(JSON.readTree(put)).as(p.toString()).isEqualTo(expected);
        int same = 0;
        while (same < text.length() && text.charAt(same) == put.charAt(same)) same++;
        int tail = 0;
        while (tail < text.length() - same
            && text.charAt(text.length() - 1 - tail) == put.charAt(put.length() - 1 - tail)) tail++;
        // what lies between is the old value, and nothing else
        String gone = text.substring(same, text.length() - tail);
        assertThat(gone.length()).as(p + " " + names).isLessThan(200);
      }
    }
  }
}
