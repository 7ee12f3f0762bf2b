package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import ironing.server.testkit.Api;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** The OpenAPI document: it is true, it is the committed one, and the page uses nothing else. */
@ExtendWith(SharedServer.class)
class ApiDocumentIT {
  private static final Path COMMITTED = Path.of("../docs/api/openapi.json");

  /**
   * After a change of the API, write the new document by {@code mvn verify -pl server -am
   * -Dtest=ApiDocumentIT -Dironing.writeApi=true}, through ./ironing test.
   */
  @Test
  void the_committed_document_is_what_the_server_says(Api api) throws IOException {
    JsonNode served = api.get("/api/openapi.json");
    if (Boolean.getBoolean("ironing.writeApi")) {
      String text = Api.JSON.writerWithDefaultPrettyPrinter().writeValueAsString(served);
      Files.writeString(COMMITTED, text.replace("\" : ", "\": ") + "\n");
    }
    assertThat(Api.JSON.readTree(Files.readString(COMMITTED)))
        .as("docs/api/openapi.json; see this test for how to write it anew")
        .isEqualTo(served);
  }

  @Test
  void every_record_that_the_api_shows_has_a_name_of_its_own(Api api) {
    // two records of one simple name would silently share one schema
    Set<String> schemas = new HashSet<>();
    api.get("/api/openapi.json")
        .path("components")
        .path("schemas")
        .fieldNames()
        .forEachRemaining(schemas::add);
    Map<String, Long> names =
        new ClassFileImporter()
                .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
                .importPackages("ironing")
                .stream()
                .filter(c -> c.isRecord() && schemas.contains(c.getSimpleName()))
                .filter(c -> isShown(c))
                .collect(Collectors.groupingBy(JavaClass::getSimpleName, Collectors.counting()));
    assertThat(names).isNotEmpty();
    assertThat(names.entrySet()).filteredOn(e -> e.getValue() > 1).isEmpty();
  }

  // a record of the core is shown only where a view of the server holds it
  private static boolean isShown(JavaClass c) {
    return c.getPackageName().startsWith("ironing.server")
        && !c.getSimpleName().endsWith("Row")
        && (c.getSimpleName().endsWith("View")
            || c.getEnclosingClass().map(e -> e.getSimpleName()).orElse("").endsWith("Controller")
            || c.getModifiers().contains(com.tngtech.archunit.core.domain.JavaModifier.PUBLIC));
  }

  @Test
  void the_page_asks_for_nothing_that_is_not_in_the_document(Api api) throws IOException {
    JsonNode paths = api.get("/api/openapi.json").path("paths");
    Set<String> used = new TreeSet<>();
    Pattern address = Pattern.compile("['\"`](/api/[^'\"`?]*)");
    try (Stream<Path> sources = Files.walk(Path.of("../web/src"))) {
      for (Path p : sources.filter(f -> f.toString().matches(".*\\.tsx?")).toList()) {
        if (p.endsWith("schema.gen.ts")) continue;
        Matcher m = address.matcher(Files.readString(p));
        while (m.find()) used.add(m.group(1).replaceAll("\\$\\{[^}]*}", "{}"));
      }
    }
    assertThat(used).as("addresses in web/src").hasSizeGreaterThan(10);
    Set<String> told = new TreeSet<>();
    paths.fieldNames().forEachRemaining(p -> told.add(p.replaceAll("\\{[^}]*}", "{}")));
    assertThat(used).allMatch(u -> told.contains(u.replaceAll("\\{[^}]*}", "{}")));
  }

  @Test
  void every_operation_parameter_and_member_says_what_it_is_and_every_error_has_a_type(Api api) {
    JsonNode document = api.get("/api/openapi.json");
    List<String> silent = new ArrayList<>();
    document
        .path("paths")
        .properties()
        .forEach(
            path ->
                path.getValue()
                    .properties()
                    .forEach(
                        o -> {
                          String what = o.getKey() + " " + path.getKey();
                          if (o.getValue().path("summary").asText().isBlank()) silent.add(what);
                          if (!o.getValue().at("/responses/default/$ref").isTextual())
                            silent.add(what + " error");
                          for (JsonNode p : o.getValue().path("parameters"))
                            if (p.path("description").asText().isBlank())
                              silent.add(what + " ?" + p.path("name").asText());
                        }));
    assertThat(silent).isEmpty();
    List<String> members = new ArrayList<>();
    document
        .path("components")
        .path("schemas")
        .properties()
        .forEach(
            schema ->
                schema
                    .getValue()
                    .path("properties")
                    .properties()
                    .forEach(
                        m -> {
                          if (!m.getValue().has("$ref")
                              && m.getValue().path("description").asText().isBlank())
                            members.add(schema.getKey() + "." + m.getKey());
                        }));
    assertThat(members).isEmpty();
    assertThat(document.at("/components/schemas/ProblemDetails/properties/code/enum"))
        .hasSizeGreaterThan(90);
  }
}
