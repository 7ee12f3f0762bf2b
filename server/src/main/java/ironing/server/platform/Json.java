package ironing.server.platform;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.introspect.JacksonAnnotationIntrospector;
import org.springframework.stereotype.Component;

/** The records of the product as text in the database, and back. */
@Component
public class Json {
  private final ObjectMapper mapper;

  Json(ObjectMapper mapper) {
    // a text of an earlier version may have what is not kept any more, and lack what is new; what
    // was stored can always be read, however long
    this.mapper =
        mapper
            .copy()
            .setAnnotationIntrospector(new JacksonAnnotationIntrospector())
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);
    this.mapper
        .getFactory()
        .setStreamReadConstraints(
            StreamReadConstraints.builder()
                .maxNameLength(Integer.MAX_VALUE)
                .maxStringLength(Integer.MAX_VALUE)
                .build());
  }

  public String write(Object o) {
    try {
      return mapper.writeValueAsString(o);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("our own records are writable: " + o.getClass(), e);
    }
  }

  public <T> T read(String text, Class<T> type) {
    try {
      return mapper.readValue(text, type);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("our own records are readable: " + type, e);
    }
  }

  /**
   * @throws IllegalStateException when it cannot be read, with the reason as its cause
   */
  public <T> T read(String text, TypeReference<T> type) {
    try {
      return mapper.readValue(text, type);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("it is not as it was written: " + type.getType(), e);
    }
  }

  /**
   * A part of a text that was read.
   *
   * @throws IllegalStateException when it is no such thing, with the reason as its cause
   */
  public <T> T convert(JsonNode part, TypeReference<T> type) {
    try {
      return mapper.convertValue(part, type);
    } catch (IllegalArgumentException e) {
      throw new IllegalStateException("it is not as it was written: " + type.getType(), e);
    }
  }
}
