package ironing.core.combinedfiles;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Pattern;
import org.eclipse.jgit.diff.Sequence;
import org.eclipse.jgit.diff.SequenceComparator;

/**
 * A text as lines, each with a number that equal lines share. A line's end is no part of it: a mod
 * that only wrote the same lines with other ends has changed nothing.
 */
final class Lines extends Sequence {
  /** Compares by the numbers; for texts that were split with the same {@link Numbers}. */
  static final SequenceComparator<Lines> BY_NUMBER =
      new SequenceComparator<>() {
        @Override
        public boolean equals(Lines a, int i, Lines b, int k) {
          return a.numbers[i] == b.numbers[k];
        }

        @Override
        public int hash(Lines a, int i) {
          return a.numbers[i];
        }
      };

  /** The numbers of lines, common to the texts that are compared. */
  static final class Numbers {
    private final Map<String, Integer> known;

    /**
     * @param characters how many there are to come, about
     */
    Numbers(int characters) {
      known = new HashMap<>(characters / 16 + 16);
    }

    private int of(String line) {
      Integer n = known.putIfAbsent(line, known.size());
      return n == null ? known.size() - 1 : n;
    }
  }

  private static final Pattern ENDS = Pattern.compile("\\r\\n|\\r|\\n");
  private static final int NEAR = 32;
  private final String text;
  private final int[] numbers;
  private final int[] starts;
  private final int[] ends;
  private final int size;

  /** A text, each of its lines ended the same way. */
  static String endedBy(String end, String text) {
    if (text.indexOf('\n') < 0 && text.indexOf('\r') < 0) return text;
    return ENDS.matcher(text).replaceAll(end);
  }

  Lines(String text, Numbers known) {
    this(text, known, null);
  }

  /**
   * @param like one that this has most lines from, in their order; they are told without looking
   *     them up. May be null
   */
  Lines(String text, Numbers known, Lines like) {
    this.text = text;
    int next = 0;
    boolean plain = text.indexOf('\r') < 0;
    int room = 16 + text.length() / 32, line = 0;
    int[] from = new int[room], to = new int[room], number = new int[room];
    for (int at = 0; at < text.length(); line++) {
      int end = plain ? endOfPlain(text, at) : endOf(text, at);
      if (line == room) {
        room *= 2;
        from = Arrays.copyOf(from, room);
        to = Arrays.copyOf(to, room);
        number = Arrays.copyOf(number, room);
      }
      from[line] = at;
      to[line] = end;
      if (like != null && next < like.size && like.is(next, text, at, end)) {
        number[line] = like.numbers[next++];
      } else {
        number[line] = known.of(text.substring(at, end));
        if (like != null) next = like.after(number[line], next);
      }
      at = behind(text, end);
    }
    starts = from;
    ends = to;
    numbers = number;
    size = line;
  }

  private boolean is(int line, String other, int from, int to) {
    int length = ends[line] - starts[line];
    return length == to - from && text.regionMatches(starts[line], other, from, length);
  }

  /** The line behind the next one of a number, if it is near; else the same as before. */
  private int after(int number, int from) {
    int near = Math.min(size, from + NEAR);
    for (int i = from; i < near; i++) if (numbers[i] == number) return i + 1;
    return from;
  }

  private static int endOfPlain(String text, int from) {
    int end = text.indexOf('\n', from);
    return end < 0 ? text.length() : end;
  }

  // a lone CR ends a line too, as old files have it
  private static int endOf(String text, int from) {
    int at = from;
    while (at < text.length() && text.charAt(at) != '\n' && text.charAt(at) != '\r') at++;
    return at;
  }

  private static int behind(String text, int end) {
    if (end >= text.length()) return end;
    boolean two =
        text.charAt(end) == '\r' && end + 1 < text.length() && text.charAt(end + 1) == '\n';
    return end + (two ? 2 : 1);
  }

  @Override
  public int size() {
    return size;
  }

  int number(int line) {
    return numbers[line];
  }

  /** A line without its end. */
  String line(int i) {
    return text.substring(starts[i], ends[i]);
  }

  /** A line's end as it is written; empty for the last one of a text that does not end its last. */
  String endOfLine(int i) {
    return text.substring(ends[i], i + 1 < size ? starts[i + 1] : text.length());
  }

  /** The end that most lines of a text have; LF where there is none. */
  static String usualEnd(String text) {
    if (text.indexOf('\r') < 0) return "\n";
    int lf = 0, crlf = 0, cr = 0;
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (c == '\n') lf++;
      if (c != '\r') continue;
      if (at + 1 < text.length() && text.charAt(at + 1) == '\n') {
        crlf++;
        at++;
      } else {
        cr++;
      }
    }
    if (crlf > lf && crlf >= cr) return "\r\n";
    return cr > lf ? "\r" : "\n";
  }

  boolean endsLast() {
    return size == 0 || !endOfLine(size - 1).isEmpty();
  }

  /** Some lines, each ended by LF: to compare and to show. */
  String text(int from, int to) {
    StringBuilder out = new StringBuilder();
    for (int i = from; i < to; i++) out.append(text, starts[i], ends[i]).append('\n');
    return out.toString();
  }

  boolean same(int from, int to, Lines other, int otherFrom, int otherTo) {
    if (to - from != otherTo - otherFrom) return false;
    for (int i = from; i < to; i++)
      if (numbers[i] != other.numbers[otherFrom + i - from]) return false;
    return true;
  }
}
