package ironing.core.testkit;

import java.lang.reflect.AnnotatedElement;
import java.util.Optional;
import net.jqwik.api.lifecycle.AroundPropertyHook;
import net.jqwik.api.lifecycle.PropagationMode;
import net.jqwik.api.lifecycle.PropertyAttributes;
import net.jqwik.api.lifecycle.PropertyExecutionResult;
import net.jqwik.api.lifecycle.PropertyExecutor;
import net.jqwik.api.lifecycle.PropertyLifecycleContext;

/**
 * How many of its tries a test makes. {@code ./ironing test} makes a fifth of them, with the same
 * values each time; {@code scripts/stress.sh} sets {@code ironing.tries} to make all of them, or
 * many times as many, with fresh values.
 *
 * <p>As a hook of jqwik it holds for every property of a module whose tests see this class.
 */
public final class Tries implements AroundPropertyHook {
  /** So few are cheap enough to be made in every run. */
  private static final int ALWAYS = 20;

  private static final double TIMES =
      Double.parseDouble(System.getProperty("ironing.tries", "0.2"));
  private static final int DEFAULT = 300;

  /**
   * @param all how many tries are meant
   * @return how many this run makes, at least one
   */
  public static int of(int all) {
    return Math.max((int) Math.ceil(all * TIMES), Math.min(all, ALWAYS));
  }

  /**
   * @param all how many random ways one case is tried in
   * @return how many of them this run takes, at least one
   */
  public static int ways(int all) {
    return Math.max((int) Math.ceil(all * TIMES), 1);
  }

  /** Whether this run looks for what nobody has seen yet. */
  private static boolean fresh() {
    return TIMES >= 1;
  }

  @Override
  public PropertyExecutionResult aroundProperty(
      PropertyLifecycleContext context, PropertyExecutor property) {
    PropertyAttributes attributes = context.attributes();
    attributes.setTries(of(attributes.tries().orElse(DEFAULT)));
    if (fresh()) attributes.setSeed(null);
    return property.execute();
  }

  @Override
  public PropagationMode propagateTo() {
    return PropagationMode.ALL_DESCENDANTS;
  }

  @Override
  public boolean appliesTo(Optional<AnnotatedElement> element) {
    return true;
  }
}
