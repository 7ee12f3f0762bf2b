package ironing.core.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Document;
import org.w3c.dom.Node;

class XPathQueryTest {
  private static final String[] TAGS = {"a", "b", "c"};

  private static Document parsed(String xml) throws Exception {
    DocumentBuilderFactory f = DocumentBuilderFactory.newDefaultInstance();
    f.setNamespaceAware(true);
    return f.newDocumentBuilder()
        .parse(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
  }

  private static String element(Random random, int depth) {
    StringBuilder out = new StringBuilder("<").append(TAGS[random.nextInt(3)]);
    if (random.nextInt(2) == 0) out.append(" n='").append(random.nextInt(3)).append('\'');
    if (random.nextInt(3) == 0) out.append(" m='x'");
    int at = out.indexOf(" ") < 0 ? out.length() : out.indexOf(" ");
    String tag = out.substring(1, at);
    out.append('>');
    for (int i = depth > 3 ? 0 : random.nextInt(4); i > 0; i--)
      out.append(random.nextInt(4) == 0 ? "t" + i : element(random, depth + 1));
    return out.append("</").append(tag).append('>').toString();
  }

  private static String query(Random random) {
    StringBuilder out = new StringBuilder("/root");
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      out.append('/').append(random.nextInt(5) == 0 ? "*" : TAGS[random.nextInt(3)]);
      switch (random.nextInt(7)) {
        case 0 -> out.append("[@n='1']");
        case 1 -> out.append("[").append(TAGS[random.nextInt(3)]).append("]");
        case 2 -> out.append("[2]");
        case 3 -> out.append("[@m and not(@n)]");
        case 4 -> out.append("[a/b/@n > 0]");
        default -> {
          // plain
        }
      }
    }
    if (random.nextInt(3) == 0) out.append("/@n");
    return out.toString();
  }

  /** Against libxml2's xmllint. */
  @Test
  void random_expressions_find_what_xmllint_finds(@TempDir Path temp) throws Exception {
    Random random = new Random(1);
    int found = 0;
    for (int d = 0; d < 40; d++) {
      StringBuilder xml = new StringBuilder("<root>");
      for (int i = 0; i < 6; i++) xml.append(element(random, 0));
      xml.append("</root>");
      Path file = Files.writeString(temp.resolve("d.xml"), xml);
      List<String> ours = new ArrayList<>(), asked = new ArrayList<>();
      for (int q = 0; q < 25; q++) {
        String query = query(random);
        List<Node> nodes = XPathQuery.of(query, Map.of()).find(parsed(xml.toString()));
        found += nodes.size();
        ours.add(nodes.size() + ":" + (nodes.isEmpty() ? "" : XPathQuery.textOf(nodes.get(0))));
        asked.add("count(" + query + "),':',string(" + query + "),'|'");
      }
      Process lint =
          new ProcessBuilder(
                  "xmllint",
                  "--xpath",
                  "concat(" + String.join(",", asked) + ",'')",
                  file.toString())
              .redirectErrorStream(true)
              .start();
      String said = new String(lint.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      assertThat(said.stripTrailing()).isEqualTo(String.join("|", ours) + "|");
    }
    assertThat(found).isGreaterThan(300);
  }

  @Test
  void namespaces_are_told_apart_by_what_their_prefixes_mean() throws Exception {
    Document d = parsed("<r xmlns:q='urn:x' xmlns='urn:y'><q:a n='1'/><a n='2'/></r>");
    Map<String, String> names = Map.of("p", "urn:x", "y", "urn:y");
    assertThat(XPathQuery.of("/y:r/p:a", names).find(d)).hasSize(1);
    assertThat(XPathQuery.of("/y:r/y:a/@n", names).find(d).get(0).getNodeValue()).isEqualTo("2");
    assertThat(XPathQuery.of("/y:r/y:a[@n='2']", names).find(d)).hasSize(1);
    assertThat(XPathQuery.of("/r/a", Map.of()).find(d)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "//rule | 1",
        "/a//b | 3",
        "/a/ancestor::b | 4",
        "/a[../b] | 4",
        "/a[/b] | 4",
        "/a[ | 0",
        "/a/following::* | 4"
      })
  void what_could_look_everywhere_is_refused_with_its_place(String query, int column) {
    assertThatThrownBy(() -> XPathQuery.of(query, Map.of()))
        .isInstanceOfSatisfying(QuerySyntax.class, e -> assertThat(e.column()).isEqualTo(column));
  }

  @Test
  void what_stands_in_quotes_is_no_way() {
    assertThat(XPathQuery.of("/a[@n='//x']", Map.of()).steps()).isEmpty();
    assertThat(XPathQuery.of("/a/b", Map.of()).steps()).contains(List.of("a", "b"));
  }
}
