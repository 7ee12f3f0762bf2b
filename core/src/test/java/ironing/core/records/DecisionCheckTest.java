package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Decision.Outcome;
import ironing.core.testkit.TestWorld;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which decision makes sense where, and how it is kept. */
class DecisionCheckTest {
  private static Plugin plugin(String name, String masters, String fields) {
    return PluginText.parse(
        name,
        """
        {"format":"ironing/plugin@1","masters":[%s]}
        {"type":"vessel","id":"Base.plug/1","fields":%s}
        """
            .formatted(masters, fields));
  }

  private final RecordIndex index =
      TestWorld.index(
          List.of(
              plugin("Base.plug", "", "{\"name\":\"A\",\"speed\":11,\"route\":[]}"),
              plugin("One.plug", "\"Base.plug\"", "{\"name\":\"A\",\"speed\":12,\"route\":[]}"),
              plugin("Two.plug", "\"Base.plug\"", "{\"name\":\"B\",\"speed\":13,\"route\":[]}")),
          Set.of());
  private final int record = index.find(new Ref("Base.plug", 1));

  private Collision collision(Map<String, Decided> decisions) {
    return Collision.of(TestWorld.GAME, index, record, decisions);
  }

  private Decision checked(String place, Decision decision) {
    return DecisionCheck.checked(index, collision(Map.of()), place, decision);
  }

  private static Decision decision(String word) {
    return switch (word) {
      case "before" -> Outcome.AS_BEFORE;
      case "merged" -> Outcome.MERGED;
      case "removed" -> Outcome.REMOVED;
      default ->
          word.startsWith("=") ? new Decision.Own(word.substring(1)) : new Decision.Take(word);
    };
  }

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "speed | One.plug",
        "speed | two.PLUG",
        "speed | before",
        "speed | removed",
        "speed | =12.5",
        "name | Two.plug",
        "mesh | removed",
        "mesh | =\"a/b.nif\"",
        "(record) | before",
        "(record) | removed",
        "(record) | Base.plug",
        "(record) | One.plug"
      })
  void what_makes_sense_is_kept(String place, String word) {
    assertThat(checked(place, decision(word))).isEqualTo(decision(word));
  }

  @ParameterizedTest(name = "{0}: {1} is {2}")
  @CsvSource(
      delimiter = '|',
      value = {
        "speed | Base.plug | choice-unknown",
        "name | One.plug | choice-unknown",
        "speed | merged | choice-unknown",
        "speed | =\"fast\" | value-unfit",
        "mesh | before | not-found",
        "mesh | One.plug | not-found",
        "hold[1] | removed | not-found",
        "(record) | Gone.plug | not-found",
        "(record) | merged | not-found"
      })
  void what_makes_none_is_refused(String place, String word, String code) {
    assertThatThrownBy(() -> checked(place, decision(word)))
        .isInstanceOfSatisfying(
            IroningException.class, e -> assertThat(e.problems().get(0).code()).isEqualTo(code));
  }

  @Test
  void what_the_sides_say_is_kept_with_the_decision_and_others_stay_as_they_are() {
    Map<String, Decided> before = Map.of("name", new Decided(new Decision.Take("Two.plug"), "x"));
    Map<String, Decided> all =
        DecisionCheck.with(
            TestWorld.GAME,
            index,
            record,
            before,
            Map.of("speed", new Decision.Take("One.plug"), "mesh", new Decision.Own("\"a.nif\"")));
    Combination.Cell speed =
        collision(Map.of()).combination().cells().stream()
            .filter(c -> c.place().equals("speed"))
            .findFirst()
            .orElseThrow();
    assertThat(all.get("speed").seen()).isEqualTo(Combiner.seen(speed)).isNotEmpty();
    assertThat(all.get("name")).isEqualTo(before.get("name"));
    assertThat(all.get("mesh").decision()).isEqualTo(new Decision.Own("\"a.nif\""));
  }
}
