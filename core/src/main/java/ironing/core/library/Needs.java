package ironing.core.library;

import ironing.core.library.ModCard.Need;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** Whether what a card needs is there, switched on, and in range. */
public final class Needs {
  /** How one need is met; {@link #WRONG_VERSION} is also another variant. */
  public enum State {
    MET,
    OFF,
    WRONG_VERSION,
    MISSING
  }

  /** A mod of the library and whether it is on. */
  public record Installed(ModCard card, boolean on) {}

  /**
   * @param found the mod that meets it best, empty when none of that id is here
   */
  public record Checked(Need need, State state, Optional<ModCard> found) {}

  private Needs() {}

  /** A library by the ids of its cards; several mods may have one id. */
  public static Map<String, List<Installed>> byId(Collection<Installed> installed) {
    return installed.stream().collect(Collectors.groupingBy(i -> i.card().id()));
  }

  /** All needs of a card, met or not. Cost: one look-up a need. */
  public static List<Checked> of(ModCard card, Map<String, List<Installed>> installed) {
    return each(card.needs(), installed);
  }

  /** What a bridge stands between, there or not. Cost: as {@link #of}. */
  public static List<Checked> sides(ModCard card, Map<String, List<Installed>> installed) {
    return each(card.bridges(), installed);
  }

  /** Needs of whatever kind, met or not. Cost: as {@link #of}. */
  public static List<Checked> each(List<Need> needs, Map<String, List<Installed>> installed) {
    List<Checked> out = new ArrayList<>();
    for (Need need : needs) {
      Checked best = new Checked(need, State.MISSING, Optional.empty());
      for (Installed i : installed.getOrDefault(need.mod(), List.of())) {
        Checked c = new Checked(need, state(need, i), Optional.of(i.card()));
        if (c.state().ordinal() < best.state().ordinal()) best = c;
      }
      out.add(best);
    }
    return out;
  }

  private static State state(Need need, Installed i) {
    boolean inRange = VersionRange.of(need.versions()).contains(ModVersion.of(i.card().version()));
    if (!inRange || !need.variant().map(i.card().variant()::equals).orElse(true))
      return State.WRONG_VERSION;
    return i.on() ? State.MET : State.OFF;
  }
}
