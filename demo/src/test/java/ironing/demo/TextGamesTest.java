package ironing.demo;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.WantedFiles;
import ironing.core.documents.DocumentWriter;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.mends.PatchBuilder;
import ironing.core.path.GameRoots;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.testkit.TestWorld;
import ironing.core.workspace.Stages;
import ironing.core.workspace.Workspace;
import ironing.standins.bells.Belfry;
import ironing.standins.bells.LanternRow;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * What Ironing says is in play, against what games read that share no code with it: the sample
 * games of open text, in random sets and orders.
 */
class TextGamesTest {
  private static final int SETS = 500;

  /** A game with its mods, numbered from 1 in the order in which the demo installs them. */
  private static final class Game {
    final TestWorld world;
    final GameDefinition game;
    final Map<Long, List<String>> plugins = new HashMap<>();

    Game(String name, String mount) throws IOException {
      Path sources = Path.of(name);
      Map<String, byte[]> own = DemoPacker.content(sources.resolve("game"));
      game = TestWorld.game(new String(own.get("game.yaml"), StandardCharsets.UTF_8));
      world = new TestWorld(game);
      own.forEach((path, bytes) -> world.file(Holdings.GAME, path, bytes));
      long mod = 0;
      for (String archive : TextGamesLoader.GAMES.get(name)) {
        mod++;
        plugins.put(mod, new ArrayList<>());
        for (Map.Entry<String, byte[]> f :
            DemoPacker.content(sources.resolve("mods").resolve(archive)).entrySet()) {
          String path = f.getKey();
          if (path.equals("mod-card.yaml")) continue;
          boolean elsewhere = path.startsWith("pictures/");
          world.file(mod, elsewhere ? path : mount + "/" + path, f.getValue());
          if (!elsewhere && path.indexOf('/') == path.lastIndexOf('/') && path.endsWith(".json"))
            plugins.get(mod).add(path.substring(0, path.indexOf('/')));
        }
      }
    }

    /** Random mods on, their plugins in a random order, some of them off. */
    Arrangement random(Random random) {
      List<Arrangement.Layer> layers = new ArrayList<>();
      List<Wish> wishes = new ArrayList<>();
      List<Long> mods = new ArrayList<>(plugins.keySet());
      Collections.shuffle(mods, random);
      for (long mod : mods) {
        // it needs what is nowhere, and the game would not start
        boolean on = random.nextInt(4) > 0 && !plugins.get(mod).contains("distant-carillon");
        layers.add(new Arrangement.Layer(mod, on));
        for (String p : plugins.get(mod)) wishes.add(new Wish(p, random.nextInt(5) > 0));
      }
      Collections.shuffle(wishes, random);
      List<String> names = wishes.stream().map(Wish::name).toList();
      int winter = names.indexOf("winter-ring"), heavy = names.indexOf("heavier-tenors");
      if (winter >= 0) {
        boolean has =
            layers.stream()
                .anyMatch(l -> l.on() && plugins.get(l.mod()).contains("heavier-tenors"));
        if (winter < heavy) Collections.swap(wishes, winter, heavy);
        Wish w = wishes.stream().filter(x -> x.name().equals("winter-ring")).findFirst().get();
        boolean heavyOn =
            has
                && wishes.stream()
                    .filter(x -> x.name().equals("heavier-tenors"))
                    .allMatch(Wish::on);
        if (!heavyOn) wishes.set(wishes.indexOf(w), w.withOn(false));
      }
      return new Arrangement(layers, wishes, Map.of());
    }
  }

  /** What lies in a place of the game, beside its folder. */
  private static Path user(Path folder) {
    return folder.resolveSibling(folder.getFileName() + "-user");
  }

  private static void deploy(Workspace w, Path folder) throws IOException {
    GameRoots roots = GameRoots.of(folder, Map.of("user", user(folder)));
    List<Wanted> wanted = WantedFiles.of(w.picture(), m -> "mod " + m, List.of(), List.of());
    for (Wanted file : wanted) {
      Path at = roots.at(file.path());
      Files.createDirectories(at.getParent());
      byte[] bytes =
          file.content() instanceof Content.Text t
              ? t.utf8()
              : Files.readAllBytes(w.locate(file.mod(), ((Content.File) file.content()).spelled()));
      Files.write(at, bytes);
    }
  }

  private static Path emptyGame(Game g, Path folder) throws IOException {
    for (Map.Entry<String, byte[]> f :
        DemoPacker.content(Path.of(name(g)).resolve("game")).entrySet()) {
      Path at = folder.resolve(f.getKey());
      Files.createDirectories(at.getParent());
      Files.write(at, f.getValue());
    }
    return folder;
  }

  private static String name(Game g) {
    return g.game.id().equals("kelder-bells") ? "bells" : "lanterns";
  }

  private static Map<String, Map<String, String>> things(RecordIndex index) {
    Map<String, Map<String, String>> things = new TreeMap<>();
    for (int r = 0; r < index.size(); r++) {
      Optional<Value.Fields> fields = index.used(r).fields();
      if (fields.isPresent()) things.put(thing(index.key(r)), said(fields.get()));
    }
    return things;
  }

