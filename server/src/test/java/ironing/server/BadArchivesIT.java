package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Archives that cannot become mods: each is told with its name, why and what to do. */
@ExtendWith(SharedServer.class)
class BadArchivesIT {
  private static final Map<String, String> SOUND =
      Map.of("tide.txt", "high water ".repeat(400), "maps/east.map", "east");
  @TempDir Path temp;
  private Api api;
  private long workspace;
  private String base;
  private Path library;

  @BeforeEach
  void makeAWorkspace(Api api, TestServer server) throws IOException {
    this.api = api;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
    library = server.library(workspace);
  }

  static Stream<Arguments> bad() {
    byte[] zip = Archives.zip(SOUND);
    byte[] sevenZ = Archives.sevenZ(SOUND, null);
    byte[] tarGz = Archives.tarGz(SOUND);
    return Stream.of(
        Arguments.of("cut.zip", half(zip), "archive-unreadable", "Download it again"),
        Arguments.of("cut.7z", half(sevenZ), "archive-unreadable", "Download it again"),
        Arguments.of("cut.tar.gz", half(tarGz), "archive-unreadable", "Download it again"),
        Arguments.of(
            "letter.zip",
            "Dear reader".getBytes(StandardCharsets.UTF_8),
            "archive-unreadable",
            "Zip, 7z"),
        Arguments.of(
            "locked.7z",
            Archives.sevenZ(SOUND, "word"),
            "archive-encrypted",
            "pack it again without one"),
        Arguments.of(
            "locked.zip", markedEncrypted(zip), "archive-encrypted", "pack it again without one"),
        Arguments.of("out.zip", with("../../evil.txt"), "archive-entry-refused", "../../evil.txt"),
        Arguments.of("root.zip", with("/etc/evil.txt"), "archive-entry-refused", "/etc/evil.txt"),
        Arguments.of("drive.zip", with("C:\\Windows\\evil.txt"), "archive-entry-refused", "C:"),
        Arguments.of(
            "link.zip",
            Archives.zipWithLink("away", "../../../../etc/passwd"),
            "archive-entry-refused",
            "away"),
        Arguments.of(
            "other.zip",
            Archives.zip(Map.of("readme.rtf", "not for this game")),
            "nothing-for-the-game",
            "Plain Sailing"));
  }

  private static byte[] half(byte[] bytes) {
    return Arrays.copyOf(bytes, bytes.length / 2);
  }

  private static byte[] with(String entry) {
    Map<String, String> files = new LinkedHashMap<>(SOUND);
    files.put(entry, "evil");
    return Archives.zip(files);
  }

