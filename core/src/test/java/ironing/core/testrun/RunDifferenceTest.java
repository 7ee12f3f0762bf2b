package ironing.core.testrun;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testrun.RunDifference.Change;
import ironing.core.testrun.RunDifference.Kind;
import ironing.core.testrun.RunDifference.Slot;
import ironing.core.testrun.RunLog.Summary;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class RunDifferenceTest {
  private static Summary log(String... reads) {
    return RunLog.summarise(
        List.of(reads).stream().map(r -> "{\"event\":\"read\"," + r + "}").toList());
  }

  @Test
  void what_came_what_went_and_what_was_read_otherwise() {
    Summary before =
        log(
            "\"path\":\"a\",\"sha256\":\"1\"",
            "\"path\":\"b\",\"sha256\":\"1\"",
            "\"path\":\"c\"",
            "\"plugin\":\"P.plug\",\"slot\":3,\"path\":\"P.plug\"",
            "\"plugin\":\"Q.plug\",\"slot\":4");
    Summary now =
        log(
            "\"path\":\"b\",\"sha256\":\"2\"",
            "\"path\":\"c\",\"sha256\":\"9\"",
            "\"path\":\"d\",\"sha256\":\"1\"",
            "\"plugin\":\"P.plug\",\"slot\":4,\"path\":\"P.plug\"",
            "\"plugin\":\"R.plug\",\"slot\":3");
    RunDifference d = RunDifference.between(before, now);
    assertThat(d.files())
        .containsExactly(
            new Change("b", Kind.OTHER), new Change("d", Kind.COME), new Change("a", Kind.GONE));
    assertThat(d.plugins())
        .containsExactly(
            new Slot("P.plug", 3, 4), new Slot("Q.plug", 4, null), new Slot("R.plug", null, 3));
  }

  @Property(seed = "8160")
  void of_two_runs_alike_there_is_nothing_and_the_other_way_round_what_came_went(
      @ForAll @Size(max = 8) List<Character> a, @ForAll @Size(max = 8) List<Character> b) {
    Summary one = of(a), two = of(b);
    assertThat(RunDifference.between(one, one).files()).isEmpty();
    assertThat(RunDifference.between(one, one).plugins()).isEmpty();
    assertThat(count(RunDifference.between(one, two), Kind.COME))
        .isEqualTo(count(RunDifference.between(two, one), Kind.GONE));
    assertThat(RunDifference.between(one, two).plugins())
        .hasSameSizeAs(RunDifference.between(two, one).plugins());
  }

  private static Summary of(List<Character> letters) {
    return log(
        letters.stream()
            .map(
                c ->
                    "\"path\":\""
                        + c % 5
                        + "\",\"sha256\":\""
                        + c % 3
                        + "\",\"plugin\":\"p"
                        + c % 4
                        + "\",\"slot\":"
                        + c % 7)
            .toArray(String[]::new));
  }

  private static long count(RunDifference d, Kind kind) {
    return d.files().stream().filter(c -> c.kind() == kind).count();
  }
}
