package ironing.core.records;

import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A record that the game would read differently.
 *
 * @param label what people know it by, as it would be, or else as it is
 * @param before the plugin whose version it uses now, empty when there is none
 * @param after the plugin whose version it would use
 */
public record RecordDifference(
    Ref key, String type, String label, Optional<String> before, Optional<String> after) {
  /** All of them, by the number of their record. Cost: linear in the records. */
  public static List<RecordDifference> between(RecordIndex before, RecordIndex after) {
    List<RecordDifference> out = new ArrayList<>();
    for (int r = 0; r < before.size(); r++) {
      int there = before == after ? r : after.find(before.key(r));
      if (there >= 0 && before.usedPrint(r) == after.usedPrint(there)) continue;
      Optional<String> is =
          there < 0 ? Optional.empty() : Optional.of(after.name(after.usedPosition(there)));
      out.add(
          new RecordDifference(
              before.key(r),
              before.type(r),
              there < 0 ? before.label(r) : after.label(there),
              Optional.of(before.name(before.usedPosition(r))),
              is));
    }
    for (int r = 0; r < after.size(); r++) {
      if (before == after || before.find(after.key(r)) >= 0) continue;
      out.add(
          new RecordDifference(
              after.key(r),
              after.type(r),
              after.label(r),
              Optional.empty(),
              Optional.of(after.name(after.usedPosition(r)))));
    }
    return List.copyOf(out);
  }
}
