package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.Problem;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.plugin.PluginText;
import ironing.core.testkit.Refused;
import ironing.core.testkit.TestWorld;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FieldCheckTest {
  private static final RecordType VESSEL = TestWorld.GAME.records().get("vessel");
  private static final RecordIndex INDEX =
      TestWorld.index(
          List.of(
              PluginText.parse(
                  "Base.plug",
                  "{\"format\":\"ironing/plugin@1\"}\n"
                      + "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{}}")),
          Set.of());

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "speed | 12.50 | 12.5",
        "name | \"Ann\" | \"Ann\"",
        "mesh | \"textures/a.png\" | \"textures/a.png\"",
        "crew | [ {\"ref\":\"Base.plug/1\"} ] | [{\"ref\":\"Base.plug/1\"}]",
        "hold | [ {\"goods\":{\"ref\":\"Base.plug/1\"},\"tonnes\":2} ] | [{\"goods\":{\"ref\":\"Base.plug/1\"},\"tonnes\":2}]",
        "name | null | null"
      })
  void a_value_that_fits_is_written_as_it_is_kept(String place, String text, String kept) {
    Field field = FieldCheck.fieldAt(VESSEL, place);
    assertThat(FieldCheck.normal(place, field, text, INDEX)).isEqualTo(kept);
  }

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "speed | \"fast\" | no number",
        "speed | fast | no value",
        "name | 5 | no text",
        "mesh | \"../out\" | no path",
        "crew | 5 | no list",
        "crew | [ {\"ref\":\"Base.plug/9\"} ] | no plugin that is on",
        "crew | [ 7 ] | no reference",
        "hold | [ {\"tonnes\":2} ] | has no “goods”",
        "hold[Base.plug/1].tonnes | \"much\" | no number"
      })
  void one_that_does_not_is_refused_with_the_place_and_a_remedy(
      String place, String text, String why) {
    Field field = FieldCheck.fieldAt(VESSEL, place);
    Problem p = Refused.problem(() -> FieldCheck.normal(place, field, text, INDEX));
    assertThat(p.code()).isEqualTo("value-unfit");
    assertThat(p.thing()).isEqualTo(place);
    assertThat(p.reason().toLowerCase(java.util.Locale.ROOT))
        .contains(why.toLowerCase(java.util.Locale.ROOT));
    assertThat(p.remedy()).isNotBlank();
  }
}
