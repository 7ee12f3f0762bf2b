package ironing.core.records;

import ironing.core.path.PathCase;
import ironing.core.plugin.Value;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One plugin's version of a record; without fields it removes it.
 *
 * @param plugin file name
 * @param masters of that plugin
 * @param position the plugin's place in the order, from 0
 */
public record Version(
    String plugin, List<String> masters, int position, String type, Optional<Value.Fields> fields) {

  /** What there was before any plugin made the record, for one that sees none that has it. */
  static Version nothing(String type) {
    return new Version("", List.of(), -1, type, Optional.of(new Value.Fields(Map.of())));
  }

  /** Whether its plugin has the other's as a master, and so stands for it. */
  public boolean sees(Version other) {
    String name = PathCase.fold(other.plugin());
    return masters.stream().anyMatch(m -> PathCase.fold(m).equals(name));
  }
}
