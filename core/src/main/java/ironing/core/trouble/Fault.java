package ironing.core.trouble;

import ironing.core.path.PathCase;
import ironing.core.testrun.RunLog;
import ironing.core.testrun.RunLog.Report;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * What is wrong, so that a run can be asked whether it shows it. Texts that a kind does not use are
 * empty.
 *
 * @param name the code of a fault or a warning, the name of a report, the path of a file, or what
 *     the user says in words
 * @param place the path or the plugin that the fault or warning names; empty for any
 * @param value of a report; an exit code; a limit in milliseconds or MiB; how often to measure
 */
public record Fault(Kind kind, String name, String place, String value) {
  /** How a fault is told. */
  public enum Kind {
    /** The game stops over it and gives it a code. */
    STOPS,
    /** The game warns of it. */
    WARNS,
    /** A line of the game's output says so. */
    SAYS,
    /** The game ends with an exit code. */
    EXITS,
    /** The report has this value. */
    REPORTS,
    /** The report has another value than this, or there is none; without a value: there is none. */
    REPORTS_NOT,
    /** The game does not read this file. */
    NOT_READ,
    /** The game stops over anything at all. */
    ANY,
    /** It takes longer than so many milliseconds until the game ends. */
    SLOWER,
    /** It takes longer than so many milliseconds until the game has loaded. */
    LOADS_SLOWER,
    /** It has more than so many MiB of memory at a time. */
    OVER_MEMORY,
    /** Nothing is wrong: what a mod costs is measured ({@link Measuring}). */
    COSTS,
    /** Only the user can tell. */
    WORDS
  }

  private static final long MIB = 1L << 20;
  private static final Pattern NUMBER = Pattern.compile("-?\\d+(\\.\\d+)?([eE][+-]?\\d+)?");

  /** The fault over which a run has stopped, or of which it has warned, by what its log says. */
  public static Fault of(Kind kind, RunLog.Fault told) {
    String place = told.path().isEmpty() ? told.plugin() : told.path();
    return new Fault(kind, told.code(), place, "");
  }

  /** Whether a run can tell it without anybody. */
  public boolean isTold() {
    return kind != Kind.WORDS;
  }

  /**
   * What a run says of it. A game that came to its end and does not show it works; one that stopped
   * over something else has another fault.
   */
  public Answer in(RunFacts run, PathCase paths) {
    return switch (kind) {
      case WORDS -> Answer.CANNOT_TELL;
      case ANY -> anything(run);
      case SLOWER -> over(run, Optional.of(run.ms()), 1);
      case LOADS_SLOWER ->
          over(run, run.log().flatMap(RunLog.Summary::loading).map(Duration::toMillis), 1);
      case OVER_MEMORY -> over(run, run.peakBytes(), MIB);
      case COSTS -> run.cameToItsEnd() ? Answer.WORKS : stopped(run);
      case STOPS -> among(run, paths, run.log().flatMap(RunLog.Summary::fault).stream().toList());
      case WARNS -> among(run, paths, run.log().map(RunLog.Summary::warnings).orElse(List.of()));
      case SAYS -> when(run, run.saidFault().equals(name));
      case EXITS ->
          when(run, run.exitCode().map(String::valueOf).filter(value::equals).isPresent());
      case NOT_READ ->
          run.cameToItsEnd() && run.log().isPresent() ? told(!hasRead(run, paths)) : stopped(run);
      case REPORTS -> when(run, last(run).filter(r -> same(r.value(), value)).isPresent());
      case REPORTS_NOT ->
          last(run).isEmpty() && !run.cameToItsEnd()
              ? stopped(run)
              : told(last(run).filter(r -> value.isEmpty() || same(r.value(), value)).isEmpty());
    };
  }

  private static Answer anything(RunFacts run) {
    if (run.cameToItsEnd()) return Answer.WORKS;
    return run.cutOff() ? Answer.CANNOT_TELL : Answer.FAILS;
  }

  private Answer over(RunFacts run, Optional<Long> measured, long unit) {
    long limit = Long.parseLong(value) * unit;
    if (measured.filter(m -> m > limit).isPresent()) return Answer.FAILS;
    if (!run.cameToItsEnd()) return stopped(run);
    return measured.isPresent() ? Answer.WORKS : Answer.CANNOT_TELL;
  }

  private Answer among(RunFacts run, PathCase paths, List<RunLog.Fault> told) {
    return when(run, told.stream().anyMatch(f -> isThis(f, paths)));
  }

  private boolean isThis(RunLog.Fault f, PathCase paths) {
    if (!f.code().equals(name)) return false;
    String at = paths.key(place);
    return place.isEmpty() || paths.key(f.path()).equals(at) || paths.key(f.plugin()).equals(at);
  }

  private boolean hasRead(RunFacts run, PathCase paths) {
    String path = paths.key(name);
    return run.log().stream()
        .flatMap(l -> l.read().keySet().stream())
        .anyMatch(p -> paths.key(p).equals(path));
  }

  private Optional<Report> last(RunFacts run) {
    return run.log().stream()
        .flatMap(l -> l.reports().stream())
        .filter(r -> r.name().equals(name))
        .reduce((a, b) -> b);
  }

  /** Texts that are numbers compare as numbers. */
  static boolean same(String a, String b) {
    if (NUMBER.matcher(a).matches() && NUMBER.matcher(b).matches())
      return Double.compare(Double.parseDouble(a), Double.parseDouble(b)) == 0;
    return a.equals(b);
  }

  private static Answer when(RunFacts run, boolean shows) {
    if (shows) return Answer.FAILS;
    return run.cameToItsEnd() ? Answer.WORKS : stopped(run);
  }

  private static Answer told(boolean shows) {
    return shows ? Answer.FAILS : Answer.WORKS;
  }

  private static Answer stopped(RunFacts run) {
    boolean named =
        !run.saidFault().isEmpty() || run.log().flatMap(RunLog.Summary::fault).isPresent();
    return named && !run.cutOff() ? Answer.ANOTHER_FAULT : Answer.CANNOT_TELL;
  }
}
