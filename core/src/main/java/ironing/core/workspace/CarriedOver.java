package ironing.core.workspace;

import ironing.core.loadorder.LoadOrder;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** Parts of another profile put into the arrangement of the one in use. */
public final class CarriedOver {
  private CarriedOver() {}

  /** What is carried over as a whole. */
  public enum Part {
    ORDER,
    RULINGS,
    HELD_BACK,
    LOAD_ORDER,
    DECISIONS
  }

  /**
   * The arrangement of here with what is carried over; the rest stays as it is here.
   *
   * @param there the other profile's, of mods that are all here
   * @param mods whose switch and version are taken over, by their versions here
   */
  public static Arrangement of(Workspace now, Arrangement there, Set<Long> mods, Set<Part> parts) {
    Arrangement next = now.picture().arrangement();
    Map<Long, Layer> byStrand = new LinkedHashMap<>();
    for (Layer l : there.layers()) byStrand.put(now.mods().get(l.mod()).strand(), l);
    for (long mod : mods) {
      Layer o = byStrand.get(now.mods().get(mod).strand());
      if (o == null) continue;
      if (o.mod() != mod) next = next.withInstead(mod, o.mod());
      next =
          next.withLayers(
              next.layers().stream().map(l -> l.mod() == o.mod() ? l.withOn(o.on()) : l).toList());
    }
    if (parts.contains(Part.ORDER)) next = ordered(now, next, there, byStrand);
    if (parts.contains(Part.RULINGS)) next = next.withRulings(there.rulings());
    if (parts.contains(Part.HELD_BACK)) next = held(next, there);
    // a place in the install order says nothing about records: plugins load as they do now
    LoadOrder order = now.picture().loadOrder();
    if (!next.layers().equals(now.picture().arrangement().layers()))
      next = next.withPlugins(order.merged(next.plugins(), order.asWishes()));
    if (parts.contains(Part.LOAD_ORDER)) next = next.withPlugins(there.plugins());
    if (parts.contains(Part.DECISIONS))
      next = next.withDecisions(there.decisions()).withFileChoices(there.fileChoices());
    return next;
  }

  /** The layers of here in the order and the sections of there; what is not there stays on top. */
  private static Arrangement ordered(
      Workspace now, Arrangement here, Arrangement there, Map<Long, Layer> byStrand) {
    Map<Long, Layer> own = new LinkedHashMap<>();
    for (Layer l : here.layers()) own.put(now.mods().get(l.mod()).strand(), l);
    List<Layer> layers = new ArrayList<>();
    Set<Long> placed = new HashSet<>();
    byStrand.forEach(
        (strand, o) -> {
          if (own.containsKey(strand) && placed.add(strand))
            layers.add(own.get(strand).withSection(o.section()).withKept(o.kept()));
        });
    own.forEach(
        (strand, l) -> {
          if (placed.add(strand)) layers.add(l.withSection(0));
        });
    return here.withLayers(layers, there.sections());
  }

  // what is held back of a version that is not in use here says nothing here
  private static Arrangement held(Arrangement here, Arrangement there) {
    Set<Long> used = new HashSet<>();
    for (Layer l : here.layers()) used.add(l.mod());
    Map<Long, Set<String>> held = new TreeMap<>();
    there
        .heldBack()
        .forEach(
            (mod, paths) -> {
              if (used.contains(mod)) held.put(mod, paths);
            });
    return here.withHeldBack(held);
  }
}
