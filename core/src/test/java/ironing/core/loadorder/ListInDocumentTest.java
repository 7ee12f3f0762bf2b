package ironing.core.loadorder;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.ListFile;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.plugin.Plugin.Header;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ListInDocumentTest {
  private static final String PLAIN =
      """
      format: ironing/game@1
      id: plain
      title: Plain
      mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
      plugins: { match: "m/*/a.json", is: folder, header: { as: json }, list: %s }
      """;

  private static ListFile list(String form) {
    String yaml = PLAIN.formatted(form);
    assertThat(Schemas.errorsInYaml("game", yaml)).isEmpty();
    GameDefinition g = TestWorld.game(yaml);
    return g.plugins().orElseThrow().list().orElseThrow();
  }

  private static LoadOrder order(String... names) {
    List<Found> found = new ArrayList<>();
    List<Wish> wishes = new ArrayList<>();
    for (String n : names) {
      boolean off = n.startsWith("-");
      String name = off ? n.substring(1) : n;
      found.add(
          new Found(
              name,
              1,
              false,
              "",
              Optional.of(Header.of(5, List.of(), 1)),
              Optional.empty(),
              name,
              Optional.empty()));
      wishes.add(new Wish(name, !off));
    }
    return LoadOrder.of(TestWorld.GAME, found, wishes);
  }

  private static String write(ListFile list, LoadOrder order, String before) {
    return new String(
        ListText.bytes(list, order, Optional.of(before.getBytes(StandardCharsets.UTF_8))),
        StandardCharsets.UTF_8);
  }

  private static ListText.Told read(ListFile list, String text) {
    return ListText.read(list, text.getBytes(StandardCharsets.UTF_8));
  }

  private static final String ATTRIBUTES =
      "{ file: c.xml, as: xml, at: /config/mods/mod, entry: { \"@id\": \"{name}\", \"@on\": \"{on}\" }, keep: true }";

  @Test
  void elements_are_written_in_their_place_and_all_else_keeps_its_bytes() {
    String before =
        "<?xml version='1.0'?>\n<!-- mine -->\n<config v = '2'>\n\t<sound>7</sound>\n  <mods>\n    <mod id=\"old\" on=\"true\"/>\n"
            + "    <!-- kept -->\n    <mod id='a' on='false' more='x'/>\n  </mods>\n  <last/>\n</config>\n";
    String after = write(list(ATTRIBUTES), order("b", "-a"), before);
    assertThat(after)
        .isEqualTo(
            "<?xml version='1.0'?>\n<!-- mine -->\n<config v = '2'>\n\t<sound>7</sound>\n  <mods>\n    <mod id=\"b\" on=\"true\"/>\n"
                + "    <mod id=\"a\" on=\"false\"/>\n    <mod id=\"old\" on=\"true\"/>\n    <!-- kept -->\n  </mods>\n  <last/>\n</config>\n");
    assertThat(read(list(ATTRIBUTES), after).wishes())
        .containsExactly(new Wish("b", true), new Wish("a", false), new Wish("old", true));
  }

  @Test
  void what_is_not_there_is_made_at_the_end_of_its_parent() {
    ListFile texts = list("{ file: c.xml, as: xml, at: /config/mods/li }");
    assertThat(write(texts, order("a", "b"), "<config>\n  <sound/>\n</config>\n"))
        .isEqualTo(
            "<config>\n  <sound/>\n  <mods>\n    <li>a</li>\n    <li>b</li>\n  </mods>\n</config>\n");
    assertThat(write(texts, order("a"), "<config><mods/></config>"))
        .isEqualTo("<config><mods>\n  <li>a</li>\n</mods></config>");
    assertThat(write(texts, order("a"), ""))
        .isEqualTo(
            "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<config>\n  <mods>\n    <li>a</li>\n  </mods>\n</config>\n");
  }

  @Test
  void a_document_that_is_none_is_told_and_written_anew() {
    ListFile texts = list("{ file: c.xml, as: xml, at: /config/mods/li }");
    assertThat(read(texts, "<config><mods>").remarks()).hasSize(1);
    assertThat(read(texts, "<!DOCTYPE c SYSTEM 'x'><config/>").remarks().get(0))
        .contains("document type");
    assertThat(read(texts, "<other/>").remarks().get(0)).contains("its root is <other>");
    assertThat(write(texts, order("a"), "<other/>")).contains("<li>a</li>");
    ListFile json = list("{ file: c.json, as: json, at: \"$.a.order\" }");
    assertThat(read(json, "{\"a\":{\"order\":[\"x\",\"x\",7]}}").remarks()).hasSize(2);
    assertThat(write(json, order("a"), "[1]")).isEqualTo("{\"a\":{\"order\":[\"a\"]}}\n");
  }

  @Test
  void comments_a_byte_order_mark_and_the_encoding_stay() {
    ListFile json = list("{ file: c.json, as: json, at: \"$.order\" }");
    assertThat(write(json, order("a"), "\uFEFF{ // mine\r\n  \"v\": 7, \"order\": [], }\r\n"))
        .isEqualTo("\uFEFF{ // mine\r\n  \"v\": 7, \"order\": [\"a\"], }\r\n");
    byte[] utf16 = "\uFEFF{\"order\":[]}".getBytes(StandardCharsets.UTF_16LE);
    assertThat(ListText.bytes(json, order("ä"), Optional.of(utf16)))
        .isEqualTo("\uFEFF{\"order\":[\"ä\"]}".getBytes(StandardCharsets.UTF_16LE));
  }

  /** What is written is read back, in every form. */
  @Property(tries = 200, seed = "3")
  void what_is_written_is_read_back(@ForAll long seed) {
    Random random = new Random(seed);
    String[] forms = {
      ATTRIBUTES,
      "{ file: c.xml, as: xml, at: /config/mods/li }",
      "{ file: c.json, as: json, at: \"$.a.order\", entry: { id: \"{name}\", on: \"{on}\" } }",
      "{ file: c.json, as: json, at: \"$.order\", keep: true }"
    };
    String form = forms[random.nextInt(forms.length)];
    boolean off = form.contains("{on}");
    List<String> names = new ArrayList<>();
    for (int i = random.nextInt(6); i > 0; i--) {
      String n =
          (off && random.nextBoolean() ? "-" : "")
              + "n"
              + i
              + "<&\"'>ä }]".substring(random.nextInt(9)).strip();
      names.add(n);
    }
    String[] befores = {
      "",
      "<config/>",
      "<config><mods a='>'></mods></config>",
      "{}",
      "{\"a\":{\"b\":1},\"order\":[\"n1\"]}",
      "<config>\r\n  <mods>\r\n    <li>n2</li>\r\n  </mods>\r\n</config>"
    };
    String before = befores[random.nextInt(befores.length)];
    LoadOrder order = order(names.toArray(String[]::new));
    String written = write(list(form), order, before);
    List<Wish> got = read(list(form), written).wishes();
    List<Wish> wanted = new ArrayList<>(order.asWishes());
    assertThat(got.subList(0, wanted.size())).as(written).isEqualTo(wanted);
    assertThat(read(list(form), written).remarks()).as(written).isEmpty();
    assertThat(write(list(form), order, written)).as("again").isEqualTo(written);
  }

  /** A real document, judged by another program: the settings of Java's own library of types. */
  @Test
  void the_document_stays_well_formed(@TempDir Path temp) throws Exception {
    Path pom = Path.of("../pom.xml");
    String before = Files.readString(pom);
    ListFile modules = list("{ file: pom.xml, as: xml, at: /project/modules/module, keep: true }");
    String after = write(modules, order("one", "two & three"), before);
    Path written = Files.writeString(temp.resolve("pom.xml"), after);
    Process lint =
        new ProcessBuilder(
                "xmllint",
                "--xpath",
                "concat(count(//*[local-name()='module']),'|',//*[local-name()='module'][2])",
                written.toString())
            .start();
    int was = before.split("<module>").length - 1;
    assertThat(new String(lint.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip())
        .isEqualTo((was + 2) + "|two & three");
    String gone =
        after.replace("\n    <module>one</module>\n    <module>two &amp; three</module>", "");
    assertThat(gone).isEqualTo(before);
  }
}
