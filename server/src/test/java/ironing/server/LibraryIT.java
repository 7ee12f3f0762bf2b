package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.ContentHash;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** What becomes of a mod in the library, from what is chosen of it to the bin. */
@ExtendWith(SharedServer.class)
class LibraryIT {
  @TempDir Path temp;
  private Api api;
  private TestServer server;
  private long workspace;
  private String base;

  @BeforeEach
  void makeAWorkspace(Api api, TestServer server) {
    this.api = api;
    this.server = server;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
  }

  private static String card(String id, String version) {
    return "format: ironing/mod@1\nid: "
        + id
        + "\nname: Mod "
        + id
        + "\nversion: "
        + version
        + "\n";
  }

  private static Map<String, String> files(String... pathsAndTexts) {
    Map<String, String> files = new LinkedHashMap<>();
    for (int i = 0; i < pathsAndTexts.length; i += 2)
      files.put(pathsAndTexts[i], pathsAndTexts[i + 1]);
    return files;
  }

  private long install(String name, Map<String, String> files) {
    return api.install(workspace, name, Archives.zip(files)).result();
  }

  private JsonNode mod(long mod) {
    return api.get(base + "/mods/" + mod);
  }

  private List<String> paths(long mod) {
    return mod(mod).path("files").findValuesAsText("path");
  }

  private Path content(String path) throws IOException {
    try (Stream<Path> all = Files.walk(server.library(workspace).resolve("mods"))) {
      return all.filter(p -> p.endsWith("content/" + path)).findFirst().orElseThrow();
    }
  }

  // ---- what of it is installed

  @Test
  void the_user_says_what_the_game_gets_and_papers_stay_readable() {
    long archive =
        api.bringIn(
            workspace,
            "Wide Mod-1.2.zip",
            Archives.zip(
                files(
                    "Wide/tide.txt", "t",
                    "Wide/maps/east.map", "e",
                    "Wide/maps/old/west.map", "w",
                    "Wide/README.md", "# Read *me*",
                    "Wide/extra/notes.bin", "n")));
    Map<String, Object> part =
        Map.of(
            "leaveOut", List.of("Wide/maps/old/"),
            "sendTo", Map.of("Wide/extra/", "addons"));
    JsonNode seen =
        api.send("POST", base + "/archives/" + archive + "/intake", part, Map.of()).body();
    assertThat(seen.path("rootReason").asText()).contains("highest folder");
    assertThat(seen.path("gets").findValuesAsText("path"))
        .containsExactlyInAnyOrder(
            "add-ons/tide.txt", "add-ons/maps/east.map", "add-ons/notes.bin");
    assertThat(seen.path("staysOut").findValuesAsText("entry"))
        .containsExactlyInAnyOrder("Wide/maps/old/west.map", "Wide/README.md");
    // the game itself has a tide
    assertThat(seen.path("collisions").get(0).path("mod").asLong()).isZero();
    Map<String, Object> request = Map.of("archive", archive, "parts", List.of(part));
    long mod = api.job(base + "/mods", request).result();
    assertThat(paths(mod)).hasSize(3);
    JsonNode papers = api.get(base + "/mods/" + mod + "/papers");
    assertThat(papers.get(0).path("path").asText()).isEqualTo("Wide/README.md");
    assertThat(papers.get(0).path("markdown").asBoolean()).isTrue();
    assertThat(api.get(base + "/mods/" + mod + "/text?path=Wide/README.md").path("text").asText())
        .isEqualTo("# Read *me*");
    assertThat(mod(mod).path("files").findValuesAsText("entry")).contains("Wide/extra/notes.bin");
  }

  @Test
  void two_mods_in_one_archive_are_installed_side_by_side() {
    long archive =
        api.bringIn(
            workspace, "two.zip", Archives.zip(files("A/tide.txt", "a", "B/maps/b.map", "b")));
    JsonNode seen =
        api.send("POST", base + "/archives/" + archive + "/intake", Map.of(), Map.of()).body();
    assertThat(seen.path("state").asText()).isEqualTo("SEVERAL");
    List<Map<String, Object>> parts =
        List.of(Map.of("root", "A", "name", "First"), Map.of("root", "B", "name", "Second"));
    api.job(base + "/mods", Map.of("archive", archive, "parts", parts)).result();
    JsonNode library = api.get(base + "/library").path("mods");
    assertThat(library.findValuesAsText("name")).containsExactly("First", "Second");
    assertThat(api.get(base + "/inbox").path("waiting")).isEmpty();
  }

  private static final String FITTING =
      """
      format: ironing/fitting@1
      in-every-case: [ { from: core/, to: "" } ]
      questions:
        - id: size
          ask: How large?
          take: { min: 1, max: 1 }
          answers:
            - { id: large, say: Large, image: pics/l.png, files: [ { from: large/, to: maps/ } ] }
            - { id: small, say: Small, offer: { mod: thrift }, files: [ { from: small/, to: maps/ } ] }
        - id: patch
          ask: A patch?
          answers:
            - { id: fog, say: For fog, offer: { mod: fog }, files: [ { from: fog.txt, to: "" } ] }
      """;

  private long fitted() {
    return api.bringIn(
        workspace,
        "Fit.zip",
        Archives.zip(
            files(
                "mod-card.yaml", card("fit", "1.0"),
                "fitting.yaml", FITTING,
                "core/core.txt", "c",
                "large/m.map", "L",
                "small/m.map", "S",
                "pics/l.png", "png",
                "fog.txt", "f")));
  }

