package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.OfferedMods;
import ironing.server.testkit.SharedServer;
import ironing.standins.catalogue.CatalogueFolder;
import ironing.standins.catalogue.CatalogueServer;
import ironing.standins.catalogue.Fault;
import ironing.standins.catalogue.Fault.Kind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Looking at catalogues, and finding in them. */
@ExtendWith(SharedServer.class)
class CataloguesIT {
  @TempDir Path temp;
  private Api api;
  private String base;
  private Path folder;
  private CatalogueFolder catalogue;
  private OfferedMods mods;
  private CatalogueServer server;
  private KeyPair key;

  @BeforeEach
  void serve(Api api) throws IOException, NoSuchAlgorithmException {
    this.api = api;
    base = "/api/workspaces/" + api.workspace(Games.plain(temp.resolve("game"))) + "/catalogues";
    folder = Files.createDirectories(temp.resolve("catalogue"));
    catalogue = new CatalogueFolder(folder, "board", "Harbour Board", "plain").parts(4);
    mods = new OfferedMods(catalogue);
    mods.release("rope", "1.0").release("rope", "1.2").release("fog", "4.0", "rope >=1.2");
    for (int i = 0; i < 20; i++) mods.release("gull" + (char) ('a' + i), "1.0");
    key = KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
    catalogue.write(1, key, "");
    server = new CatalogueServer(folder, 0);
  }

  @AfterEach
  void end() {
    server.close();
  }

  private long add() {
    return api.job(base, Map.of("address", server.url() + "/")).result();
  }

  private JsonNode only() {
    return api.get(base).get(0);
  }

  private String lookRefused(long id) {
    return api.refusal("POST", base + "/" + id + "/look", null);
  }

  private List<String> found(String query) {
    List<String> out = new ArrayList<>();
    api.get(base + "/mods?" + query).path("mods").forEach(m -> out.add(m.path("mod").asText()));
    return out;
  }

  @Test
  void is_looked_at_and_found_in() {
    add();
    JsonNode c = only();
    assertThat(c.path("title").asText()).isEqualTo("Harbour Board");
    assertThat(c.path("mods").asInt()).isEqualTo(22);
    assertThat(c.path("signedBy").asText()).hasSize(64);
    assertThat(c.path("look").path("outcome").asText()).isEqualTo("TAKEN");
    assertThat(found("search=rope")).containsExactly("rope");
    assertThat(found("search=GUL")).hasSize(20);
    assertThat(found("search=about+fog")).containsExactly("fog");
    List<String> inPieces = new ArrayList<>();
    for (int from = 0; from < 30; from += 7)
      inPieces.addAll(found("search=about&limit=7&offset=" + from));
    assertThat(inPieces)
        .as("piece by piece")
        .isEqualTo(found("search=about&limit=200"))
        .hasSize(22);
    assertThat(api.get(base + "/mods?search=rope").path("total").asInt())
        .as("by its id")
        .isEqualTo(1);
    assertThat(api.get(base + "/mods?search=gull").path("total").asInt()).isEqualTo(20);
    List<String> gulls = found("search=gullb&limit=200");
    assertThat(gulls).containsExactly("gullb");
    assertThat(found("search=nothing")).isEmpty();
    assertThat(found("search=%27%3A%26%21")).as("no words at all").isEmpty();
    assertThat(found("tag=sea&limit=5")).hasSize(5);
    assertThat(found("author=Mairi&limit=200")).hasSize(22);
    assertThat(found("nothingMore=true&limit=200")).hasSize(21).doesNotContain("fog");
    assertThat(api.get(base + "/tags").get(0).path("mods").asInt()).isEqualTo(22);
    JsonNode fog = api.get(base + "/mods/fog").get(0);
    assertThat(fog.path("releases").get(0).path("needs").get(0).path("mod").asText())
        .isEqualTo("rope");
    assertThat(api.refusal("GET", base + "/mods/none", null)).isEqualTo("not-found");
  }

  @Test
  void only_what_has_changed_is_asked_for() throws IOException {
    long id = add();
    server.forgetAsked();
    api.job(base + "/" + id + "/look", null);
    assertThat(server.asked()).containsExactly("GET /catalogue.json");
    mods.release("rope", "1.3");
    catalogue.write(2, key, "");
    server.forgetAsked();
    api.job(base + "/" + id + "/look", null);
    assertThat(server.asked()).as("state, signature, one part").hasSize(3);
    JsonNode news = only().path("look").path("news");
    assertThat(news.path("newReleases").asInt()).isEqualTo(1);
    assertThat(news.path("releases").get(0).path("version").asText()).isEqualTo("1.3");
    assertThat(news.path("newMods").asInt()).isZero();
  }

