package ironing.core.lists;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.lists.ModList.Row;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.lists.PublishedList.Kind;
import ironing.core.testkit.Schemas;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.arbitraries.StringArbitrary;
import org.junit.jupiter.api.Test;

class ListReaderTest {
  private static PublishedList read(String text) {
    return ListReader.read("tidy coast.csv", text.getBytes(UTF_8));
  }

  private static List<String> names(PublishedList list) {
    return list.entries().stream().map(Entry::label).toList();
  }

  @Provide
  Arbitrary<List<Row>> rows() {
    StringArbitrary text = Arbitraries.strings().alpha().numeric().withChars(" ,;\"'|\\*=+-@ßé");
    Arbitrary<String> cell = text.ofMinLength(1).ofMaxLength(12).map(String::strip);
    return Combinators.combine(cell, cell, Arbitraries.of(true, false))
        .as((a, b, on) -> new Row(0, "", a, b, on, b, a))
        .filter(r -> !r.name().isEmpty() && !r.name().startsWith("'"))
        .filter(r -> !r.version().startsWith("'"))
        .list()
        .ofMinSize(1)
        .ofMaxSize(8)
        .uniqueElements(r -> ListReader.alike(r.name()))
        .map(
            list -> {
              List<Row> numbered = new ArrayList<>();
              for (Row r : list)
                numbered.add(
                    new Row(
                        numbered.size() + 1,
                        "id-" + numbered.size(),
                        r.name(),
                        r.version(),
                        r.on(),
                        r.section(),
                        r.note()));
              return numbered;
            });
  }

  @Property(tries = 400, seed = "8160")
  void what_is_written_is_read_in_all_three_forms(@ForAll("rows") List<Row> rows) {
    List<Entry> entries =
        rows.stream()
            .map(
                r ->
                    new Entry(
                        r.mod(),
                        r.name(),
                        r.version(),
                        Optional.of(r.on()),
                        r.section(),
                        r.note(),
                        ""))
            .toList();
    assertThat(read(ModList.csv(rows)).entries()).isEqualTo(entries);
    assertThat(read(ModList.json("Coast", rows)).entries()).isEqualTo(entries);
    assertThat(read(ModList.markdown("Coast", rows)).entries()).isEqualTo(entries);
  }

  @Test
  void a_spreadsheets_semicolons_are_read_and_said() {
    PublishedList list = read("sep=;\r\nPosition;Name;On\r\n2;Tar;no\r\n1;Rope; YES \r\n");
    assertThat(names(list)).containsExactly("Rope", "Tar");
    assertThat(list.entries().get(0).on()).contains(true);
    assertThat(list.remarks())
        .containsExactly("Its columns are separated by semicolons, not by commas.");
  }

  @Test
  void other_encodings_are_read_and_said() {
    String text = "name\r\nMöwenfels\r\n";
    for (Charset charset : List.of(StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE)) {
      PublishedList list = ListReader.read("a.csv", ("\uFEFF" + text).getBytes(charset));
      assertThat(names(list)).containsExactly("Möwenfels");
      assertThat(list.remarks()).containsExactly("It is written in UTF-16.");
    }
    PublishedList old = ListReader.read("a.csv", text.getBytes(Charset.forName("windows-1252")));
    assertThat(names(old)).containsExactly("Möwenfels");
    assertThat(old.remarks()).singleElement().asString().contains("Windows-1252");
    assertThat(read("\uFEFF" + text).remarks()).isEmpty();
  }

  @Test
  void doubled_and_empty_lines_are_said_with_their_line() {
    PublishedList list = read("name,on\nRope,yes\n ,yes\nROPE ,no\nTar,perhaps\n");
    assertThat(names(list)).containsExactly("Rope", "Tar");
    assertThat(list.entries().get(1).on()).isEmpty();
    assertThat(list.remarks())
        .containsExactly(
            "Line 3 names nothing, and was passed over.",
            "Line 4 names ROPE again; its first place counts.",
            "Line 5 says “perhaps” under “on”; it counts as not said.");
  }

  @Test
  void positions_that_do_not_count_are_said() {
    PublishedList list = read("position,name\n2,Rope\n2,Tar\n");
    assertThat(names(list)).containsExactly("Rope", "Tar");
    assertThat(list.remarks()).singleElement().asString().contains("missing or doubled");
  }

  @Test
  void a_list_in_markdown_is_read_with_its_marks() {
    PublishedList list = read("# Tidy coast\n\nWords.\n\n1. [x] Rope\n2. [ ] Tar \\*new\\*\n");
    assertThat(list.title()).isEqualTo("Tidy coast");
    assertThat(names(list)).containsExactly("Rope", "Tar *new*");
    assertThat(list.entries().stream().map(Entry::on))
        .containsExactly(Optional.of(true), Optional.of(false));
  }

  @Test
  void plugins_are_told_from_mods() {
    PublishedList list = read("position,plugin,on,from\n1,Skerry.plug,yes,\n2,Rope.plug,no,Rope\n");
    assertThat(list.kind()).isEqualTo(Kind.PLUGINS);
    assertThat(names(list)).containsExactly("Skerry.plug", "Rope.plug");
    assertThat(list.entries().get(1).from()).isEqualTo("Rope");
    assertThat(read("{\"plugins\":[{\"plugin\":\"A.plug\"}]}").kind()).isEqualTo(Kind.PLUGINS);
  }

  @Property(tries = 200, seed = "8160")
  void a_load_order_is_read_as_it_is_written(@ForAll("rows") List<Row> rows) {
    List<PluginList.Row> plugins =
        rows.stream()
            .map(r -> new PluginList.Row(r.position(), r.name(), r.on(), r.version()))
            .toList();
    List<Entry> entries =
        rows.stream()
            .map(r -> new Entry("", r.name(), "", Optional.of(r.on()), "", "", r.version()))
            .toList();
    for (String text :
        List.of(
            PluginList.csv(plugins),
            PluginList.json("Coast", plugins),
            PluginList.markdown("Coast", plugins))) {
      assertThat(read(text).kind()).isEqualTo(Kind.PLUGINS);
      assertThat(read(text).entries()).isEqualTo(entries);
    }
    assertThat(Schemas.errorsInJson("list", PluginList.json("Coast", plugins))).isEmpty();
  }

  @Test
  void what_is_no_list_is_refused_with_the_reason() {
    for (String text :
        List.of(
            "",
            "\n\n",
            "speed,weight\n1,2\n",
            "name\n\n",
            "{\"format\":\"ironing/lock@1\",\"layers\":[]}",
            "{\"format\":\"ironing/list@1\"}",
            "{\"layers\":",
            "name\n\"Rope\n")) {
      assertThatThrownBy(() -> read(text))
          .isInstanceOfSatisfying(
              IroningException.class,
              e -> {
                assertThat(e.problems().get(0).code()).isEqualTo("bad-list");
                assertThat(e.problems().get(0).thing()).isEqualTo("tidy coast.csv");
              });
    }
  }

  @Property(tries = 500, seed = "8160")
  void any_bytes_are_a_list_or_refused(@ForAll byte[] bytes) {
    try {
      assertThat(ListReader.read("x", bytes).entries()).isNotEmpty();
    } catch (IroningException e) {
      assertThat(e.problems().get(0).code()).isEqualTo("bad-list");
    }
  }
}
