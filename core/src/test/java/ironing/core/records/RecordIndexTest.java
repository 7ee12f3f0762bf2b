package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.Problem;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordIndex.Source;
import ironing.core.testkit.Refused;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;

class RecordIndexTest {
  @Test
  void a_file_that_is_away_when_a_version_is_asked_for_is_told_by_its_name() {
    Plugin plugin =
        PluginText.parse(
            "Base.plug",
            "{\"format\":\"ironing/plugin@1\"}\n"
                + "{\"type\":\"vessel\",\"id\":\"Base.plug/1\",\"fields\":{\"name\":\"Ann\"}}");
    RecordTable table =
        RecordTable.read("Base.plug", PluginCodec.encode(plugin), Shapes.of(TestWorld.GAME));
    Bytes gone =
        (offset, length) -> {
          throw new IOException("the drive is gone");
        };
    RecordIndex index = RecordIndex.of(List.of(new Source(table, gone, false)));
    Problem p = Refused.problem(() -> index.used(0));
    assertThat(p.code()).isEqualTo("plugin-unreadable");
    assertThat(p.thing()).isEqualTo("Base.plug");
    assertThat(p.reason()).contains("the drive is gone");
  }
}
