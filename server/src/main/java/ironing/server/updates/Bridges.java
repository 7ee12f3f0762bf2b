package ironing.server.updates;

import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.library.ModCard;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Catalogues.Offered;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.Identity;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Which bridges the set calls for, which have lost a side, and which wait for one. */
@Component
class Bridges {
  private final Catalogues catalogues;
  private final Identities identities;

  Bridges(Catalogues catalogues, Identities identities) {
    this.catalogues = catalogues;
    this.identities = identities;
  }

  /** How a bridge stands. */
  enum State {
    /** All of its sides are on, and it is not. */
    CALLED_FOR,
    /** It is on, and one of its sides is not. */
    LOST_SIDE,
    /** It is in the library, off, and one of its sides is not on. */
    WAITING
  }

  /**
   * One side of a bridge.
   *
   * @param met whether it is on, in range
   */
  record Side(String mod, String name, String versions, boolean met) {}

  /**
   * A bridge.
   *
   * @param mod its id
   * @param here its number in the library; empty where it is not there
   * @param catalogue the title of the one that offers it; empty where it is in the library
   */
  record Bridge(
      State state,
      String mod,
      String name,
      Optional<Long> here,
      Optional<String> catalogue,
      List<Side> sides) {}

  /** What is on. */
  private record On(Map<String, ModVersion> versions, Map<String, String> variants) {
    boolean has(Need n) {
      ModVersion v = versions.get(n.mod());
      return v != null
          && n.versions().contains(v)
          && n.variant().map(x -> x.equals(variants.get(n.mod()))).orElse(true);
    }
  }

  /** All of them: those that are called for first, then by name. */
  List<Bridge> of(OpenWorkspace open) {
    Map<Long, Identity> known = identities.of(open);
    Map<String, String> names = new HashMap<>();
    On on = new On(new HashMap<>(), new HashMap<>());
    Set<Long> onNow = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers()) if (l.on()) onNow.add(l.mod());
    for (Mod m : open.mods().values()) {
      Identity i = known.get(m.id());
      if (i == null) continue;
      names.put(i.mod(), m.card().name());
      if (!onNow.contains(m.id())) continue;
      on.versions.put(i.mod(), i.version(m.card()));
      on.variants.put(i.mod(), i.variant(m.card()));
    }
    Map<String, Bridge> out = new TreeMap<>();
    for (Mod m : open.mods().values()) {
      List<Need> sides = m.card().bridges().stream().map(ModCard.Need::offered).toList();
      if (sides.isEmpty() || !known.containsKey(m.id())) continue;
      String id = known.get(m.id()).mod();
      state(sides.stream().allMatch(on::has), onNow.contains(m.id()))
          .filter(s -> s == State.LOST_SIDE || !on.versions.containsKey(id))
          .ifPresent(
              s ->
                  out.put(
                      id,
                      new Bridge(
                          s,
                          id,
                          m.card().name(),
                          Optional.of(m.id()),
                          Optional.empty(),
                          sides(sides, on, names))));
    }
    for (Offered o : catalogues.bridges(open.workspace(), on.versions.keySet())) {
      OfferedMod mod = o.mod();
      if (names.containsKey(mod.mod()) || out.containsKey(mod.mod())) continue;
      called(mod, on)
          .ifPresent(
              r ->
                  out.put(
                      mod.mod(),
                      new Bridge(
                          State.CALLED_FOR,
                          mod.mod(),
                          mod.name(),
                          Optional.empty(),
                          Optional.of(o.title()),
                          sides(r.bridges(), on, names))));
    }
    return out.values().stream()
        .sorted(Comparator.comparing(Bridge::state).thenComparing(Bridge::name))
        .toList();
  }

  private static Optional<State> state(boolean hasSides, boolean isOn) {
    if (isOn) return hasSides ? Optional.empty() : Optional.of(State.LOST_SIDE);
    return Optional.of(hasSides ? State.CALLED_FOR : State.WAITING);
  }

  /** The newest release that stands and all of whose sides are on. */
  private static Optional<Release> called(OfferedMod mod, On on) {
    return mod.releases().stream()
        .filter(r -> r.kind() == Kind.MAIN && r.withdrawn().isEmpty() && !r.bridges().isEmpty())
        .filter(r -> r.bridges().stream().allMatch(on::has))
        .max(Comparator.comparing(Release::version));
  }

  private static List<Side> sides(List<Need> sides, On on, Map<String, String> names) {
    List<Side> out = new ArrayList<>();
    for (Need n : sides)
      out.add(
          new Side(
              n.mod(), names.getOrDefault(n.mod(), n.mod()), n.versions().toString(), on.has(n)));
    return out;
  }
}
