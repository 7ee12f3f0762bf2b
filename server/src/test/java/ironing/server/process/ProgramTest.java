package ironing.server.process;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ProgramTest {
  private static final long MIB = 1L << 20;
  @TempDir Path folder;

  private Program run(String script) throws Exception {
    Program program = Program.start(List.of("sh", "-c", script), folder, Map.of(), "Check it.");
    assertThat(program.listen(l -> {})).isZero();
    return program;
  }

  /** GNU tail keeps what it is to give of a pipe in memory: that many bytes, and little more. */
  @Test
  void the_memory_of_what_it_has_started_counts() throws Exception {
    String large =
        "head -c %d /dev/zero | tail -c %d | { sleep 0.5; cat >/dev/null; }"
            .formatted(96 * MIB, 96 * MIB);
    assertThat(run(large).peakBytes().orElseThrow()).isBetween(96 * MIB, 160 * MIB);
    assertThat(run("sleep 0.2").peakBytes().orElseThrow()).isBetween(MIB / 4, 32 * MIB);
  }

  @Test
  void what_two_have_at_the_same_time_is_added_up() throws Exception {
    String one =
        "(head -c %d /dev/zero | tail -c %d | { sleep 0.7; cat >/dev/null; })"
            .formatted(48 * MIB, 48 * MIB);
    assertThat(run(one + " & " + one + "; wait").peakBytes().orElseThrow())
        .isBetween(96 * MIB, 160 * MIB);
  }

  @Test
  void a_line_of_the_system_is_read_or_counts_for_nothing() {
    String status = "Name:\tgame\nVmHWM:\t    2048 kB\nVmRSS:\t    1024 kB\nThreads:\t1\n";
    assertThat(PeakMemory.value(status, "VmRSS:")).isEqualTo(MIB);
    assertThat(PeakMemory.value(status, "VmHWM:")).isEqualTo(2 * MIB);
    assertThat(PeakMemory.value("Name:\tgame\nState:\tZ (zombie)\n", "VmRSS:")).isZero();
    assertThat(PeakMemory.value("VmRSS:\n", "VmRSS:")).isZero();
    assertThat(PeakMemory.value("VmRSS: much kB\n", "VmRSS:")).isZero();
  }
}
