package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.path.PathCase;
import ironing.core.testrun.RunLog;
import ironing.core.trouble.Fault.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FaultTest {
  private static RunFacts run(int exitCode, String... events) {
    List<String> lines = new ArrayList<>();
    for (String e : events) lines.add("{" + e.replace('\'', '"') + "}");
    Optional<RunLog.Summary> log =
        lines.isEmpty() ? Optional.empty() : Optional.of(RunLog.summarise(lines));
    return new RunFacts(Optional.of(exitCode), log, "", 1000, false, Optional.of(100L << 20));
  }

  private static final String END = "'event':'end','code':0";
  private static final RunFacts GOOD =
      run(
          0,
          "'event':'start','version':'1','at':'2026-01-01T02:00:00+02:00'",
          "'event':'read','path':'data/A.txt'",
          "'event':'loaded','at':'2026-01-01T00:00:00.500Z'",
          "'event':'report','name':'speed','value':10,'from':'x'",
          "'event':'report','name':'speed','value':12.0,'from':'x'",
          "'event':'warning','code':'odd','text':'t','path':'data/w.txt'",
          END);
  private static final RunFacts STOPPED =
      run(3, "'event':'fault','code':'torn','text':'t','path':'data/Sail.txt','plugin':'S.plug'");
  private static final RunFacts CRASHED = run(139);

  @ParameterizedTest
  @CsvSource({
    // kind, name, place, value: in a good run, in one that stopped, in one that crashed without a
    // log
    "STOPS, torn, , , WORKS, FAILS, CANNOT_TELL",
    "STOPS, torn, data/sail.txt, , WORKS, FAILS, CANNOT_TELL",
    "STOPS, torn, s.plug, , WORKS, FAILS, CANNOT_TELL",
    "STOPS, torn, data/other.txt, , WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "STOPS, leak, , , WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "WARNS, odd, data/w.txt, , FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "WARNS, odd, data/v.txt, , WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "EXITS, , , 139, WORKS, ANOTHER_FAULT, FAILS",
    "EXITS, , , 3, WORKS, FAILS, CANNOT_TELL",
    "REPORTS, speed, , 12, FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS, speed, , 10, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS_NOT, speed, , 12.00, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS_NOT, speed, , 10, FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS_NOT, depth, , 10, FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS_NOT, speed, , , WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "REPORTS_NOT, depth, , , FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "NOT_READ, data/a.txt, , , WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "NOT_READ, data/b.txt, , , FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "ANY, , , , WORKS, FAILS, FAILS",
    "SLOWER, , , 999, FAILS, FAILS, FAILS",
    "SLOWER, , , 1000, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "LOADS_SLOWER, , , 499, FAILS, ANOTHER_FAULT, CANNOT_TELL",
    "LOADS_SLOWER, , , 500, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "OVER_MEMORY, , , 99, FAILS, FAILS, FAILS",
    "OVER_MEMORY, , , 100, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "COSTS, a mod, , 5, WORKS, ANOTHER_FAULT, CANNOT_TELL",
    "WORDS, black water, , , CANNOT_TELL, CANNOT_TELL, CANNOT_TELL",
  })
  void each_kind_is_told_by_what_a_run_says(
      Kind kind,
      String name,
      String place,
      String value,
      Answer good,
      Answer stopped,
      Answer crashed) {
    Fault fault = new Fault(kind, text(name), text(place), text(value));
    assertThat(fault.in(GOOD, PathCase.INSENSITIVE)).isEqualTo(good);
    assertThat(fault.in(STOPPED, PathCase.INSENSITIVE)).isEqualTo(stopped);
    assertThat(fault.in(CRASHED, PathCase.INSENSITIVE)).isEqualTo(crashed);
  }

  private static String text(String given) {
    return given == null ? "" : given;
  }

  @Test
  void a_run_that_was_cut_off_tells_nothing_but_that_it_took_long() {
    RunFacts cut =
        new RunFacts(
            Optional.of(143), Optional.empty(), "terminated", 5000, true, Optional.empty());
    assertThat(new Fault(Kind.STOPS, "torn", "", "").in(cut, PathCase.SENSITIVE))
        .isEqualTo(Answer.CANNOT_TELL);
    assertThat(new Fault(Kind.SLOWER, "", "", "3000").in(cut, PathCase.SENSITIVE))
        .isEqualTo(Answer.FAILS);
  }

  @Test
  void what_nobody_measured_is_not_said_to_be_within_a_limit() {
    RunFacts unknown =
        new RunFacts(Optional.of(0), Optional.empty(), "", 10, false, Optional.empty());
    for (Kind kind : List.of(Kind.OVER_MEMORY, Kind.LOADS_SLOWER))
      assertThat(new Fault(kind, "", "", "5000").in(unknown, PathCase.SENSITIVE))
          .isEqualTo(Answer.CANNOT_TELL);
  }

  @Test
  void a_line_of_the_output_and_a_log_that_breaks_off_are_no_good_runs() {
    RunFacts said =
        new RunFacts(
            Optional.of(0), Optional.empty(), "Can't load it", 10, false, Optional.empty());
    Fault fault = new Fault(Kind.SAYS, "Can't load it", "", "");
    assertThat(fault.in(said, PathCase.SENSITIVE)).isEqualTo(Answer.FAILS);
    assertThat(new Fault(Kind.SAYS, "No hull", "", "").in(said, PathCase.SENSITIVE))
        .isEqualTo(Answer.ANOTHER_FAULT);
    RunFacts half = run(0, "'event':'start','version':'1'");
    assertThat(new Fault(Kind.STOPS, "torn", "", "").in(half, PathCase.SENSITIVE))
        .isEqualTo(Answer.CANNOT_TELL);
  }
}