  // APPNOTE.TXT 4.4.4: bit 0 of the general purpose flags says that an entry is encrypted
  private static byte[] markedEncrypted(byte[] zip) {
    byte[] marked = zip.clone();
    for (int i = 0; i + 10 < marked.length; i++) {
      if (marked[i] != 'P' || marked[i + 1] != 'K') continue;
      if (marked[i + 2] == 3 && marked[i + 3] == 4) marked[i + 6] |= 1;
      if (marked[i + 2] == 1 && marked[i + 3] == 2) marked[i + 8] |= 1;
    }
    return marked;
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("bad")
  void it_is_refused_and_nothing_of_it_stays(String name, byte[] bytes, String code, String says)
      throws IOException {
    List<Path> before = allFiles(temp);
    JsonNode problem = api.install(workspace, name, bytes).problem();
    assertThat(problem.path("code").asText()).isEqualTo(code);
    assertThat(problem.toString()).contains(says).contains(name);
    assertThat(problem.path("reason").asText()).isNotBlank();
    assertThat(problem.path("remedy").asText()).isNotBlank();
    JsonNode view = api.get(base + "/library");
    assertThat(view.path("mods")).isEmpty();
    JsonNode waiting = api.get(base + "/inbox").path("waiting");
    assertThat(waiting).hasSize(1);
    assertThat(waiting.get(0).path("name").asText()).isEqualTo(name);
    // one that was read, and has nothing for the game, waits for its user to decide
    if (code.startsWith("archive-")) assertThat(allFiles(library.resolve("staged"))).isEmpty();
    assertThat(allFiles(library.resolve("mods"))).isEmpty();
    assertThat(allFiles(library.resolve("incoming"))).isEmpty();
    assertThat(allFiles(temp)).as("nothing outside the library").isEqualTo(before);
    assertThat(api.get(base + "/layers").path("layers")).isEmpty();
  }

  @Test
  void one_without_any_bytes_or_name_is_refused_at_once() {
    Api.Answer empty = api.ask("POST", base + "/archives?name=empty.zip", new byte[0], Map.of());
    assertThat(empty.status()).isEqualTo(422);
    assertThat(empty.body().path("title").asText()).isEqualTo("empty.zip");
    Api.Answer nameless =
        api.ask("POST", base + "/archives?name=..%2F", Archives.zip(SOUND), Map.of());
    assertThat(nameless.status()).isEqualTo(422);
    assertThat(api.get(base + "/archives")).isEmpty();
  }

  @Test
  void a_name_with_folders_in_it_keeps_only_its_last_part() {
    api.install(workspace, "../../up/Tide Tables 2.zip", Archives.zip(SOUND)).result();
    assertThat(api.get(base + "/archives").get(0).path("name").asText())
        .isEqualTo("Tide Tables 2.zip");
  }

  @Test
  void one_that_holds_several_mods_asks_which_and_then_takes_it() {
    byte[] two =
        Archives.zip(
            Map.of(
                "A/mod-card.yaml",
                card("a"),
                "A/tide.txt",
                "a",
                "B/mod-card.yaml",
                card("b"),
                "B/tide.txt",
                "b"));
    long archive = api.bringIn(workspace, "two.zip", two);
    Api.Answer asked = api.job(base + "/mods", Map.of("archive", archive));
    assertThat(asked.body().path("problems").findValuesAsText("code")).containsOnly("several-mods");
    assertThat(asked.body().path("problems").findValuesAsText("thing"))
        .containsExactlyInAnyOrder("A", "B");
    Api.Answer outside =
        api.ask("POST", base + "/mods", Map.of("archive", archive, "root", "../x"), Map.of());
    assertThat(outside.status()).isEqualTo(422);
    long mod = api.job(base + "/mods", Map.of("archive", archive, "root", "B")).result();
    JsonNode detail = api.get(base + "/mods/" + mod);
    assertThat(detail.path("contentRoot").asText()).isEqualTo("B");
    assertThat(detail.path("files").findValuesAsText("path")).containsExactly("add-ons/tide.txt");
  }

  private static String card(String id) {
    return "format: ironing/mod@1\nid: " + id + "\nname: Mod " + id + "\nversion: 1.0.0\n";
  }

  @Test
  void a_plugin_that_does_not_decode_is_kept_and_named_and_the_rest_goes_on() {
    DemoWorld world = DemoWorld.in(temp.resolve("demo"));
    long skerry = api.workspace(world.game());
    byte[] zip = Archives.zip(Map.of("Broken.plug", "not a plugin", "tables/new.csv", "id\n1\n"));
    api.install(skerry, "broken-1.0.zip", zip).result();
    JsonNode order = api.get("/api/workspaces/" + skerry + "/load-order");
    JsonNode trouble = order.path("troubles").get(0);
    assertThat(trouble.path("code").asText()).isEqualTo("UNDECODABLE");
    assertThat(trouble.path("plugin").asText()).isEqualTo("Broken.plug");
    assertThat(trouble.path("stops").asBoolean()).isTrue();
    assertThat(trouble.path("remedy").asText()).isNotBlank();
    JsonNode plugin = order.path("plugins").get(order.path("plugins").size() - 1);
    assertThat(plugin.path("flaw").asText()).isNotBlank();
    // the records of the sound plugins are read all the same
    assertThat(api.get("/api/workspaces/" + skerry + "/records").path("records").asInt())
        .isPositive();
  }

  private static List<Path> allFiles(Path folder) throws IOException {
    if (!Files.exists(folder)) return List.of();
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(Files::isRegularFile).sorted().toList();
    }
  }
}
