package ironing.core.documents;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/** Patches of the foundry with anything in them that its forms can hold. */
public final class RandomDocuments {
  private static final String ODD = "aZ0 ,\"'<>&;=#[]{}\\/%\t\n\rä\u2028\uD834\uDD1E\u0085";

  private RandomDocuments() {}

  /** A patch of some records. */
  public static Plugin patch(List<Plugin.Record> records) {
    Header h = Header.of(9, List.of("base", "tower"), 1).titled(Optional.of("A \"patch\""));
    return new Plugin("my-patch", h, records);
  }

  private static String text(Random random, String from, int least) {
    StringBuilder out = new StringBuilder();
    int length = least + random.nextInt(6);
    int[] points = from.codePoints().toArray();
    for (int i = 0; i < length; i++) out.appendCodePoint(points[random.nextInt(points.length)]);
    return out.toString();
  }

  private static Value json(Random random, int depth) {
    return switch (random.nextInt(depth > 2 ? 5 : 7)) {
      case 0 -> new Value.Int(random.nextLong());
      case 1 -> new Value.Real(random.nextGaussian() * Math.pow(10, random.nextInt(40) - 20));
      case 2 -> new Value.Truth(random.nextBoolean());
      case 3 -> Value.NULL;
      case 4 -> new Value.Text(text(random, ODD, 0));
      case 5 -> {
        List<Value> items = new ArrayList<>();
        for (int i = random.nextInt(4); i > 0; i--) items.add(json(random, depth + 1));
        yield new Value.Array(items);
      }
      default -> fields(random, depth + 1);
    };
  }

  private static Value.Fields fields(Random random, int depth) {
    Map<String, Value> map = new LinkedHashMap<>();
    for (int i = random.nextInt(4); i > 0; i--)
      map.put("f" + text(random, ODD, 1), json(random, depth));
    return new Value.Fields(map);
  }

  private static Value.Fields texts(Random random, List<String> names, String from) {
    Map<String, Value> map = new LinkedHashMap<>();
    for (String n : names) map.put(n, new Value.Text(text(random, from, 0).strip()));
    return new Value.Fields(map);
  }

  /** Records of every form that the foundry writes. */
  public static List<Plugin.Record> records(Random random) {
    Map<Ref, Plugin.Record> all = new LinkedHashMap<>();
    for (int i = random.nextInt(30); i > 0; i--) {
      String id = text(random, ODD, 1).strip();
      if (id.isEmpty()) id = "i";
      Plugin.Record r =
          switch (random.nextInt(5)) {
            case 0 ->
                new Plugin.Record(
                    "cast",
                    Ref.named("cast", List.of(id)),
                    random.nextInt(5) == 0 ? Optional.empty() : Optional.of(fields(random, 0)));
            case 1 ->
                new Plugin.Record(
                    "note", Ref.named("note", List.of(id)), Optional.of(fields(random, 0)));
            case 2 ->
                new Plugin.Record(
                    "alloy",
                    Ref.named("alloy", List.of(id, text(random, "abc", 1))),
                    Optional.of(texts(random, List.of("price", "note"), ODD)));
            case 3 ->
                new Plugin.Record(
                    "room",
                    Ref.named("room", List.of(text(random, "abc xyz", 1).strip() + "r")),
                    Optional.of(texts(random, List.of("steps", "door"), "abc =;#[]\"'ä")));
            default -> {
              String inXml = id.replaceAll("[\\p{Cntrl}]", "-");
              yield new Plugin.Record(
                  "rule",
                  Ref.named("rule", List.of(inXml)),
                  Optional.of(texts(random, List.of("at", "times"), "ab <>&'\"]]>ä\uD834\uDD1E")));
            }
          };
      all.put(r.key(), r);
    }
    return List.copyOf(all.values());
  }
}
