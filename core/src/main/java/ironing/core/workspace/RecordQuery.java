package ironing.core.workspace;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Which records somebody wants to see.
 *
 * @param find as {@link ReadRecords#find} reads it; blank for all
 * @param states any of which a record must be in; none for all
 * @param type as plugins write it; empty for all
 * @param plugins the places of plugins that must all have a version of it
 * @param losesOf the place of a plugin of whose changes what the game reads lacks something
 * @param refersTo the number of a record that it must refer to
 * @param decided whether only those on which the user has decided
 */
public record RecordQuery(
    String find,
    Set<State> states,
    String type,
    List<Integer> plugins,
    OptionalInt losesOf,
    OptionalInt refersTo,
    boolean decided) {
  /**
   * Their numbers, in load order of their owners and then by id; where states are asked for, what
   * waits for the user first. Cost: all records, or all that collide where states are asked for.
   */
  public int[] matching(Workspace now) {
    Collisions all = now.get(COLLISIONS);
    RecordIndex index = all.index();
    IntStream found = find.isBlank() ? candidates(all) : Arrays.stream(now.get(RECORDS).find(find));
    if (!states.isEmpty())
      found = found.filter(r -> all.stateOf(r).filter(states::contains).isPresent());
    if (!type.isEmpty()) found = found.filter(r -> index.type(r).equals(type));
    for (int p : plugins) found = found.filter(r -> index.hasVersion(r, p));
    if (decided) found = found.filter(r -> !all.decisionsOn(r).isEmpty());
    if (losesOf.isPresent()) {
      Set<Integer> losing = all.losing(losesOf.getAsInt());
      found = found.filter(losing::contains);
    }
    if (refersTo.isPresent()) {
      Set<Integer> referring = new HashSet<>();
      new RecordSearch(now.game(), index)
          .referrers(refersTo.getAsInt())
          .forEach(x -> referring.add(x.record()));
      found = found.filter(referring::contains);
    }
    if (states.isEmpty()) return found.toArray();
    return found
        .boxed()
        .sorted(Comparator.comparing((Integer r) -> all.stateOf(r).orElseThrow()))
        .mapToInt(Integer::intValue)
        .toArray();
  }

  // only records that collide, or are odd, have a state
  private IntStream candidates(Collisions all) {
    return states.isEmpty()
        ? IntStream.range(0, all.index().size())
        : IntStream.concat(
            IntStream.range(0, all.size()).map(all::record),
            Arrays.stream(all.index().oddRecords()));
  }
}
