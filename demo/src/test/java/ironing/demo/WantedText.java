package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;

/** What is wanted of a folder as a file, so that another process can deploy it. */
final class WantedText {
  private static final ObjectMapper JSON = new ObjectMapper();

  private WantedText() {}

  static void write(List<Wanted> wanted, Path file) throws IOException {
    ArrayNode all = JSON.createArrayNode();
    for (Wanted w : wanted) {
      ObjectNode o = all.addObject();
      o.put("path", w.path()).put("sha256", w.sha256()).put("size", w.sizeBytes());
      o.put("mod", w.mod()).put("from", w.from()).put("writer", w.writer().name());
      if (w.content() instanceof Content.File f) o.put("file", f.spelled());
      if (w.content() instanceof Content.Packed p) o.put("pack", p.pack()).put("entry", p.entry());
      if (w.content() instanceof Content.Text t)
        o.put("text", Base64.getEncoder().encodeToString(t.utf8()));
    }
    JSON.writeValue(file.toFile(), all);
  }

  static List<Wanted> read(Path file) throws IOException {
    List<Wanted> wanted = new ArrayList<>();
    for (JsonNode o : JSON.readTree(file.toFile()))
      wanted.add(
          new Wanted(
              o.path("path").asText(),
              o.path("sha256").asText(),
              o.path("size").asLong(),
              o.path("mod").asLong(),
              o.path("from").asText(),
              Writer.valueOf(o.path("writer").asText()),
              content(o)));
    return wanted;
  }

  private static Content content(JsonNode o) {
    if (o.has("file")) return new Content.File(o.path("file").asText());
    if (o.has("pack")) return new Content.Packed(o.path("pack").asText(), o.path("entry").asText());
    return new Content.Text(Base64.getDecoder().decode(o.path("text").asText()));
  }
}
