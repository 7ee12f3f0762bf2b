package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.testkit.Tries;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;

/**
 * Odd requests to every operation of docs/api/openapi.json: half right, with members that are
 * missing, null, of another kind, too long, or no text. None is answered by an error of the
 * server's own, and one that was refused has changed nothing.
 */
@ExtendWith(SharedServer.class)
class OddRequestsIT {
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  /** How many requests are made to each operation. */
  private static final int EACH = Tries.of(100);

  private static final Set<String> METHODS = Set.of("get", "post", "put", "delete", "patch");
  private static final List<String> TYPES =
      List.of(
          "application/json",
          "*/*",
          "text/plain",
          "application/*",
          "nonsense",
          "application/json;x=\"");
  private static final List<String> TEXTS =
      List.of(
          "",
          " ",
          "x",
          "Reefs",
          "data/a.txt",
          "../../etc/passwd",
          "a\u0000b",
          "\uD800",
          "ü🔔",
          "nowhere/at/all",
          "-1",
          "0",
          "null",
          "'; drop table mod; --",
          "%00",
          "%",
          "[a-z]{1,9}+*",
          "**/**/**/*",
          "x".repeat(3_000),
          "/".repeat(200),
          "((((",
          "\\",
          "2026-13-45");

  @TempDir Path temp;
  private Api api;
  private JdbcTemplate db;
  private Jobs jobs;
  private JsonNode document;
  private Random random;
  private long workspace;
  private long mod;

  /** What {@link #state} was when it was looked at last; null after a request that was accepted. */
  private String known;

  /** Of each operation the time of its slowest answer, in nanoseconds. */
  private final Map<String, Long> slowest = new TreeMap<>();

  private record Operation(String method, String path, JsonNode about) {}

  @Test
  void no_request_is_answered_by_an_error_of_the_servers_own(TestServer server) throws IOException {
    api = server.api();
    db = server.bean(JdbcTemplate.class);
    jobs = server.bean(Jobs.class);
    document = Api.JSON.readTree(Files.readString(Path.of("../docs/api/openapi.json")));
    random = new Random(32);
    workspace = api.workspace(Games.withPlugins(temp.resolve("game")));
    mod =
        api.install(
                workspace,
                "Reefs 1.0.zip",
                Games.mod(Map.of("data/maps/a.map", "a", "README.md", "r")))
            .result();
    Map<String, List<String>> wrong = new TreeMap<>();
    int asked = 0;
    for (Operation o : operations()) {
      // deleting goes on behind the answer, and all others are asked of a workspace that is there
      if (o.method().equals("DELETE") && o.path().endsWith("/{workspace}")) continue;
      for (int i = 0; i < EACH; i++, asked++) ask(o, wrong);
    }
    assertThat(asked).isGreaterThan(1_500);
    assertThat(wrong).isEmpty();
    writeSlowest(asked);
  }

  @Test
  void a_deletion_that_is_refused_deletes_nothing(Api server) throws IOException {
    long there = server.workspace(Games.withPlugins(temp.resolve("staying")));
    String address = "/api/workspaces/" + there;
    for (String odd :
        List.of("keepArchives=perhaps", "leaveFolder=nowhere", "keepArchives=true&leaveFolder=-1"))
      assertThat(server.ask("DELETE", address + "?" + odd, null, Map.of()).status()).isEqualTo(400);
    assertThat(server.get(address).path("title").asText()).isNotEmpty();
  }

  @Test
  void a_workspace_that_is_not_there_is_told_by_every_operation(Api server) throws IOException {
    api = server;
    document = Api.JSON.readTree(Files.readString(Path.of("../docs/api/openapi.json")));
    Map<String, Integer> accepted = new TreeMap<>();
    for (Operation o : operations()) {
      if (!o.path().contains("{workspace}")) continue;
      String path = o.path().replace("{workspace}", "987654").replaceAll("\\{[a-zA-Z]+\\}", "1");
      int status = api.ask(o.method(), path, "{}", Map.of()).status();
      if (status < 400 || status > 499) accepted.put(o.method() + " " + o.path(), status);
    }
    assertThat(accepted).isEmpty();
  }