  @Test
  void a_fitting_is_asked_and_says_later_when_another_would_fit_better() {
    long archive = fitted();
    JsonNode seen =
        api.send("POST", base + "/archives/" + archive + "/intake", Map.of(), Map.of()).body();
    JsonNode size = seen.path("questions").get(0);
    assertThat(size.path("answers").get(0).path("taken").asBoolean()).isTrue();
    assertThat(size.path("answers").get(0).path("image").asText()).isEqualTo("pics/l.png");
    assertThat(size.path("answers").get(1).path("why").asText()).contains("thrift");
    Api.Answer none =
        api.job(
            base + "/mods",
            Map.of(
                "archive",
                archive,
                "parts",
                List.of(Map.of("answers", Map.of("size", List.of())))));
    assertThat(none.problem().path("code").asText()).isEqualTo("answers-amiss");
    long mod = api.job(base + "/mods", Map.of("archive", archive)).result();
    assertThat(paths(mod)).containsExactly("add-ons/core.txt", "add-ons/maps/m.map");
    assertThat(mod(mod).has("better")).isFalse();

    install("fog.zip", files("mod-card.yaml", card("fog", "1"), "fog2.txt", "x"));
    JsonNode better = mod(mod).path("better");
    assertThat(better.path("added").get(0).asText()).isEqualTo("add-ons/fog.txt");
    assertThat(better.path("because").get(0).asText()).contains("fog");
    assertThat(api.get(base).path("wrinkles").findValuesAsText("code")).contains("better-fitting");

    Map<String, Object> again =
        Map.of("instead", mod, "answers", Api.JSON.convertValue(better.path("answers"), Map.class));
    long refitted =
        api.job(base + "/mods", Map.of("archive", archive, "parts", List.of(again))).result();
    assertThat(paths(refitted)).contains("add-ons/fog.txt");
    assertThat(mod(refitted).has("better")).isFalse();
    assertThat(mod(refitted).path("versions")).hasSize(2);
    api.change("POST", base + "/undo", Map.of());
    assertThat(mod(mod).path("inUse").asBoolean()).isTrue();
  }

  @Test
  void a_card_that_cannot_be_read_is_named_and_the_mod_can_be_taken_as_it_is() {
    long archive =
        api.bringIn(
            workspace,
            "Odd Thing 3.1.zip",
            Archives.zip(files("mod-card.yaml", "id: [\n", "tide.txt", "t")));
    Api.Answer refused = api.job(base + "/mods", Map.of("archive", archive));
    assertThat(refused.problem().path("thing").asText()).contains("mod-card.yaml, line");
    Map<String, Object> plain = Map.of("archive", archive, "parts", List.of(Map.of("plain", true)));
    long mod = api.job(base + "/mods", plain).result();
    assertThat(mod(mod).path("name").asText()).isEqualTo("Odd Thing");
  }

  // ---- the inbox

  @Test
  void one_click_installs_what_needs_no_decision_and_the_rest_waits() throws Exception {
    api.bringIn(workspace, "plain-1.zip", Archives.zip(files("tide.txt", "1")));
    api.bringIn(workspace, "two.zip", Archives.zip(files("A/tide.txt", "a", "B/tide.txt", "b")));
    api.bringIn(workspace, "letter.zip", "no archive".getBytes(StandardCharsets.UTF_8));
    fitted();
    JsonNode waiting = looked(4);
    assertThat(waiting.findValuesAsText("decision"))
        .containsExactly("NONE", "SEVERAL", "REFUSED", "QUESTIONS");
    assertThat(api.job(base + "/inbox/install-ready", Map.of()).body().path("state").asText())
        .isEqualTo("DONE");
    assertThat(api.get(base + "/library").path("mods").findValuesAsText("name"))
        .containsExactly("plain");
    assertThat(api.get(base + "/inbox").path("waiting")).hasSize(3);
    long letter = waiting.get(2).path("id").asLong();
    api.send("DELETE", base + "/archives/" + letter, null, Map.of());
    assertThat(api.get(base + "/inbox").path("waiting")).hasSize(2);
    assertThat(api.get(base + "/bin").path("archives").findValuesAsText("name"))
        .containsExactly("letter.zip");
  }

  private JsonNode looked(int count) {
    return Patience.until(
        () -> api.get(base + "/inbox").path("waiting"),
        w -> w.size() == count && w.findValues("look").size() == count);
  }

  @Test
  void of_two_versions_that_wait_one_is_installed_and_the_other_asks() throws Exception {
    api.bringIn(
        workspace,
        "a-1.zip",
        Archives.zip(files("mod-card.yaml", card("a", "1.0"), "tide.txt", "1")));
    api.bringIn(
        workspace,
        "a-2.zip",
        Archives.zip(files("mod-card.yaml", card("a", "2.0"), "tide.txt", "2")));
    assertThat(looked(2).findValuesAsText("decision")).containsExactly("NONE", "NONE");
    api.job(base + "/inbox/install-ready", Map.of());
    assertThat(names()).containsExactly("Mod a");
    JsonNode waiting = api.get(base + "/inbox").path("waiting");
    assertThat(waiting.findValuesAsText("decision")).containsExactly("VERSION");
    long mod = waiting.get(0).path("look").path("here").asLong();
    api.send("DELETE", base + "/mods/" + mod, null, Map.of());
    assertThat(api.get(base + "/inbox").path("waiting").findValuesAsText("decision"))
        .as("its other version has gone, its archive has stayed")
        .containsExactly("NONE", "NONE");
  }

