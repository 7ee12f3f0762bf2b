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
  /** How one need is met. */
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
    List<Checked> out = new ArrayList<>();
    for (Need need : card.needs()) {
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
    if (!inRange) return State.WRONG_VERSION;
    return i.on() ? State.MET : State.OFF;
  }
}
