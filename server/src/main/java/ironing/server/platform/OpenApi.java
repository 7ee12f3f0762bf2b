package ironing.server.platform;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Paths;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import io.swagger.v3.oas.models.servers.Server;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.MediaType;

/**
 * Makes the OpenAPI document say what the records say: a component is required unless it is
 * nullable.
 */
@Configuration
class OpenApi {
  @Bean
  OpenAPI document() {
    return new OpenAPI()
        .info(
            new Info()
                .title("Ironing")
                .version("1")
                .description(
                    "Everything that the page can do. Errors are problem details (RFC 9457)."))
        .servers(List.of(new Server().url("/")));
  }

  // sorted, so that the committed copy of the document changes only when the API does
  @Bean
  OpenApiCustomizer sorted() {
    return api -> {
      api.getComponents().setSchemas(new TreeMap<>(api.getComponents().getSchemas()));
      Paths paths = new Paths();
      new TreeMap<>(api.getPaths()).forEach(paths::addPathItem);
      api.setPaths(paths);
    };
  }

  /** Every operation says how an error is told, and with which codes. */
  @Bean
  OpenApiCustomizer refused() {
    return api -> {
      Schema<?> told = new ObjectSchema();
      told.description("An error, as RFC 9457 has it.");
      told.addProperty(
          "type", text("Where it is told what the code means: /api/codes/ and the code."));
      told.addProperty("title", text("What it is about."));
      told.addProperty("status", new IntegerSchema().description("The answer’s HTTP status."));
      told.addProperty("detail", text("The reason and the remedy of the first problem."));
      Schema<String> code = text("The code of the first problem.");
      Codes.all().stream()
          .filter(c -> c.kind() == Codes.Kind.ERROR)
          .forEach(c -> code.addEnumItemObject(c.code()));
      told.addProperty("code", code);
      told.addProperty(
          "problems",
          new ArraySchema()
              .items(new Schema<>().$ref("Problem"))
              .description("All that is wrong; absent where there is nothing beyond the detail."));
      told.setRequired(List.of("type", "title", "status", "detail", "code"));
      api.getComponents().addSchemas("ProblemDetails", told);
      ApiResponse refused =
          new ApiResponse()
              .description("What is wrong, and what can be done.")
              .content(
                  new Content()
                      .addMediaType(
                          MediaType.APPLICATION_PROBLEM_JSON_VALUE,
                          new io.swagger.v3.oas.models.media.MediaType()
                              .schema(new Schema<>().$ref("ProblemDetails"))));
      api.getComponents().addResponses("refused", refused);
      api.getPaths()
          .values()
          .forEach(
              path ->
                  path.readOperations()
                      .forEach(
                          o ->
                              o.getResponses()
                                  .addApiResponse(
                                      ApiResponses.DEFAULT,
                                      new ApiResponse().$ref("#/components/responses/refused"))));
    };
  }

  private static Schema<String> text(String words) {
    StringSchema text = new StringSchema();
    text.description(words);
    return text;
  }

  /** What the comments of the code leave open is told by the list of words, and by names. */
  @Bean
  OpenApiCustomizer told() {
    Properties words = new Properties();
    try (Reader in =
        new InputStreamReader(
            OpenApi.class.getResourceAsStream("/api-words.properties"), StandardCharsets.UTF_8)) {
      words.load(in);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return api -> {
      api.getPaths()
          .values()
          .forEach(
              path ->
                  path.readOperations()
                      .forEach(
                          o -> {
                            // the first sentence says what it does; it is not told twice
                            if (o.getSummary() != null && o.getSummary().equals(o.getDescription()))
                              o.setDescription(null);
                            if (o.getParameters() != null)
                              o.getParameters()
                                  .forEach(
                                      p ->
                                          told(
                                              words,
                                              p.getName(),
                                              p.getDescription(),
                                              p::setDescription));
                          }));
      api.getComponents()
          .getSchemas()
          .forEach(
              (of, schema) -> {
                Map<?, ?> members = schema.getProperties();
                if (members == null) return;
                members.forEach(
                    (name, member) -> {
                      Schema<?> m = (Schema<?>) member;
                      // a reference is described where it leads to
                      if (m.get$ref() != null) return;
                      told(words, of + "." + name, m.getDescription(), m::setDescription);
                      told(words, (String) name, m.getDescription(), m::setDescription);
                    });
              });
    };
  }

  private static void told(
      Properties words, String name, String present, Consumer<String> describe) {
    if (present == null && words.getProperty(name) != null)
      describe.accept(words.getProperty(name));
  }

  @Bean
  ModelConverter requiredComponents() {
    return new ModelConverter() {
      @Override
      public Schema<?> resolve(
          AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        Schema<?> resolved = chain.hasNext() ? chain.next().resolve(type, context, chain) : null;
        JavaType java = Json.mapper().constructType(type.getType());
        if (resolved != null && java.isRecordType()) {
          Schema<?> model = context.getDefinedModels().get(java.getRawClass().getSimpleName());
          if (model != null) {
            List<String> required = new ArrayList<>();
            Arrays.stream(java.getRawClass().getRecordComponents())
                .filter(
                    c ->
                        !c.isAnnotationPresent(MayBeAbsent.class)
                            && c.getAccessor().getAnnotation(MayBeAbsent.class) == null)
                .forEach(c -> required.add(c.getName()));
            model.setRequired(required);
          }
        }
        return resolved;
      }
    };
  }
}
