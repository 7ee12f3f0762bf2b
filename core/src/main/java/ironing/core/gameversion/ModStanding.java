package ironing.core.gameversion;

import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.List;
import java.util.Optional;

/**
 * How a mod stands with the version of the game that is here.
 *
 * @param reason in words
 * @param comes the release of a catalogue that covers the game, where this one does not
 */
public record ModStanding(State state, String reason, Optional<ModVersion> comes) {
  /** The first that is true is the one. */
  public enum State {
    /** As the user has said: it works. */
    SAID_WORKS,
    /** As the user has said: it is broken. */
    SAID_BROKEN,
    /** No version of the game can break it. */
    CANNOT_BREAK,
    /** Somebody has found it broken. */
    BROKEN,
    /** It is for this version of the game. */
    WORKS,
    /** Nothing that is here is for this version. */
    WAITING
  }

  /**
   * What is known of a mod.
   *
   * @param said what the user says of it with this version of the game
   * @param harmless whether all its files are of kinds that no version can break
   * @param range of the game's versions, by its card
   * @param offered the range that a catalogue gives for the same version of the mod by now
   * @param own findings of the user that speak of the set as it is
   * @param others those of others, as {@link Finding#counting} has them
   * @param covering the newest release of its variant that covers the game
   */
  public record Known(
      Optional<Boolean> said,
      boolean harmless,
      VersionRange range,
      Optional<VersionRange> offered,
      List<Finding> own,
      List<Finding> others,
      Optional<ModVersion> covering) {}

  /**
   * Judges one mod.
   *
   * @param game the version of the game; empty where it tells none
   */
  public static ModStanding of(Known k, Optional<ModVersion> game) {
    if (k.said.isPresent())
      return k.said.get()
          ? is(State.SAID_WORKS, "you have said that it works")
          : new ModStanding(State.SAID_BROKEN, "you have said that it is broken", k.covering);
    if (k.harmless) return is(State.CANNOT_BREAK, "none of its files can break");
    Optional<Finding> broken = broken(k);
    if (broken.isPresent()) {
      Finding f = broken.get();
      String who =
          k.own.contains(f) ? "you have" : f.by().isEmpty() ? "somebody has" : f.by() + " has";
      String says = f.says().isEmpty() ? "" : ": " + f.says();
      return new ModStanding(
          State.BROKEN, who + " found it broken on " + f.at() + says, k.covering);
    }
    if (game.isEmpty()) return is(State.WORKS, "the game tells no version");
    ModVersion v = game.get();
    if (k.range.contains(v)) return is(State.WORKS, "its card is for " + k.range);
    if (k.offered.map(r -> r.contains(v)).orElse(false))
      return is(State.WORKS, "its catalogue says by now that it is for " + k.offered.get());
    String reason = "it is for " + k.range;
    return new ModStanding(State.WAITING, reason, k.covering);
  }

  private static ModStanding is(State state, String reason) {
    return new ModStanding(state, reason, Optional.empty());
  }

  /** One's own counts; of others' one that no other answers, on the same day or later. */
  private static Optional<Finding> broken(Known k) {
    Optional<Finding> own = newest(k.own, true);
    if (own.isPresent()) {
      boolean answered = newest(k.own, false).map(w -> isAnswer(w, own.get())).orElse(false);
      if (!answered) return own;
    }
    Optional<Finding> works = newest(k.others, false);
    return newest(k.others, true).filter(b -> works.map(w -> !isAnswer(w, b)).orElse(true));
  }

  private static boolean isAnswer(Finding works, Finding broken) {
    return works.at().compareTo(broken.at()) >= 0;
  }

  private static Optional<Finding> newest(List<Finding> all, boolean broken) {
    return all.stream()
        .filter(f -> (f.verdict() == Verdict.BROKEN) == broken)
        .max((a, b) -> a.at().compareTo(b.at()));
  }
}
