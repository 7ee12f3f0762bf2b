package ironing.core.loadorder;

import ironing.core.game.GameDefinition;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The plugins in play, in the order in which the game reads them.
 *
 * <p>Invariant: the game's own come first, in the game's order, and are on. Names compare without
 * case. Immutable.
 */
public final class LoadOrder {
  /**
   * A plugin whose file is in play.
   *
   * @param mod whose file it is
   * @param header empty when the file does not decode
   * @param flaw why it does not decode
   */
  public record Found(
      String name, long mod, String sha256, Optional<Header> header, Optional<String> flaw) {
    public int stage() {
      return header.map(Header::stage).orElse(Plugin.DEFAULT_STAGE);
    }

    public List<String> masters() {
      return header.map(Header::masters).orElse(List.of());
    }
  }

  /** What the user decided: an order of names, each on or off. Plugins not in play may be named. */
  public record Wish(String name, boolean on) {}

  public record Entry(Found plugin, boolean on, boolean own) {
    public String name() {
      return plugin.name();
    }
  }

  private final List<Entry> entries;
  private final Map<String, Integer> positions = new HashMap<>();

  private LoadOrder(List<Entry> entries) {
    this.entries = List.copyOf(entries);
    for (int i = 0; i < entries.size(); i++) positions.put(PathCase.fold(entries.get(i).name()), i);
  }

  public static LoadOrder empty() {
    return new LoadOrder(List.of());
  }

  /**
   * The order that follows from what is in play and what the user wished. A plugin that nobody
   * placed yet is on, and comes after all placed ones of its stage; so what a tool has just
   * written, or a mod has just brought, appears by itself.
   *
   * @param found plugins in play, in layer order
   */
  public static LoadOrder of(GameDefinition game, List<Found> found, List<Wish> wishes) {
    Map<String, Found> left = new LinkedHashMap<>();
    for (Found f : found) left.put(PathCase.fold(f.name()), f);
    List<Entry> entries = new ArrayList<>();
    for (String own : game.plugins().map(GameDefinition.Plugins::own).orElse(List.of())) {
      Found f = left.remove(PathCase.fold(own));
      if (f != null) entries.add(new Entry(f, true, true));
    }
    int firstFree = entries.size();
    for (Wish w : wishes) {
      Found f = left.remove(PathCase.fold(w.name()));
      if (f != null) entries.add(new Entry(f, w.on(), false));
    }
    List<Found> fresh = new ArrayList<>(left.values());
    fresh.sort(Comparator.comparingInt(Found::stage));
    for (Found f : fresh) {
      int at = entries.size();
      while (at > firstFree && entries.get(at - 1).plugin().stage() > f.stage()) at--;
      entries.add(at, new Entry(f, true, false));
    }
    return new LoadOrder(entries);
  }

  public List<Entry> entries() {
    return entries;
  }

  /** Those that are on, in order: what the game reads. */
  public List<Entry> active() {
    return entries.stream().filter(Entry::on).toList();
  }

  public Optional<Entry> find(String name) {
    Integer at = positions.get(PathCase.fold(name));
    return at == null ? Optional.empty() : Optional.of(entries.get(at));
  }

  /** From 0; -1 when no such plugin is in play. */
  public int position(String name) {
    return positions.getOrDefault(PathCase.fold(name), -1);
  }

  public List<Wish> asWishes() {
    return entries.stream().filter(e -> !e.own()).map(e -> new Wish(e.name(), e.on())).toList();
  }
}
