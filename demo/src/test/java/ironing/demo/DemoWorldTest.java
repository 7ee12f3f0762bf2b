package ironing.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.RealDisk;
import ironing.core.deploy.WantedFiles;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.PluginFacts;
import ironing.core.order.Ordering;
import ironing.core.path.PathCase;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.testrun.RunLog;
import ironing.standins.game.SkerryLine;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;

/** The sample world as the core and the game each see it. They share no code, and must agree. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class DemoWorldTest {
  @TempDir static Path temp;
  private DemoLibrary demo;
  private GameDefinition game;
  private Path folder;
  private Holdings holdings;
  private Map<String, Long> modByArchive;

  @BeforeAll
  void packAndBringIn() throws IOException {
    demo = new DemoLibrary(temp);
    game = demo.game;
    folder = demo.folder;
    holdings = demo.holdings;
    modByArchive = demo.modByArchive;
  }

  private List<Plugin> active(Picture p) {
    return p.loadOrder().active().stream()
        .map(e -> demo.plugin(e.name(), e.plugin().mod()))
        .toList();
  }

  private RecordIndex index(Picture p) {
    Shapes shapes = Shapes.of(game);
    return RecordIndex.of(
        active(p).stream().map(x -> RecordIndex.Source.of(x, shapes, false)).toList());
  }

  private RunLog.Summary deployAndPlay(Picture p) throws IOException {
    Deployer d = new Deployer(new RealDisk(), folder);
    d.apply(
        DeployPlan.make(
            WantedFiles.of(p, m -> "mod " + m, List.of(), List.of()),
            d.laidOut(),
            Optional.empty(),
            d.look(),
            "now"),
        demo::content,
        n -> {});
    SkerryLine.play(folder, new PrintStream(OutputStream.nullOutputStream()));
    return RunLog.summarise(Files.readAllLines(folder.resolve("logs/last-run.jsonl")));
  }

  private List<LoadOrder.Wish> proposal(Picture p) {
    LoadOrderProposal proposal =
        LoadOrderProposal.propose(p.loadOrder(), List.of(), PluginFacts.NONE);
    return LoadOrderProposal.asWishes(
        p.loadOrder(), ((Ordering.Outcome.Sorted<String>) proposal.outcome()).order());
  }

  @Test
  void packing_twice_gives_the_same_bytes() throws IOException {
    DemoPacker.pack(Path.of("world"), temp.resolve("again"));
    assertThat(hashes(temp.resolve("again/archives")))
        .isEqualTo(hashes(temp.resolve("archives")))
        .hasSizeGreaterThanOrEqualTo(12);
    assertThat(hashes(temp.resolve("archives")).keySet())
        .containsExactlyInAnyOrderElementsOf(DemoPacker.installOrder());
    assertThat(modByArchive.keySet())
        .anyMatch(a -> a.endsWith(".7z"))
        .anyMatch(a -> a.endsWith(".tar.gz"))
        .anyMatch(a -> a.endsWith(".zip"));
  }

  private static Map<String, String> hashes(Path folder) throws IOException {
    Map<String, String> out = new TreeMap<>();
    try (Stream<Path> all = Files.list(folder)) {
      for (Path p : all.toList()) out.put(p.getFileName().toString(), ContentHash.of(p));
    }
    return out;
  }

  @Test
  void the_packed_game_is_what_its_manifest_says() throws Exception {
    Path fresh = temp.resolve("again2");
    DemoPacker.pack(Path.of("world"), fresh);
    Process check =
        new ProcessBuilder("sha256sum", "--check", "--quiet", "--strict", "manifest.sha256")
            .directory(fresh.resolve("game").toFile())
            .redirectErrorStream(true)
            .start();
    assertThat(new String(check.getInputStream().readAllBytes(), StandardCharsets.UTF_8)).isEmpty();
    assertThat(check.waitFor()).isZero();
  }

  @Test
  void as_it_is_brought_in_the_game_stops_over_a_late_master_and_the_proposal_mends_it()
      throws IOException {
    Picture p = demo.picture(demo.mods("coal-to-kelp"), List.of());
    assertThat(LoadOrderCheck.troubles(game, Optional.of("1.4.2"), p.loadOrder(), p::packInPlay))
        .extracting(LoadOrderCheck.Trouble::code)
        .containsExactly(LoadOrderCheck.Code.MASTER_LATE);
    RunLog.Summary stopped = deployAndPlay(p);
    assertThat(stopped.fault().get().code()).isEqualTo("master-late");
    assertThat(stopped.fault().get().plugin()).isEqualTo("NightFerry.plug");
    RunLog.Summary played = deployAndPlay(demo.picture(demo.mods("coal-to-kelp"), proposal(p)));
    assertThat(played.fault()).isEmpty();
    assertThat(played.end()).contains(0);
  }

  @Test
  void a_mod_that_removes_what_others_refer_to_stops_the_game() throws IOException {
    Picture p = demo.picture(demo.mods(), List.of());
    assertThat(deployAndPlay(demo.picture(demo.mods(), proposal(p))).fault().get().code())
        .isEqualTo("reference-dangling");
  }

  @Test
  void the_records_hold_what_the_screens_are_to_show() {
    Picture p = demo.picture(demo.mods("coal-to-kelp"), List.of());
    Collisions found = Collisions.in(game, index(p), Map.of());
    List<Collision> all =
        IntStream.range(0, found.size()).mapToObj(i -> found.of(found.record(i))).toList();
    Map<Collision.State, List<String>> byState =
        all.stream()
            .collect(
                Collectors.groupingBy(
                    Collision::state, Collectors.mapping(Collision::label, Collectors.toList())));
    assertThat(byState.get(Collision.State.NEEDS_YOU)).contains("Aud Helga");
    assertThat(byState.get(Collision.State.COMBINES)).hasSizeGreaterThanOrEqualTo(3);
  }

  /**
   * The second opinion: what the core says is in play is what the game reads, in any arrangement.
   */
  @Test
  void the_game_reads_what_the_core_says_is_in_play() throws IOException {
    Random random = new Random(4);
    for (int round = 0; round < 12; round++) {
      List<Long> some = new ArrayList<>(demo.mods("coal-to-kelp", "night-ferry"));
      Collections.shuffle(some, random);
      some = some.subList(0, 3 + random.nextInt(some.size() - 3));
      Picture first = demo.picture(some, List.of());
      List<LoadOrder.Wish> wishes = new ArrayList<>(first.loadOrder().asWishes());
      Collections.shuffle(wishes, random);
      Picture shuffled = demo.picture(some, wishes);
      boolean sound =
          LoadOrderCheck.troubles(
                  game, Optional.of("1.4.2"), shuffled.loadOrder(), shuffled::packInPlay)
              .stream()
              .noneMatch(LoadOrderCheck.Trouble::stops);
      Picture p = sound ? shuffled : demo.picture(some, soundOrNone(shuffled));
      agree(p, deployAndPlay(p));
    }
  }

  // a plugin whose master is not there is switched off, and what is left is put in order
  private List<LoadOrder.Wish> soundOrNone(Picture p) {
    Set<String> missing =
        LoadOrderCheck.troubles(game, Optional.of("1.4.2"), p.loadOrder(), p::packInPlay).stream()
            .filter(t -> t.code() == LoadOrderCheck.Code.MASTER_MISSING)
            .map(LoadOrderCheck.Trouble::plugin)
            .collect(Collectors.toSet());
    return proposal(p).stream()
        .map(w -> new LoadOrder.Wish(w.name(), !missing.contains(w.name())))
        .toList();
  }

  private void agree(Picture p, RunLog.Summary run) {
    run.read()
        .forEach(
            (path, sha256) -> {
              int id = holdings.idOf(path);
              assertThat(id).as(path).isNotNegative();
              if (path.equals("settings/skerry.ini"))
                return; // the game writes to it from run to run
              assertThat(holdings.shaAt(p.standing().inPlay(id))).as(path).isEqualTo(sha256);
            });
    List<String> order = p.loadOrder().active().stream().map(LoadOrder.Entry::name).toList();
    assertThat(run.plugins().keySet().stream().map(PathCase::fold))
        .as("in load order")
        .containsExactlyElementsOf(order.stream().map(PathCase::fold).toList());
    RecordIndex index = index(p);
    for (RunLog.Report r : run.reports()) {
      int as = r.from().indexOf(" as ");
      if (as < 0) continue;
      String key = r.from().substring(0, as),
          plugin = r.from().substring(as + 4, r.from().length() - " has it".length());
      Ref ref =
          new Ref(
              key.substring(0, key.indexOf('/')),
              Integer.parseInt(key.substring(key.indexOf('/') + 1)));
      assertThat(index.used(ref).get().plugin()).as(r.name()).isEqualTo(plugin);
    }
  }

  @Test
  void a_game_log_is_json_lines() throws IOException {
    deployAndPlay(demo.picture(List.of(), List.of()));
    List<String> lines = Files.readAllLines(folder.resolve("logs/last-run.jsonl"));
    for (String line : lines) {
      JsonNode e = new ObjectMapper().readTree(line);
      assertThat(e.path("event").asText())
          .isIn("start", "read", "loaded", "report", "warning", "end");
    }
    assertThat(RunLog.summarise(lines).loading()).isPresent();
  }
}
