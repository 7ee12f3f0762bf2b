package ironing.core.lists;

import ironing.core.lists.PublishedList.Entry;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes;
import ironing.core.version.ModVersion;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * How far what is here is from a published list, and the fewest moves that bring it there. What the
 * list does not name stays where it is among the rest.
 *
 * <p>Cost: as {@link FewestMoves}. Pure functions.
 */
public final class Following {
  private Following() {}

  /**
   * What is here.
   *
   * @param key by which the caller knows it
   * @param kept no list moves it
   */
  public record Here(long key, String id, String name, String version, boolean on, boolean kept) {}

  /**
   * @param places for each entry of the list what stands for it; empty where nothing does
   * @param extra what is here and not in the list, in the order in which it stands
   * @param whole the order that the list asks for, with its moves
   * @param heldFast entries that are kept here against the list
   */
  public record Followed(
      List<Optional<Here>> places,
      List<Here> extra,
      Outcome.Sorted<Long> whole,
      Set<Long> heldFast) {
    /** Those that move, by key. */
    public Map<Long, Move<Long>> moves() {
      Map<Long, Move<Long>> moves = new LinkedHashMap<>();
      for (Move<Long> m : whole.moves()) moves.put(m.item(), m);
      return moves;
    }
  }

  /**
   * @param title of the list, for the reasons of the moves
   * @param here in the order in which it stands
   */
  public static Followed compare(String title, List<Entry> entries, List<Here> here) {
    List<Optional<Here>> places = matched(entries, here);
    Set<Long> named = new HashSet<>();
    places.forEach(p -> p.ifPresent(h -> named.add(h.key())));
    List<Here> extra = here.stream().filter(h -> !named.contains(h.key())).toList();

    List<Long> present = here.stream().map(Here::key).toList();
    Map<Long, Integer> at = new HashMap<>();
    for (int i = 0; i < present.size(); i++) at.put(present.get(i), i);
    List<Here> wanted = places.stream().flatMap(Optional::stream).toList();
    Set<Long> heldFast = heldFast(wanted, at);
    List<Here> ordered = wanted.stream().filter(h -> !heldFast.contains(h.key())).toList();
    List<Constraint<Long>> chain = new ArrayList<>();
    for (int i = 1; i < ordered.size(); i++) {
      String reason = "“" + title + "” has it behind " + ordered.get(i - 1).name();
      chain.add(
          new Constraint<>(ordered.get(i - 1).key(), ordered.get(i).key(), reason, "the list"));
    }
    Set<Long> kept = new HashSet<>();
    for (Here h : here) if (h.kept()) kept.add(h.key());
    Outcome<Long> outcome =
        FewestMoves.sort(present, new Wishes<>(chain, List.of(), List.of(), kept));
    if (!(outcome instanceof Outcome.Sorted<Long> sorted))
      throw new IllegalStateException("a chain over what is kept in its order has no ring");
    return new Followed(places, extra, sorted, heldFast);
  }

  /** By the id of the card; without one by name, and of several by version. */
  private static List<Optional<Here>> matched(List<Entry> entries, List<Here> here) {
    Map<String, List<Here>> byId = new HashMap<>(), byName = new HashMap<>();
    for (Here h : here) {
      byId.computeIfAbsent(h.id(), k -> new ArrayList<>()).add(h);
      byName.computeIfAbsent(ListReader.alike(h.name()), k -> new ArrayList<>()).add(h);
    }
    Set<Long> taken = new HashSet<>();
    List<Optional<Here>> places = new ArrayList<>();
    for (Entry e : entries) {
      List<Here> like = e.id().isEmpty() ? List.of() : byId.getOrDefault(e.id(), List.of());
      if (like.isEmpty() && !e.name().isEmpty())
        like = byName.getOrDefault(ListReader.alike(e.name()), List.of());
      Optional<Here> found =
          like.stream()
              .filter(h -> !taken.contains(h.key()))
              .reduce((a, b) -> sameVersion(e, b) && !sameVersion(e, a) ? b : a);
      found.ifPresent(h -> taken.add(h.key()));
      places.add(found);
    }
    return places;
  }

  /** Whether a list asks for another version than the one that is here; not saying is no asking. */
  public static boolean otherVersion(Entry e, Here h) {
    return !e.version().isEmpty() && !sameVersion(e, h);
  }

  private static boolean sameVersion(Entry e, Here h) {
    return ModVersion.of(e.version()).compareTo(ModVersion.of(h.version())) == 0;
  }

  /** Of what is kept here, the fewest that stand against the list's order among themselves. */
  private static Set<Long> heldFast(List<Here> wanted, Map<Long, Integer> at) {
    List<Here> kept = wanted.stream().filter(Here::kept).toList();
    int[] sequence = kept.stream().mapToInt(h -> at.get(h.key())).toArray();
    BitSet rising = Ordering.longestRising(sequence);
    Set<Long> against = new HashSet<>();
    for (int i = 0; i < kept.size(); i++) if (!rising.get(i)) against.add(kept.get(i).key());
    return against;
  }
}
