package ironing.core.mends;

import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Combination;
import ironing.core.records.Version;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Makes the plugin of a patch: the combined records and nothing else. */
public final class PatchBuilder {
  /** The highest there is: what is made of all others loads after all of them. */
  public static final int STAGE = 9;

  private PatchBuilder() {}

  /**
   * The same collisions give the same plugin.
   *
   * @param name the file name of the patch's plugin
   * @param author whose work went into it; empty where nobody says
   * @param order the names of the plugins that are on, in load order, without patches
   * @param collisions those that the patch is to hold
   * @throws IllegalArgumentException for one that still waits for the user
   */
  public static Plugin build(
      String name,
      String title,
      String author,
      List<String> order,
      Collection<Collision> collisions) {
    Set<String> needed = new LinkedHashSet<>();
    List<Plugin.Record> records = new ArrayList<>();
    for (Collision collision : collisions) {
      Combination c = collision.combination();
      if (!c.settled()) {
        throw new IllegalArgumentException(collision.key() + " still waits for a decision");
      }
      needed.add(PathCase.fold(collision.key().owner()));
      for (Version leaf : c.leaves()) needed.add(PathCase.fold(leaf.plugin()));
      c.outcome().ifPresent(f -> owners(f, needed));
      records.add(
          new Plugin.Record(
              collision.typeName(), collision.key(), c.removed() ? Optional.empty() : c.outcome()));
    }
    List<String> masters = order.stream().filter(n -> needed.contains(PathCase.fold(n))).toList();
    String about = "Made by Ironing from " + String.join(", ", masters) + ".";
    Plugin.Header header =
        new Plugin.Header(
            STAGE,
            masters,
            1,
            Optional.of(title),
            author.isBlank() ? Optional.empty() : Optional.of(author),
            Optional.empty(),
            Optional.of(about),
            Optional.empty(),
            List.of(),
            Map.of());
    return new Plugin(name, header, new Plugin(name, header, records).inWritingOrder());
  }

  private static void owners(Value v, Set<String> needed) {
    if (v instanceof Ref r) needed.add(PathCase.fold(r.owner()));
    else if (v instanceof Value.Array a) a.items().forEach(i -> owners(i, needed));
    else if (v instanceof Value.Fields f) f.map().values().forEach(i -> owners(i, needed));
  }
}
