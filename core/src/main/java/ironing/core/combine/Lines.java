package ironing.core.combine;

import java.util.HashMap;
import java.util.Map;
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
    private final Map<String, Integer> known = new HashMap<>();

    private int of(String line) {
      Integer n = known.putIfAbsent(line, known.size());
      return n == null ? known.size() - 1 : n;
    }
  }

  private final String text;
  private final int[] numbers;
  private final int[] starts;
  private final int[] ends;
  private final int size;

  Lines(String text, Numbers known) {
    this.text = text;
    int count = count(text);
    starts = new int[count];
    ends = new int[count];
    numbers = new int[count];
    int at = 0, line = 0;
    while (at < text.length()) {
      int end = endOf(text, at);
      starts[line] = at;
      ends[line] = end;
      numbers[line++] = known.of(text.substring(at, end));
      at = behind(text, end);
    }
    size = line;
  }

  private static int count(String text) {
    int count = 0;
    for (int at = 0; at < text.length(); at = behind(text, endOf(text, at))) count++;
    return count;
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

  /** The end that most lines have; LF where there is none. */
  String usualEnd() {
    int lf = 0, crlf = 0, cr = 0;
    for (int i = 0; i < size; i++) {
      switch (endOfLine(i)) {
        case "\n" -> lf++;
        case "\r\n" -> crlf++;
        case "\r" -> cr++;
        default -> {}
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
