package ironing.server.fetch;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * How long is waited before the other side is asked again: as it says (RFC 9110, 10.2.3), else 1 s,
 * 2 s, 4 s and so on up to a minute; after five tries in a row of which nothing came it rests.
 */
@Component
public class Patience {
  private static final int MOST_TRIES = 5;
  private static final Duration LONGEST = Duration.ofMinutes(1);
  private static final Duration REST_BEYOND = Duration.ofMinutes(10);
  private static final long STEP_MS = 100;
  private final Duration first;

  Patience(@Value("${ironing.fetch.first-wait}") Duration first) {
    this.first = first;
  }

  /**
   * How long to wait; empty where it is of no use for now.
   *
   * @param tries how many in a row nothing came of
   * @param retryAfter what the other side said
   */
  public Optional<Duration> next(int tries, Optional<String> retryAfter) {
    if (tries >= MOST_TRIES) return Optional.empty();
    Optional<Duration> said = retryAfter.flatMap(Patience::said);
    if (said.isPresent()) return said.filter(s -> s.compareTo(REST_BEYOND) <= 0);
    Duration doubled = first.multipliedBy(1L << Math.max(0, tries - 1));
    return Optional.of(doubled.compareTo(LONGEST) < 0 ? doubled : LONGEST);
  }

  /** Seconds or a day and time; what is neither says nothing. */
  private static Optional<Duration> said(String text) {
    String t = text.strip();
    if (t.matches("\\d{1,18}")) return Optional.of(Duration.ofSeconds(Long.parseLong(t)));
    try {
      Duration until =
          Duration.between(
              ZonedDateTime.now(java.time.ZoneOffset.UTC),
              ZonedDateTime.parse(t, DateTimeFormatter.RFC_1123_DATE_TIME));
      return Optional.of(until.isNegative() ? Duration.ZERO : until);
    } catch (DateTimeException e) {
      return Optional.empty();
    }
  }

  /**
   * Waits, and asks again and again whether it is still wanted.
   *
   * @param wanted throws once it is not
   */
  public static void await(Duration time, Runnable wanted) {
    long end = System.nanoTime() + time.toNanos();
    try {
      for (long left; (left = end - System.nanoTime()) > 0; ) {
        wanted.run();
        Thread.sleep(Math.min(STEP_MS, left / 1_000_000 + 1));
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
  }
}
