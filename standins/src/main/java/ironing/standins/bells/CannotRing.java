package ironing.standins.bells;

/** Something in its files that the game cannot go on with. */
final class CannotRing extends Exception {
  private static final long serialVersionUID = 1;

  CannotRing(String what) {
    super(what);
  }
}
