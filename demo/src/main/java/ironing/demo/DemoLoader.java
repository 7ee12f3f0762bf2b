package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Set;

/**
 * Brings the sample world into a running Ironing, through the same API that the page uses: the
 * workspace, the archives in their order, and what is switched off at first.
 *
 * <p>Usage: {@code DemoLoader URL WORLD TARGET}. Does nothing when the workspace is there already.
 */
public final class DemoLoader {
  // it takes coal out of the game, which others refer to: a fault to try out, not to begin with
  private static final Set<String> OFF_AT_FIRST = Set.of("Coal to Kelp Conversion");
  private static final ObjectMapper JSON = new ObjectMapper();
  private final HttpClient http = HttpClient.newHttpClient();
  private final String api;

  private DemoLoader(String url) {
    this.api = url + "/api";
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    DemoLoader loader = new DemoLoader(args[0]);
    long workspace = loader.load(Path.of(args[1]), Path.of(args[2]).toAbsolutePath().normalize());
    System.out.println(args[0] + "/workspaces/" + workspace);
  }

  private long load(Path world, Path target) throws IOException, InterruptedException {
    DemoPacker.pack(world, target);
    String folder = target.resolve("game").toRealPath().toString();
    for (JsonNode w : get("/workspaces")) {
      if (w.path("folder").asText().equals(folder)) return w.path("id").asLong();
    }
    ObjectNode body = JSON.createObjectNode().put("folder", folder);
    long workspace = result(post("/workspaces", body));
    String base = "/workspaces/" + workspace;
    for (String archive : DemoPacker.installOrder()) {
      String name = URLEncoder.encode(archive, StandardCharsets.UTF_8);
      BodyPublisher bytes = BodyPublishers.ofFile(target.resolve("archives").resolve(archive));
      JsonNode stored =
          send(request(base + "/archives?name=" + name, "application/octet-stream").POST(bytes));
      result(
          post(base + "/mods", JSON.createObjectNode().put("archive", stored.path("id").asLong())));
    }
    switchOff(base);
    return workspace;
  }

  private void switchOff(String base) throws IOException, InterruptedException {
    JsonNode layers = get(base + "/layers");
    ArrayNode mods = JSON.createArrayNode();
    for (JsonNode l : layers.path("layers")) {
      if (OFF_AT_FIRST.contains(l.path("name").asText())) mods.add(l.path("mod").asLong());
    }
    ObjectNode body = JSON.createObjectNode().put("on", false);
    body.set("mods", mods);
    send(
        request(base + "/layers/switch", "application/json")
            .header("If-Match", "\"" + layers.path("revision").asLong() + "\"")
            .POST(BodyPublishers.ofString(body.toString())));
  }

  private HttpRequest.Builder request(String path, String type) {
    return HttpRequest.newBuilder(URI.create(api + path)).header("Content-Type", type);
  }

  private JsonNode get(String path) throws IOException, InterruptedException {
    return send(request(path, "application/json").GET());
  }

  private JsonNode post(String path, JsonNode body) throws IOException, InterruptedException {
    return send(
        request(path, "application/json")
            .header("Prefer", "wait=300")
            .POST(BodyPublishers.ofString(body.toString())));
  }

  private static long result(JsonNode job) {
    if (job.path("state").asText().equals("DONE")) return job.path("result").asLong();
    throw new IllegalStateException("the demo could not be loaded: " + job);
  }

  private JsonNode send(HttpRequest.Builder request) throws IOException, InterruptedException {
    HttpResponse<String> answer = http.send(request.build(), BodyHandlers.ofString());
    if (answer.statusCode() / 100 == 2) return JSON.readTree(answer.body());
    throw new IllegalStateException("the demo could not be loaded: " + answer.body());
  }
}
