package ironing.core.plugin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.dataformat.cbor.CBORFactory;
import com.fasterxml.jackson.dataformat.cbor.CBORParser;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Value.Ref;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RecordTableTest {
  private static final Shapes SHAPES = Shapes.of(TestWorld.GAME);

  private static void holds(RecordTable t, Plugin p, byte[] file) throws IOException {
    assertThat(t.header()).isEqualTo(p.header());
    List<Plugin.Record> records = p.inWritingOrder();
    assertThat(t.size()).isEqualTo(records.size());
    for (int row = 0; row < t.size(); row++) {
      Plugin.Record r = records.get(row);
      assertThat(t.record(row, Bytes.of(file))).isEqualTo(r);
      assertThat(t.key(row)).isEqualTo(r.key());
      assertThat(t.type(row)).isEqualTo(r.type());
      assertThat(t.removed(row)).isEqualTo(r.fields().isEmpty());
      assertThat(t.rowOf(t.owner(row), t.id(row))).isEqualTo(row);
      assertThat(row >= t.ownFrom()).isEqualTo(r.key().owner().equals(p.name()));
      List<Ref> refs = new ArrayList<>();
      for (int i = t.refFrom(row); i < t.refFrom(row + 1); i++)
        refs.add(new Ref(t.ownerName(t.refOwner(i)), t.refId(i)));
      List<Ref> wanted = new ArrayList<>();
      r.fields().ifPresent(f -> refsIn(f, wanted));
      assertThat(refs).containsExactlyInAnyOrderElementsOf(wanted);
    }
  }

  private static void refsIn(Value v, List<Ref> into) {
    if (v instanceof Ref r) into.add(r);
    else if (v instanceof Value.Array a) a.items().forEach(i -> refsIn(i, into));
    else if (v instanceof Value.Fields f) f.map().values().forEach(i -> refsIn(i, into));
  }

  @Property(tries = 300, seed = "8160")
  void a_table_has_what_the_file_has_and_reads_every_record_out_of_it(@ForAll long seed)
      throws IOException {
    for (Plugin p : RandomPlugins.of(seed, 4)) {
      byte[] file = PluginCodec.encode(p);
      holds(RecordTable.read(p.name(), file, SHAPES), p, file);
    }
  }

  @Property(tries = 100, seed = "8160")
  void a_file_in_another_well_formed_encoding_gives_the_same_table(@ForAll long seed)
      throws IOException {
    for (Plugin p : RandomPlugins.of(seed, 3)) {
      byte[] loose = Encodings.loose(p);
      RecordTable t = RecordTable.read(p.name(), loose, SHAPES);
      holds(t, p, loose);
      RecordTable plain = RecordTable.read(p.name(), PluginCodec.encode(p), SHAPES);
      assertThat(t.warnings()).anyMatch(w -> w.contains("deterministic"));
      assertThat(plain.warnings()).isEmpty();
      for (int row = 0; row < t.size(); row++) assertThat(t.print(row)).isEqualTo(plain.print(row));
    }
  }

  /**
   * Thousands of damaged files: the quick look takes what the whole reading takes, and no other.
   */
  @Property(tries = 4000, seed = "8160")
  void a_damaged_file_is_taken_or_refused_as_reading_it_whole_says(
      @ForAll long seed, @ForAll long damage) throws IOException {
    Plugin p = RandomPlugins.of(seed, 2).get(1);
    byte[] file = damaged(PluginCodec.encode(p), new Random(damage));
    PluginException expected = null;
    Plugin read = null;
    try {
      read = PluginCodec.decode(p.name(), file).plugin();
    } catch (PluginException e) {
      expected = e;
    }
    if (expected == null) {
      holds(RecordTable.read(p.name(), file, SHAPES), read, file);
    } else {
      assertThatThrownBy(() -> RecordTable.read(p.name(), file, SHAPES))
          .isInstanceOf(PluginException.class)
          .hasMessage(expected.getMessage());
      if (file.length > 0) assertThat(expected).hasMessageContaining("at byte");
    }
  }

  private static byte[] damaged(byte[] file, Random random) {
    byte[] copy = file.clone();
    switch (random.nextInt(4)) {
      case 0 -> copy = Arrays.copyOf(copy, random.nextInt(copy.length));
      case 1 -> copy[random.nextInt(copy.length)] ^= (byte) (1 << random.nextInt(8));
      case 2 -> {
        for (int i = 0; i < 4; i++) copy[random.nextInt(copy.length)] = (byte) random.nextInt();
      }
      default -> {
        int from = random.nextInt(copy.length), to = from + random.nextInt(copy.length - from);
        byte[] twice = Arrays.copyOf(copy, copy.length + to - from);
        System.arraycopy(copy, from, twice, to, copy.length - from);
        copy = twice;
      }
    }
    return copy;
  }

  /** A length that a file declares is not believed: it costs no memory before it is checked. */
  @ParameterizedTest
  @ValueSource(strings = {"9a3fffffff", "ba1fffffff", "7a3fffffff", "5a3fffffff"})
  void lists_in_lists_that_claim_the_rest_of_the_file_cost_nothing(String head) {
    byte[] h = HexFormat.of().parseHex(head);
    Plugin p = new Plugin("Mine.plug", Plugin.Header.of(5, List.of(), 1), List.of());
    byte[] start = PluginCodec.encode(p);
    byte[] file = Arrays.copyOf(start, start.length + 40_000_000);
    for (int i = 0; i < 250; i++)
      System.arraycopy(h, 0, file, start.length + i * h.length, h.length);
    Runtime run = Runtime.getRuntime();
    System.gc();
    long before = run.totalMemory() - run.freeMemory();
    assertThatThrownBy(() -> RecordTable.read("Mine.plug", file, SHAPES))
        .isInstanceOf(PluginException.class)
        .hasMessageContaining("at byte");
    assertThat(run.totalMemory() - run.freeMemory() - before).isLessThan(200_000_000L);
  }

  @Test
  void labels_and_numbers_out_of_range_are_noted() {
    Shapes bounded =
        Shapes.of(
            TestWorld.game(
                TestWorld.DEFINITION.replace(
                    "{ kind: number, unit: kn }",
                    "{ kind: number, unit: kn, min: 0, max: 30.5 }")));
    Map<String, Value> fast = Map.of("name", new Value.Text("Aud"), "speed", new Value.Int(31));
    Map<String, Value> slow =
        Map.of("name", new Value.Text("é".repeat(150)), "speed", new Value.Real(30.5));
    Plugin p =
        new Plugin(
            "Mine.plug",
            Plugin.Header.of(5, List.of(), 3),
            List.of(record(1, fast), record(2, slow)));
    RecordTable t = RecordTable.read("Mine.plug", PluginCodec.encode(p), bounded);
    assertThat(t.label(0)).isEqualTo("Aud");
    assertThat(t.label(1)).as("cut between two letters").isEqualTo("é".repeat(100));
    assertThat(t.outOfRange(0)).isTrue();
    assertThat(t.outOfRange(1)).isFalse();
    assertThat(RecordTable.read("Mine.plug", PluginCodec.encode(p), SHAPES).outOfRange(0))
        .isFalse();
  }

  private static Plugin.Record record(int id, Map<String, Value> fields) {
    return new Plugin.Record(
        "vessel", new Ref("Mine.plug", id), Optional.of(new Value.Fields(fields)));
  }

  @Test
  void a_file_that_has_changed_since_is_told_and_not_misread() {
    Plugin p = RandomPlugins.of(3, 1).get(0);
    RecordTable t = RecordTable.read(p.name(), PluginCodec.encode(p), SHAPES);
    byte[] other =
        "something else altogether, and long enough".repeat(50).getBytes(StandardCharsets.UTF_8);
    assertThatThrownBy(() -> t.record(0, Bytes.of(other))).isInstanceOf(PluginException.class);
  }

  /** Jackson's CBOR module reads what is written: an independent reader of the same standard. */
  @Property(tries = 100, seed = "8160")
  void an_independent_reader_of_cbor_reads_what_is_written(@ForAll long seed) throws IOException {
    Plugin p = RandomPlugins.of(seed, 3).get(2);
    try (CBORParser in = new CBORFactory().createParser(PluginCodec.encode(p))) {
      in.nextToken();
      assertThat(in.getCurrentTag()).isEqualTo(55799);
      assertThat(object(in, List.of()))
          .containsEntry("format", Plugin.FORMAT)
          .containsEntry("masters", p.header().masters());
      List<String> owners = new ArrayList<>(p.header().masters());
      owners.add(p.name());
      for (Plugin.Record r : p.inWritingOrder()) {
        in.nextToken();
        List<?> item = (List<?>) item(in, owners);
        assertThat(item.get(0)).isEqualTo(r.type());
        assertThat(owners.get(((Number) item.get(1)).intValue())).isEqualTo(r.key().owner());
        assertThat(((Number) item.get(2)).intValue()).isEqualTo(r.key().id());
        assertThat(item.get(3)).isEqualTo(r.fields().map(RecordTableTest::plain).orElse(null));
      }
      assertThat(in.nextToken()).isNull();
    }
  }

  private static Map<String, Object> object(CBORParser in, List<String> owners) throws IOException {
    Map<String, Object> map = new LinkedHashMap<>();
    while (in.nextToken() != JsonToken.END_OBJECT) {
      String name = in.currentName();
      in.nextToken();
      map.put(name, item(in, owners));
    }
    return map;
  }

  private static Object item(CBORParser in, List<String> owners) throws IOException {
    int tag = in.getCurrentTag();
    switch (in.currentToken()) {
      case START_OBJECT:
        return object(in, owners);
      case START_ARRAY:
        {
          List<Object> items = new ArrayList<>();
          while (in.nextToken() != JsonToken.END_ARRAY) items.add(item(in, owners));
          if (tag != 39) return items;
          return "ref "
              + owners.get(((Number) items.get(0)).intValue())
              + "/"
              + ((Number) items.get(1)).intValue();
        }
      case VALUE_NULL:
        return null;
      case VALUE_STRING:
        return in.getText();
      default:
        return in.getNumberValue().doubleValue();
    }
  }

  private static Object plain(Value v) {
    if (v instanceof Value.Null) return null;
    if (v instanceof Value.Int i) return (double) i.value();
    if (v instanceof Value.Real r) return r.value();
    if (v instanceof Value.Text t) return t.value();
    if (v instanceof Ref r) return "ref " + r;
    if (v instanceof Value.Array a) return a.items().stream().map(RecordTableTest::plain).toList();
    Map<String, Object> map = new LinkedHashMap<>();
    ((Value.Fields) v).map().forEach((k, i) -> map.put(k, plain(i)));
    return map;
  }
}