  @Test
  void another_version_is_a_decision_of_its_own() throws Exception {
    long old = install("a-1.zip", files("mod-card.yaml", card("a", "1.0"), "tide.txt", "1"));
    api.bringIn(
        workspace,
        "a-2.zip",
        Archives.zip(files("mod-card.yaml", card("a", "2.0"), "tide.txt", "2")));
    JsonNode look = looked(1).get(0).path("look");
    assertThat(look.path("decision").asText()).isEqualTo("VERSION");
    assertThat(look.path("here").asLong()).isEqualTo(old);
  }

  /** tus 1.0.0, core protocol and creation: an upload goes on at the offset that HEAD tells. */
  @Test
  void an_upload_that_broke_off_goes_on_where_it_stopped() {
    byte[] zip = Archives.zip(files("tide.txt", "high water ".repeat(500)));
    Api.Answer made =
        api.ask(
            "POST",
            "/api/uploads",
            new byte[0],
            Map.of("Tus-Resumable", "1.0.0", "Upload-Length", "" + zip.length));
    assertThat(made.status()).isEqualTo(201);
    String address = made.header("Location").replaceFirst("^https?://[^/]+", "");
    int half = zip.length / 2;
    byte[] first = java.util.Arrays.copyOf(zip, half);
    byte[] second = java.util.Arrays.copyOfRange(zip, half, zip.length);
    assertThat(patch(address, first, 0)).isEqualTo(204);
    Map<String, Object> take = Map.of("upload", address, "name", "tide-1.zip");
    Api.Answer early = api.ask("POST", base + "/archives/from-upload", take, Map.of());
    assertThat(early.body().path("code").asText()).isEqualTo("upload-unfinished");
    Api.Answer head = api.ask("HEAD", address, null, Map.of("Tus-Resumable", "1.0.0"));
    assertThat(head.header("Upload-Offset")).isEqualTo("" + half);
    assertThat(patch(address, second, half)).isEqualTo(204);
    JsonNode archive = api.send("POST", base + "/archives/from-upload", take, Map.of()).body();
    assertThat(archive.path("sha256").asText()).isEqualTo(ContentHash.of(zip));
    // the same bytes again are the same archive
    assertThat(api.bringIn(workspace, "other name.zip", zip))
        .isEqualTo(archive.path("id").asLong());
  }

  @Test
  void of_those_that_send_one_piece_at_once_one_succeeds_and_the_others_are_told() {
    byte[] zip = Archives.zip(files("tide.txt", "high water ".repeat(500)));
    Map<String, String> head = Map.of("Tus-Resumable", "1.0.0", "Upload-Length", "" + zip.length);
    for (int round = 0; round < 5; round++) {
      Api.Answer made = api.ask("POST", "/api/uploads", new byte[0], head);
      String address = made.header("Location").replaceFirst("^https?://[^/]+", "");
      List<Integer> answers =
          IntStream.range(0, 6).parallel().mapToObj(i -> patch(address, zip, 0)).sorted().toList();
      assertThat(answers.get(0)).isEqualTo(204);
      assertThat(answers.subList(1, 6)).allMatch(s -> s == 409 || s == 423);
    }
  }

  private int patch(String address, byte[] bytes, int offset) {
    Api.Answer answer =
        api.askAs(
            "PATCH",
            address,
            bytes,
            "application/offset+octet-stream",
            Map.of("Tus-Resumable", "1.0.0", "Upload-Offset", "" + offset));
    return answer.status();
  }

  @Test
  void a_watched_folder_offers_what_arrives_and_keeps_it() throws Exception {
    Path folder = Files.createDirectories(temp.resolve("downloads"));
    Path file = Files.write(folder.resolve("new-1.zip"), Archives.zip(files("tide.txt", "n")));
    Files.setLastModifiedTime(file, java.nio.file.attribute.FileTime.fromMillis(1_000_000));
    Files.writeString(folder.resolve("letter.txt"), "none");
    Api.Answer wrong =
        api.ask("PUT", base + "/inbox/watched", Map.of("folder", "/no/such/place"), Map.of());
    assertThat(wrong.body().path("code").asText()).isEqualTo("folder-wrong");
    JsonNode inbox =
        api.send("PUT", base + "/inbox/watched", Map.of("folder", folder.toString()), Map.of())
            .body();
    assertThat(inbox.path("arrived").findValuesAsText("name")).containsExactly("new-1.zip");
    api.job(base + "/inbox/take-in", Map.of("names", List.of("new-1.zip"))).body();
    assertThat(looked(1).get(0).path("name").asText()).isEqualTo("new-1.zip");
    assertThat(api.get(base + "/inbox").path("arrived")).isEmpty();
    assertThat(file).exists();
  }

  @Test
  void links_are_followed_within_a_folder_and_said_where_they_lead_out_of_it() throws Exception {
    Path elsewhere = Files.createDirectories(temp.resolve("elsewhere"));
    Path folder = Files.createDirectories(temp.resolve("archives"));
    Files.write(elsewhere.resolve("far.zip"), Archives.zip(files("far.txt", "f")));
    Files.write(folder.resolve("near.zip"), Archives.zip(files("near.txt", "n")));
    Files.createDirectory(folder.resolve("kept"));
    Files.write(folder.resolve("kept/inner.zip"), Archives.zip(files("inner.txt", "i")));
    Files.createSymbolicLink(folder.resolve("far.zip"), elsewhere.resolve("far.zip"));
    Files.createSymbolicLink(folder.resolve("inner.zip"), Path.of("kept/inner.zip"));
    Files.createSymbolicLink(folder.resolve("loop.zip"), Path.of("loop.zip"));
    for (String name : List.of("near.zip", "far.zip", "inner.zip"))
      Files.setLastModifiedTime(
          folder.resolve(name), java.nio.file.attribute.FileTime.fromMillis(1_000_000));
    JsonNode inbox =
        api.send("PUT", base + "/inbox/watched", Map.of("folder", folder.toString()), Map.of())
            .body();
    for (JsonNode a : inbox.path("arrived"))
      assertThat(a.path("outside").asBoolean())
          .isEqualTo(a.path("name").asText().equals("far.zip"));
    assertThat(inbox.path("arrived")).hasSize(3);
    assertThat(api.refusal("POST", base + "/inbox/take-in", Map.of("names", List.of("far.zip"))))
        .isEqualTo("leads-outside");
    assertThat(
            api.refusal(
                "POST", base + "/archives/from-folder", Map.of("folder", folder.toString())))
        .isEqualTo("leads-outside");
    assertThat(names()).containsExactly("inner", "near");
  }

