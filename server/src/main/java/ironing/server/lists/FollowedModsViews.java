package ironing.server.lists;

import ironing.core.lists.Following;
import ironing.core.lists.Following.Followed;
import ironing.core.lists.Following.Here;
import ironing.core.lists.PublishedList;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Move;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.workspace.Mod;
import ironing.server.lists.FollowView.EntryView;
import ironing.server.lists.FollowView.ExtraView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What {@link FollowedModsController} gives and takes, and how it is made of what the core says.
 */
final class FollowedModsViews {
  private FollowedModsViews() {}

  /**
   * What is taken of a list; both absent: all of it.
   *
   * @param moves mods that are moved
   * @param switches mods that are switched
   */
  record FollowRequest(
      @MayBeAbsent Optional<List<Long>> moves, @MayBeAbsent Optional<List<Long>> switches) {}

  static boolean all(FollowRequest body) {
    return some(body.moves()).isEmpty() && some(body.switches()).isEmpty();
  }

  // a part that a request leaves out arrives as null
  static Optional<List<Long>> some(Optional<List<Long>> part) {
    return part == null ? Optional.empty() : part;
  }

  static String said(PublishedList list, FollowRequest body) {
    String title = "“" + list.title() + "”";
    if (all(body)) return "Brought the layers to the list " + title;
    int steps =
        some(body.moves()).orElse(List.of()).size()
            + some(body.switches()).orElse(List.of()).size();
    return "Took " + (steps == 1 ? "1 step" : steps + " steps") + " of the list " + title;
  }

  /** The order with what is taken; what departs from the list stays where all is taken. */
  static List<Long> order(OpenWorkspace open, FollowedLists.Followed row, FollowRequest body) {
    Followed followed = compare(open, row.list());
    Set<Long> departing = departing(row, followed);
    if (all(body) && departing.isEmpty()) return followed.whole().order();
    Set<Long> chosen = new HashSet<>();
    if (all(body)) {
      chosen.addAll(followed.moves().keySet());
      chosen.removeAll(departing);
    }
    for (long mod : some(body.moves()).orElse(List.of())) chosen.add(open.required(mod).strand());
    return FewestMoves.some(here(open).stream().map(Here::key).toList(), followed.whole(), chosen);
  }

  /** The keys of what is here for entries from which the user departs. */
  private static Set<Long> departing(FollowedLists.Followed row, Followed followed) {
    Set<Long> keys = new HashSet<>();
    for (int number : row.departures().keySet())
      followed.places().get(number - 1).ifPresent(h -> keys.add(h.key()));
    return keys;
  }

  static Map<Long, Boolean> switches(
      OpenWorkspace open, FollowedLists.Followed row, FollowRequest body) {
    PublishedList list = row.list();
    Set<Long> chosen = new HashSet<>(some(body.switches()).orElse(List.of()));
    Map<Long, Boolean> out = new LinkedHashMap<>();
    Followed followed = compare(open, list);
    Map<Long, Long> modOf = modOf(open);
    Set<Long> departing = all(body) ? departing(row, followed) : Set.of();
    for (int i = 0; i < list.entries().size(); i++) {
      Optional<Here> here = followed.places().get(i);
      Optional<Boolean> on = list.entries().get(i).on();
      if (here.isPresent() && departing.contains(here.get().key())) continue;
      if (here.isEmpty() || on.isEmpty() || here.get().on() == on.get()) continue;
      long mod = modOf.get(here.get().key());
      if (all(body) || chosen.contains(mod)) out.put(mod, on.get());
    }
    return out;
  }

  static Followed compare(OpenWorkspace open, PublishedList list) {
    return Following.compare(list.title(), list.entries(), here(open));
  }

  static List<Here> here(OpenWorkspace open) {
    List<Here> here = new ArrayList<>();
    for (Layer l : open.picture().arrangement().layers()) {
      Mod m = open.mods().get(l.mod());
      here.add(
          new Here(
              m.strand(), m.card().id(), m.card().name(), m.card().version(), l.on(), l.kept()));
    }
    return here;
  }

  static Map<Long, Long> modOf(OpenWorkspace open) {
    Map<Long, Long> modOf = new HashMap<>();
    for (Layer l : open.picture().arrangement().layers())
      modOf.put(open.mods().get(l.mod()).strand(), l.mod());
    return modOf;
  }

  static FollowView view(OpenWorkspace open, FollowedLists.Followed row) {
    PublishedList list = row.list();
    Set<Integer> ticked = row.ticked();
    Followed followed = compare(open, list);
    Map<Long, Move<Long>> moves = followed.moves();
    Map<Long, Long> modOf = modOf(open);
    Map<Long, Integer> positions = new HashMap<>();
    for (Layer l : open.picture().arrangement().layers())
      positions.put(l.mod(), positions.size() + 1);
    List<EntryView> entries = new ArrayList<>();
    for (Entry e : list.entries()) {
      int number = entries.size() + 1;
      Optional<Here> here = followed.places().get(number - 1);
      Long mod = here.map(h -> modOf.get(h.key())).orElse(null);
      Move<Long> move = here.map(h -> moves.get(h.key())).orElse(null);
      boolean other = here.filter(h -> Following.otherVersion(e, h)).isPresent();
      entries.add(
          new EntryView(
                  number,
                  e.id(),
                  e.label(),
                  e.version(),
                  e.section(),
                  e.note(),
                  ticked.contains(number),
                  mod,
                  here.map(Here::version).orElse(null),
                  other,
                  other ? inLibrary(open, e, here.get()) : null,
                  mod == null ? null : positions.get(mod),
                  move == null ? null : move.to() + 1,
                  here.filter(h -> e.on().isPresent() && e.on().get() != h.on())
                      .map(h -> !h.on())
                      .orElse(null),
                  here.filter(h -> followed.heldFast().contains(h.key())).isPresent(),
                  null)
              .with(row.departures().get(number)));
    }
    List<ExtraView> extra = new ArrayList<>();
    for (Here h : followed.extra()) {
      long mod = modOf.get(h.key());
      extra.add(new ExtraView(mod, h.name(), positions.get(mod), h.on()));
    }
    return new FollowView(
        open.revision(),
        row.id(),
        row.title(),
        row.at(),
        list.remarks(),
        row.gone(),
        entries,
        extra);
  }

  /** Another version of the same mod that is in the library, and is the one asked for. */
  static Long inLibrary(OpenWorkspace open, Entry e, Here here) {
    return open.mods().values().stream()
        .filter(m -> m.strand() == here.key())
        .filter(
            m ->
                !Following.otherVersion(
                    e,
                    new Here(
                        m.strand(),
                        m.card().id(),
                        m.card().name(),
                        m.card().version(),
                        true,
                        false)))
        .map(Mod::id)
        .max(Long::compare)
        .orElse(null);
  }
}