  @Test
  void works_in_a_folder_and_nothing_outside_of_it_is_read() throws IOException {
    api.job(base, Map.of("address", folder.toString())).result();
    assertThat(only().path("mods").asInt()).isEqualTo(22);
    Path outside = Files.writeString(temp.resolve("outside.jsonl"), "x");
    Path link = folder.resolve("parts/link.jsonl");
    Files.createSymbolicLink(link, outside);
    String state = Files.readString(folder.resolve("catalogue.json"));
    Path other = Files.createDirectories(temp.resolve("other"));
    Files.createDirectories(other.resolve("parts"));
    Files.createSymbolicLink(other.resolve("parts/link.jsonl"), outside);
    String hash = "a".repeat(64);
    for (String href : List.of("parts/link.jsonl", "../outside.jsonl", "/etc/hostname")) {
      Files.writeString(
          other.resolve("catalogue.json"),
          "{\"format\":\"ironing/catalogue@1\",\"id\":\"x\",\"title\":\"X\",\"sequence\":1,"
              + "\"parts\":[{\"href\":\""
              + href
              + "\",\"sha256\":\""
              + hash
              + "\",\"size\":1}]}");
      Api.Answer a =
          api.ask("POST", base, Map.of("address", other.toString()), Map.of("Prefer", "wait=60"));
      if (a.status() == 409)
        a = api.ask("POST", base + "/" + otherId() + "/look", null, Map.of("Prefer", "wait=60"));
      assertThat(a.problem().path("code").asText()).as(href).isEqualTo("href-foreign");
    }
    assertThat(state).isNotEmpty();
  }

  private long otherId() {
    return api.get(base).get(1).path("id").asLong();
  }

  @Test
  void a_state_that_cannot_be_believed_leaves_the_old_one() throws Exception {
    long id = add();
    KeyPair second = KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
    mods.release("tern", "1.0");
    catalogue.write(2, second, "");
    assertThat(lookRefused(id)).isEqualTo("catalogue-key-other");
    String fingerprint = only().path("otherKey").asText();
    assertThat(fingerprint).hasSize(64);
    assertThat(only().path("mods").asInt()).isEqualTo(22);
    assertThat(only().path("sequence").asInt()).isEqualTo(1);
    catalogue.write(0, key, "");
    assertThat(lookRefused(id)).isEqualTo("catalogue-sequence-lower");
    catalogue.write(1, key, "");
    assertThat(lookRefused(id)).isEqualTo("catalogue-sequence-same");
    catalogue.write(2, key, "");
    Files.writeString(folder.resolve("catalogue.json.sig"), "AAAA");
    assertThat(lookRefused(id)).isEqualTo("catalogue-signature-wrong");
    Files.writeString(folder.resolve("catalogue.json"), "<html>");
    assertThat(lookRefused(id)).isEqualTo("catalogue-invalid");
    assertThat(api.refusal("POST", base + "/" + id + "/trust", Map.of("fingerprint", fingerprint)))
        .as("the last look found no key")
        .isEqualTo("catalogue-key-unknown");
    catalogue.write(2, second, "");
    lookRefused(id);
    api.job(base + "/" + id + "/trust", Map.of("fingerprint", fingerprint)).result();
    assertThat(only().path("mods").asInt()).isEqualTo(23);
    assertThat(only().path("signedBy").asText()).isEqualTo(fingerprint);
    assertThat(only().has("otherKey")).isFalse();
  }