  @Test
  void a_plain_folder_is_taken_in_like_an_archive() throws Exception {
    Path folder = temp.resolve("My Mod 0.3");
    Trees.write(folder.resolve("tide.txt"), "x");
    Trees.write(folder.resolve("maps/m.map"), "m");
    api.job(base + "/archives/plain-folder", Map.of("folder", folder.toString())).result();
    api.job(base + "/inbox/install-ready", Map.of());
    JsonNode mod = api.get(base + "/library").path("mods").get(0);
    assertThat(mod.path("name").asText()).isEqualTo("My Mod");
    assertThat(mod.path("version").asText()).isEqualTo("0.3");
  }

  // ---- versions

  @Test
  void another_version_takes_the_place_and_going_back_is_one_step() {
    install("low.zip", files("low.txt", "low"));
    long old =
        install(
            "a-1.zip", files("mod-card.yaml", card("a", "1.0"), "tide.txt", "1", "gone.txt", "g"));
    install("high.zip", files("new.txt", "h"));
    api.change(
        "POST",
        base + "/mods/" + old + "/held-back",
        Map.of("paths", List.of("add-ons/tide.txt"), "hold", true));
    long archive =
        api.bringIn(
            workspace,
            "a-2.zip",
            Archives.zip(
                files("mod-card.yaml", card("a", "2.0"), "tide.txt", "2", "new.txt", "n")));
    Map<String, Object> part = Map.of("instead", old);
    JsonNode replaces =
        api.send("POST", base + "/archives/" + archive + "/intake", part, Map.of())
            .body()
            .path("replaces");
    assertThat(replaces.path("added").path("first").get(0).asText()).isEqualTo("add-ons/new.txt");
    assertThat(replaces.path("gone").path("first").get(0).asText()).isEqualTo("add-ons/gone.txt");
    assertThat(replaces.path("different").path("total").asInt()).isEqualTo(1);
    assertThat(replaces.path("collisionsNew").findValuesAsText("name")).containsExactly("high");
    long fresh =
        api.job(base + "/mods", Map.of("archive", archive, "parts", List.of(part))).result();
    assertThat(names()).containsExactly("low", "Mod a", "high");
    assertThat(mod(fresh).path("heldBack").get(0).asText()).isEqualTo("add-ons/tide.txt");
    api.job(base + "/deploy", Map.of());
    assertThat(temp.resolve("game/add-ons/new.txt")).hasContent("h");
    assertThat(temp.resolve("game/add-ons/gone.txt")).as("nothing lingers").doesNotExist();
    api.change("POST", base + "/undo", Map.of());
    assertThat(mod(old).path("inUse").asBoolean()).isTrue();
    assertThat(mod(fresh).path("inUse").asBoolean()).isFalse();
    assertThat(names()).containsExactly("low", "Mod a", "high");
    JsonNode other = api.get(base + "/mods/" + old + "/compare?with=" + fresh);
    assertThat(other.path("game").path("files").asInt()).isEqualTo(1);
    api.change("POST", base + "/mods/" + fresh + "/use?instead=" + old, Map.of());
    assertThat(mod(fresh).path("inUse").asBoolean()).isTrue();
  }

  private List<String> names() {
    return api.get(base + "/layers").path("layers").findValuesAsText("name");
  }

  // ---- files of a mod

  @Test
  void a_file_or_a_folder_is_held_back_and_let_in_again() {
    long mod = install("a.zip", files("tide.txt", "mine", "maps/a.map", "a", "maps/b.map", "b"));
    String held = base + "/mods/" + mod + "/held-back";
    JsonNode asked =
        api.send(
                "POST",
                held + "?dryRun=true",
                Map.of("paths", List.of("add-ons/maps/"), "hold", true),
                Map.of())
            .body();
    assertThat(asked.path("files").asInt()).isEqualTo(2);
    assertThat(mod(mod).path("heldBack")).isEmpty();
    api.change(
        "POST", held, Map.of("paths", List.of("add-ons/maps/", "add-ons/tide.txt"), "hold", true));
    assertThat(mod(mod).path("journey").path("inPlay").asInt()).isZero();
    api.change("POST", held, Map.of("paths", List.of("add-ons/maps/b.map"), "hold", false));
    assertThat(mod(mod).path("heldBack").toString())
        .isEqualTo("[\"add-ons/maps/a.map\",\"add-ons/tide.txt\"]");
    api.job(base + "/deploy", Map.of());
    assertThat(temp.resolve("game/add-ons/tide.txt")).hasContent("the game’s tide\n");
    assertThat(temp.resolve("game/add-ons/maps/b.map")).hasContent("b");
    assertThat(temp.resolve("game/add-ons/maps/a.map")).doesNotExist();
    api.change("POST", base + "/undo", Map.of());
    assertThat(mod(mod).path("journey").path("inPlay").asInt()).isZero();
  }

