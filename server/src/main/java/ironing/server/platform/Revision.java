package ironing.server.platform;

import ironing.core.IroningException;

/** The revision of an arrangement as an ETag, and back. */
public final class Revision {
  private Revision() {}

  public static String etag(long revision) {
    return "\"" + revision + "\"";
  }

  /**
   * @throws IroningException with code {@code if-match-missing} when there is none or it is no
   *     revision
   */
  public static long fromIfMatch(String header) {
    String digits = header == null ? "" : header.replaceFirst("^W/", "").replace("\"", "").trim();
    if (!digits.matches("\\d{1,18}")) {
      throw IroningException.of(
          "if-match-missing",
          "The request",
          "It does not say which revision it changes.",
          "Send the ETag of what was read as If-Match.");
    }
    return Long.parseLong(digits);
  }
}
