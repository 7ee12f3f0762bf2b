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
 * Has every property of a module whose tests see this class make as many tries as {@link Tries}
 * says.
 */
public final class TriesOfProperties implements AroundPropertyHook {
  private static final int DEFAULT = 300;

  @Override
  public PropertyExecutionResult aroundProperty(
      PropertyLifecycleContext context, PropertyExecutor property) {
    PropertyAttributes attributes = context.attributes();
    attributes.setTries(Tries.of(attributes.tries().orElse(DEFAULT)));
    if (Tries.fresh()) attributes.setSeed(null);
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