  /** For bench/README.md: the slowest answer of each of the ten slowest operations. */
  private void writeSlowest(int asked) throws IOException {
    String file = System.getProperty("ironing.slowest", "");
    if (file.isEmpty()) return;
    List<String> lines = new ArrayList<>(List.of(asked + " requests"));
    slowest.entrySet().stream()
        .sorted(Map.Entry.<String, Long>comparingByValue().reversed())
        .limit(10)
        .forEach(e -> lines.add(e.getValue() / 1_000_000 + " ms " + e.getKey()));
    Files.write(Path.of(file), lines);
  }

  private List<Operation> operations() {
    List<Operation> all = new ArrayList<>();
    document
        .path("paths")
        .properties()
        .forEach(
            path ->
                path.getValue()
                    .properties()
                    .forEach(
                        m -> {
                          // events go on for ever
                          if (METHODS.contains(m.getKey()) && !path.getKey().endsWith("/events"))
                            all.add(
                                new Operation(
                                    m.getKey().toUpperCase(Locale.ROOT),
                                    path.getKey(),
                                    m.getValue()));
                        }));
    return all;
  }

  private void ask(Operation o, Map<String, List<String>> wrong) {
    String path = o.path();
    StringBuilder query = new StringBuilder();
    Map<String, String> headers = new TreeMap<>();
    for (JsonNode p : o.about().path("parameters")) {
      String name = p.path("name").asText(), in = p.path("in").asText();
      String value = parameter(name, p.path("schema"));
      if (in.equals("path"))
        path = path.replace("{" + name + "}", encode(value.isEmpty() ? "0" : value));
      else if (in.equals("header")) {
        if (name.equals("If-Match") && random.nextInt(4) > 0) headers.put(name, revision());
      } else if (random.nextInt(3) > 0)
        query.append(query.isEmpty() ? '?' : '&').append(name).append('=').append(encode(value));
    }
    JsonNode schema = o.about().at("/requestBody/content/application~1json/schema");
    String body = schema.isMissingNode() ? null : body(schema);
    String type = random.nextInt(12) == 0 ? one(TYPES) : "application/json";
    Api.Answer answer;
    String said = o.method() + " " + path + query + " " + type + " " + shortened(body);
    long before = System.nanoTime();
    try {
      answer = api.askAs(o.method(), path + query, body, type, headers);
    } catch (IllegalArgumentException notSendable) {
      return;
    }
    slowest.merge(o.method() + " " + o.path(), System.nanoTime() - before, Math::max);
    String operation = o.method() + " " + o.path();
    if (answer.status() >= 500)
      wrong.computeIfAbsent(operation, k -> new ArrayList<>()).add(answer.status() + ": " + said);
    else if (answer.status() < 400) known = null;
    else if (!o.method().equals("GET") && !isAsKnown())
      wrong
          .computeIfAbsent(operation, k -> new ArrayList<>())
          .add("changed by " + answer.status() + ": " + said);
  }

  /** Whether the workspace is as the last request that was accepted has left it. */
  private boolean isAsKnown() {
    // what an accepted request has begun may still change something
    Patience.until(
        () -> jobs.of(workspace),
        all -> all.stream().noneMatch(j -> j.state() == Job.State.RUNNING));
    String now = state();
    boolean as = known == null || known.equals(now);
    known = now;
    return as;
  }

  /** What a refused request must not change; from the database, which is quicker than asking. */
  private String state() {
    return db.queryForObject(
        """
        select concat_ws(' ', w::text, (select string_agg(p::text, ' ' order by id) from profile p
            where workspace_id = w.id), (select count(*) || ' ' || max(id) from change
            where workspace_id = w.id), (select string_agg(m.id || ' ' || m.card, ' ' order by id)
            from mod m where workspace_id = w.id), (select count(*) from archive
            where workspace_id = w.id))
        from workspace w where w.id = ?
        """,
        String.class,
        workspace);
  }

