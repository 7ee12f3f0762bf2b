package ironing.server.platform;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A component of an API record that is left out where it has no value: it is null in Java, and not
 * there in JSON. All others are required, and the OpenAPI document says so.
 *
 * <p>Not one of the usual Nullable annotations: the document's generator takes those for "or null",
 * which no answer ever holds.
 */
@Retention(RetentionPolicy.RUNTIME)
@Target({
  ElementType.RECORD_COMPONENT,
  ElementType.FIELD,
  ElementType.METHOD,
  ElementType.PARAMETER
})
public @interface MayBeAbsent {}
