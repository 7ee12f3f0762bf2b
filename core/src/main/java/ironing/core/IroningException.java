package ironing.core;

import java.util.List;

/**
 * Root of what the core throws when a user's input or machine does not allow what was asked. It
 * carries every problem that was found, never fewer than one.
 */
public class IroningException extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final transient List<Problem> problems;

  public IroningException(List<Problem> problems) {
    this(problems, null);
  }

  public IroningException(List<Problem> problems, Throwable cause) {
    super(String.join("\n", problems.stream().map(Problem::sentence).toList()), cause);
    if (problems.isEmpty()) throw new IllegalArgumentException("an exception needs a problem");
    this.problems = List.copyOf(problems);
  }

  public List<Problem> problems() {
    return problems;
  }

  public static IroningException of(String code, String thing, String reason, String remedy) {
    return new IroningException(List.of(new Problem(code, thing, reason, remedy)));
  }

  public static IroningException of(
      String code, String thing, String reason, String remedy, Throwable cause) {
    return new IroningException(List.of(new Problem(code, thing, reason, remedy)), cause);
  }
}
