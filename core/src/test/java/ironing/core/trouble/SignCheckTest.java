package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.library.Sign;
import ironing.core.library.Sign.Kind;
import ironing.core.path.PathCase;
import ironing.core.testrun.RunLog;
import ironing.core.trouble.SignCheck.OwnFile;
import ironing.core.trouble.SignCheck.Seen;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SignCheckTest {
  private static final String MINE = "a".repeat(64), OTHER = "b".repeat(64);

  private static RunLog.Summary run(String... lines) {
    return RunLog.sinceLastStart(List.of(lines));
  }

  private static final RunLog.Summary PLAYED =
      run(
          "{\"event\":\"start\",\"version\":\"1\"}",
          "{\"event\":\"report\",\"name\":\"Speed\",\"value\":11,\"unit\":\"kn\"}",
          "{\"event\":\"report\",\"name\":\"Speed\",\"value\":\"12.0\",\"unit\":\"kn\"}",
          "{\"event\":\"read\",\"path\":\"sound/Gulls.ogg\",\"sha256\":\"" + MINE + "\"}",
          "{\"event\":\"read\",\"path\":\"sound/bell.ogg\"}",
          "{\"event\":\"end\",\"code\":0}");

  @ParameterizedTest
  @CsvSource({
    "Speed, 12, kn, SEEN",
    "Speed, 1.2e1, , SEEN",
    "Speed, , , SEEN",
    // the last report counts
    "Speed, 11, kn, NOT_SEEN",
    "Speed, 12, km/h, NOT_SEEN",
    "speed, 12, kn, NOT_SEEN",
    "Speed, twelve, kn, NOT_SEEN",
  })
  void a_report(String name, String is, String unit, Seen seen) {
    Sign sign =
        new Sign(Kind.REPORT, "s", name, Optional.ofNullable(is), Optional.ofNullable(unit));
    assertThat(check(sign, PLAYED, true, null)).isEqualTo(seen);
  }

  @Test
  void a_file_that_is_read_is_the_mods_own() {
    Sign sign = new Sign(Kind.READ, "s", "x", Optional.empty(), Optional.empty());
    assertThat(check(sign, PLAYED, true, new OwnFile("sound/gulls.ogg", MINE, false)))
        .isEqualTo(Seen.SEEN);
    assertThat(check(sign, PLAYED, true, new OwnFile("sound/gulls.ogg", OTHER, true)))
        .as("another mod's file was read there")
        .isEqualTo(Seen.NOT_SEEN);
    assertThat(check(sign, PLAYED, true, new OwnFile("sound/bell.ogg", MINE, true)))
        .as("the log tells no hash, and the mod's file lies there")
        .isEqualTo(Seen.SEEN);
    assertThat(check(sign, PLAYED, true, new OwnFile("sound/bell.ogg", MINE, false)))
        .isEqualTo(Seen.NOT_SEEN);
    assertThat(check(sign, PLAYED, true, null)).isEqualTo(Seen.NOT_SEEN);
  }

  @Test
  void it_cannot_be_told_where_the_run_broke_off_or_the_mod_was_not_there() {
    Sign sign = new Sign(Kind.REPORT, "s", "Depth", Optional.empty(), Optional.empty());
    assertThat(check(sign, PLAYED, false, null)).isEqualTo(Seen.CANNOT_TELL);
    assertThat(check(sign, run("{\"event\":\"end\",\"code\":3}"), true, null))
        .isEqualTo(Seen.CANNOT_TELL);
    RunLog.Summary again =
        run(
            "{\"event\":\"report\",\"name\":\"Depth\",\"value\":3}",
            "{\"event\":\"end\",\"code\":0}",
            "{\"event\":\"start\",\"version\":\"1\"}");
    assertThat(check(sign, again, true, null))
        .as("what was before its last start does not count")
        .isEqualTo(Seen.CANNOT_TELL);
    assertThat(SignCheck.of(sign, Optional.empty(), true, Optional.empty(), Optional.empty(), CASE))
        .isEqualTo(Seen.CANNOT_TELL);
  }

  @Test
  void what_is_looked_for_is_told_by_a_person() {
    Sign sign = new Sign(Kind.LOOK, "s", "Harbour , then left", Optional.empty(), Optional.empty());
    assertThat(sign.place()).isEqualTo("Harbour");
    assertThat(ticked(sign, Optional.empty())).isEqualTo(Seen.CANNOT_TELL);
    assertThat(ticked(sign, Optional.of(true))).isEqualTo(Seen.SEEN);
    assertThat(ticked(sign, Optional.of(false))).isEqualTo(Seen.NOT_SEEN);
  }

  private static final PathCase CASE = PathCase.INSENSITIVE;

  private static Seen ticked(Sign sign, Optional<Boolean> ticked) {
    return SignCheck.of(sign, Optional.of(PLAYED), true, Optional.empty(), ticked, CASE);
  }

  private static Seen check(Sign sign, RunLog.Summary run, boolean inGame, OwnFile file) {
    return SignCheck.of(
        sign, Optional.of(run), inGame, Optional.ofNullable(file), Optional.empty(), CASE);
  }
}
