package ironing.server.process;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The most memory that a process and all that it has started have at one time: the sum of what of
 * each lies in main memory ({@code VmRSS} of proc(5)), looked at many times a second, and at least
 * the highest that the system has noted of one alone ({@code VmHWM}). What two of them share counts
 * twice.
 *
 * <p>Threads: one of its own looks, as long as the process lives; any may ask.
 */
final class PeakMemory {
  private static final Path PROCESSES = Path.of("/proc");
  private static final long OFTEN_MS = 20;
  private static final long SELDOM_MS = 200;
  // a short run is over before it is looked at seldom
  private static final int LOOKS_OFTEN = 100;
  private static final int KIB = 1024;
  private final ProcessHandle process;
  private volatile long bytes;

  private PeakMemory(ProcessHandle process) {
    this.process = process;
  }

  static PeakMemory of(ProcessHandle process) {
    PeakMemory memory = new PeakMemory(process);
    if (Files.isReadable(status(process))) {
      Thread looker = new Thread(memory::look, "memory-of-" + process.pid());
      looker.setDaemon(true);
      looker.start();
    }
    return memory;
  }

  /** In bytes; empty where nothing was seen. */
  Optional<Long> bytes() {
    return bytes == 0 ? Optional.empty() : Optional.of(bytes);
  }

  private static Path status(ProcessHandle process) {
    return PROCESSES.resolve(process.pid() + "/status");
  }

  private void look() {
    try {
      for (int looks = 0; process.isAlive(); looks++) {
        lookOnce();
        Thread.sleep(looks < LOOKS_OFTEN ? OFTEN_MS : SELDOM_MS);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void lookOnce() {
    long now = 0, alone = 0;
    for (ProcessHandle p : Stream.concat(Stream.of(process), process.descendants()).toList()) {
      try {
        String status = new String(Files.readAllBytes(status(p)), StandardCharsets.ISO_8859_1);
        now += value(status, "VmRSS:");
        alone = Math.max(alone, value(status, "VmHWM:"));
      } catch (IOException gone) {
        // it has ended since it was listed
      }
    }
    bytes = Math.max(bytes, Math.max(now, alone));
  }

  /** A line such as {@code VmRSS: 1234 kB}; 0 where there is none, as of a process that ends. */
  static long value(String status, String name) {
    return status
        .lines()
        .filter(l -> l.startsWith(name))
        .map(l -> l.substring(name.length()).strip().split("\\s+", -1)[0])
        .filter(n -> n.matches("\\d{1,15}"))
        .mapToLong(n -> Long.parseLong(n) * KIB)
        .findFirst()
        .orElse(0);
  }
}
