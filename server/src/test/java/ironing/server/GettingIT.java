package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.OfferedMods;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import ironing.standins.catalogue.CatalogueFolder;
import ironing.standins.catalogue.CatalogueServer;
import ironing.standins.catalogue.Fault;
import ironing.standins.catalogue.Fault.Kind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** What a choice brings with it, and getting it: fetched, installed, on, one step. */
@ExtendWith(SharedServer.class)
class GettingIT {
  @TempDir Path temp;
  private Api api;
  private long workspace;
  private String base;
  private Path folder;
  private CatalogueFolder catalogue;
  private OfferedMods mods;
  private CatalogueServer server;

  @BeforeEach
  void serve(Api api) throws IOException {
    this.api = api;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
    folder = Files.createDirectories(temp.resolve("catalogue"));
    catalogue = new CatalogueFolder(folder, "board", "Harbour Board", "plain");
    mods = new OfferedMods(catalogue);
    server = new CatalogueServer(folder, 0);
  }

  @AfterEach
  void end() {
    server.close();
  }

  private void offer(long sequence) throws IOException {
    catalogue.write(sequence);
    if (sequence == 1) api.job(base + "/catalogues", Map.of("address", server.url())).result();
    else
      api.job(
          base
              + "/catalogues/"
              + api.get(base + "/catalogues").get(0).path("id").asLong()
              + "/look",
          null);
  }

  private static Map<String, Object> wish(String... wishes) {
    List<Map<String, Object>> all = new ArrayList<>();
    for (String w : wishes) all.add(Map.of("mod", w));
    return Map.of("wishes", all);
  }

  private JsonNode brings(Object choice) {
    return api.send("POST", base + "/choice", choice, Map.of()).body();
  }

  private Api.Answer get(Object choice) {
    return api.job(
        base + "/choice/get",
        Map.of("choice", choice, "mark", brings(choice).path("mark").asText()));
  }

  private List<String> members(JsonNode brought) {
    List<String> out = new ArrayList<>();
    brought
        .path("members")
        .forEach(
            m ->
                out.add(
                    m.path("mod").asText()
                        + " "
                        + m.path("version").asText()
                        + " "
                        + m.path("becomes").asText()));
    return out;
  }

  /** The layers from the lowest, those that are off in brackets. */
  private List<String> layers() {
    List<String> out = new ArrayList<>();
    api.get(base + "/layers")
        .path("layers")
        .forEach(
            l -> {
              if (l.path("mod").asLong() == 0) return;
              String name = l.path("name").asText() + " " + l.path("version").asText();
              out.add(l.path("on").asBoolean() ? name : "(" + name + ")");
            });
    return out;
  }

  private void install(String mod, String version, boolean on, String... needs) {
    long id =
        api.install(workspace, mod + ".zip", OfferedMods.archive(mod, version, needs)).result();
    if (!on) api.change("POST", base + "/layers/switch", Map.of("mods", List.of(id), "on", false));
  }

  @Test
  void two_needs_of_which_one_is_off_and_one_too_old() throws IOException {
    install("off", "1.0", false);
    install("old", "1.1", true);
    mods.release("fog", "1.0", "off", "old >=1.2").release("old", "1.2");
    offer(1);
    JsonNode brought = brings(wish("fog"));
    assertThat(members(brought))
        .containsExactly("fog 1.0 FETCHED", "off 1.0 SWITCHED_ON", "old 1.2 CHANGED");
    assertThat(brought.path("members").get(2).path("from").asText()).isEqualTo("1.1");
    assertThat(brought.path("members").get(1).path("path")).hasSize(2);
    get(wish("fog")).result();
    assertThat(layers()).containsExactlyInAnyOrder("Off 1.0", "Old 1.2", "Fog 1.0");
    assertThat(api.get(base + "/wrinkles").findValuesAsText("code")).doesNotContain("need-unmet");
    assertThat(api.get(base + "/downloads").findValuesAsText("state")).containsOnly("DONE");
    api.change("POST", base + "/undo", null);
    assertThat(layers())
        .as("one step back")
        .containsExactlyInAnyOrder("(Off 1.0)", "Old 1.1", "(Fog 1.0)");
    assertThat(members(brings(wish("fog"))))
        .containsExactly("fog 1.0 SWITCHED_ON", "off 1.0 SWITCHED_ON", "old 1.2 CHANGED");
    get(wish("fog")).result();
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"))))
        .isEqualTo("choice-done");
  }

