package ironing.core.testkit;

import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.Problem;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;

/** What is told when something is refused. */
public final class Refused {
  private Refused() {}

  /** The code of the only problem that it is refused with. */
  public static String code(ThrowingCallable action) {
    return problem(action).code();
  }

  /** The only problem that it is refused with. */
  public static Problem problem(ThrowingCallable action) {
    IroningException e = catchThrowableOfType(IroningException.class, action);
    if (e == null) throw new AssertionError("it was not refused");
    if (e.problems().size() != 1) throw new AssertionError("several problems", e);
    return e.problems().get(0);
  }
}
