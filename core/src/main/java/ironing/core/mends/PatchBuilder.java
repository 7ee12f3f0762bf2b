package ironing.core.mends;

import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Combination;
import ironing.core.records.RecordVersions;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Makes the plugin of a patch. It loads last: its masters are all it was made from, its stage the
 * highest there is.
 */
public final class PatchBuilder {
  private PatchBuilder() {}

  /** A combined record that goes into the patch. */
  public record Part(Ref key, String type, Combination combination) {}

  /**
   * @param name the file name of the patch's plugin
   * @param order the plugins that are on, in load order, without the patch
   * @param parts settled combinations only
   * @throws IllegalArgumentException for a part that still waits for the user
   */
  public static Plugin build(
      String name, String title, List<Plugin> order, Collection<Part> parts) {
    Set<String> needed = new LinkedHashSet<>();
    Map<Ref, Plugin.Record> records = new LinkedHashMap<>();
    for (Part part : parts) {
      Combination c = part.combination();
      if (!c.settled())
        throw new IllegalArgumentException(part.key() + " still waits for a decision");
      needed.add(PathCase.fold(part.key().owner()));
      needed.add(PathCase.fold(c.base().plugin().name()));
      for (RecordVersions.Version leaf : c.leaves())
        needed.add(PathCase.fold(leaf.plugin().name()));
      c.outcome().ifPresent(f -> owners(f, needed));
      records.put(
          part.key(),
          new Plugin.Record(part.type(), part.key(), c.removed() ? Optional.empty() : c.outcome()));
    }
    List<String> masters = new ArrayList<>();
    int stage = Plugin.DEFAULT_STAGE;
    for (Plugin p : order) {
      stage = Math.max(stage, p.header().stage());
      if (needed.contains(PathCase.fold(p.name()))) masters.add(p.name());
    }
    Plugin.Header header =
        Plugin.Header.of(stage, masters, 1)
            .titled(title, "Made by Ironing from " + String.join(", ", masters) + ".");
    return new Plugin(name, header, new ArrayList<>(records.values()));
  }

  private static void owners(Value v, Set<String> needed) {
    if (v instanceof Ref r) needed.add(PathCase.fold(r.owner()));
    else if (v instanceof Value.Array a) a.items().forEach(i -> owners(i, needed));
    else if (v instanceof Value.Fields f) f.map().values().forEach(i -> owners(i, needed));
  }
}