  @Test
  void a_contradiction_and_its_way_out() throws IOException {
    mods.release("fog", "1.0", "rope >=2").release("ledger", "1.0", "rope <2");
    mods.release("rope", "1.0").release("rope", "2.0");
    offer(1);
    JsonNode none = brings(wish("fog", "ledger"));
    assertThat(none.path("answer").asText()).isEqualTo("NONE");
    assertThat(none.path("together").findValuesAsText("text"))
        .containsExactly(
            "You want Fog", "You want Ledger", "Fog needs Rope >=2", "Ledger needs Rope <2");
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog", "ledger"))))
        .isEqualTo("choice-impossible");
    JsonNode way = none.path("waysOut").get(3);
    assertThat(way.get(0).path("text").asText()).isEqualTo("Ledger needs Rope <2");
    Map<String, Object> choice =
        Map.of("wishes", List.of(Map.of("mod", "fog"), Map.of("mod", "ledger")), "givenUp", way);
    get(choice).result();
    assertThat(layers()).containsExactlyInAnyOrder("Fog 1.0", "Ledger 1.0", "Rope 2.0");
  }

  @Test
  void what_is_missing_is_filled_in_and_nothing_goes_off() throws IOException {
    install("fog", "1.0", true, "rope >=1", "nowhere");
    mods.release("rope", "1.0");
    offer(1);
    JsonNode brought = brings(Map.of("wishes", List.of(), "missing", true));
    assertThat(brought.path("unmet").findValuesAsText("text")).containsExactly("Fog needs nowhere");
    get(Map.of("wishes", List.of(), "missing", true)).result();
    assertThat(layers()).containsExactlyInAnyOrder("Fog 1.0", "Rope 1.0");
  }

  @Test
  void odd_choices_are_answered_or_refused() {
    String odd = "\n\"'\\\u00e9\ud83d\ude00".repeat(20);
    assertThat(brings(wish(odd)).path("answer").asText()).isEqualTo("NONE");
    assertThat(brings(wish("")).path("answer").asText()).isEqualTo("NONE");
    assertThat(brings(wish("a", "a", "a")).path("together")).hasSize(1);
    assertThat(brings(wish()).path("answer").asText()).isEqualTo("FOUND");
    Map<String, String> statement =
        Map.of("kind", "NEED", "owner", odd, "target", odd, "versions", odd);
    assertThat(
            brings(Map.of("wishes", List.of(), "missing", true, "givenUp", List.of(statement)))
                .path("answer")
                .asText())
        .isEqualTo("FOUND");
  }

  @Test
  void a_release_that_is_wished_for_by_its_key_is_got_and_is_then_the_one_that_is_here()
      throws IOException {
    mods.release("fog", "1.0").release("fog", "2.0").release("fog", "3.0", "nowhere");
    offer(1);
    JsonNode releases = api.get(base + "/catalogues/mods/fog").get(0);
    Map<String, Object> choice =
        Map.of("wishes", List.of(Map.of("mod", "fog", "release", key(releases, "1.0"))));
    get(choice).result();
    assertThat(layers()).containsExactly("Fog 1.0");
    assertThat(members(brings(choice))).containsExactly("fog 1.0 STAYS");
    String third = key(releases, "3.0");
    JsonNode none = brings(Map.of("wishes", List.of(Map.of("mod", "fog", "release", third))));
    assertThat(none.path("together").get(0).path("versions").asText())
        .as("a wish is told by the key that it was made by")
        .isEqualTo(third);
  }

  private static String key(JsonNode offered, String version) {
    for (JsonNode r : offered.path("releases"))
      if (r.path("version").asText().equals(version))
        return offered.path("catalogue").asText() + ":" + r.path("sha256").asText();
    throw new AssertionError(version + " is not offered");
  }