  @Test
  void a_text_is_edited_in_its_encoding_and_put_back_as_it_came() throws Exception {
    long mod = install("a.zip", files("tide.txt", "Ebbe und Flut"));
    String sha = mod(mod).path("files").get(0).path("sha256").asText();
    Map<String, String> edit = Map.of("path", "add-ons/tide.txt", "text", "Flut", "sha256", sha);
    api.send("PUT", base + "/mods/" + mod + "/text", edit, Map.of());
    Api.Answer late = api.ask("PUT", base + "/mods/" + mod + "/text", edit, Map.of());
    assertThat(late.status()).isEqualTo(412);
    assertThat(mod(mod).path("files").get(0).path("edited").asBoolean()).isTrue();
    assertThat(content("add-ons/tide.txt")).hasContent("Ebbe und Flut");
    api.job(base + "/deploy", Map.of());
    assertThat(temp.resolve("game/add-ons/tide.txt")).hasContent("Flut");
    assertThat(verify(mod)).isEmpty();
    api.job(base + "/mods/" + mod + "/reinstall", Map.of()).result();
    assertThat(api.get(base + "/mods/" + mod + "/text?path=add-ons/tide.txt").path("text").asText())
        .as("an edit outlives installing again")
        .isEqualTo("Flut");
    api.send(
        "POST", base + "/mods/" + mod + "/restore", Map.of("path", "add-ons/tide.txt"), Map.of());
    assertThat(mod(mod).path("files").get(0).path("sha256").asText()).isEqualTo(sha);
    api.job(base + "/deploy", Map.of());
    assertThat(temp.resolve("game/add-ons/tide.txt")).hasContent("Ebbe und Flut");
  }

  @Test
  void letters_that_the_encoding_of_a_file_does_not_have_are_refused() {
    byte[] latin =
        "gr\u00f6\u00dfere K\u00f6ge, bitte zuerst lesen".getBytes(StandardCharsets.ISO_8859_1);
    long mod = api.install(workspace, "a.zip", Archives.zipOf(Map.of("tide.txt", latin))).result();
    String sha = mod(mod).path("files").get(0).path("sha256").asText();
    Map<String, String> edit =
        Map.of("path", "add-ons/tide.txt", "text", "\u2192 Köge", "sha256", sha);
    Api.Answer refused = api.ask("PUT", base + "/mods/" + mod + "/text", edit, Map.of());
    assertThat(refused.body().path("code").asText()).isEqualTo("not-in-encoding");
    assertThat(mod(mod).path("files").get(0).path("sha256").asText()).isEqualTo(sha);
  }

  private JsonNode verify(long mod) {
    return api.send("POST", base + "/mods/" + mod + "/verify", Map.of(), Map.of())
        .body()
        .path("amiss");
  }

  @Test
  void damage_is_found_and_installing_again_brings_the_same_bytes() throws Exception {
    long mod = install("a.zip", files("tide.txt", "mine", "maps/a.map", "a", "README.md", "read"));
    Path tide = content("add-ons/tide.txt");
    Files.writeString(tide, "spoiled");
    Files.delete(content("add-ons/maps/a.map"));
    assertThat(verify(mod).findValuesAsText("path"))
        .containsExactly("add-ons/maps/a.map", "add-ons/tide.txt");
    api.job(base + "/reinstall", Map.of()).body();
    assertThat(verify(mod)).isEmpty();
    assertThat(api.get(base + "/mods/" + mod + "/text?path=README.md").path("text").asText())
        .isEqualTo("read");
  }

  @Test
  void tags_notes_and_the_card_are_the_users_and_the_card_as_it_came_is_kept() {
    long mod = install("a.zip", files("mod-card.yaml", card("a", "1.0"), "tide.txt", "1"));
    api.send(
        "PUT",
        base + "/mods/" + mod + "/tags",
        Map.of("tags", List.of("sea", " sea ", "hull")),
        Map.of());
    api.send("PUT", base + "/mods/" + mod + "/notes", Map.of("notes", "*mine*"), Map.of());
    Map<String, Object> text =
        Map.of(
            "name",
            "Better name",
            "version",
            "1.0.1",
            "authors",
            List.of("me"),
            "summary",
            "s",
            "url",
            "https://example.org/a",
            "item",
            "",
            "release",
            "");
    api.send("PUT", base + "/mods/" + mod + "/card", text, Map.of());
    JsonNode detail = mod(mod);
    assertThat(detail.path("tags").toString()).isEqualTo("[\"sea\",\"hull\"]");
    assertThat(detail.path("notes").asText()).isEqualTo("*mine*");
    assertThat(detail.path("name").asText()).isEqualTo("Better name");
    assertThat(detail.path("given").path("name").asText()).isEqualTo("Mod a");
    Map<String, Object> nameless = new LinkedHashMap<>(text);
    nameless.put("name", " ");
    assertThat(api.ask("PUT", base + "/mods/" + mod + "/card", nameless, Map.of()).status())
        .isEqualTo(422);
  }

  // ---- the bin and the drive