  @ParameterizedTest
  @CsvSource({
    "CUT, 100, '', catalogue-unreachable",
    "LONGER, 50, '', catalogue-unreachable",
    "ENDLESS, 50000000, '', size-other",
    "ALTERED, 3, '', digest-other",
    "ENCODED, 0, gzip, answer-encoded",
    "STATUS, 404, '', catalogue-unreachable",
    "STATUS, 503, 3600, catalogue-unreachable",
    "REDIRECT, 302, 'https://elsewhere.example/x', href-foreign",
    "REDIRECT, 301, 'http://127.0.0.1:1/x', href-foreign",
    "REDIRECT, 307, '/parts/', catalogue-unreachable"
  })
  void a_part_that_is_not_as_announced_leaves_the_old_state(
      Kind kind, long amount, String text, String code) throws IOException {
    long id = add();
    mods.release("rope", "1.3");
    catalogue.write(2, key, "");
    String state = Files.readString(folder.resolve("catalogue.json"));
    try (var all = Files.list(folder.resolve("parts"))) {
      all.map(p -> "/parts/" + p.getFileName())
          .filter(p -> state.contains(p.substring(1)))
          .forEach(p -> server.fail(p, new Fault(kind, amount, text, 0)));
    }
    assertThat(lookRefused(id)).isEqualTo(code);
    assertThat(only().path("sequence").asInt()).isEqualTo(1);
    assertThat(api.get(base + "/mods/rope").get(0).path("releases")).hasSize(2);
  }

  @Test
  void a_line_that_breaks_once_is_asked_for_again() throws IOException {
    server.fail("/catalogue.json", new Fault(Kind.STATUS, 429, "0", 2));
    try (var all = Files.list(folder.resolve("parts"))) {
      all.map(p -> "/parts/" + p.getFileName())
          .forEach(p -> server.fail(p, new Fault(Kind.CUT, 10, "", 1)));
    }
    add();
    assertThat(only().path("mods").asInt()).isEqualTo(22);
  }

  @Test
  void a_catalogue_that_does_not_answer_as_it_should_is_told() {
    server.fail("/catalogue.json", new Fault(Kind.ENCODED, 0, "br", 0));
    assertThat(api.refusal("POST", base, Map.of("address", server.url())))
        .isEqualTo("answer-encoded");
    server.fail("/catalogue.json", new Fault(Kind.STATUS, 404, "", 0));
    assertThat(lookRefused(only().path("id").asLong())).isEqualTo("catalogue-unreachable");
    String gone = server.url();
    server.close();
    assertThat(api.refusal("POST", base, Map.of("address", gone + "/other")))
        .isEqualTo("catalogue-unreachable");
  }

  @Test
  void a_circle_of_redirects_ends() {
    server.fail("/catalogue.json", new Fault(Kind.REDIRECT, 302, "/catalogue.json", 0));
    assertThat(api.refusal("POST", base, Map.of("address", server.url())))
        .isEqualTo("too-many-redirects");
  }

  @Test
  void what_a_catalogue_names_at_a_private_address_is_not_asked() throws IOException {
    try (CatalogueServer other = new CatalogueServer(folder, 0)) {
      catalogue.says("hosts", List.of(other.url()));
      catalogue.write(2, key, "");
      String state = Files.readString(folder.resolve("catalogue.json"));
      try (var all = Files.list(folder.resolve("parts"))) {
        all.map(p -> "/parts/" + p.getFileName())
            .filter(p -> state.contains(p.substring(1)))
            .forEach(p -> server.fail(p, new Fault(Kind.REDIRECT, 302, other.url() + p, 0)));
      }
      assertThat(api.refusal("POST", base, Map.of("address", server.url())))
          .isEqualTo("address-private");
      assertThat(other.asked()).isEmpty();
    }
  }

  @Test
  void lines_that_cannot_be_read_are_told_and_the_others_are_used() throws IOException {
    catalogue.line("bad", "no json").line("twice", twice());
    catalogue.write(2, key, "");
    add();
    assertThat(only().path("mods").asInt()).isEqualTo(22);
    List<String> reasons = new ArrayList<>();
    only().path("mistakes").forEach(m -> reasons.add(m.path("reason").asText()));
    assertThat(reasons)
        .hasSize(2)
        .anyMatch(r -> r.contains("is no JSON"))
        .anyMatch(r -> r.contains("a second time"));
  }

