package ironing.core.game;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.archive.PackFile;
import ironing.core.game.GameFolder.Packed;
import ironing.core.game.GameFolder.Seen;
import ironing.core.path.GameRoots;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Refused;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GameDefinitionTest {
  private static final String PLAIN =
      """
      format: ironing/game@1
      id: plain
      title: Plain files
      mounts:
        - { id: all, at: ., holds: [ "**" ] }
      """;

  @TempDir Path temp;

  private static List<Problem> problemsOf(String yaml) {
    return catchThrowableOfType(
            IroningException.class, () -> GameDefinitionReader.read("game.yaml", yaml))
        .problems();
  }

  @Test
  void a_game_of_plain_files_is_legal() {
    GameDefinition g = TestWorld.game(PLAIN);
    assertThat(g.plugins()).isEmpty();
    assertThat(g.isPlugin("a.plug")).isFalse();
    assertThat(g.isProtected(".ironing/laid-out.json")).isTrue();
    assertThat(g.holder("anything/at/all")).isPresent();
  }

  @Test
  void what_a_definition_says_is_asked_in_the_games_own_way_of_comparing() {
    GameDefinition g = TestWorld.GAME;
    assertThat(g.isPlugin("Data/One.PLUG")).isTrue();
    assertThat(g.isPlugin("data/sub/One.plug")).as("only at the top of the mount").isFalse();
    assertThat(g.isPack("DATA/x.crate")).isTrue();
    assertThat(g.isProtected("Saves/day.json")).isTrue();
    assertThat(g.isWritable("settings/A.INI")).isTrue();
    assertThat(g.isOwnPlugin("BASE.plug")).isTrue();
    assertThat(g.pluginPath("One.plug")).isEqualTo("data/One.plug");
    assertThat(g.below("data", "Data/x")).isEqualTo("x");
    assertThat(g.below("data", "database/x")).isNull();
  }

  @ParameterizedTest(name = "{2}")
  @CsvSource(
      delimiter = '|',
      value = {
        "format: ironing/game@1 | format: ironing/game@9 | the format is not ironing/game@1",
        "id: plain | id: Plain! | lower-case letters",
        "id: plain | ids: plain | “id” is missing",
        "title: Plain files | title: [ a ] | must be one value",
        "at: . | at: ../out | leads elsewhere",
        "+ | pathCase: loud | no way to compare paths",
        "+ | detect: [ /etc/passwd ] | begins at the root",
        "+ | packs: { match: '*.zip', mount: nowhere } | there is no mount “nowhere”",
        "+ | packs: { match: '*.rar', mount: all, container: rar } | only zip and tar packs",
        "+ | plugins: { match: '*.p', mount: all, slots: { total: 2, reserved: 3 } } | slots need a total",
        "+ | plugins: { match: '*.p', mount: all, list: { file: l, on: use } } | needs {name}",
        "+ | records: { v: { fields: { f: { kind: odd } } } } | no kind of field",
        "+ | records: { v: { fields: { f: { kind: rows } } } } | rows need a key",
        "+ | version: { file: v, pointer: version } | a JSON pointer begins with /",
        "+ | run: { log: x } | needs a command",
        "+ | limits: [ { count: shoes, max: 3 } ] | cannot be counted",
        "+ | limits: [ { count: mods, match: 'a/*', max: 3 } ] | only files have paths",
        "+ | limits: [ { count: mods, max: 0 } ] | no whole number above 0",
        "+ | plugins: { match: 'm/*/a.json', is: house } | nothing that a plugin can be",
        "+ | plugins: { match: 'm/*/a.json', is: folder, format: ironing/plugin@1 } | no format of their own",
        "+ | plugins: { match: 'm/*/a.json', is: folder, header: { as: toml } } | no form that is read here",
        "+ | plugins: { match: 'm/*/a.json', is: folder, header: { name: '$.id' } } | “as” is missing",
        "+ | plugins: { match: 'm/*/a.json', is: folder, records: [ { files: '*.json', as: json, id: '$.id', type: t } ] } | “each” is missing",
        "+ | plugins: { match: 'm/*/a.json', is: folder, records: [ { files: '*.json', as: json, each: '$.*', id: key, type: T! } ] } | lower-case letters",
        "+ | plugins: { match: 'm/*/a.json', is: folder, records: [ { files: t.csv, as: table, type: t } ] } | “id” is missing",
        "+ | plugins: { match: 'm/*/a.json', is: folder, patch: { at: 'm/p/a.json', manifest: { id: x } } } | no path with {name}",
        "+ | plugins: { match: 'm/*/a.json', is: folder, number: { file: a.json, as: json, at: '$.n', step: 0 } } | leads nowhere",
        "+ | plugins: { match: 'm/*/a.json', is: folder, list: { file: l.json, as: json } } | “at” is missing"
      })
  void a_mistake_is_named_with_its_line(String line, String mistake, String why) {
    String yaml = line.equals("+") ? PLAIN + mistake + "\n" : PLAIN.replace(line, mistake);
    List<Problem> problems = problemsOf(yaml);
    assertThat(problems)
        .anySatisfy(
            p -> {
              assertThat(p.reason()).containsIgnoringCase(why);
              assertThat(p.thing()).matches("game.yaml, line \\d+, column \\d+");
              assertThat(p.remedy()).isNotBlank();
            });
    // a schema cannot say that one place must agree with another
    boolean acrossPlaces = why.startsWith("there is no mount") || why.startsWith("slots need");
    assertThat(Schemas.errorsInYaml("game", yaml).isEmpty()).isEqualTo(acrossPlaces);
  }

  private static final String PLACES =
      """
      format: ironing/game@1
      id: bells
      title: Bells
      places:
        user: { at: [ "{data}/bells", "{home}/bells", /opt/bells ], what: settings and mods }
        saves: { at: "{config}/bells/saves" }
      mounts:
        - { id: own, in: user, at: mods, holds: [ "**" ] }
        - { id: all, at: ., holds: [ "data/**" ] }
      protect: [ "@saves/**" ]
      writable: [ "@user/settings.ini", "**/*.log" ]
      perProfile: [ "@saves/**" ]
      version: { file: "@user/version.txt" }
      limits: [ { count: files, match: "@user/**", max: 9 } ]
      plugins:
        match: "mods/*/foundry.json"
        in: user
        is: folder
        header: { as: json, name: "$.id" }
        patch: { at: "mods/{name}/foundry.json", manifest: { id: "{name}" } }
        list: { in: user, file: enabled.json, as: json, at: "$.order" }
      """;

  @Test
  void places_are_written_into_every_path_that_is_in_one() {
    assertThat(Schemas.errorsInYaml("game", PLACES)).isEmpty();
    GameDefinition g = GameDefinitionReader.read("game.yaml", PLACES).value();
    assertThat(g.places().get(0).at())
        .containsExactly("{data}/bells", "{home}/bells", "/opt/bells");
    assertThat(g.mount("own").orElseThrow().at()).isEqualTo("@user/mods");
    assertThat(g.isPlugin("@user/mods/x/foundry.json")).isTrue();
    assertThat(g.isPlugin("mods/x/foundry.json")).isFalse();
    assertThat(g.pluginPath("p")).isEqualTo("@user/mods/p/foundry.json");
    assertThat(g.plugins().orElseThrow().list().orElseThrow().file())
        .isEqualTo("@user/enabled.json");
    assertThat(g.isProtected("@saves/one.sav")).isTrue();
    assertThat(g.isProtected("@user/.ironing/x")).isTrue();
    assertThat(g.isOwnSave("@saves/deep/one.sav")).isTrue();
    assertThat(g.hasOwnSaves()).isTrue();
    assertThat(g.isWritable("deep/a.log")).isTrue();
    assertThat(g.isWritable("@user/deep/a.log")).as("it names no place").isFalse();
    assertThat(g.below(".", "@user/x")).isNull();
    assertThat(g.gamePath(g.mount("all").orElseThrow(), "@odd/x")).isEqualTo("@@odd/x");
  }

  @Test
  void plugins_may_lie_at_several_places() {
    String yaml =
        PLACES.replace(
            "match: \"mods/*/foundry.json\"\n  in: user",
            "match: [ \"@user/mods/*/foundry.json\", \"base/*/foundry.json\" ]");
    assertThat(Schemas.errorsInYaml("game", yaml)).isEmpty();
    GameDefinition g = GameDefinitionReader.read("game.yaml", yaml).value();
    assertThat(g.isPlugin("@user/mods/x/foundry.json")).isTrue();
    assertThat(g.isPlugin("base/x/foundry.json")).isTrue();
    assertThat(g.isPlugin("mods/x/foundry.json")).isFalse();
    assertThat(g.isPlugin("@user/base/x/foundry.json")).isFalse();
  }

  @ParameterizedTest(name = "{2}")
  @CsvSource(
      delimiter = '|',
      value = {
        "in: user, at: mods | in: usr, at: mods | there is no place “usr”",
        "@saves/** | @save/** | there is no place “save”",
        "{config}/bells/saves | {desk}/bells | no folder of this machine",
        "{config}/bells/saves | {config}bells | no folder of this machine",
        "{config}/bells/saves | saves | no folder of this machine",
        "{config}/bells/saves | {home}/../x | no folder of this machine",
        "saves: { at | Saves!: { at | no id of a place",
        "@user/version.txt | @usr/version.txt | there is no place “usr”",
        "in: user, file: enabled.json | in: usr, file: enabled.json | there is no place “usr”",
        "@user/** | @usr/** | there is no place “usr”",
        "title: Bells | detect: [ \"@user/x\" ] | by its own folder"
      })
  void a_mistake_about_places_is_named_with_its_line(String text, String mistake, String why) {
    assertThat(PLACES).contains(text);
    assertThat(problemsOf(PLACES.replace(text, mistake)))
        .anySatisfy(
            p -> {
              assertThat(p.reason()).containsIgnoringCase(why);
              assertThat(p.thing()).matches("game.yaml, line \\d+, column \\d+");
              assertThat(p.remedy()).isNotBlank();
            });
  }

  /** What only the reader can see: expressions, and places that have to agree. */
  @ParameterizedTest(name = "{1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "header: { as: json, name: '$.a[' } | cannot be read at its place 5",
        "header: { as: xml, name: '//a' } | // looks everywhere",
        "header: { as: xml, name: '/p:a' } | cannot be read",
        "header: { as: json, masters: { at: 'needs' } } | a JSONPath begins with $",
        "records: [ { files: 'r/*.json', as: json, each: '$.a[*]', id: '$.id', type: t, into: 'x.json' } ] | would not be read again",
        "records: [ { files: 'r/*.json', as: json, each: '$.a[?@.b]', id: '$.id', type: t, into: 'r/p.json' } ] | where each is plain names",
        "records: [ { files: '*.xml', as: xml, each: '/a/b[1]', id: '@n', type: t, into: 'p.xml' } ] | where each is plain names",
        "records: [ { files: '*.json', as: json, each: '$.*', id: key, type: t, into: '../p.json' } ] | not a path below a plugin",
        "records: [ { files: '*.xml', as: xml, each: '/a/b', id: key, type: t } ] | have a key",
        "records: [ { files: 't.csv', as: table, id: c, type: t, each: '$.x' } ] | every row of a table",
        "records: [ { files: 't.csv', as: table, id: c, type: t, removed: { at: '$.x' } } ] | no sign that removes",
        "number: { file: a.json, as: json, at: '$.n[*]' } | plain names",
        "list: { file: l.json, as: json, at: '$.a[0]' } | plain names",
        "list: { file: l.xml, as: xml, at: '/a' } | steps down",
        "list: { file: l.xml, as: xml, at: '/a/b', entry: { id: '{name}' } } | has attributes",
        "list: { file: l.txt, in: user } | there is no place “user”",
        "in: user | there is no place “user”",
        "wins: { alloy: fields } | counts whole",
        "list: { file: l.json, as: json, at: '$.a', entry: { id: x } } | needs {name}"
      })
  void a_mistake_in_plugins_of_text_is_named_with_its_line(String part, String why) {
    String yaml = PLAIN + "plugins: { match: 'm/*/a.json', is: folder, " + part + " }\n";
    assertThat(problemsOf(yaml))
        .anySatisfy(
            p -> {
              assertThat(p.reason()).containsIgnoringCase(why);
              assertThat(p.thing()).matches("game.yaml, line \\d+, column \\d+");
              assertThat(p.remedy()).isNotBlank();
            });
  }

  @Test
  void a_game_goes_by_a_list_or_by_numbers_and_patches_only_folders() {
    assertThat(
            problemsOf(
                PLAIN
                    + "plugins: { match: '*.json', is: file, patch: { at: '{name}.json', manifest: { a: b } },"
                    + " number: { file: a.json, as: json, at: '$.n' }, list: { file: l } }\n"))
        .extracting(Problem::reason)
        .anyMatch(r -> r.contains("goes by a list or by numbers"))
        .anyMatch(r -> r.contains("only be written where a plugin is a folder"));
  }

  @Test
  void columns_may_be_called_key_and_file() {
    GameDefinition g =
        TestWorld.game(
            PLAIN
                + "plugins: { match: 'm/*/a.json', is: folder, records: [ { files: t.csv, as: table, id: [ key, file ], type: t } ] }\n");
    assertThat(g.plugins().orElseThrow().documents().orElseThrow().records().get(0).id())
        .isEqualTo(new DocumentPlugins.IdOf.Columns(List.of("key", "file")));
  }

  @Test
  void the_schema_takes_what_the_reader_takes() {
    assertThat(Schemas.errorsInYaml("game", PLAIN)).isEmpty();
    assertThat(Schemas.errorsInYaml("game", TestWorld.DEFINITION)).isEmpty();
  }

  @Test
  void unknown_keys_are_warnings() {
    assertThat(GameDefinitionReader.read("game.yaml", PLAIN + "colour: blue\n").warnings())
        .hasSize(1);
    assertThat(GameDefinitionReader.read("game.yaml", PLAIN).warnings()).isEmpty();
  }

  @Test
  void the_wrong_folder_is_noticed_at_once_with_all_that_is_missing() throws IOException {
    GameDefinition g = TestWorld.game(PLAIN + "detect: [ a.txt, b/c.txt, here.txt ]\n");
    Trees.write(temp.resolve("here.txt"), "");
    IroningException e =
        catchThrowableOfType(IroningException.class, () -> GameFolder.requireGame(g, temp));
    assertThat(e.problems())
        .extracting(Problem::reason)
        .hasSize(2)
        .allMatch(r -> r.contains("Plain files"));
    Trees.write(temp.resolve("a.txt"), "");
    Trees.write(temp.resolve("b/c.txt"), "");
    GameFolder.requireGame(g, temp);
    assertThatThrownBy(() -> GameFolder.requireFolder(temp.resolve("gone")))
        .hasMessageContaining("There is no such folder");
  }

  @Test
  void the_version_is_read_where_the_definition_says() {
    Trees.write(temp.resolve("v.json"), "{\"a\":{\"version\":\" 1.10 \"}}");
    Trees.write(temp.resolve("v.txt"), "first\n  2.0b \n");
    assertThat(
            GameFolder.version(
                TestWorld.game(PLAIN + "version: { file: v.json, pointer: /a/version }\n"), temp))
        .contains("1.10");
    assertThat(
            GameFolder.version(TestWorld.game(PLAIN + "version: { file: v.txt, line: 2 }\n"), temp))
        .contains("2.0b");
    assertThat(GameFolder.version(TestWorld.game(PLAIN + "version: { file: gone.txt }\n"), temp))
        .isEmpty();
    assertThat(GameFolder.version(TestWorld.game(PLAIN), temp)).isEmpty();
  }

  @Test
  void a_scan_sees_every_file_and_follows_no_link() throws IOException {
    Trees.write(temp.resolve("game/data/b.txt"), "b");
    Trees.write(temp.resolve("game/a.txt"), "a");
    Trees.write(temp.resolve("game/.ironing/laid-out.json"), "{}");
    Trees.write(temp.resolve("elsewhere/secret"), "s");
    Files.createSymbolicLink(temp.resolve("game/link"), temp.resolve("elsewhere"));
    assertThat(GameFolder.scan(GameRoots.of(temp.resolve("game")), n -> {}))
        .extracting(Seen::path)
        .containsExactly("a.txt", "data/b.txt");
    assertThat(GameFolder.glance(GameRoots.of(temp.resolve("game"))))
        .containsOnlyKeys("a.txt", "data/b.txt");
  }

  @Test
  void a_packs_content_is_listed_below_its_mount_and_may_not_lead_outside() throws IOException {
    Path pack = Files.write(temp.resolve("x.crate"), Archives.zip(Map.of("textures/a.png", "a")));
    assertThat(GameFolder.packContent(TestWorld.GAME, "data/x.crate", pack))
        .extracting(Packed::path)
        .containsExactly("data/textures/a.png");
    Files.write(pack, Archives.zip(Map.of("../../evil", "a")));
    assertThatThrownBy(() -> GameFolder.packContent(TestWorld.GAME, "data/x.crate", pack))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("leads elsewhere");
    Files.writeString(pack, "no zip");
    assertThatThrownBy(() -> GameFolder.packContent(TestWorld.GAME, "data/x.crate", pack))
        .hasMessageContaining("data/x.crate")
        .hasMessageContaining("cannot be read");
    assertThat(Refused.code(() -> GameFolder.packContent(TestWorld.GAME, "data/x.crate", pack)))
        .isEqualTo("pack-unreadable");
  }

  /** Against GNU tar: what it packs is what is listed, with the later of two of one name. */
  @Test
  void a_pack_that_is_a_tar_is_read_as_gnu_tar_has_written_it() throws Exception {
    GameDefinition tars =
        GameDefinitionReader.read(
                "game.yaml", PLAIN + "packs: { match: '*.box', mount: all, container: tar }\n")
            .value();
    Path in = temp.resolve("in");
    String deep = "d/".repeat(20) + "a-name-that-is-longer-than-a-header-holds-".repeat(4);
    for (String f : List.of("a.txt", "ä/ö.txt", deep)) Trees.write(in.resolve(f), "1 of " + f);
    Files.createSymbolicLink(in.resolve("link"), Path.of("a.txt"));
    Path box = temp.resolve("x.box");
    for (String format : List.of("gnu", "pax")) {
      run("tar", "--format=" + format, "-cf", box.toString(), "-C", in.toString(), ".");
      Trees.write(in.resolve("a.txt"), "2 of a.txt");
      run("tar", "-rf", box.toString(), "-C", in.toString(), "./a.txt");
      List<Packed> packed = GameFolder.packContent(tars, "x.box", box);
      assertThat(packed)
          .extracting(Packed::path)
          .containsExactlyInAnyOrder("a.txt", "ä/ö.txt", deep);
      for (Packed p : packed) {
        Path file = in.resolve(p.path());
        assertThat(p.sha256()).as(p.path()).isEqualTo(ContentHash.of(file));
        assertThat(PackFile.read(box, tars.nameInPack(p.path()), 9))
            .isEqualTo(java.util.Arrays.copyOf(Files.readAllBytes(file), 9));
      }
      Trees.write(in.resolve("a.txt"), "1 of a.txt");
    }
    assertThatThrownBy(() -> GameFolder.packContent(TestWorld.GAME, "data/x.crate", box))
        .hasMessageContaining("it is a tar");
    Path zip = Files.write(temp.resolve("y.box"), Archives.zip(Map.of("a", "a")));
    assertThatThrownBy(() -> GameFolder.packContent(tars, "y.box", zip))
        .hasMessageContaining("it is a zip");
    run("tar", "-cf", box.toString(), "-C", in.toString(), "-T", "/dev/null");
    assertThat(GameFolder.packContent(tars, "x.box", box)).isEmpty();
    run("tar", "-Pcf", box.toString(), "--transform=s|^|../|", "-C", in.toString(), "a.txt");
    assertThatThrownBy(() -> GameFolder.packContent(tars, "x.box", box))
        .hasMessageContaining("leads elsewhere");
    byte[] whole = Files.readAllBytes(box);
    for (int cut : new int[] {1, 100, 511, 513, 600})
      assertThat(
              Refused.code(
                  () -> {
                    Files.write(box, java.util.Arrays.copyOf(whole, cut));
                    GameFolder.packContent(tars, "x.box", box);
                  }))
          .as("cut at " + cut)
          .isIn("pack-unreadable", "path-unsafe");
  }

  private static void run(String... command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said =
        new String(p.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(said).isZero();
  }
}
