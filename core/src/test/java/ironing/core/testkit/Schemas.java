package ironing.core.testkit;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion.VersionFlag;
import com.networknt.schema.ValidationMessage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

/**
 * The JSON Schemas of {@code docs/formats}, by their names without the ending. Checked by
 * networknt's validator, which knows nothing of our readers and writers.
 */
public final class Schemas {
  private static final Path FOLDER = Path.of("../docs/formats");
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final Map<String, JsonSchema> READ = new ConcurrentHashMap<>();

  private Schemas() {}

  /** What is wrong with a document; empty when nothing is. */
  public static List<String> errors(String schema, JsonNode document) {
    return READ.computeIfAbsent(schema, Schemas::read).validate(document).stream()
        .map(ValidationMessage::toString)
        .toList();
  }

  public static List<String> errorsInJson(String schema, String text) {
    try {
      return errors(schema, JSON.readTree(text));
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  public static List<String> errorsInYaml(String schema, String text) {
    Object document = new Load(LoadSettings.builder().build()).loadFromString(text);
    return errors(schema, JSON.valueToTree(document));
  }

  private static JsonSchema read(String name) {
    JsonSchemaFactory factory = JsonSchemaFactory.getInstance(VersionFlag.V202012);
    try {
      return factory.getSchema(Files.readString(FOLDER.resolve(name + ".schema.json")));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
