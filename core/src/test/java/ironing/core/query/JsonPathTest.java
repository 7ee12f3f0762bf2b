package ironing.core.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class JsonPathTest {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String[] NAMES = {"a", "b", "c d", "é", "", "x'y", "0x"};

  private static JsonNode tree(String json) throws IOException {
    return JSON.readTree(json.replace('\'', '"'));
  }

  private static List<String> places(String query, JsonNode document) {
    return JsonPath.of(query).find(document, new Steps()).stream()
        .map(JsonPath.Hit::place)
        .toList();
  }

  // RFC 9535, the examples of 2.3.1.3, 2.3.3.3, 2.3.4.3 and 2.3.5.3
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{'o': {'j j': {'k.k': 3}}, '!': 1} | $.o['j j'] | $['o']['j j']",
        "{'o': {'j j': {'k.k': 3}}, '!': 1} | $.o['j j']['k.k'] | $['o']['j j']['k.k']",
        "['a', 'b'] | $[1] | $[1]",
        "['a', 'b'] | $[-2] | $[0]",
        "['a','b','c','d','e','f','g'] | $[1:3] | $[1] $[2]",
        "['a','b','c','d','e','f','g'] | $[5:] | $[5] $[6]",
        "['a','b','c','d','e','f','g'] | $[1:5:2] | $[1] $[3]",
        "['a','b','c','d','e','f','g'] | $[5:1:-2] | $[5] $[3]",
        "['a','b','c','d','e','f','g'] | $[::-1] | $[6] $[5] $[4] $[3] $[2] $[1] $[0]",
        "{'a':[3,5,1,2,4,6,{'b':'j'},{'b':'k'}]} | $.a[?@.b == 'k'] | $['a'][7]",
        "{'a':[3,5,1,2,4,6,{'b':'j'},{'b':'k'}]} | $.a[?@>3.5] | $['a'][1] $['a'][4] $['a'][5]",
        "{'a':[3,5,1,2,4,6,{'b':'j'},{'b':'k'}]} | $.a[?@.b] | $['a'][6] $['a'][7]"
      })
  void the_examples_of_the_standard(String document, String query, String found)
      throws IOException {
    assertThat(places(query, tree(document))).isEqualTo(List.of(found.split(" (?=\\$)")));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "a | 1",
        "$.a[ | 5",
        "$..a | 2",
        "$[01] | 4",
        "$.a b | 4",
        "$[?@.a=='x] | 12",
        "$[?length(@)>1] | 4",
        "$[?@[*]==1] | 4",
        "$[?1] | 4",
        "$['\\q'] | 6"
      })
  void what_cannot_be_read_is_told_with_its_place(String query, int column) {
    assertThatThrownBy(() -> JsonPath.of(query))
        .isInstanceOfSatisfying(
            QuerySyntax.class, e -> assertThat(e.column()).as(query).isEqualTo(column));
  }

  @Test
  void what_looks_at_too_many_places_ends() throws IOException {
    StringBuilder wide = new StringBuilder("[0");
    for (int i = 1; i < 2_000; i++) wide.append(',').append(i);
    JsonNode document = tree(wide.append(']').toString());
    JsonPath each = JsonPath.of("$[?$[?$[?@==1999999]]]");
    assertThatThrownBy(() -> each.find(document, new Steps(1_000_000)))
        .isInstanceOf(Steps.TooMany.class);
  }

  private static String value(Random random, int depth) {
    return switch (random.nextInt(depth > 3 ? 4 : 7)) {
      case 0 -> Integer.toString(random.nextInt(5) - 1);
      case 1 -> random.nextBoolean() ? "true" : "null";
      case 2 -> "\"" + "abä".charAt(random.nextInt(3)) + "\"";
      case 3 -> random.nextInt(4) + ".5";
      case 4 -> {
        List<String> items = new ArrayList<>();
        for (int i = random.nextInt(5); i > 0; i--) items.add(value(random, depth + 1));
        yield "[" + String.join(",", items) + "]";
      }
      default -> {
        List<String> members = new ArrayList<>();
        for (String n : NAMES)
          if (random.nextInt(3) == 0) members.add("\"" + n + "\":" + value(random, depth + 1));
        yield "{" + String.join(",", members) + "}";
      }
    };
  }

  private static String quoted(String name) {
    return "'" + name.replace("'", "\\'") + "'";
  }

  private static String number(Random random) {
    return random.nextInt(3) == 0 ? "" : Integer.toString(random.nextInt(9) - 4);
  }

  private static String selector(Random random, int depth) {
    return switch (random.nextInt(depth > 2 ? 5 : 7)) {
      case 0 -> quoted(NAMES[random.nextInt(NAMES.length)]);
      case 1 -> Integer.toString(random.nextInt(7) - 3);
      case 2 -> "*";
      case 3 -> number(random) + ":" + number(random);
      case 4 -> number(random) + " : " + number(random) + ":" + number(random);
      default -> "?" + filter(random, depth + 1);
    };
  }

  private static String filter(Random random, int depth) {
    return switch (random.nextInt(depth > 2 ? 3 : 6)) {
      case 0 -> inner(random, depth);
      case 1, 2 ->
          side(random, depth)
              + new String[] {"==", " != ", "<", "<= ", ">", ">="}[random.nextInt(6)]
              + side(random, depth);
      case 3 -> "!(" + filter(random, depth + 1) + ")";
      case 4 -> filter(random, depth + 1) + " && " + filter(random, depth + 1);
      default -> "(" + filter(random, depth + 1) + "||" + filter(random, depth + 1) + ")";
    };
  }

  private static String inner(Random random, int depth) {
    return (random.nextInt(5) == 0 ? "$" : "@") + segments(random, depth + 1, 2);
  }

  private static String side(Random random, int depth) {
    return switch (random.nextInt(6)) {
      case 0 -> "1";
      case 1 -> "'a'";
      case 2 -> random.nextBoolean() ? "true" : "null";
      // not 0.5, which RFC 9535 allows: the other implementation does not read it
      case 3 -> "1.5e0";
      // at times one that can match several places, which is refused
      case 4 -> inner(random, depth);
      default -> "@" + (random.nextBoolean() ? ".a" : "[0]");
    };
  }

  private static String segments(Random random, int depth, int most) {
    StringBuilder out = new StringBuilder();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      if (random.nextInt(3) == 0) out.append(random.nextBoolean() ? ".a" : ".*");
      else {
        out.append('[').append(selector(random, depth));
        if (random.nextInt(4) == 0) out.append(", ").append(selector(random, depth));
        out.append(']');
      }
    }
    return out.toString();
  }

  /** Against another implementation of the standard, json-p3 of the npm registry. */
  @Test
  void random_queries_find_what_another_implementation_finds() throws Exception {
    Random random = new Random(9535);
    Process node =
        new ProcessBuilder("node", Path.of("src/test/node/jsonpath.mjs").toString())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    int some = 0, refused = 0;
    try (BufferedWriter out = node.outputWriter(StandardCharsets.UTF_8);
        BufferedReader in = node.inputReader(StandardCharsets.UTF_8)) {
      for (int i = 0; i < 4_000; i++) {
        String query = "$" + segments(random, 0, 4), whole = query;
        if (random.nextInt(10) == 0 && query.length() > 2) {
          int at = 1 + random.nextInt(query.length() - 1);
          String cut = query.substring(0, at) + query.substring(at + 1);
          // descendants are refused here and not there
          if (!cut.contains("..")) query = cut;
        }
        ObjectNode asked = JSON.createObjectNode().put("query", query);
        asked.set("document", JSON.readTree(value(random, 0)));
        out.write(JSON.writeValueAsString(asked) + "\n");
        out.flush();
        JsonNode expected = JSON.readTree(in.readLine());
        List<String> found;
        try {
          found = places(query, asked.get("document"));
        } catch (QuerySyntax e) {
          // the other one takes some that RFC 9535 does not, such as [1:2-3]: what was cut is not
          // held against it
          if (query.equals(whole))
            assertThat(expected.isNull()).as("%s: %s", query, e.getMessage()).isTrue();
          refused++;
          continue;
        }
        List<String> wanted = new ArrayList<>();
        expected.forEach(p -> wanted.add(p.asText()));
        assertThat(expected.isNull()).as(query).isFalse();
        assertThat(found).as("%s in %s", query, asked.get("document")).isEqualTo(wanted);
        if (!found.isEmpty()) some++;
      }
    } finally {
      node.destroy();
    }
    assertThat(some).isGreaterThan(500);
    assertThat(refused).isGreaterThan(100);
  }
}