  private static String thing(Ref key) {
    String type = key.toString().substring(0, key.toString().indexOf('/'));
    return type + " " + String.join("/", key.names());
  }

  private static Map<String, String> said(Value.Fields fields) {
    Map<String, String> says = new TreeMap<>();
    fields.map().forEach((name, v) -> says.put(name.equals("(value)") ? "" : name, said(v)));
    return says;
  }

  private static String said(Value v) {
    if (v instanceof Value.Text t) return t.value();
    if (v instanceof Value.Int i) return Long.toString(i.value());
    if (v instanceof Value.Real r) return Double.toString(r.value());
    if (v instanceof Value.Array a)
      return a.items().stream().map(TextGamesTest::said).toList().toString();
    return String.valueOf(v);
  }

  @Test
  void theGameReadsTheRecordsThatAreSaidToBeInPlay(@TempDir Path temp) throws IOException {
    Game g = new Game("bells", "bells");
    Random random = new Random(20261201);
    Workspace before = null;
    int patched = 0;
    for (int set = 0; set < SETS; set++) {
      Path library = temp.resolve("library");
      Workspace w = g.world.workspace(library, before, g.random(random));
      Path folder = emptyGame(g, temp.resolve("game" + set));
      deploy(w, folder);
      Belfry belfry = Belfry.open(folder);
      RecordIndex index = w.get(Stages.RECORDS).index();
      assertThat(belfry.order())
          .as("set %s", set)
          .isEqualTo(w.picture().loadOrder().active().stream().map(e -> e.name()).toList());
      assertThat(belfry.things()).as("set %s", set).isEqualTo(things(index));
      if (patch(g, w, folder)) {
        patched++;
        Map<String, Map<String, String>> wanted = things(index);
        outcomes(g, index).forEach((key, says) -> wanted.put(key, says));
        assertThat(Belfry.open(folder).things()).as("patched set %s", set).isEqualTo(wanted);
      }
      before = w;
    }
    assertThat(patched).isGreaterThan(SETS / 4);
  }

  private static Collisions collisions(Game g, RecordIndex index) {
    return Collisions.in(g.game, index, Map.of());
  }

  private static List<Collision> forPatch(Game g, RecordIndex index) {
    Collisions all = collisions(g, index);
    return IntStream.range(0, all.size())
        .filter(all::wantsPatch)
        .filter(i -> g.game.canPatch(index.type(all.record(i))))
        .mapToObj(i -> all.of(all.record(i)))
        .toList();
  }

  private static Map<String, Map<String, String>> outcomes(Game g, RecordIndex index) {
    Map<String, Map<String, String>> all = new HashMap<>();
    for (Collision c : forPatch(g, index))
      all.put(thing(c.key()), said(c.combination().outcome().orElseThrow()));
    return all;
  }

  /** Lays a patch out as the last that the game reads. */
  private static boolean patch(Game g, Workspace w, Path folder) throws IOException {
    RecordIndex index = w.get(Stages.RECORDS).index();
    List<Collision> all = forPatch(g, index);
    if (all.isEmpty()) return false;
    List<String> order = w.picture().loadOrder().active().stream().map(e -> e.name()).toList();
    Plugin plugin = PatchBuilder.build("my-patch", "My patch", "", order, all);
    List<Plugin.Header> from =
        IntStream.range(0, index.pluginCount()).mapToObj(p -> index.table(p).header()).toList();
    for (Map.Entry<String, byte[]> f : new DocumentWriter(g.game).files(plugin, from).entrySet()) {
      Path at = folder.resolve(f.getKey());
      Files.createDirectories(at.getParent());
      Files.write(at, f.getValue());
    }
    Path list = folder.resolve("enabled.json");
    String text = Files.readString(list);
    String entry = "{\"id\":\"my-patch\",\"on\":true}]";
    int end = text.indexOf("],\n  \"seen\"");
    String comma = text.charAt(end - 1) == '[' ? "" : ",";
    Files.writeString(list, text.substring(0, end) + comma + entry + text.substring(end + 1));
    return true;
  }

  @Test
  void theGameThatGoesByNumbersReadsThemInTheOrderThatIsSaid(@TempDir Path temp)
      throws IOException {
    Game g = new Game("lanterns", "@user/shades");
    Random random = new Random(20261202);
    Workspace before = null;
    for (int set = 0; set < SETS / 5; set++) {
      Path library = temp.resolve("library");
      Workspace w = g.world.workspace(library, before, g.random(random));
      Path folder = emptyGame(g, temp.resolve("game" + set));
      deploy(w, folder);
      Map<String, String> said = new TreeMap<>();
      things(w.get(Stages.RECORDS).index())
          .forEach(
              (thing, says) ->
                  said.put(
                      thing.substring("lamp ".length()),
                      says.get("colour") + " at " + says.get("height")));
      assertThat(LanternRow.lamps(folder, user(folder))).as("set %s", set).isEqualTo(said);
      before = w;
    }
  }
}
