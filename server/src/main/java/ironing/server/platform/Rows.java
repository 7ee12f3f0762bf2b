package ironing.server.platform;

/** How many rows of a list a request may ask for, and from where on. */
public final class Rows {
  /** Two of them still make a whole number. */
  public static final int MOST = 1_000_000_000;

  private Rows() {}
}
