package ironing.core.catalogue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/**
 * Lines of JSON, one object each. One that cannot be read is told and left out; those around it are
 * used, and empty ones do not count.
 *
 * <p>Cost: one line in memory at a time.
 */
final class JsonLines {
  /** The most bytes that a line may have, without its end. */
  static final int LONGEST = 1 << 20;

  /** Takes what a line says. */
  interface Said<T> {
    /**
     * @param line from 1
     * @param text the line itself
     */
    void take(int line, T value, String text);
  }

  /** Takes what is wrong with a line. */
  interface Wrong {
    /**
     * @param line from 1
     */
    void take(int line, String reason);
  }

  private JsonLines() {}

  /**
   * Reads to the end.
   *
   * @param one makes a value of an object; what it notes as mistakes leaves the line out
   * @throws IOException when the stream fails; no line after that is told
   */
  static <T> void read(InputStream in, Function<CheckedJson, T> one, Said<T> said, Wrong wrong)
      throws IOException {
    ByteArrayOutputStream line = new ByteArrayOutputStream();
    byte[] buffer = new byte[1 << 16];
    int number = 1;
    boolean tooLong = false;
    for (int n; (n = in.read(buffer)) >= 0; ) {
      int from = 0;
      for (int i = 0; i < n; i++) {
        if (buffer[i] != '\n') continue;
        tooLong |= !add(line, buffer, from, i);
        one(number++, line, tooLong, one, said, wrong);
        tooLong = false;
        from = i + 1;
      }
      tooLong |= !add(line, buffer, from, n);
    }
    one(number, line, tooLong, one, said, wrong);
  }

  private static boolean add(ByteArrayOutputStream line, byte[] from, int start, int end) {
    if (line.size() + end - start > LONGEST) return false;
    line.write(from, start, end - start);
    return true;
  }

  private static <T> void one(
      int number,
      ByteArrayOutputStream bytes,
      boolean tooLong,
      Function<CheckedJson, T> one,
      Said<T> said,
      Wrong wrong) {
    byte[] line = bytes.toByteArray();
    bytes.reset();
    if (tooLong) {
      wrong.take(number, "has more than 1 MiB");
      return;
    }
    if (isBlank(line)) return;
    List<String> mistakes = new ArrayList<>();
    CheckedJson json = CheckedJson.read(line, mistakes);
    T value = mistakes.isEmpty() ? one.apply(json) : null;
    if (mistakes.isEmpty()) said.take(number, value, new String(line, StandardCharsets.UTF_8));
    else wrong.take(number, String.join("; ", mistakes));
  }

  private static boolean isBlank(byte[] line) {
    for (byte b : line) if (b != ' ' && b != '\t' && b != '\r') return false;
    return true;
  }
}
