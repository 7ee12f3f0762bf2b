package ironing.core.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** The contract of every form: what is written is read back as it was. */
class DocumentWriterTest {
  private static final GameDefinition GAME = Foundry.game();

  private static Map<Ref, Optional<Value.Fields>> contents(RecordTable t) throws IOException {
    Map<Ref, Optional<Value.Fields>> all = new LinkedHashMap<>();
    for (int row = 0; row < t.size(); row++)
      all.put(t.key(row), t.record(row, RecordTable.Bytes.of(new byte[0])).fields());
    return all;
  }

  private static Map<String, byte[]> below(Map<String, byte[]> files, String folder) {
    Map<String, byte[]> out = new TreeMap<>();
    files.forEach((path, bytes) -> out.put(path.substring(folder.length() + 1), bytes));
    return out;
  }

  @Property(tries = 300, seed = "20261201")
  void whatIsWrittenIsReadBackAsItWas(@ForAll long seed) throws IOException {
    List<Plugin.Record> records = RandomDocuments.records(new Random(seed));
    Map<String, byte[]> files =
        new DocumentWriter(GAME).files(RandomDocuments.patch(records), List.of());
    RecordTable back = Foundry.readBytes(GAME, "bells/my-patch", below(files, "bells/my-patch"));
    assertThat(back.warnings()).isEmpty();
    assertThat(back.name()).isEqualTo("my-patch");
    assertThat(back.header().masters()).containsExactly("base", "tower");
    assertThat(back.header().title()).contains("A \"patch\"");
    Map<Ref, Optional<Value.Fields>> wanted = new LinkedHashMap<>();
    records.forEach(r -> wanted.put(r.key(), r.fields()));
    Map<Ref, Optional<Value.Fields>> got = contents(back);
    assertThat(got.keySet()).isEqualTo(wanted.keySet());
    wanted.forEach((key, f) -> assertThat(got.get(key)).as(key.toString()).isEqualTo(f));
  }

  @Test
  void attributesAndListsOfXmlComeBackAsSuch() throws IOException {
    String xml =
        """
        <rules>
          <rule name="ring" at="6" loud="yes"><times>3</times>
            <who age="70"><name>Ann</name></who><bells><bell>c</bell><bell tone="x">e</bell></bells></rule>
          <rule name="list"><step>1</step><step>2</step></rule>
          <rule name="bare"/>
          <rule name="whole">Ring <b at="1&quot;">twice</b> &amp; stop</rule>
        </rules>
        """;
    RecordTable was =
        Foundry.read(GAME, "bells/t", Map.of("foundry.json", "{\"id\":\"t\"}", "rules/r.xml", xml));
    assertThat(was.warnings()).isEmpty();
    List<Plugin.Record> records = new ArrayList<>();
    contents(was).forEach((key, f) -> records.add(new Plugin.Record("rule", key, f)));
    Map<String, byte[]> files =
        new DocumentWriter(GAME).files(RandomDocuments.patch(records), List.of(was.header()));
    String written =
        new String(files.get("bells/my-patch/rules/patch.xml"), StandardCharsets.UTF_8);
    assertThat(written)
        .contains("at=\"6\"")
        .contains("<times>3</times>")
        .contains("<bell>c</bell>");
    RecordTable back = Foundry.readBytes(GAME, "bells/my-patch", below(files, "bells/my-patch"));
    assertThat(contents(back)).isEqualTo(contents(was));
  }

  @Test
  void aRecordOfWhichThereIsNoWordForBeingRemovedIsRefused() {
    Plugin.Record gone =
        new Plugin.Record("rule", Ref.named("rule", List.of("x")), Optional.empty());
    assertThatThrownBy(
            () -> new DocumentWriter(GAME).files(RandomDocuments.patch(List.of(gone)), List.of()))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("rule/=x")
        .matches(e -> ((IroningException) e).problems().get(0).code().equals("patch-unwritable"));
    Plugin.Record read =
        new Plugin.Record(
            "word", Ref.named("word", List.of("x")), Optional.of(new Value.Fields(Map.of())));
    assertThatThrownBy(
            () -> new DocumentWriter(GAME).files(RandomDocuments.patch(List.of(read)), List.of()))
        .isInstanceOf(IroningException.class);
  }

  /** What a user has written as a value of their own may be none that the form can hold. */
  @Test
  void whatTheFormCannotHoldIsRefusedAndNotLost() {
    Value list = new Value.Array(List.of(new Value.Int(1)));
    for (Plugin.Record r :
        List.of(
            new Plugin.Record(
                "alloy",
                Ref.named("alloy", List.of("1", "2")),
                Optional.of(new Value.Fields(Map.of("note", list)))),
            new Plugin.Record(
                "room",
                Ref.named("room", List.of("x")),
                Optional.of(new Value.Fields(Map.of("door", new Value.Text("a\nb = c"))))),
            new Plugin.Record(
                "rule",
                Ref.named("rule", List.of("x")),
                Optional.of(new Value.Fields(Map.of("at", new Value.Text("a\u0001"))))))) {
      assertThatThrownBy(
              () -> new DocumentWriter(GAME).files(RandomDocuments.patch(List.of(r)), List.of()))
          .as(r.toString())
          .isInstanceOf(IroningException.class)
          .hasMessageContaining(r.key().toString());
    }
    Plugin.Record number =
        new Plugin.Record(
            "room",
            Ref.named("room", List.of("x")),
            Optional.of(new Value.Fields(Map.of("door", new Value.Int(5)))));
    assertThat(new DocumentWriter(GAME).files(RandomDocuments.patch(List.of(number)), List.of()))
        .hasSize(2);
  }

  @Test
  void aNameBecomesOneThatAPathCanHave() {
    assertThat(DocumentWriter.slug("Everyday patch")).isEqualTo("Everyday-patch");
    assertThat(DocumentWriter.slug("../a/b: ü")).isEqualTo("a-b-ü");
    assertThat(DocumentWriter.slug("...")).isEqualTo("patch");
  }
}
