package ironing.server.platform;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.AnnotationIntrospector;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.KeyDeserializer;
import com.fasterxml.jackson.databind.deser.std.StdScalarDeserializer;
import com.fasterxml.jackson.databind.deser.std.StringDeserializer;
import com.fasterxml.jackson.databind.introspect.Annotated;
import com.fasterxml.jackson.databind.introspect.AnnotatedMember;
import com.fasterxml.jackson.databind.introspect.NopAnnotationIntrospector;
import com.fasterxml.jackson.databind.module.SimpleModule;
import java.io.IOException;
import java.util.Optional;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * What every request's body has to hold to, whoever reads it: all members are there but those that
 * {@link MayBeAbsent}, nothing in a list or a map is null, and a text is one that the database can
 * keep.
 */
@Configuration
class RequestBodies {
  /** Longer than any name, path or place that there is, in characters. */
  private static final int LONGEST_KEY = 2_000;

  @Bean
  Jackson2ObjectMapperBuilderCustomizer strict() {
    return builder ->
        builder.postConfigurer(
            mapper -> {
              SimpleModule texts = new SimpleModule("sound texts");
              texts.addDeserializer(String.class, new SoundText());
              texts.addKeyDeserializer(String.class, new SoundKey());
              mapper.registerModule(texts);
              mapper.setAnnotationIntrospector(
                  AnnotationIntrospector.pair(
                      new RequiredMembers(),
                      mapper.getDeserializationConfig().getAnnotationIntrospector()));
            });
  }

  /** Why the database cannot keep a text; empty where it can. */
  static Optional<String> flaw(String text) {
    if (text.indexOf('\0') >= 0) return Optional.of("it holds the character U+0000");
    boolean broken =
        text.codePoints()
            .anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE);
    return broken ? Optional.of("it holds half a character (a lone surrogate)") : Optional.empty();
  }

  private static final class SoundText extends StdScalarDeserializer<String> {
    private static final long serialVersionUID = 1;

    SoundText() {
      super(String.class);
    }

    @Override
    public String deserialize(JsonParser in, DeserializationContext context) throws IOException {
      String text = StringDeserializer.instance.deserialize(in, context);
      Optional<String> flaw = text == null ? Optional.empty() : flaw(text);
      return flaw.isEmpty()
          ? text
          : (String) context.handleWeirdStringValue(String.class, "", flaw.get());
    }
  }

  private static final class SoundKey extends KeyDeserializer {
    @Override
    public Object deserializeKey(String key, DeserializationContext context) throws IOException {
      Optional<String> flaw =
          key.length() > LONGEST_KEY
              ? Optional.of("it is longer than " + LONGEST_KEY + " characters")
              : flaw(key);
      return flaw.isEmpty() ? key : context.handleWeirdKey(String.class, "", flaw.get());
    }
  }

  /** Says of the records of requests which members must be there. */
  private static final class RequiredMembers extends NopAnnotationIntrospector {
    private static final long serialVersionUID = 1;

    @Override
    public Boolean hasRequiredMarker(AnnotatedMember m) {
      return isOurs(m) ? isRequired(m) : null;
    }

    @Override
    public JsonSetter.Value findSetterInfo(Annotated a) {
      if (!(a instanceof AnnotatedMember m) || !isOurs(m)) return JsonSetter.Value.empty();
      return JsonSetter.Value.construct(isRequired(m) ? Nulls.FAIL : Nulls.DEFAULT, Nulls.FAIL);
    }

    private static boolean isOurs(AnnotatedMember m) {
      Class<?> of = m.getDeclaringClass();
      return of.isRecord() && of.getPackageName().startsWith("ironing.server.");
    }

    private static boolean isRequired(AnnotatedMember m) {
      return !m.hasAnnotation(MayBeAbsent.class) && m.getRawType() != Optional.class;
    }
  }
}
