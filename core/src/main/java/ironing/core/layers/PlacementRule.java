package ironing.core.layers;

import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Wishes.Directly;

/**
 * A wish about where a layer stands in the install order, with its reason and who said it.
 *
 * @param layer the layer that it is about; a layer is known by a number that outlives its versions
 * @param other the layer that it stands against; 0 for TOP and BOTTOM
 * @param reason in words, from the layer's side
 */
public record PlacementRule(
    Kind kind, long layer, long other, String reason, String from, Strength strength) {

  public enum Kind {
    ABOVE,
    BELOW,
    DIRECTLY_ABOVE,
    DIRECTLY_BELOW,
    /** Above all that is not itself to be on top. */
    TOP,
    /** Below all that is not itself to be lowest. */
    BOTTOM;

    public boolean hasOther() {
      return this != TOP && this != BOTTOM;
    }

    boolean isDirect() {
      return this == DIRECTLY_ABOVE || this == DIRECTLY_BELOW;
    }
  }

  /** Of rules that contradict one another the weaker gives way; the user's own never do. */
  public enum Strength {
    USER,
    STATED
  }

  private boolean upwards() {
    return kind == Kind.ABOVE || kind == Kind.DIRECTLY_ABOVE;
  }

  private long lower() {
    return upwards() ? other : layer;
  }

  private long upper() {
    return upwards() ? layer : other;
  }

  Constraint<Long> asConstraint() {
    return new Constraint<>(lower(), upper(), reason, from);
  }

  Directly<Long> asDirectly() {
    return new Directly<>(lower(), upper(), reason, from);
  }
}
