package ironing.standins.catalogue;

import java.util.Locale;

/**
 * What goes wrong with one path.
 *
 * @param kind what it is
 * @param amount bytes, a status, seconds: as the kind says
 * @param text a header's value, an address
 * @param times how often it happens before all is well again; 0 for ever
 */
public record Fault(Kind kind, long amount, String text, int times) {
  /** What can go wrong. */
  public enum Kind {
    /** The line breaks after so many bytes. */
    CUT,
    /** Answers with this status; the text is what Retry-After says, if it is not empty. */
    STATUS,
    /** Says that the file is so many bytes longer than it is, and then ends. */
    LONGER,
    /** Gives so many bytes more than it says, of any kind: without a length. */
    ENDLESS,
    /** Leads on to the address in the text, with the status of the amount. */
    REDIRECT,
    /** Waits so many milliseconds before each 1,024 bytes. */
    SLOW,
    /** Has another byte in it than the file, at this place. */
    ALTERED,
    /** Says that the bytes are packed as the text has it. */
    ENCODED,
    /** Takes no notice of ranges, and of what was asked conditionally. */
    PLAIN
  }

  /** Reads a fault as the control address has it: {@code kind=cut&amount=100&times=1}. */
  static Fault read(String query) {
    String kind = "", text = "";
    long amount = 0;
    int times = 0;
    for (String pair : query.split("&")) {
      String[] parts = pair.split("=", 2);
      String value =
          parts.length < 2
              ? ""
              : java.net.URLDecoder.decode(parts[1], java.nio.charset.StandardCharsets.UTF_8);
      switch (parts[0]) {
        case "kind" -> kind = value;
        case "amount" -> amount = Long.parseLong(value);
        case "text" -> text = value;
        case "times" -> times = Integer.parseInt(value);
        default -> {}
      }
    }
    return new Fault(Kind.valueOf(kind.toUpperCase(Locale.ROOT)), amount, text, times);
  }
}
