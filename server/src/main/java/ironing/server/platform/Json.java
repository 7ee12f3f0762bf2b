package ironing.server.platform;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.springframework.stereotype.Component;

/** The records of the product as text in the database, and back. */
@Component
public class Json {
  private final ObjectMapper mapper;

  Json(ObjectMapper mapper) {
    // a text of an earlier version may have what is not kept any more
    this.mapper = mapper.copy().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);
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
}
