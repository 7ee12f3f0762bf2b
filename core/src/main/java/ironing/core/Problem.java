package ironing.core;

/**
 * One thing that is wrong with something a user gave, in words for that user.
 *
 * @param code a stable word for programs, such as {@code plugin-undecodable}
 * @param thing the file, entry, mod or setting that it is about
 * @param reason what is wrong with it
 * @param remedy what the user can do next
 */
public record Problem(String code, String thing, String reason, String remedy) {
  /** The whole as one sentence or two, for a log or a terminal. */
  public String sentence() {
    return thing + ": " + reason + " " + remedy;
  }
}