  /** Names and summaries of this machine's own packages, found by their whole names. */
  @Test
  void the_packages_of_debian_are_found_by_their_names() throws Exception {
    Process dpkg =
        new ProcessBuilder("dpkg-query", "-W", "-f", "${Package}\t${binary:Summary}\n").start();
    List<String> packages =
        new String(dpkg.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8)
            .lines()
            .distinct()
            .toList();
    assertThat(packages).hasSizeGreaterThan(50);
    for (int i = 0; i < packages.size(); i++) {
      String[] p = packages.get(i).split("\t", 2);
      catalogue.mod(Map.of("mod", "package-" + i, "name", p[0], "game", "plain", "summary", p[1]));
    }
    catalogue.write(2, key, "");
    add();
    for (int i = 0; i < packages.size(); i += 7) {
      String[] p = packages.get(i).split("\t", 2);
      for (String text : List.of(p[0], p[1])) {
        String query = java.net.URLEncoder.encode(text, java.nio.charset.StandardCharsets.UTF_8);
        assertThat(found("limit=200&search=" + query)).as(text).contains("package-" + i);
      }
    }
  }

  @Test
  void what_is_hostile_in_a_line_does_not_keep_the_others_out() throws IOException {
    StringBuilder words = new StringBuilder();
    java.util.Random random = new java.util.Random(1);
    while (words.length() < 700_000) words.append(Long.toString(random.nextLong(), 36)).append(' ');
    catalogue.mod(
        Map.of("mod", "flood", "name", "Flood", "game", "plain", "summary", words.toString()));
    String one = words.toString().replaceAll("[ -]", "");
    catalogue.mod(Map.of("mod", "one-word", "name", "One", "game", "plain", "summary", one));
    catalogue.mod(
        Map.of(
            "mod",
            "range",
            "name",
            "Range",
            "game",
            "plain",
            "releases",
            List.of(Map.of("version", one.substring(0, 9_000), "file", Map.of()))));
    catalogue.write(2, key, "");
    add();
    assertThat(found("search=flood")).containsExactly("flood");
    assertThat(found("search=" + one.substring(0, 5_000))).containsExactly("one-word");
    assertThat(only().path("mistakes")).hasSize(1);
    assertThat(only().path("mods").asInt()).isEqualTo(24);
  }

  private static String twice() {
    return "{\"mod\":\"fog\",\"name\":\"Another Fog\",\"game\":\"plain\",\"releases\":[]}";
  }

  @Test
  void a_mod_that_two_parts_name_is_there_when_one_of_them_goes() throws IOException {
    catalogue.line("zz", twice());
    catalogue.write(2, key, "");
    long id = add();
    catalogue.line(
        "fog", "{\"mod\":\"tern\",\"name\":\"Tern\",\"game\":\"plain\",\"releases\":[]}");
    catalogue.write(3, key, "");
    api.job(base + "/" + id + "/look", null).result();
    assertThat(found("search=fog")).containsExactly("fog");
    assertThat(found("search=tern")).containsExactly("tern");
  }

  @Test
  void addresses_are_checked_and_catalogues_can_be_ordered_and_forgotten() throws IOException {
    for (String no : List.of("http://", "https://user@host/x", "http://a b/"))
      assertThat(api.refusal("POST", base, Map.of("address", no))).isEqualTo("catalogue-address");
    assertThat(api.refusal("POST", base, Map.of("address", "relative/folder")))
        .isEqualTo("folder-wrong");
    long first = add();
    assertThat(api.refusal("POST", base, Map.of("address", server.url() + "/catalogue.json")))
        .isEqualTo("catalogue-known");
    long second = api.job(base, Map.of("address", folder.toString())).result();
    api.send("PUT", base + "/order", Map.of("order", List.of(second, first)), Map.of());
    assertThat(only().path("id").asLong()).isEqualTo(second);
    assertThat(api.refusal("PUT", base + "/order", Map.of("order", List.of(second, second))))
        .isEqualTo("catalogue-order");
    assertThat(found("search=rope")).as("offered by two").containsExactly("rope");
    api.send("PUT", base + "/" + first + "/daily", Map.of("daily", true), Map.of());
    assertThat(api.get(base).get(1).path("daily").asBoolean()).isTrue();
    api.send("DELETE", base + "/" + second, null, Map.of());
    assertThat(api.get(base)).hasSize(1);
    catalogue.says("games", List.of("other-game"));
    catalogue.write(3, key, "");
    assertThat(lookRefused(first)).isEqualTo("catalogue-other-game");
    catalogue.says("games", "no list");
    catalogue.write(4, key, "");
    assertThat(lookRefused(first)).isEqualTo("catalogue-invalid");
    Files.write(folder.resolve("catalogue.json"), new byte[(16 << 20) + 1]);
    assertThat(lookRefused(first)).isEqualTo("answer-too-long");
  }
}
