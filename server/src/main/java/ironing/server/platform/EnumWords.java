package ironing.server.platform;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.BeanDescription;
import com.fasterxml.jackson.databind.DeserializationConfig;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.deser.BeanDeserializerModifier;
import com.fasterxml.jackson.databind.deser.std.DelegatingDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.converter.Converter;
import org.springframework.core.convert.converter.ConverterFactory;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Words of a fixed list, in parameters and bodies, are taken as the formats and the guide write
 * them too: {@code needs-you} and {@code Needs you} are {@code NEEDS_YOU}. What is answered has
 * them as the document does.
 */
@Configuration
class EnumWords implements WebMvcConfigurer {
  @Override
  public void addFormatters(FormatterRegistry registry) {
    registry.addConverterFactory(new OfParameters());
  }

  @Bean
  Jackson2ObjectMapperBuilderCustomizer words() {
    return builder ->
        builder.postConfigurer(
            mapper -> {
              SimpleModule words = new SimpleModule("words as people write them");
              words.setDeserializerModifier(new OfBodies());
              mapper.registerModule(words);
            });
  }

  /** The one that is meant; empty where it is none of them. */
  private static Optional<Object> meant(Class<?> type, String word) {
    String name = word.strip().toUpperCase(Locale.ROOT).replace('-', '_').replace(' ', '_');
    for (Object o : type.getEnumConstants())
      if (((Enum<?>) o).name().equals(name)) return Optional.of(o);
    return Optional.empty();
  }

  @SuppressWarnings("rawtypes")
  private static final class OfParameters implements ConverterFactory<String, Enum> {
    @Override
    public <T extends Enum> Converter<String, T> getConverter(Class<T> type) {
      return word -> {
        if (word.isBlank()) return null;
        return type.cast(
            meant(type, word)
                .orElseThrow(() -> new IllegalArgumentException("“" + word + "” is no such word")));
      };
    }
  }

  private static final class OfBodies extends BeanDeserializerModifier {
    private static final long serialVersionUID = 1;

    @Override
    public JsonDeserializer<?> modifyEnumDeserializer(
        DeserializationConfig config, JavaType type, BeanDescription about, JsonDeserializer<?> d) {
      return new Word(d, type.getRawClass());
    }
  }

  private static final class Word extends DelegatingDeserializer {
    private static final long serialVersionUID = 1;
    private final Class<?> type;

    Word(JsonDeserializer<?> strict, Class<?> type) {
      super(strict);
      this.type = type;
    }

    @Override
    protected JsonDeserializer<?> newDelegatingInstance(JsonDeserializer<?> strict) {
      return new Word(strict, type);
    }

    @Override
    public Object deserialize(JsonParser in, DeserializationContext context) throws IOException {
      if (in.currentToken() == JsonToken.VALUE_STRING) {
        Optional<Object> meant = meant(type, in.getText());
        if (meant.isPresent()) return meant.get();
      }
      return super.deserialize(in, context);
    }
  }
}
