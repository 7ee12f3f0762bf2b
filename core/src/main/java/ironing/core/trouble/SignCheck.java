package ironing.core.trouble;

import ironing.core.library.Sign;
import ironing.core.path.PathCase;
import ironing.core.testrun.RunLog;
import ironing.core.testrun.RunLog.Report;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/** Whether a run has shown a sign of a mod (docs/formats/mod-card.md). */
public final class SignCheck {
  private SignCheck() {}

  /** Whether a sign was seen. */
  public enum Seen {
    SEEN,
    NOT_SEEN,
    /** The run did not come to its end, the mod was not in the game, or nobody has looked yet. */
    CANNOT_TELL
  }

  /**
   * The file of the mod that a sign is about.
   *
   * @param path in the game folder
   * @param sha256 of the mod’s file
   * @param deployed whether that very file lies there
   */
  public record OwnFile(String path, String sha256, boolean deployed) {}

  /**
   * @param run from its last start
   * @param inGame whether the mod was on and deployed
   * @param file for a sign that is read; empty where the mod has no such file
   * @param ticked what the user has seen, for a sign to look for; empty for nothing yet
   */
  public static Seen of(
      Sign sign,
      Optional<RunLog.Summary> run,
      boolean inGame,
      Optional<OwnFile> file,
      Optional<Boolean> ticked,
      PathCase paths) {
    boolean seen =
        switch (sign.kind()) {
          case REPORT -> run.map(r -> isReported(sign, r)).orElse(false);
          case READ -> run.isPresent() && file.map(f -> isRead(f, run.get(), paths)).orElse(false);
          case LOOK -> ticked.orElse(false);
        };
    if (seen) return Seen.SEEN;
    if (sign.kind() == Sign.Kind.LOOK && ticked.isEmpty()) return Seen.CANNOT_TELL;
    boolean ended = run.flatMap(RunLog.Summary::end).filter(e -> e == 0).isPresent();
    return ended && inGame ? Seen.NOT_SEEN : Seen.CANNOT_TELL;
  }

  /** What the run last reported under a name. */
  public static Optional<Report> reported(String name, RunLog.Summary run) {
    return run.reports().stream().filter(r -> r.name().equals(name)).reduce((a, b) -> b);
  }

  private static boolean isReported(Sign sign, RunLog.Summary run) {
    return reported(sign.what(), run)
        .filter(r -> sign.unit().map(r.unit()::equals).orElse(true))
        .filter(r -> sign.is().map(v -> Fault.same(r.value(), v)).orElse(true))
        .isPresent();
  }

  private static boolean isRead(OwnFile file, RunLog.Summary run, PathCase paths) {
    String key = paths.key(file.path());
    for (Map.Entry<String, String> e : run.read().entrySet()) {
      if (!paths.key(e.getKey()).equals(key)) continue;
      String sha = Objects.requireNonNullElse(e.getValue(), "");
      if (sha.isEmpty() ? file.deployed() : sha.equals(file.sha256())) return true;
    }
    return false;
  }
}
