package ironing.core.documents;

/** A document that cannot be read; the message says why, with line and column where known. */
final class Unreadable extends Exception {
  private static final long serialVersionUID = 1;

  Unreadable(String reason) {
    super(reason);
  }
}