  @Test
  void a_mod_goes_to_the_bin_comes_back_to_its_layer_and_is_gone_when_it_is_emptied()
      throws Exception {
    install("low.zip", files("low.txt", "low"));
    long mod = install("a.zip", files("mod-card.yaml", card("a", "1.0"), "tide.txt", "1"));
    install(
        "needy.zip",
        files("mod-card.yaml", card("needy", "1.0") + "needs: [ { mod: a } ]\n", "needy.txt", "n"));
    JsonNode removal = api.get(base + "/mods/" + mod + "/removal");
    assertThat(removal.path("neededBy").get(0).asText()).isEqualTo("Mod needy");
    assertThat(removal.path("game").path("files").asInt()).isEqualTo(1);
    assertThat(removal.path("archiveBytes").asLong()).isPositive();
    api.send("DELETE", base + "/mods/" + mod + "?archive=true", null, Map.of());
    assertThat(names()).containsExactly("low", "Mod needy");
    assertThat(api.get(base + "/inbox").path("waiting")).isEmpty();
    api.send("POST", base + "/bin/mods/" + mod + "/return", null, Map.of());
    assertThat(names()).containsExactly("low", "Mod a", "Mod needy");
    api.send("DELETE", base + "/mods/" + mod + "?archive=true", null, Map.of());
    long before = api.get(base + "/storage").path("bin").asLong();
    assertThat(before).isPositive();
    api.send("DELETE", base + "/bin", null, Map.of());
    assertThat(api.get(base + "/storage").path("bin").asLong()).isZero();
    try (Stream<Path> left = Files.list(server.library(workspace).resolve("archives"))) {
      assertThat(left).hasSize(2);
    }
    assertThat(api.ask("POST", base + "/bin/mods/" + mod + "/return", null, Map.of()).status())
        .isEqualTo(404);
  }

  @Test
  void the_library_moves_with_all_that_is_in_it() throws Exception {
    long mod = install("a.zip", files("tide.txt", "mine"));
    api.bringIn(workspace, "b.zip", Archives.zip(files("maps/b.map", "b")));
    looked(1);
    Path from = server.library(workspace);
    Path elsewhere = Files.createDirectories(temp.resolve("elsewhere"));
    Api.Answer inside =
        api.ask(
            "POST",
            base + "/storage/move",
            Map.of("folder", temp.resolve("game").toString()),
            Map.of());
    assertThat(inside.body().path("code").asText()).isEqualTo("folder-wrong");
    Api.Answer moved = api.job(base + "/storage/move", Map.of("folder", elsewhere.toString()));
    assertThat(moved.body().path("state").asText()).as(moved.body().toString()).isEqualTo("DONE");
    assertThat(from).doesNotExist();
    assertThat(api.get(base + "/storage").path("folder").asText()).startsWith(elsewhere.toString());
    assertThat(verify(mod)).isEmpty();
    api.job(base + "/inbox/install-ready", Map.of());
    assertThat(names()).containsExactly("a", "b");
    api.job(base + "/deploy", Map.of());
    assertThat(temp.resolve("game/add-ons/tide.txt")).hasContent("mine");
    api.job(base + "/storage/move", Map.of("folder", ""));
    assertThat(verify(mod)).isEmpty();
    try (Stream<Path> left = Files.list(elsewhere)) {
      assertThat(left).isEmpty();
    }
  }

