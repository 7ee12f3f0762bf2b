package ironing.core.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginException;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DocumentReaderTest {
  private static final GameDefinition GAME = Foundry.game();
  private static final String MANIFEST = "{\"id\":\"tower\",\"needs\":[{\"id\":\"base\"}]}";

  private static Map<String, Value> fields(RecordTable t, Ref key) {
    return record(t, key).orElseThrow().fields().orElseThrow().map();
  }

  private static Optional<Plugin.Record> record(RecordTable t, Ref key) {
    for (int row = 0; row < t.size(); row++) {
      if (!t.key(row).equals(key)) continue;
      try {
        return Optional.of(t.record(row, RecordTable.Bytes.of(new byte[0])));
      } catch (IOException e) {
        throw new IllegalStateException(e);
      }
    }
    return Optional.empty();
  }

  private static Ref key(String type, String... id) {
    return Ref.named(type, List.of(id));
  }

  @Test
  void readsTheManifestWithCommentsAndLastCommas() throws IOException {
    RecordTable t =
        Foundry.read(
            GAME,
            "bells/tower",
            Map.of(
                "foundry.json",
                """
                // made by hand
                { "id": "tower", "title": "Tower bells", "version": "1.2",
                  "needs": [ { "id": "base" }, { "id": "bronze" }, ], "after": [ "ropes" ] }
                """));
    assertThat(t.name()).isEqualTo("tower");
    assertThat(t.header().title()).contains("Tower bells");
    assertThat(t.header().version()).contains("1.2");
    assertThat(t.header().masters()).containsExactly("base", "bronze");
    assertThat(t.seen()).contains("base", "bronze").doesNotContain("ropes");
    assertThat(t.warnings()).isEmpty();
  }

  @Test
  void readsRecordsOfEveryForm() throws IOException {
    RecordTable t =
        Foundry.read(
            GAME,
            "bells/tower",
            Map.of(
                "foundry.json", MANIFEST,
                "casts/deep/big.json",
                    "{\"casts\":[{\"id\":\"great\",\"name\":\"Great\",\"weight\":1.50},"
                        + "{\"id\":7,\"melted\":true}]}",
                "rules/a.xml",
                    "<rules><rule name='ring' at='6'><times>3</times></rule>"
                        + "<rule name='say' lang='en'>Ding</rule></rules>",
                "alloys.csv", "copper,tin,price,note\n80,20,3.5,\"a, b\"\n",
                "words/en.json", "{\"hello\":\"Good day\",\"/%\":{\"a\":1}}",
                "rooms.ini", "[belfry]\nsteps = 199\n",
                "notes/n.yaml", "notes:\n  - id: one\n    of: [ 1, two, true ]\n"));
    assertThat(t.warnings()).isEmpty();
    assertThat(t.size()).isEqualTo(9);
    assertThat(fields(t, key("cast", "great")))
        .containsEntry("weight", new Value.Real(1.5))
        .doesNotContainKey("id");
    assertThat(record(t, key("cast", "7")).orElseThrow().fields()).isEmpty();
    assertThat(fields(t, key("rule", "ring")))
        .containsEntry("at", new Value.Text("6"))
        .containsEntry("times", new Value.Text("3"));
    assertThat(fields(t, key("rule", "say"))).containsEntry("text()", new Value.Text("Ding"));
    assertThat(fields(t, key("alloy", "80", "20")))
        .containsEntry("price", new Value.Real(3.5))
        .containsEntry("note", new Value.Text("a, b"));
    assertThat(fields(t, key("word", "hello")))
        .containsEntry("(value)", new Value.Text("Good day"));
    assertThat(fields(t, key("word", "/%"))).containsEntry("a", new Value.Int(1));
    assertThat(key("word", "/%").names()).containsExactly("/%");
    assertThat(fields(t, key("room", "belfry"))).containsEntry("steps", new Value.Text("199"));
    assertThat(fields(t, key("note", "one")))
        .containsEntry(
            "of",
            new Value.Array(
                List.of(new Value.Int(1), new Value.Text("two"), new Value.Truth(true))));
  }

  @Test
  void whatIsWrongWithOneRecordIsToldWithItsPlaceAndLeavesTheOthers() throws IOException {
    RecordTable t =
        Foundry.read(
            GAME,
            "bells/tower",
            Map.of(
                "foundry.json",
                MANIFEST,
                "casts/a.json",
                "{\"casts\":[{\"name\":\"no id\"},{\"id\":1.5},{\"id\":\"b\",\"weight\":1e400},"
                    + "{\"id\":\"c\",\"n\":123456789012345678901234567890},{\"id\":\"good\"}]}",
                "casts/b.json",
                "{\"casts\":[{\"id\":\"good\",\"name\":\"later\"}",
                "alloys.csv",
                "copper,tin\n1\n,2\n3,4\n"));
    assertThat(t.size()).isEqualTo(2);
    assertThat(t.warnings())
        .anyMatch(w -> w.contains("casts/a.json $['casts'][0]: it has no id"))
        .anyMatch(w -> w.contains("casts/a.json $['casts'][1]: it has no id"))
        .anyMatch(w -> w.contains("$['casts'][2]: the number 1E+400 has more digits"))
        .anyMatch(w -> w.contains("$['casts'][3]: the number 123456789012345678901234567890"))
        .anyMatch(w -> w.startsWith("casts/b.json: it is not JSON (line 1, column "))
        .anyMatch(w -> w.contains("alloys.csv row 2: it has 1 cells and the header 2"))
        .anyMatch(w -> w.contains("alloys.csv row 3: a cell of its key is empty"));
  }

  @Test
  void ofAnIdThatStandsTwiceTheLaterCountsAndBothPlacesAreTold() throws IOException {
    RecordTable t =
        Foundry.read(
            GAME,
            "bells/tower",
            Map.of(
                "foundry.json", MANIFEST,
                "casts/a.json", "{\"casts\":[{\"id\":\"x\",\"n\":1}]}",
                "casts/b.json", "{\"casts\":[{\"id\":\"x\",\"n\":2}]}"));
    assertThat(fields(t, key("cast", "x"))).containsEntry("n", new Value.Int(2));
    assertThat(t.warnings())
        .containsExactly(
            "The cast x stands twice, at casts/a.json $['casts'][0] and at casts/b.json"
                + " $['casts'][0]; the later counts.");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "[]",
        "{\"id\":\"\"}",
        "{\"id\":5.5e999}",
        "{\"id\":\"a\\u0007\"}",
        "{\"id\":\"a\",\"id\":\"b\"}",
        "{\"title\":\"no name\"}",
        "{\"id\":\"a\"} x"
      })
  void aManifestThatSaysNothingRefusesThePluginAndNamesTheFile(String manifest) {
    assertThatThrownBy(() -> Foundry.read(GAME, "bells/tower", Map.of("foundry.json", manifest)))
        .isInstanceOf(PluginException.class)
        .hasMessageContaining("bells/tower/foundry.json");
  }

  @Test
  void aNameIsAtMost128CharactersLong() throws IOException {
    String longest = "x".repeat(127) + "\uD834\uDD1E";
    assertThat(
            Foundry.read(GAME, "bells/t", Map.of("foundry.json", "{\"id\":\"" + longest + "\"}"))
                .name())
        .isEqualTo(longest);
    assertThatThrownBy(
            () ->
                Foundry.read(
                    GAME, "bells/t", Map.of("foundry.json", "{\"id\":\"x" + longest + "\"}")))
        .isInstanceOf(PluginException.class);
  }

  // external entities and document types: the checks of the OWASP cheat sheet on XML
  @ParameterizedTest
  @ValueSource(
      strings = {
        "<!DOCTYPE rules [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><rules><rule name='x'>&e;</rule></rules>",
        "<!DOCTYPE rules SYSTEM 'http://127.0.0.1:1/x.dtd'><rules><rule name='x'/></rules>",
        "<rules><rule name='x'>&undefined;</rule></rules>",
        "<rules><rule name='x'></rules>",
        "<rules xmlns:p='u'><rule name='x' name='y'/></rules>"
      })
  void xmlThatPointsOutsideOrIsBrokenIsNotRead(String xml) throws IOException {
    RecordTable t =
        Foundry.read(GAME, "bells/t", Map.of("foundry.json", MANIFEST, "rules/r.xml", xml));
    assertThat(t.size()).isZero();
    assertThat(t.warnings()).singleElement().asString().startsWith("rules/r.xml: it ");
  }

  @Test
  void anElementWithTextBesideChildrenIsWhole() throws IOException {
    RecordTable t =
        Foundry.read(
            GAME,
            "bells/t",
            Map.of(
                "foundry.json",
                MANIFEST,
                "rules/r.xml",
                "<rules><rule name='x'>Ring <b>twice</b> &amp; stop</rule>"
                    + "<rule name='y'><step>1</step><step>2</step></rule></rules>"));
    assertThat(fields(t, key("rule", "x")))
        .isEqualTo(Map.of("(value)", new Value.Text("<rule>Ring <b>twice</b> &amp; stop</rule>")));
    assertThat(fields(t, key("rule", "y")))
        .isEqualTo(
            Map.of("text()", new Value.Array(List.of(new Value.Text("1"), new Value.Text("2")))));
  }

  @Test
  void thePrintsOfTwoPluginsAreTheSameWhereTheySayTheSame() throws IOException {
    RecordTable a =
        Foundry.read(
            GAME,
            "bells/a",
            Map.of(
                "foundry.json",
                MANIFEST,
                "casts/1.json",
                "{\"casts\":[{\"id\":\"x\",\"weight\":2,\"tones\":[\"c\",\"e\"]}]}"));
    RecordTable b =
        Foundry.read(
            GAME,
            "bells/b",
            Map.of(
                "foundry.json", "{\"id\":\"other\"}",
                "casts/2.json",
                    "{\"casts\":[{\"tones\":[\"e\",\"c\"],\"weight\":2.0,\"id\":\"x\"}]}"));
    assertThat(a.print(0)).isEqualTo(b.print(0));
  }
}
