package ironing.server.process;

import ironing.core.IroningException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * A program that runs: started from a list of arguments, never by a shell, so that a folder's name
 * cannot become a command. What it prints, on both of its streams, is kept.
 *
 * <p>Threads: one listens, one looks at its memory; any may ask for the output or stop it.
 */
public final class Program {
  /** Of what it prints no more is kept; it is listened to all the same. */
  public static final int MOST_OUTPUT_CHARS = 4_000_000;

  private static final long PATIENCE_SECONDS = 5;
  private final Process process;
  // one writes while others read: each access holds its lock
  private final StringBuilder output = new StringBuilder();
  private final PeakMemory memory;
  private final long began = System.nanoTime();

  private Program(Process process) {
    this.process = process;
    this.memory = PeakMemory.of(process.toHandle());
  }

  /**
   * @param environment beside what the server itself has, without its own settings
   * @param remedy what to check when it will not start
   * @throws IroningException with code {@code will-not-start}
   */
  public static Program start(
      List<String> command, Path folder, Map<String, String> environment, String remedy) {
    try {
      ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
      builder.directory(folder.toFile());
      // where the database is, and its password, is none of a program's business
      builder.environment().keySet().removeIf(name -> name.startsWith("IRONING_"));
      builder.environment().putAll(environment);
      Process process = builder.start();
      // it gets no input: one that asks for some is told that there is none, instead of waiting
      process.getOutputStream().close();
      return new Program(process);
    } catch (IOException e) {
      throw IroningException.of(
          "will-not-start",
          command.get(0),
          "It cannot be started: " + e.getMessage() + ".",
          remedy,
          e);
    }
  }

  /** Reads what it prints until it ends, line by line; gives its exit code. */
  public int listen(Consumer<String> line) throws IOException, InterruptedException {
    try (BufferedReader in =
        new BufferedReader(
            new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
      for (String l = in.readLine(); l != null; l = in.readLine()) {
        keep(l);
        line.accept(l);
      }
      return process.waitFor();
    }
  }

  /** How long it has been since it was started. */
  public Duration age() {
    return Duration.ofNanos(System.nanoTime() - began);
  }

  /**
   * The most memory, in bytes, that it and all that it has started had at one time so far; empty
   * where this machine does not tell, or it ended too soon to be looked at.
   */
  public Optional<Long> peakBytes() {
    return memory.bytes();
  }

  private void keep(String line) {
    synchronized (output) {
      if (output.length() < MOST_OUTPUT_CHARS) output.append(line).append('\n');
    }
  }

  /** What it has printed so far, fit for a database's text, which cannot hold U+0000. */
  public String output() {
    String said;
    synchronized (output) {
      said = output.toString();
    }
    return said.replace("\u0000", "\uFFFD");
  }

  /** Ends it, kindly first, and all that it has started. */
  public void stop() {
    List<ProcessHandle> started = process.descendants().toList();
    process.destroy();
    started.forEach(ProcessHandle::destroy);
    try {
      if (!process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) process.destroyForcibly();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      process.destroyForcibly();
    }
    started.forEach(ProcessHandle::destroyForcibly);
  }
}
