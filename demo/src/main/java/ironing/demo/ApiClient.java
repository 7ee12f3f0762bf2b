package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;

/**
 * What a program on this machine says to a running Ironing: the sample world's loader, and the
 * measurements. Paths are below {@code /api}.
 *
 * <p>Fails: IllegalStateException with what the server said when a request is refused or a job
 * fails.
 */
public final class ApiClient {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int PATIENCE_SECONDS = 600;
  private final HttpClient http = HttpClient.newHttpClient();
  private final String api;

  /**
   * @param url of the page, without a path
   */
  public ApiClient(String url) {
    this.api = url + "/api";
  }

  public JsonNode get(String path) throws IOException, InterruptedException {
    return send(request(path, "application/json").GET());
  }

  /** A change of the order, decided on a revision of it. */
  public JsonNode change(String path, long revision, Map<String, ?> body)
      throws IOException, InterruptedException {
    return send(
        request(path, "application/json")
            .header("If-Match", "\"" + revision + "\"")
            .POST(BodyPublishers.ofString(JSON.writeValueAsString(body))));
  }

  /** Sends what no revision is asked for; gives the answer. */
  public JsonNode post(String path, Map<String, ?> body) throws IOException, InterruptedException {
    return send(
        request(path, "application/json")
            .POST(BodyPublishers.ofString(JSON.writeValueAsString(body))));
  }

  /** Puts something in the place of what is there. */
  public void put(String path, Map<String, ?> body) throws IOException, InterruptedException {
    send(
        request(path, "application/json")
            .PUT(BodyPublishers.ofString(JSON.writeValueAsString(body))));
  }

  /** Long work, waited for; gives its result, 0 where it has none. */
  public long job(String path, Map<String, ?> body) throws IOException, InterruptedException {
    JsonNode job =
        send(
            request(path, "application/json")
                .header("Prefer", "wait=" + PATIENCE_SECONDS)
                .POST(BodyPublishers.ofString(JSON.writeValueAsString(body))));
    if (job.path("state").asText().equals("DONE")) return job.path("result").asLong();
    throw new IllegalStateException(path + ": " + job);
  }

  public void delete(String path) throws IOException, InterruptedException {
    send(request(path, "application/json").DELETE());
  }

  /** The workspace of a game's folder. */
  public Optional<Long> workspaceOf(Path game) throws IOException, InterruptedException {
    for (JsonNode w : get("/workspaces")) {
      if (w.path("folder").asText().equals(game.toString()))
        return Optional.of(w.path("id").asLong());
    }
    return Optional.empty();
  }

  /** What a game keeps in a place called user lies in a folder of that name beside it. */
  public long newWorkspace(Path game) throws IOException, InterruptedException {
    Path user = game.resolveSibling("user");
    Map<String, String> places =
        Files.isDirectory(user) ? Map.of("user", user.toString()) : Map.of();
    return job("/workspaces", Map.of("folder", game.toString(), "places", places));
  }

  /** Sends an archive and makes a mod of it, on top of those that are there. */
  public void bringIn(long workspace, Path archive) throws IOException, InterruptedException {
    job("/workspaces/" + workspace + "/mods", Map.of("archive", store(workspace, archive)));
  }

  /** Sends an archive into the inbox; gives its number. */
  public long store(long workspace, Path archive) throws IOException, InterruptedException {
    return sendFile("/workspaces/" + workspace + "/archives", archive).path("id").asLong();
  }

  /** Brings in a published list. */
  public void follow(long workspace, Path list) throws IOException, InterruptedException {
    sendFile("/workspaces/" + workspace + "/lists", list);
  }

  private JsonNode sendFile(String path, Path file) throws IOException, InterruptedException {
    String name = URLEncoder.encode(file.getFileName().toString(), StandardCharsets.UTF_8);
    return send(
        request(path + "?name=" + name, "application/octet-stream")
            .POST(BodyPublishers.ofFile(file)));
  }

  private HttpRequest.Builder request(String path, String type) {
    return HttpRequest.newBuilder(URI.create(api + path)).header("Content-Type", type);
  }

  private JsonNode send(HttpRequest.Builder request) throws IOException, InterruptedException {
    HttpResponse<String> answer = http.send(request.build(), BodyHandlers.ofString());
    if (answer.statusCode() / 100 == 2) return JSON.readTree(answer.body());
    throw new IllegalStateException(answer.request().uri() + ": " + answer.body());
  }
}
