package ironing.server.platform;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Paths;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.TreeMap;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

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
