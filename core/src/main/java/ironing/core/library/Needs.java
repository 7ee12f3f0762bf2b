package ironing.core.library;

import ironing.core.library.ModCard.Need;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

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

  /** All needs of a card, met or not. Cost: needs times mods. */
  public static List<Checked> of(ModCard card, List<Installed> installed) {
    List<Checked> out = new ArrayList<>();
    for (Need need : card.needs()) {
      Checked best = new Checked(need, State.MISSING, Optional.empty());
      for (Installed i : installed) {
        if (!i.card().id().equals(need.mod())) continue;
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
