package ironing.core.records;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordVersions.Version;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A record that the game would read differently.
 *
 * @param before the version that it uses now, empty when there is none
 * @param after the version that it would use
 */
public record RecordDifference(Ref key, Optional<Version> before, Optional<Version> after) {
  /** All of them, in the order in which their records are met. Cost: linear in the records. */
  public static List<RecordDifference> between(
      GameDefinition game, RecordVersions before, RecordVersions after) {
    Combiner combiner = new Combiner(game.pathCase());
    Set<Ref> keys = new LinkedHashSet<>(before.keys());
    keys.addAll(after.keys());
    List<RecordDifference> out = new ArrayList<>();
    for (Ref key : keys) {
      Optional<Version> was = before.used(key), is = after.used(key);
      String name = was.or(() -> is).map(Version::type).orElse("");
      RecordType type = game.records().getOrDefault(name, RecordType.undescribed(name));
      Optional<Value.Fields> a = was.flatMap(Version::fields), b = is.flatMap(Version::fields);
      if (!combiner.same(type, a, b)) out.add(new RecordDifference(key, was, is));
    }
    return List.copyOf(out);
  }
}
