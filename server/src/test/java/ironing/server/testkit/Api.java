package ironing.server.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What a script does over HTTP. Every call says which status it expects. */
public final class Api {
  public static final ObjectMapper JSON = new ObjectMapper();
  private final HttpClient http = HttpClient.newHttpClient();
  private final String url;

  Api(String url) {
    this.url = url;
  }

  /** An answer with its body as JSON; missing where there is none. */
  public record Answer(int status, JsonNode body, HttpResponse<String> raw) {
    public String header(String name) {
      return raw.headers().firstValue(name).orElse("");
    }

    /** A job that ended well, with its result. */
    public long result() {
      assertThat(body.path("state").asText()).as(body.toString()).isEqualTo("DONE");
      return body.path("result").asLong();
    }

    /** The only problem of a job that failed. */
    public JsonNode problem() {
      assertThat(body.path("state").asText()).as(body.toString()).isEqualTo("FAILED");
      assertThat(body.path("problems")).hasSize(1);
      return body.path("problems").get(0);
    }
  }

  public JsonNode get(String path) {
    return send("GET", path, null, Map.of()).body();
  }

  /** Whatever comes back. */
  public Answer ask(String method, String path, Object body, Map<String, String> headers) {
    boolean raw = body instanceof byte[];
    return askAs(
        method, path, body, raw ? "application/octet-stream" : "application/json", headers);
  }

  public Answer askAs(
      String method, String path, Object body, String type, Map<String, String> headers) {
    HttpRequest.BodyPublisher bytes =
        body == null
            ? BodyPublishers.noBody()
            : body instanceof byte[] b
                ? BodyPublishers.ofByteArray(b)
                : BodyPublishers.ofString(body instanceof String s ? s : write(body));
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url + path));
    request.header("Content-Type", type);
    headers.forEach(request::header);
    try {
      HttpResponse<String> answer =
          http.send(request.method(method, bytes).build(), BodyHandlers.ofString());
      boolean json = answer.headers().firstValue("Content-Type").orElse("").contains("json");
      JsonNode tree =
          json && !answer.body().isEmpty()
              ? JSON.readTree(answer.body())
              : MissingNode.getInstance();
      return new Answer(answer.statusCode(), tree, answer);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** Fails unless the answer is a good one. */
  public Answer send(String method, String path, Object body, Map<String, String> headers) {
    Answer answer = ask(method, path, body, headers);
    assertThat(answer.status())
        .as(method + " " + path + ": " + answer.raw().body())
        .isBetween(200, 299);
    return answer;
  }

  /** Starts a job and waits for its end. */
  public Answer job(String path, Object body) {
    return send("POST", path, body, Map.of("Prefer", "wait=120"));
  }

  /**
   * The code with which a request is refused, at once or when its job has ended. A request for a
   * change carries the state as it is.
   */
  public String refusal(String method, String path, Object body) {
    Map<String, String> headers = new HashMap<>(Map.of("Prefer", "wait=120"));
    Matcher workspace = Pattern.compile("/api/workspaces/\\d+").matcher(path);
    if (workspace.lookingAt()) {
      String etag = ask("GET", workspace.group(), null, Map.of()).header("ETag");
      if (!etag.isEmpty()) headers.put("If-Match", etag);
    }
    Answer answer = ask(method, path, body, headers);
    if (answer.status() < 400) return answer.problem().path("code").asText();
    String code = answer.body().path("code").asText();
    assertThat(answer.body().path("type").asText()).isEqualTo("/api/codes/" + code);
    assertThat(get("/api/codes/" + code).path("status").asInt())
        .as(code)
        .isEqualTo(answer.status());
    return code;
  }

  /** A change of the arrangement as it is now. */
  public JsonNode change(String method, String path, Object body) {
    String base = path.replaceFirst("(/api/workspaces/\\d+).*", "$1");
    String etag = send("GET", base, null, Map.of()).header("ETag");
    return send(method, path, body, Map.of("If-Match", etag)).body();
  }

  /** Sends an archive; gives its number. */
  public long bringIn(long workspace, String name, byte[] bytes) {
    String path = "/api/workspaces/" + workspace + "/archives?name=" + encode(name);
    return send("POST", path, bytes, Map.of()).body().path("id").asLong();
  }

  /** Sends an archive and makes a mod of it; gives the job as it ended. */
  public Answer install(long workspace, String name, byte[] bytes) {
    long archive = bringIn(workspace, name, bytes);
    return job("/api/workspaces/" + workspace + "/mods", Map.of("archive", archive));
  }

  /** Brings an archive in as another version of a mod, in its place; gives the new mod. */
  public long update(long workspace, long mod, String name, byte[] bytes) {
    Map<String, Object> body =
        Map.of(
            "archive", bringIn(workspace, name, bytes), "parts", List.of(Map.of("instead", mod)));
    return job("/api/workspaces/" + workspace + "/mods", body).result();
  }

  /** Makes a workspace of a game's folder; gives its number. */
  public long workspace(Object folder) {
    return workspace(folder, Map.of());
  }

  /** Of a game with places beside its folder. */
  public long workspace(Object folder, Map<String, String> places) {
    return job("/api/workspaces", Map.of("folder", folder.toString(), "places", places)).result();
  }

  private static String encode(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  private static String write(Object body) {
    try {
      return JSON.writeValueAsString(body);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
