package ironing.core.plugin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Value.Ref;
import ironing.core.testkit.Refused;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.EdgeCasesMode;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.Tuple;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PluginCodecTest {
  private static final String NAME = "Mine.plug";
  private static final List<String> MASTERS = List.of("Base.plug", "Isles.plug");

  private static Arbitrary<Ref> refs() {
    return Combinators.combine(
            Arbitraries.of("Base.plug", "Isles.plug", NAME),
            Arbitraries.integers().between(1, Plugin.MAX_ID))
        .as(Ref::new);
  }

  private static Arbitrary<Value> values(int depth) {
    Arbitrary<Value> simple =
        Arbitraries.oneOf(
            Arbitraries.just(Value.NULL),
            Arbitraries.of(true, false).map(Value.Truth::new),
            Arbitraries.longs().map(Value.Int::new),
            Arbitraries.doubles().map(Value.Real::new),
            Arbitraries.of(0.1, -0.0, 1e300, 65504.0, 0x1p-24).map(Value.Real::new),
            Arbitraries.strings()
                .ofMaxLength(20)
                .filter(PluginCodecTest::isWellFormed)
                .map(Value.Text::new),
            Arbitraries.bytes().array(byte[].class).ofMaxSize(8).map(Value.Bytes::new),
            refs().map(r -> (Value) r));
    if (depth == 0) return simple;
    return Arbitraries.frequencyOf(
        Tuple.of(4, simple),
        Tuple.of(1, values(depth - 1).list().ofMaxSize(3).map(Value.Array::new)),
        Tuple.of(1, fields(depth - 1).map(f -> (Value) f)));
  }

  // a lone surrogate has no UTF-8
  private static boolean isWellFormed(String s) {
    return new String(s.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8).equals(s);
  }

  private static Arbitrary<Value.Fields> fields(int depth) {
    return Arbitraries.maps(
            Arbitraries.of(
                "name", "speed", "ref", "base64", "map", "ö", "a long key of more than 24 letters"),
            values(depth))
        .ofMaxSize(4)
        .map(Value.Fields::new);
  }

  @Provide
  Arbitrary<Plugin> plugins() {
    Arbitrary<Plugin.Record> record =
        Combinators.combine(Arbitraries.of("vessel", "harbour"), refs(), fields(2).optional())
            .as((type, key, f) -> new Plugin.Record(type, key, f));
    Arbitrary<Header> header =
        Combinators.combine(
                Arbitraries.integers().between(0, 9),
                Arbitraries.strings().alpha().ofMaxLength(5).optional(),
                Arbitraries.<Map<String, Value>>of(Map.of(), Map.of("later", new Value.Int(7))))
            .as(
                (stage, title, other) ->
                    new Header(
                        stage,
                        MASTERS,
                        1,
                        title,
                        Optional.empty(),
                        Optional.of("1.0"),
                        Optional.empty(),
                        Optional.of(">=1"),
                        List.of("x.crate"),
                        other));
    return Combinators.combine(header, record.list().ofMaxSize(6))
        .as(
            (h, records) -> {
              Map<Ref, Plugin.Record> once = new LinkedHashMap<>();
              records.forEach(r -> once.put(r.key(), r));
              return new Plugin(NAME, h, List.copyOf(once.values()));
            });
  }

  @Property(edgeCases = EdgeCasesMode.NONE, seed = "8160")
  void what_is_written_is_read_back_and_written_again_the_same(@ForAll("plugins") Plugin p) {
    byte[] bytes = PluginCodec.encode(p);
    PluginCodec.Decoded read = PluginCodec.decode(NAME, bytes);
    assertThat(read.plugin().header()).isEqualTo(p.header());
    assertThat(read.plugin().records()).isEqualTo(p.inWritingOrder());
    assertThat(PluginCodec.encode(read.plugin())).isEqualTo(bytes);
    assertThat(read.warnings()).noneMatch(w -> w.contains("deterministic"));
    assertThat(PluginCodec.decodeHeader(NAME, bytes)).isEqualTo(p.header());
  }

  @Property(edgeCases = EdgeCasesMode.NONE, seed = "8160")
  void a_file_comes_back_from_its_text_form_byte_for_byte(@ForAll("plugins") Plugin p) {
    byte[] bytes = PluginCodec.encode(p);
    String text = PluginText.write(PluginCodec.decode(NAME, bytes).plugin());
    assertThat(PluginCodec.encode(PluginText.parse(NAME, text))).isEqualTo(bytes);
    assertThat(text).endsWith("}\n");
  }

  @Property(tries = 2000, edgeCases = EdgeCasesMode.NONE, seed = "8160")
  void a_damaged_file_gives_a_clean_error_or_a_plugin(
      @ForAll("plugins") Plugin p, @ForAll @IntRange(max = 10_000) int where, @ForAll byte what) {
    byte[] bytes = PluginCodec.encode(p);
    bytes[where % bytes.length] = what;
    try {
      assertThat(PluginCodec.decode(NAME, bytes).plugin()).isNotNull();
    } catch (PluginException e) {
      assertThat(e).hasMessageContaining(NAME).hasMessageContaining("at byte");
    }
  }

  @Test
  void a_text_form_without_a_next_id_gets_one_above_its_highest_own() {
    String head = "{\"format\":\"ironing/plugin@1\"}\n";
    String line = "{\"type\":\"v\",\"id\":\"Mine.plug/7\",\"fields\":{}}\n";
    assertThat(PluginText.parse("Mine.plug", head).header().nextId()).isEqualTo(1);
    assertThat(PluginText.parse("Mine.plug", head + line).header().nextId()).isEqualTo(8);
  }

  @Test
  void records_are_written_by_owner_then_id() {
    List<Plugin.Record> records = new ArrayList<>();
    for (String key : List.of("Mine.plug/2", "Isles.plug/9", "base.plug/7", "Base.plug/3"))
      records.add(record(key, Optional.empty()));
    Plugin p = new Plugin(NAME, Header.of(5, MASTERS, 3), records);
    assertThat(PluginCodec.decode(NAME, PluginCodec.encode(p)).plugin().records())
        .extracting(r -> r.key().toString())
        .containsExactly("Base.plug/3", "Base.plug/7", "Isles.plug/9", "Mine.plug/2");
  }

  private static Plugin.Record record(String key, Optional<Value.Fields> fields) {
    int slash = key.indexOf('/');
    return new Plugin.Record(
        "vessel",
        new Ref(key.substring(0, slash), Integer.parseInt(key.substring(slash + 1))),
        fields);
  }

  @Test
  void a_reference_without_its_master_cannot_be_written() {
    Plugin p =
        new Plugin(
            NAME, Header.of(5, List.of(), 1), List.of(record("Base.plug/1", Optional.empty())));
    assertThatThrownBy(() -> PluginCodec.encode(p))
        .isInstanceOf(PluginException.class)
        .hasMessageContaining("Base.plug/1")
        .hasMessageContaining("master");
  }

  /** Text lines: an error names the line, the reason and what to do. */
  @ParameterizedTest(name = "{1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "{\"format\":\"other\"} | header's format is not | 1",
        "{\"format\":\"ironing/plugin@1\",\"stage\":10} | stage is 10 | 1",
        "{\"format\":\"ironing/plugin@1\",\"stage\":\"x\"} | no whole number | 1",
        "{\"format\":\"ironing/plugin@1\",\"nextId\":0} | nextId is 0 | 1",
        "{\"format\":\"ironing/plugin@1\",\"masters\":[\"a/b.plug\"]} | no bare file name | 1",
        "{\"format\":\"ironing/plugin@1\",\"masters\":[\"A.plug\",\"a.plug\"]} | twice | 1",
        "{\"format\":\"ironing/plugin@1\",\"masters\":[\"mine.plug\"]} | itself | 1",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\"} | needs fields | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/007\",\"fields\":{}} | no record's key | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/16777216\",\"fields\":{}} | not within 1 to 16777215 | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"V!\",\"id\":\"Mine.plug/1\",\"fields\":{}} | type is no word | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"n\":99999999999999999999}} | beyond 64 bits | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{}}~{\"type\":\"v\",\"id\":\"mine.plug/1\",\"fields\":{}} | stands on line 2 already | 3",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a\":{\"ref\":5}}} | /fields/a | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a\":[0,{\"map\":5}]}} | /fields/a/1 | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a/b\":{\"base64\":5}}} | /fields/a~1b | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a\":\"x\\ud83dx\"}} | lone surrogate | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"\\udd14\":1}} | lone surrogate | 2",
        "{\"format\":\"ironing/plugin@1\",\"title\":\"\\ud83d\"} | lone surrogate | 1",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a\" 1}} | column 46 | 2",
        "{\"format\":\"ironing/plugin@1\"}~{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":{\"a\":1,\"a\":2}} | not JSON | 2"
      })
  void mistakes_are_named(String lines, String why, int line) {
    assertThatThrownBy(() -> PluginText.parse(NAME, lines.replace('~', '\n')))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining(why)
        .hasMessageContaining("on line " + line)
        .satisfies(e -> assertThat(((IroningException) e).problems().get(0).remedy()).isNotBlank());
    assertThat(Refused.code(() -> PluginText.parse(NAME, lines.replace('~', '\n'))))
        .isEqualTo("plugin-undecodable");
  }

  @Test
  void blank_lines_and_a_byte_order_mark_are_passed_over() {
    Plugin p =
        PluginText.parse(
            NAME,
            "\uFEFF\n{\"format\":\"ironing/plugin@1\"}\n\n{\"type\":\"v\",\"id\":\"Mine.plug/1\",\"fields\":null}\n\n");
    assertThat(p.records()).singleElement().satisfies(r -> assertThat(r.fields()).isEmpty());
    assertThat(p.header().stage()).isEqualTo(Plugin.DEFAULT_STAGE);
  }

  @Test
  void maps_that_look_like_references_are_told_apart() {
    Value.Fields tricky =
        new Value.Fields(
            Map.of("x", new Value.Fields(Map.of("ref", new Value.Text("Base.plug/1")))));
    Plugin p =
        new Plugin(
            NAME, Header.of(5, MASTERS, 2), List.of(record("Mine.plug/1", Optional.of(tricky))));
    String text = PluginText.write(p);
    assertThat(text).contains("{\"x\":{\"map\":{\"ref\":\"Base.plug/1\"}}}");
    assertThat(PluginText.parse(NAME, text).records()).isEqualTo(p.records());
  }

  @Test
  void a_low_next_id_and_a_loose_encoding_are_warned_of_once() {
    Set<String> warnings = new HashSet<>();
    Plugin p =
        new Plugin(
            NAME, Header.of(5, List.of(), 1), List.of(record("Mine.plug/7", Optional.empty())));
    warnings.addAll(PluginCodec.decode(NAME, PluginCodec.encode(p)).warnings());
    assertThat(warnings).singleElement().asString().contains("nextId is 1").contains("7");
    byte[] tight = PluginCodec.encode(new Plugin(NAME, Header.of(5, List.of(), 1), List.of()));
    byte[] loose = new byte[tight.length + 1];
    System.arraycopy(tight, 0, loose, 0, 3);
    loose[3] = (byte) 0xb8; // the same map with its length in a byte of its own
    loose[4] = (byte) (tight[3] & 31);
    System.arraycopy(tight, 4, loose, 5, tight.length - 4);
    assertThat(PluginCodec.decode(NAME, loose).warnings())
        .singleElement()
        .asString()
        .contains("not in the deterministic encoding");
  }
}
