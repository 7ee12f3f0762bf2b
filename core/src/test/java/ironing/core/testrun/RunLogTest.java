package ironing.core.testrun;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.path.GameRoots;
import ironing.core.testrun.RunLog.Fault;
import ironing.core.testrun.RunLog.Report;
import ironing.core.testrun.RunLog.Summary;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class RunLogTest {
  @Test
  void every_event_of_the_format_is_taken_up() {
    Summary s =
        RunLog.summarise(
            List.of(
                "{\"at\":\"2026-01-01T00:00:00Z\",\"event\":\"start\",\"version\":\"1.4.2\"}",
                "{\"event\":\"read\",\"path\":\"data/a\",\"sha256\":\"ab\"}",
                "{\"event\":\"read\",\"plugin\":\"A.plug\",\"slot\":3}",
                "{\"at\":\"2026-01-01T01:00:02.5+01:00\",\"event\":\"loaded\"}",
                "{\"event\":\"report\",\"name\":\"Fare\",\"value\":4.2,\"unit\":\"crowns\",\"from\":\"A.plug/1\"}",
                "{\"event\":\"warning\",\"code\":\"w\",\"text\":\"look\"}",
                "{\"event\":\"fault\",\"code\":\"master-missing\",\"text\":\"no\",\"path\":\"data/A.plug\",\"plugin\":\"A.plug\",\"record\":\"A.plug/1\"}",
                "{\"event\":\"end\",\"code\":3}"));
    assertThat(s.gameVersion()).contains("1.4.2");
    assertThat(s.read()).containsEntry("data/a", "ab");
    assertThat(s.plugins()).containsEntry("A.plug", 3);
    assertThat(s.reports()).containsExactly(new Report("Fare", "4.2", "crowns", "A.plug/1"));
    assertThat(s.warnings()).containsExactly(new Fault("w", "look", "", "", ""));
    assertThat(s.fault())
        .contains(new Fault("master-missing", "no", "data/A.plug", "A.plug", "A.plug/1"));
    assertThat(s.end()).contains(3);
    assertThat(s.loading()).contains(Duration.ofMillis(2500));
  }

  @Test
  void full_paths_of_a_log_become_game_paths_where_the_game_has_places() {
    GameRoots roots =
        GameRoots.of(Path.of("/games/bells"), Map.of("user", Path.of("/home/x/bells")));
    String log =
        """
        {"event":"read","path":"/home/x/bells/mods/a.json","sha256":"ab"}
        {"event":"read","path":"/games/bells/data/b.json","sha256":"cd"}
        {"event":"read","path":"data/c.json","sha256":"ef"}
        {"event":"read","path":"/elsewhere/d.json","sha256":"01"}
        no JSON: /home/x/bells
        {"event":"report","name":"/home/x/bells","value":"1"}""";
    String told = RunLog.inGame(log, roots);
    assertThat(RunLog.summarise(told.lines().toList()).read())
        .containsExactly(
            Map.entry("@user/mods/a.json", "ab"),
            Map.entry("data/b.json", "cd"),
            Map.entry("data/c.json", "ef"),
            Map.entry("/elsewhere/d.json", "01"));
    assertThat(told.lines().skip(2)).containsExactlyElementsOf(log.lines().skip(2).toList());
    assertThat(RunLog.inGame(log, GameRoots.of(Path.of("/games/bells")))).isEqualTo(log);
  }

  @Test
  void how_long_loading_took_is_only_said_where_both_times_are_known() {
    String start = "{\"at\":\"2026-01-01T00:00:09Z\",\"event\":\"start\",\"version\":\"1\"}";
    for (String loaded : List.of("\"2026-01-01T00:00:08Z\"", "\"soon\"", "7", "null", "[]"))
      assertThat(
              RunLog.summarise(List.of(start, "{\"at\":" + loaded + ",\"event\":\"loaded\"}"))
                  .loading())
          .as(loaded)
          .isEmpty();
    assertThat(RunLog.summarise(List.of(start)).loading()).isEmpty();
  }

  @Test
  void a_line_cut_off_by_a_crash_and_events_of_later_versions_are_passed_over() {
    Summary s =
        RunLog.summarise(
            List.of(
                "{\"event\":\"start\",\"version\":\"1\"}",
                "",
                "{\"event\":\"dance\"}",
                "[]",
                "{\"event\":\"repo"));
    assertThat(s.gameVersion()).contains("1");
    assertThat(s.end()).as("it broke off").isEmpty();
  }
}
