package ironing.server.lists;

import ironing.core.lists.Following;
import ironing.core.lists.Following.Here;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Move;
import ironing.server.lists.FollowView.EntryView;
import ironing.server.lists.FollowView.ExtraView;
import ironing.server.lists.FollowedLists.Followed;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What {@link FollowedPluginsController} gives and takes, and how it is made of what the core says.
 */
final class FollowedPluginsViews {
  private FollowedPluginsViews() {}

  /**
   * What is taken of a list; both absent: all of it.
   *
   * @param moves plugins that are moved
   * @param switches plugins that are switched
   */
  record FollowPluginsRequest(
      @MayBeAbsent Optional<List<String>> moves, @MayBeAbsent Optional<List<String>> switches) {}

  // a part that a request leaves out arrives as null
  static Optional<List<String>> some(Optional<List<String>> part) {
    return part == null ? Optional.empty() : part;
  }

  static List<Wish> taken(LoadOrder order, Followed followed, FollowPluginsRequest body) {
    boolean all = some(body.moves()).isEmpty() && some(body.switches()).isEmpty();
    Set<String> moves = new HashSet<>(some(body.moves()).orElse(List.of()));
    Set<String> switches = new HashSet<>(some(body.switches()).orElse(List.of()));
    Compared c = compare(order, followed);
    Set<Long> chosen = new HashSet<>();
    for (Here h : c.here()) if (all || moves.contains(h.name())) chosen.add(h.key());
    List<Long> present = c.here().stream().map(Here::key).toList();
    Set<String> departing = new HashSet<>();
    for (int i = 0; i < c.entries().size(); i++) {
      Optional<Here> here = c.followed().places().get(i);
      if (!all || here.isEmpty() || !followed.departures().containsKey(c.numbers().get(i)))
        continue;
      departing.add(here.get().name());
      chosen.remove(here.get().key());
    }
    List<Long> next =
        all && departing.isEmpty()
            ? c.followed().whole().order()
            : FewestMoves.some(present, c.followed().whole(), chosen);
    Map<String, Boolean> on = new HashMap<>();
    for (int i = 0; i < c.entries().size(); i++) {
      Optional<Here> here = c.followed().places().get(i);
      Optional<Boolean> wanted = c.entries().get(i).on();
      if (here.isEmpty() || departing.contains(here.get().name())) continue;
      if (wanted.isPresent() && (all || switches.contains(here.get().name())))
        on.put(here.get().name(), wanted.get());
    }
    List<Wish> wishes = new ArrayList<>();
    for (long key : next) {
      Here h = c.here().get((int) key);
      wishes.add(new Wish(h.name(), on.getOrDefault(h.name(), h.on()), h.kept()));
    }
    return wishes;
  }

  /**
   * @param here the plugins but the game’s own, which nobody moves; a key is an index in it
   * @param entries of the list, without the game’s own
   * @param numbers of these entries in the list, from 1
   */
  record Compared(
      List<Here> here, List<Entry> entries, List<Integer> numbers, Following.Followed followed) {}

  static Compared compare(LoadOrder order, Followed list) {
    List<Here> here = new ArrayList<>();
    for (LoadOrder.Entry e : order.entries())
      if (!e.own()) here.add(new Here(here.size(), "", e.name(), "", e.on(), e.kept()));
    List<Entry> entries = new ArrayList<>();
    List<Integer> numbers = new ArrayList<>();
    int number = 0;
    for (Entry e : list.list().entries()) {
      number++;
      if (order.find(e.name()).filter(LoadOrder.Entry::own).isPresent()) continue;
      entries.add(e);
      numbers.add(number);
    }
    return new Compared(here, entries, numbers, Following.compare(list.title(), entries, here));
  }

  static FollowView view(OpenWorkspace open, Followed row) {
    LoadOrder order = open.picture().loadOrder();
    Compared c = compare(order, row);
    int own = order.entries().size() - c.here().size();
    Map<Long, Move<Long>> moves = c.followed().moves();
    List<EntryView> entries = new ArrayList<>();
    for (int i = 0; i < c.entries().size(); i++) {
      Entry e = c.entries().get(i);
      Optional<Here> here = c.followed().places().get(i);
      Move<Long> move = here.map(h -> moves.get(h.key())).orElse(null);
      entries.add(
          new EntryView(
                  c.numbers().get(i),
                  "",
                  here.map(Here::name).orElse(e.name()),
                  "",
                  "",
                  e.note(),
                  row.ticked().contains(c.numbers().get(i)),
                  here.flatMap(h -> order.find(h.name())).map(p -> p.plugin().mod()).orElse(null),
                  null,
                  false,
                  null,
                  here.map(h -> (int) h.key() + own + 1).orElse(null),
                  move == null ? null : move.to() + own + 1,
                  here.filter(h -> e.on().isPresent() && e.on().get() != h.on())
                      .map(h -> !h.on())
                      .orElse(null),
                  here.filter(h -> c.followed().heldFast().contains(h.key())).isPresent(),
                  null)
              .with(row.departures().get(c.numbers().get(i))));
    }
    List<ExtraView> extra = new ArrayList<>();
    for (Here h : c.followed().extra())
      extra.add(
          new ExtraView(
              order.find(h.name()).orElseThrow().plugin().mod(),
              h.name(),
              (int) h.key() + own + 1,
              h.on()));
    return new FollowView(
        open.revision(),
        row.id(),
        row.title(),
        row.at(),
        row.list().remarks(),
        row.gone(),
        entries,
        extra);
  }
}