  private String revision() {
    return "\""
        + db.queryForObject("select revision from workspace where id = ?", Long.class, workspace)
        + "\"";
  }

  private String parameter(String name, JsonNode schema) {
    if (name.equals("workspace")) return random.nextInt(8) == 0 ? odd() : Long.toString(workspace);
    if (name.equals("mod") && random.nextInt(3) > 0) return Long.toString(mod);
    return random.nextInt(3) == 0 ? odd() : fitting(schema);
  }

  private String odd() {
    return switch (random.nextInt(5)) {
      case 0 -> "-1";
      case 1 -> "99999999999999999999";
      case 2 -> "" + Integer.MAX_VALUE;
      default -> one(TEXTS);
    };
  }

  private String fitting(JsonNode schema) {
    JsonNode s = resolved(schema);
    if (s.has("enum")) return s.path("enum").get(random.nextInt(s.path("enum").size())).asText();
    return switch (s.path("type").asText()) {
      case "integer", "number" -> "" + random.nextInt(5);
      case "boolean" -> "" + random.nextBoolean();
      case "array" -> fitting(s.path("items"));
      default -> one(TEXTS);
    };
  }

  private String body(JsonNode schema) {
    if (random.nextInt(20) == 0)
      return one(List.of("", "null", "[]", "{", "5", "\"x\"", "{\"a\":1}"));
    JsonNode whole = value(schema, 0);
    String text = whole.toString();
    return random.nextInt(30) == 0 ? text.substring(0, random.nextInt(text.length() + 1)) : text;
  }

  private JsonNode value(JsonNode schema, int depth) {
    JsonNode s = resolved(schema);
    if (depth > 0 && random.nextInt(14) == 0) return anything();
    if (s.has("enum")) return s.path("enum").get(random.nextInt(s.path("enum").size()));
    switch (s.path("type").asText()) {
      case "integer", "number":
        return NODES.numberNode(
            List.of(0L, 1L, -1L, mod, (long) Integer.MIN_VALUE, Long.MAX_VALUE)
                .get(random.nextInt(6)));
      case "boolean":
        return NODES.booleanNode(random.nextBoolean());
      case "array":
        ArrayNode items = NODES.arrayNode();
        for (int i = random.nextInt(3); i > 0 && depth < 6; i--)
          items.add(random.nextInt(8) == 0 ? NODES.nullNode() : value(s.path("items"), depth + 1));
        return items;
      case "object":
        ObjectNode members = NODES.objectNode();
        s.path("properties")
            .properties()
            .forEach(
                p -> {
                  int how = random.nextInt(12);
                  if (how == 0) return;
                  members.set(
                      p.getKey(), how == 1 ? NODES.nullNode() : value(p.getValue(), depth + 1));
                });
        JsonNode more = s.path("additionalProperties");
        if (more.isObject() && depth < 6)
          for (int i = random.nextInt(3); i > 0; i--)
            members.set(one(TEXTS), value(more, depth + 1));
        return members;
      default:
        return NODES.textNode(one(TEXTS));
    }
  }

  private JsonNode anything() {
    return List.<JsonNode>of(
            NODES.nullNode(),
            NODES.numberNode(1.5),
            NODES.textNode("1e999"),
            NODES.arrayNode().addNull(),
            NODES.objectNode().putNull("x"),
            NODES.booleanNode(true))
        .get(random.nextInt(6));
  }

  private JsonNode resolved(JsonNode schema) {
    String ref = schema.path("$ref").asText();
    return ref.isEmpty() ? schema : document.at(ref.substring(1));
  }

  private <T> T one(List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  private static String encode(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
  }

  private static String shortened(String body) {
    return body == null || body.length() < 300 ? body : body.substring(0, 300) + "…";
  }
}