  @Test
  void another_mod_is_no_version_of_a_mod() {
    long one = install("one.zip", files("mod-card.yaml", card("one", "1.0"), "tide.txt", "1"));
    long other = install("other.zip", files("mod-card.yaml", card("other", "1.0"), "ebb.txt", "2"));
    String etag = api.send("GET", base, null, Map.of()).header("ETag");
    Api.Answer refused =
        api.ask(
            "POST",
            base + "/mods/" + other + "/use?instead=" + one,
            null,
            Map.of("If-Match", etag));
    assertThat(refused.status()).isBetween(400, 499);
    assertThat(refused.body().at("/problems/0/code").asText()).isEqualTo("not-a-version");
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("mod"))
        .containsExactly(Long.toString(one), Long.toString(other));
  }

  /** A pack’s pattern speaks of a path below its mount, not of a name. */
  @Test
  void packs_in_a_folder_of_their_own_stay_packs() throws IOException {
    Path game = Games.plain(temp.resolve("packed"));
    Trees.write(
        game.resolve("game.yaml"),
        Games.PLAIN.replace("\"maps/\"", "\"maps/\", \"packs/*.zip\"")
            + "packs: { match: \"packs/*.zip\", mount: addons }\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    byte[] pack = Archives.zip(files("maps/east.map", "e"));
    long mod =
        api.install(workspace, "m.zip", Archives.zipOf(Map.of("add-ons/packs/east.zip", pack)))
            .result();
    assertThat(paths(mod)).contains("add-ons/packs/east.zip");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/packs/east.zip")).hasBinaryContent(pack);
    assertThat(game.resolve("add-ons/maps/east.map")).doesNotExist();
  }

  /** A game of plain files has mods that bring a new file at its very top. */
  @Test
  void a_new_file_at_the_very_top_of_the_game_is_deployed_and_taken_out() throws IOException {
    Path game = Games.plain(temp.resolve("top"));
    Trees.write(
        game.resolve("game.yaml"),
        "format: ironing/game@1\nid: top\ntitle: Top\nmounts:\n  - { id: all, at: \".\", holds: [ \"**\" ] }\n");
    Map<String, String> before = Trees.of(game);
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    api.install(workspace, "m.zip", Archives.zip(files("loader.txt", "new", "add-ons/x.txt", "x")));
    api.job(base + "/deploy", null).result();
    assertThat(game.resolve("loader.txt")).hasContent("new");
    api.job(base + "/deploy/undeploy", null).result();
    assertThat(Trees.of(game)).isEqualTo(before);
  }

  @Test
  void a_second_layer_of_one_mod_is_only_made_on_a_word() {
    install("a-1.zip", files("mod-card.yaml", card("a", "1.0"), "x.txt", "1"));
    long archive =
        api.bringIn(
            workspace,
            "a-2.zip",
            Archives.zip(files("mod-card.yaml", card("a", "2.0"), "x.txt", "2")));
    String wait = "wait=60";
    Map<String, Object> plain = Map.of("archive", archive);
    JsonNode job = api.ask("POST", base + "/mods", plain, Map.of("Prefer", wait)).body();
    assertThat(job.path("state").asText()).isEqualTo("FAILED");
    assertThat(job.path("problems").get(0).path("code").asText()).isEqualTo("version-here");
    Map<String, Object> said =
        Map.of("archive", archive, "parts", List.of(Map.of("another", true)));
    assertThat(api.job(base + "/mods", said).body().path("state").asText()).isEqualTo("DONE");
    assertThat(api.get(base + "/library").path("mods")).hasSize(2);
  }

  @Test
  void keys_of_a_card_that_mean_nothing_are_told_where_it_comes_in() {
    String odd = card("odd", "1.0") + "colour: red\n";
    long archive =
        api.bringIn(workspace, "odd.zip", Archives.zip(files("mod-card.yaml", odd, "a.txt", "1")));
    String intake = base + "/archives/" + archive + "/intake";
    JsonNode seen = api.send("POST", intake, Map.of(), Map.of()).body();
    assertThat(seen.path("flaws")).isEmpty();
    assertThat(seen.path("warnings").toString()).contains("colour");
  }

  /** Where a mount holds anything, any path could go anywhere: the game's own say what is meant. */
  @Test
  void a_wrapping_folder_goes_where_the_games_own_paths_say_and_else_it_is_asked() {
    Path game = Games.plain(temp.resolve("wrapped"));
    Trees.write(
        game.resolve("game.yaml"),
        "format: ironing/game@1\nid: w\ntitle: W\nmounts:\n  - { id: all, at: \".\", holds: [ \"**\" ] }\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    api.install(workspace, "m.zip", Archives.zip(files("read.txt", "r", "top/add-ons/x.txt", "x")));
    api.job(base + "/deploy", null).result();
    assertThat(game.resolve("add-ons/x.txt")).hasContent("x");
    assertThat(game.resolve("read.txt")).doesNotExist();
    long archive =
        api.bringIn(workspace, "n.zip", Archives.zip(files("docs/a.txt", "a", "New/x.txt", "x")));
    String intake = base + "/archives/" + archive + "/intake";
    JsonNode seen = api.send("POST", intake, Map.of(), Map.of()).body();
    assertThat(seen.path("state").asText()).isEqualTo("SEVERAL");
    assertThat(seen.path("roots")).extracting(JsonNode::asText).containsExactly("", "New", "docs");
    seen = api.send("POST", intake, Map.of("root", ""), Map.of()).body();
    assertThat(seen.path("gets").findValuesAsText("path"))
        .containsExactlyInAnyOrder("docs/a.txt", "New/x.txt");
  }

  @Test
  void what_a_card_asks_of_the_order_is_a_wrinkle_with_its_move_where_it_is_not_so() {
    long one =
        install(
            "one.zip",
            files("mod-card.yaml", card("one", "1.0") + "after: [ two ]\n", "a.txt", "1"));
    // to need another is no order between the two
    install(
        "two.zip",
        files("mod-card.yaml", card("two", "1.0") + "needs: [ { mod: three } ]\n", "b.txt", "2"));
    install("three.zip", files("mod-card.yaml", card("three", "1.0"), "c.txt", "3"));
    JsonNode broken = null;
    for (JsonNode w : api.get(base + "/wrinkles").path("open")) {
      if (!w.path("code").asText().equals("rule-broken")) continue;
      assertThat(broken).as("only one").isNull();
      broken = w;
    }
    assertThat(broken).isNotNull();
    assertThat(broken.path("title").asText()).isEqualTo("Mod one is to stand above Mod two");
    assertThat(broken.path("reason").asText()).contains("the card of Mod one");
    JsonNode fix = broken.path("fix");
    assertThat(fix.path("kind").asText()).isEqualTo("MEND_RULE");
    api.change(
        "POST",
        base + "/layers/rules/mend",
        Map.of(
            "kind", fix.path("rule").asText(),
            "mod", fix.path("mod").asLong(),
            "other", fix.path("other").asLong()));
    assertThat(api.get(base + "/wrinkles").path("open").findValuesAsText("code"))
        .doesNotContain("rule-broken");
    assertThat(api.get(base + "/layers").path("layers").get(1).path("mod").asLong()).isEqualTo(one);
  }

  @Test
  void a_mod_that_is_made_for_another_game_is_told() {
    install(
        "far.zip",
        files("mod-card.yaml", card("far", "1.0") + "game: { id: elsewhere }\n", "a.txt", "1"));
    install(
        "near.zip",
        files("mod-card.yaml", card("near", "1.0") + "game: { id: plain }\n", "b.txt", "2"));
    List<String> told =
        api.get(base + "/wrinkles").path("open").findValuesAsText("title").stream()
            .filter(t -> t.contains("another game"))
            .toList();
    assertThat(told).containsExactly("Mod far is made for another game");
    assertThat(api.get(base + "/wrinkles").path("open").findValuesAsText("code"))
        .containsExactly("other-game");
  }

  @Test
  void two_that_do_not_go_together_are_told_while_both_are_on() {
    install("a.zip", files("mod-card.yaml", card("a", "1.0"), "a.txt", "1"));
    long b =
        install(
            "b.zip",
            files(
                "mod-card.yaml",
                card("b", "1.0") + "clashes: [ { mod: a, why: both move the tide } ]\n",
                "b.txt",
                "2"));
    JsonNode clash = api.get(base + "/wrinkles").path("open").get(0);
    assertThat(clash.path("code").asText()).isEqualTo("clash");
    assertThat(clash.path("reason").asText()).contains("both move the tide");
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(b), "on", false));
    assertThat(api.get(base + "/wrinkles").path("open")).isEmpty();
  }

  @Test
  void an_archive_that_is_looked_at_again_does_not_meet_itself_in_its_conditions() {
    String fitting =
        """
        format: ironing/fitting@1
        questions:
          - id: alone
            ask: Alone?
            answers:
              - { id: whole, say: All of it, offer: { not: { mod: self } }, files: [ { from: a.txt, to: "" } ] }
        """;
    Map<String, String> files =
        files("mod-card.yaml", card("self", "1.0"), "fitting.yaml", fitting, "a.txt", "1");
    long archive = api.bringIn(workspace, "self.zip", Archives.zip(files));
    api.job(base + "/mods", Map.of("archive", archive)).result();
    JsonNode again =
        api.send("POST", base + "/archives/" + archive + "/intake", Map.of(), Map.of()).body();
    assertThat(again.at("/questions/0/answers/0/taken").asBoolean()).isTrue();
  }

  @Test
  void of_many_files_the_first_are_listed_and_others_are_asked_for_by_their_folder() {
    Map<String, String> many = new LinkedHashMap<>();
    for (int i = 0; i < 40; i++) {
      many.put("maps/north/" + i + ".map", "n" + i);
      many.put("maps/south/" + i + ".map", "s");
      many.put("notes/" + i + ".xyz", "x");
    }
    many.put("notes/zz.txt", "read me");
    long archive = api.bringIn(workspace, "many.zip", Archives.zip(many));
    String intake = base + "/archives/" + archive + "/intake";
    JsonNode seen = api.send("POST", intake + "?limit=10", Map.of(), Map.of()).body();
    assertThat(seen.path("gets")).hasSize(10);
    assertThat(seen.path("getsInAll").asInt()).isEqualTo(80);
    assertThat(seen.path("getsBytes").asLong()).isEqualTo(10 * 2 + 30 * 3 + 40);
    assertThat(seen.path("staysOut")).hasSize(10);
    assertThat(seen.path("staysOutInAll").asInt()).isEqualTo(41);
    assertThat(seen.at("/staysOut/0/entry").asText()).isEqualTo("notes/zz.txt");
    seen = api.send("POST", intake + "?below=add-ons/maps/south/", Map.of(), Map.of()).body();
    assertThat(seen.path("gets")).hasSize(40).allMatch(g -> g.path("sizeBytes").asLong() == 1);
    assertThat(seen.path("getsInAll").asInt()).isEqualTo(80);
    long mod = api.job(base + "/mods", Map.of("archive", archive)).result();
    JsonNode page = api.get(base + "/mods/" + mod + "/files?limit=5&offset=78");
    assertThat(page.findValuesAsText("path"))
        .containsExactly("add-ons/maps/south/8.map", "add-ons/maps/south/9.map");
  }

  // ---- several at once

  @Test
  void tags_of_several_change_together_or_not_at_all() {
    long a = install("a.zip", files("mod-card.yaml", card("a", "1"), "a.txt", "a"));
    long b = install("b.zip", files("mod-card.yaml", card("b", "1"), "b.txt", "b"));
    String tags = base + "/library/tags";
    api.send(
        "POST", tags, Map.of("mods", List.of(a, b), "add", List.of(" deck ", "deck")), Map.of());
    api.send(
        "POST",
        tags,
        Map.of("mods", List.of(a), "add", List.of("quay"), "remove", List.of("deck")),
        Map.of());
    assertThat(mod(a).path("tags")).extracting(JsonNode::asText).containsExactly("quay");
    assertThat(mod(b).path("tags")).extracting(JsonNode::asText).containsExactly("deck");
    String code =
        api.refusal("POST", tags, Map.of("mods", List.of(a, 99_999_999L), "add", List.of("lost")));
    assertThat(code).isEqualTo("not-found");
    assertThat(
            api.refusal("POST", tags, Map.of("mods", List.of(a), "add", List.of("x".repeat(41)))))
        .isEqualTo("tag-long");
    assertThat(mod(a).path("tags")).extracting(JsonNode::asText).containsExactly("quay");
  }

  @Test
  void several_are_removed_where_all_of_them_are_there() {
    long a = install("a.zip", files("mod-card.yaml", card("a", "1"), "a.txt", "a"));
    long b = install("b.zip", files("mod-card.yaml", card("b", "1"), "b.txt", "b"));
    long c = install("c.zip", files("mod-card.yaml", card("c", "1"), "c.txt", "c"));
    String remove = base + "/library/remove";
    assertThat(api.refusal("POST", remove, Map.of("mods", List.of(a, 99_999_999L))))
        .isEqualTo("not-found");
    assertThat(api.get(base + "/library").path("mods")).hasSize(3);
    api.send("POST", remove, Map.of("mods", List.of(a, c, a), "withArchive", true), Map.of());
    assertThat(api.get(base + "/library").path("mods").findValuesAsText("id"))
        .containsExactly(String.valueOf(b));
    assertThat(api.get(base + "/bin").path("mods")).hasSize(2);
    for (long mod : List.of(c, a))
      api.send("POST", base + "/bin/mods/" + mod + "/return", null, Map.of());
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("mod"))
        .containsExactly(String.valueOf(a), String.valueOf(b), String.valueOf(c));
  }
}
