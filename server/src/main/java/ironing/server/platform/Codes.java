package ironing.server.platform;

import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.Collections;
import java.util.Optional;
import java.util.Properties;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;

/**
 * The words by which the API tells a program what is the matter: {@code codes.properties} lists
 * them all.
 */
final class Codes {
  private static final String ADDRESS = "/api/codes/";
  private static final SortedMap<String, Code> ALL = read();

  private Codes() {}

  /** Where a code is met. */
  enum Kind {
    /** In a problem: of an answer, or of a job that failed. */
    ERROR,
    /** In the list of wrinkles. */
    WRINKLE,
    /** Beside a merge that is planned. */
    NOTE
  }

  /**
   * One code.
   *
   * @param status what an answer with this error has as its HTTP status; absent where it is no
   *     error
   * @param means what is the matter, in a sentence
   */
  record Code(String code, Kind kind, @MayBeAbsent Integer status, String means) {}

  static Collection<Code> all() {
    return ALL.values();
  }

  static Optional<Code> find(String code) {
    return Optional.ofNullable(ALL.get(code));
  }

  /** What an error is answered with; 422 where the list does not know it. */
  static HttpStatus statusOf(String code) {
    return find(code)
        .map(Code::status)
        .map(HttpStatus::valueOf)
        .orElse(HttpStatus.UNPROCESSABLE_ENTITY);
  }

  /** The type of a problem (RFC 9457, 3.1.1): where it is told what the code means. */
  static URI typeOf(String code) {
    return URI.create(ADDRESS + code);
  }

  private static SortedMap<String, Code> read() {
    Properties lines = new Properties();
    try (Reader in =
        new InputStreamReader(
            Codes.class.getResourceAsStream("/codes.properties"), StandardCharsets.UTF_8)) {
      lines.load(in);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    SortedMap<String, Code> all = new TreeMap<>();
    for (String code : lines.stringPropertyNames()) {
      String[] line = lines.getProperty(code).split(" ", 2);
      all.put(code, code(code, line[0], line[1]));
    }
    return Collections.unmodifiableSortedMap(all);
  }

  private static Code code(String code, String kind, String means) {
    return switch (kind) {
      case "wrinkle" -> new Code(code, Kind.WRINKLE, null, means);
      case "note" -> new Code(code, Kind.NOTE, null, means);
      default -> new Code(code, Kind.ERROR, Integer.valueOf(kind), means);
    };
  }
}
