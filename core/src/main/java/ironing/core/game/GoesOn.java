package ironing.core.game;

/** What makes a value of an INI file go on over the end of its line. */
public enum GoesOn {
  /** A brace that is open yet; braces between double quotes do not count. */
  BRACES("braces"),
  /** A backslash at the end of the line that no other one stands before. */
  BACKSLASH("backslash");

  private final String word;

  GoesOn(String word) {
    this.word = word;
  }

  /** As definitions write it. */
  public String word() {
    return word;
  }
}
