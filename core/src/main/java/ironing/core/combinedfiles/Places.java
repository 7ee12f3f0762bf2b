package ironing.core.combinedfiles;

import ironing.core.archive.ContentHash;
import ironing.core.combinedfiles.Place.How;
import ironing.core.combinedfiles.Place.Side;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Gathers the places of one file, gives them their keys and settles them by the user's choices. */
final class Places {
  private static final int KEY_LENGTH = 24;
  private final Map<String, Choice> choices;
  private final int asksWhenOf;
  private final List<Place> all = new ArrayList<>();
  private final Map<String, Integer> seen = new HashMap<>();

  /**
   * @param asksWhenOf a change that so many contenders have alike is asked about: it may be what
   *     their base was, and not what they made of it; 0 to ask about none
   */
  Places(Map<String, Choice> choices, int asksWhenOf) {
    this.choices = choices;
    this.asksWhenOf = asksWhenOf;
  }

  List<Place> all() {
    return List.copyOf(all);
  }

  int size() {
    return all.size();
  }

  /**
   * A place that was changed; where its sides differ, the user's choice or a question.
   *
   * @param known what tells it from others that have the same content, such as a pointer; may be
   *     empty
   * @param joins whether several sides can stand one behind another
   */
  Place add(String known, String where, Optional<String> base, List<Side> sides, boolean joins) {
    Place place = place(known, where, base, sides, joins);
    all.add(place);
    return place;
  }

  /** What is new and is no question, whoever has it. */
  void addTaken(String where, Side side) {
    List<Side> sides = List.of(side);
    String key = key(where, Optional.empty(), sides);
    all.add(
        new Place(key, where, Optional.empty(), sides, How.TAKEN, side.of(), false, side.text()));
  }

  /** A name that may stand only once, and that several bring in: the user may leave it so. */
  void addOnce(String name, String where, List<Side> having) {
    String key = key("once " + name, Optional.empty(), having);
    List<String> all = having.stream().flatMap(s -> s.of().stream()).toList();
    boolean left =
        Optional.ofNullable(choices.get(key)).filter(c -> c.take().containsAll(all)).isPresent();
    How how = left ? How.DECIDED : How.ASKED;
    this.all.add(
        new Place(key, where, Optional.empty(), having, how, all, true, Optional.of(name)));
  }

  private Place place(
      String known, String where, Optional<String> base, List<Side> sides, boolean joins) {
    String key = key(known, base, sides);
    if (sides.size() == 1 && (asksWhenOf == 0 || sides.get(0).of().size() < asksWhenOf)) {
      Side only = sides.get(0);
      return new Place(key, where, base, sides, How.TAKEN, only.of(), false, only.text());
    }
    Optional<Decided> decided =
        Optional.ofNullable(choices.get(key)).flatMap(c -> decided(c, base, sides, joins));
    if (decided.isPresent()) {
      Decided d = decided.get();
      return new Place(key, where, base, sides, How.DECIDED, d.from(), false, d.text());
    }
    // the highest layer's, as the game would read it
    Side top = sides.get(sides.size() - 1);
    return new Place(key, where, base, sides, How.ASKED, top.of(), false, top.text());
  }

  private record Decided(Optional<String> text, List<String> from) {}

  private static Optional<Decided> decided(
      Choice c, Optional<String> base, List<Side> sides, boolean joins) {
    if (c.text().isPresent()) return Optional.of(new Decided(c.text(), List.of()));
    if (c.take().isEmpty()) return Optional.of(new Decided(base, List.of()));
    List<Side> taken = new ArrayList<>();
    for (String id : c.take()) {
      Optional<Side> side = sides.stream().filter(s -> s.of().contains(id)).findFirst();
      // somebody who is not there any more cannot be taken: it is asked again
      if (side.isEmpty()) return Optional.empty();
      if (!taken.contains(side.get())) taken.add(side.get());
    }
    if (taken.size() > 1 && !joins) return Optional.empty();
    List<String> from = taken.stream().flatMap(s -> s.of().stream()).toList();
    if (taken.size() == 1) return Optional.of(new Decided(taken.get(0).text(), from));
    StringBuilder text = new StringBuilder();
    taken.forEach(s -> s.text().ifPresent(text::append));
    return Optional.of(new Decided(Optional.of(text.toString()), from));
  }

  /** The same for the same content; a number behind it where a file has that twice. */
  private String key(String known, Optional<String> base, List<Side> sides) {
    Set<String> texts = new TreeSet<>();
    for (Side s : sides) texts.add(s.text().map(t -> "+" + t).orElse("-"));
    StringBuilder content = new StringBuilder(known).append('\0');
    content.append(base.map(b -> "+" + b).orElse("-"));
    texts.forEach(t -> content.append('\0').append(t));
    String print =
        ContentHash.of(content.toString().getBytes(StandardCharsets.UTF_8))
            .substring(0, KEY_LENGTH);
    int before = seen.merge(print, 1, Integer::sum);
    return before == 1 ? print : print + "-" + before;
  }

  /** Sides that have the same put together, in the order of the first of each. */
  static List<Side> alike(List<String> ids, List<Optional<String>> texts, List<?> prints) {
    List<Side> sides = new ArrayList<>();
    Set<Object> done = new HashSet<>();
    for (int i = 0; i < ids.size(); i++) {
      if (!done.add(prints.get(i))) continue;
      List<String> of = new ArrayList<>();
      for (int k = i; k < ids.size(); k++)
        if (prints.get(k).equals(prints.get(i))) of.add(ids.get(k));
      sides.add(new Side(of, texts.get(i)));
    }
    return sides;
  }
}