  @Test
  void another_answer_than_was_shown_is_refused() throws IOException {
    mods.release("fog", "1.0");
    offer(1);
    String mark = brings(wish("fog")).path("mark").asText();
    mods.release("fog", "1.1");
    offer(2);
    assertThat(
            api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"), "mark", mark)))
        .isEqualTo("choice-changed");
  }

  /** A mod that is one file, which need be no archive. */
  private void offerBig(byte[] bytes) throws IOException {
    catalogue.mod(
        Map.of(
            "mod",
            "big",
            "name",
            "Big",
            "game",
            "plain",
            "releases",
            List.of(Map.of("version", "1", "file", catalogue.file("big.zip", bytes)))));
    offer(1);
  }

  @Test
  void a_download_that_breaks_goes_on_where_it_was() throws IOException {
    byte[] large = new byte[300_000];
    new java.util.Random(1).nextBytes(large);
    offerBig(large);
    server.fail("/files/big.zip", new Fault(Kind.CUT, 100_000, "", 2));
    // it is no archive: it comes whole all the same, and is refused as one
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("big"))))
        .isEqualTo("archive-unreadable");
    List<String> asked = server.asked().stream().filter(a -> a.contains("big")).toList();
    assertThat(asked).hasSize(3);
    assertThat(asked.get(1)).matches("GET /files/big.zip bytes=\\d+-").doesNotContain("bytes=0-");
    assertThat(api.get(base + "/downloads").get(0).path("state").asText()).isEqualTo("DONE");
  }

  @Test
  void a_file_that_changes_between_ranges_is_begun_anew() throws IOException {
    mods.release("fog", "1.0");
    offer(1);
    Path file = folder.resolve("files/fog-1.0.zip");
    server.fail("/files/fog-1.0.zip", new Fault(Kind.CUT, 100, "", 1));
    byte[] bytes = Files.readAllBytes(file);
    server.fail("/files/fog-1.0.zip", new Fault(Kind.CUT, 100, "", 1));
    Files.setLastModifiedTime(file, java.nio.file.attribute.FileTime.fromMillis(1_000));
    get(wish("fog")).result();
    assertThat(Files.readAllBytes(file)).isEqualTo(bytes);
    assertThat(layers()).containsExactly("Fog 1.0");
  }

  @Test
  void what_is_not_as_announced_is_thrown_away() throws IOException {
    mods.release("fog", "1.0");
    offer(1);
    server.fail("/files/fog-1.0.zip", new Fault(Kind.ALTERED, 5, "", 0));
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"))))
        .isEqualTo("digest-other");
    JsonNode failed = api.get(base + "/downloads").get(0);
    long id = failed.path("id").asLong();
    assertThat(failed.path("state").asText()).isEqualTo("FAILED");
    assertThat(failed.path("received").asLong()).isZero();
    assertThat(layers()).isEmpty();
    server.fail("/files/fog-1.0.zip", new Fault(Kind.ENDLESS, 10_000, "", 0));
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"))))
        .isEqualTo("size-other");
    assertThat(api.get(base + "/downloads")).as("what had failed has gone").hasSize(1);
    assertThat(api.refusal("POST", base + "/downloads/" + id + "/resume", null))
        .isEqualTo("not-found");
    server.fail("/files/fog-1.0.zip", new Fault(Kind.STATUS, 404, "", 0));
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"))))
        .isEqualTo("download-refused");
    server.fail("/files/fog-1.0.zip", new Fault(Kind.STATUS, 429, "3600", 0));
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("fog"))))
        .isEqualTo("download-rests");
    server.mend("/files/fog-1.0.zip");
    get(wish("fog")).result();
    assertThat(layers()).containsExactly("Fog 1.0");
  }

  @Test
  void what_lies_in_the_bin_is_fetched_and_is_there_again() throws IOException {
    mods.release("fog", "1.0");
    offer(1);
    get(wish("fog")).result();
    long mod = api.get(base + "/library").path("mods").get(0).path("id").asLong();
    api.send(
        "POST",
        base + "/library/remove",
        Map.of("mods", List.of(mod), "withArchive", true),
        Map.of());
    assertThat(layers()).isEmpty();
    get(wish("fog")).result();
    assertThat(layers()).containsExactly("Fog 1.0");
  }

  @Test
  void a_download_is_paused_taken_up_again_and_taken_out() throws IOException {
    offerBig(new byte[400_000]);
    server.fail("/files/big.zip", new Fault(Kind.SLOW, 100, "", 1));
    String job =
        api.send("POST", base + "/choice/get", Map.of("choice", wish("big")), Map.of())
            .header("Location");
    Patience.until(() -> api.get(base + "/downloads").path(0).path("received").asLong() > 0);
    long id = api.get(base + "/downloads").get(0).path("id").asLong();
    api.send("POST", base + "/downloads/" + id + "/pause", null, Map.of());
    assertThat(api.get(base + "/downloads").get(0).path("state").asText()).isEqualTo("PAUSED");
    assertThat(api.refusal("POST", base + "/downloads/" + id + "/pause", null))
        .isEqualTo("download-ended");
    assertThat(api.refusal("PUT", base + "/downloads/order", Map.of("order", List.of())))
        .isEqualTo("download-order");
    api.send("PUT", base + "/downloads/order", Map.of("order", List.of(id)), Map.of());
    api.send("POST", base + "/downloads/" + id + "/resume", null, Map.of());
    Patience.until(() -> api.get(base + "/downloads").get(0).path("state").asText().equals("DONE"));
    api.send("DELETE", base + "/downloads/" + id, null, Map.of());
    assertThat(api.get(base + "/downloads")).isEmpty();
    Patience.until(() -> !api.get(job).path("state").asText().equals("RUNNING"));
  }

  @Test
  void downloads_keep_to_a_limit_of_speed() throws IOException {
    byte[] large = new byte[60_000];
    new java.util.Random(2).nextBytes(large);
    offerBig(large);
    String limit = base + "/downloads/limit";
    assertThat(api.get(limit).has("bytesASecond")).isFalse();
    assertThat(api.refusal("PUT", limit, Map.of("bytesASecond", 100))).isEqualTo("speed-limit");
    api.send("PUT", limit, Map.of("bytesASecond", 20_000), Map.of());
    assertThat(api.get(limit).path("bytesASecond").asInt()).isEqualTo(20_000);
    long began = System.nanoTime();
    api.refusal("POST", base + "/choice/get", Map.of("choice", wish("big")));
    assertThat(Duration.ofNanos(System.nanoTime() - began)).isGreaterThan(Duration.ofSeconds(2));
    assertThat(api.send("PUT", limit, Map.of(), Map.of()).body().has("bytesASecond")).isFalse();
  }

  @Test
  void what_needs_a_decision_waits_in_the_inbox_and_a_card_that_says_another_thing_is_told()
      throws IOException {
    byte[] several =
        Games.mod(
            Map.of(
                "one/a.txt",
                "1",
                "one/mod-card.yaml",
                card("one"),
                "two/b.txt",
                "2",
                "two/mod-card.yaml",
                card("two")));
    catalogue.mod(
        Map.of(
            "mod",
            "several",
            "name",
            "Several",
            "game",
            "plain",
            "releases",
            List.of(Map.of("version", "1", "file", catalogue.file("s.zip", several)))));
    catalogue.mod(
        Map.of(
            "mod",
            "other",
            "name",
            "Other",
            "game",
            "plain",
            "releases",
            List.of(
                Map.of(
                    "version",
                    "1",
                    "file",
                    catalogue.file("o.zip", OfferedMods.archive("tern", "3"))))));
    offer(1);
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("several"))))
        .isEqualTo("choice-waits");
    assertThat(api.get(base + "/inbox").path("waiting")).hasSize(1);
    assertThat(api.refusal("POST", base + "/choice/get", Map.of("choice", wish("other"))))
        .isEqualTo("card-other");
    assertThat(layers()).containsExactly("(Tern 3)");
  }

  private static String card(String id) {
    return "format: ironing/mod@1\nid: " + id + "\nname: " + id + "\nversion: 1\n";
  }

  @Test
  void a_bridge_that_has_lost_a_side_is_a_wrinkle() {
    String card = card("span") + "for: [ { mod: fog } ]\n";
    api.install(workspace, "span.zip", Games.mod(Map.of("mod-card.yaml", card, "s.txt", "s")))
        .result();
    assertThat(api.get(base + "/wrinkles").findValuesAsText("code"))
        .contains("bridge-without-side");
    install("fog", "1.0", true);
    assertThat(api.get(base + "/wrinkles").findValuesAsText("code"))
        .doesNotContain("bridge-without-side");
  }

  @Test
  void a_release_is_wished_for_by_its_key_and_a_variant_by_its_name() throws IOException {
    mods.release("hull", "1.0", Map.of("variant", "small"))
        .release("hull", "1.1", Map.of("variant", "large"));
    mods.release("fog", "1.0").release("fog", "2.0");
    offer(1);
    JsonNode asked = brings(wish("hull"));
    assertThat(asked.path("answer").asText()).isEqualTo("WHICH_VARIANT");
    assertThat(asked.path("variants").toString()).isEqualTo("[\"large\",\"small\"]");
    assertThat(
            members(brings(Map.of("wishes", List.of(Map.of("mod", "hull", "variant", "small"))))))
        .containsExactly("hull 1.0 FETCHED");
    String newest = brings(wish("fog")).path("members").get(0).path("release").asText();
    String old =
        newest.substring(0, newest.indexOf(':') + 1)
            + api.get(base + "/catalogues/mods/fog")
                .get(0)
                .path("releases")
                .get(1)
                .path("sha256")
                .asText();
    assertThat(members(brings(Map.of("wishes", List.of(Map.of("mod", "fog", "release", old))))))
        .containsExactly("fog 1.0 FETCHED");
  }
}
