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
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * Brings the sample world into a running Ironing, through the same API that the page uses: the
 * workspace, the archives in their order, and what is switched off at first.
 *
 * <p>Usage: {@code DemoLoader URL WORLD TARGET}. Does nothing when that was done once, whatever the
 * user has made of it since; goes on where a loading was cut off.
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
    Path loaded = target.resolve("loaded");
    Optional<Long> there = workspaceOf(folder);
    if (there.isPresent() && Files.exists(loaded)) return there.get();
    Files.deleteIfExists(loaded);
    long workspace = there.isPresent() ? there.get() : newWorkspace(folder);
    String base = "/workspaces/" + workspace;
    Set<String> mods = archivesOfMods(base);
    for (String archive : DemoPacker.installOrder()) {
      if (!mods.contains(archive)) bringIn(base, target.resolve("archives").resolve(archive));
    }
    switchOff(base);
    Files.createFile(loaded);
    return workspace;
  }

  private Optional<Long> workspaceOf(String folder) throws IOException, InterruptedException {
    for (JsonNode w : get("/workspaces")) {
      if (w.path("folder").asText().equals(folder)) return Optional.of(w.path("id").asLong());
    }
    return Optional.empty();
  }

  private long newWorkspace(String folder) throws IOException, InterruptedException {
    return result(post("/workspaces", JSON.createObjectNode().put("folder", folder)));
  }

  private Set<String> archivesOfMods(String base) throws IOException, InterruptedException {
    Set<String> names = new HashSet<>();
    for (JsonNode m : get(base + "/library").path("mods"))
      names.add(m.path("archiveName").asText());
    return names;
  }

  private void bringIn(String base, Path archive) throws IOException, InterruptedException {
    String name = URLEncoder.encode(archive.getFileName().toString(), StandardCharsets.UTF_8);
    BodyPublisher bytes = BodyPublishers.ofFile(archive);
    JsonNode stored =
        send(request(base + "/archives?name=" + name, "application/octet-stream").POST(bytes));
    result(
        post(base + "/mods", JSON.createObjectNode().put("archive", stored.path("id").asLong())));
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
