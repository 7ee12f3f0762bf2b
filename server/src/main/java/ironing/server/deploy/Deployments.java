package ironing.server.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.layers.Holdings;
import ironing.core.layers.Spelling;
import ironing.core.layers.Standing;
import ironing.core.loadorder.ListText;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.platform.Events;
import ironing.server.workbench.Bench;
import ironing.server.workbench.ContentStore;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Makes game folders agree with pictures. One deployment of a workspace at a time. */
@Component
public class Deployments {
  private final Workbenches benches;
  private final ContentStore content;
  private final Jobs jobs;
  private final Events events;
  private final Clock clock = Clock.systemUTC();
  private final Map<Path, Noted> notes = new ConcurrentHashMap<>();

  /** laid-out.json as it was read at a time of its own, so that asking again costs one stat. */
  private record Noted(FileTime modified, LaidOut laidOut) {}

  /** What one state of a bench wants deployed; the same state is asked many times. */
  private record WantedBy(Bench bench, List<Wanted> files) {}

  private final Map<Long, WantedBy> wanted = new ConcurrentHashMap<>();

  Deployments(Workbenches benches, ContentStore content, Jobs jobs, Events events) {
    this.benches = benches;
    this.content = content;
    this.jobs = jobs;
    this.events = events;
  }

  /** What is in the game folder now. Nothing when the folder is gone. */
  public LaidOut laidOut(Bench bench) {
    Path note = bench.gameFolder().resolve(".ironing/laid-out.json");
    try {
      FileTime modified = Files.getLastModifiedTime(note);
      Noted known = notes.get(note);
      if (known != null && known.modified().equals(modified)) return known.laidOut();
      LaidOut fresh = deployer(bench).laidOut();
      notes.put(note, new Noted(modified, fresh));
      return fresh;
    } catch (IOException notThere) {
      return LaidOut.nothing();
    }
  }

  /** What deploying would do now. Reads the folder; changes nothing. */
  public DeployPlan plan(Bench bench) {
    GameFolder.requireFolder(bench.gameFolder());
    return DeployPlan.make(wanted(bench), laidOut(bench), deployer(bench).look(Map.of()), now());
  }

  /**
   * How many files stand otherwise than the picture wants, by the note alone: cheap enough for
   * every page.
   */
  public long waiting(Bench bench) {
    LaidOut laidOut = laidOut(bench);
    long waiting = 0;
    Map<String, LaidOut.Item> left = new HashMap<>(laidOut.files());
    for (Wanted w : wanted(bench)) {
      LaidOut.Item item = left.remove(w.path());
      if (item == null || !item.sha256().equals(w.sha256())) waiting++;
    }
    return waiting + left.size();
  }

  Job deploy(long workspace) {
    Bench bench = benches.get(workspace);
    return jobs.start(
        workspace, "deploy", "Deploy to " + bench.gameFolder(), p -> apply(workspace, p, false));
  }

  Job undeploy(long workspace) {
    Bench bench = benches.get(workspace);
    return jobs.start(
        workspace,
        "undeploy",
        "Take everything out of " + bench.gameFolder(),
        p -> apply(workspace, p, true));
  }

  private Long apply(long workspace, Jobs.Progress progress, boolean undeploy) {
    benches.exclusively(
        workspace,
        bench -> {
          GameFolder.requireFolder(bench.gameFolder());
          Deployer deployer = deployer(bench);
          deployer.recover();
          DeployPlan plan =
              DeployPlan.make(
                  undeploy ? List.of() : wanted(bench),
                  deployer.laidOut(),
                  deployer.look(Map.of()),
                  now());
          int total = plan.steps().size();
          deployer.apply(plan, done -> progress.at(done, total, "files"));
          return null;
        });
    events.tell(workspace, "deployment", Map.of());
    return null;
  }

  /** Finishes or clears what a crash left in a game folder. */
  public void recover(Bench bench) {
    if (Files.isDirectory(bench.gameFolder())) deployer(bench).recover();
  }

  /** A file in the game folder that neither the game nor we put there. */
  public record Stray(String path, long sizeBytes) {}

  /** What else is new in the folder: logs, saves, and whatever somebody put there. */
  public List<Stray> strays(Bench bench) {
    LaidOut laidOut = laidOut(bench);
    Holdings holdings = bench.picture().holdings();
    List<Stray> strays = new ArrayList<>();
    try {
      for (Map.Entry<String, Long> f : GameFolder.sizes(bench.gameFolder()).entrySet()) {
        int path = holdings.idOf(f.getKey());
        boolean ofTheGame =
            path >= 0
                && bench.picture().standing().holders(path).stream()
                    .anyMatch(
                        s ->
                            holdings.holderAt(s).mod() == Holdings.GAME
                                && holdings.holderAt(s).pack().isEmpty());
        if (!ofTheGame && !laidOut.files().containsKey(f.getKey()))
          strays.add(new Stray(f.getKey(), f.getValue()));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return strays;
  }

  /**
   * Every loose file that the picture wants and the unmodded game does not hold, and the plugin
   * list.
   */
  private List<Wanted> wanted(Bench bench) {
    return wanted
        .compute(
            bench.workspace(),
            (w, known) ->
                known != null && known.bench() == bench ? known : new WantedBy(bench, work(bench)))
        .files();
  }

  private List<Wanted> work(Bench bench) {
    Spelling spelling = Spelling.of(bench.picture().standing(), bench.game().pathCase());
    Standing standing = bench.picture().standing();
    Holdings holdings = bench.picture().holdings();
    Map<String, Wanted> wanted = new TreeMap<>();
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = standing.inPlay(p);
      if (slot < 0) continue;
      Holdings.Source holder = holdings.holderAt(slot);
      if (holder.mod() == Holdings.GAME || holder.pack().isPresent()) continue;
      String path = spelling.of(p);
      if (bench.game().isProtected(path)) continue;
      Path source =
          content.locate(
              bench.workspace(), bench.gameFolder(), holder.mod(), holdings.spellingAt(slot));
      wanted.put(
          path,
          new Wanted(
              path,
              holdings.shaAt(slot),
              holdings.sizeAt(slot),
              holder.mod(),
              bench.nameOf(holder.mod()),
              bench.game().isWritable(path),
              Optional.of(source),
              Optional.empty()));
    }
    bench
        .game()
        .plugins()
        .flatMap(GameDefinition.Plugins::list)
        .ifPresent(
            list -> {
              byte[] text =
                  ListText.write(list, bench.picture().loadOrder())
                      .getBytes(StandardCharsets.UTF_8);
              boolean anyMods =
                  bench.picture().loadOrder().entries().stream().anyMatch(e -> !e.own());
              if (anyMods)
                wanted.put(
                    list.file(),
                    new Wanted(
                        list.file(),
                        ContentHash.of(text),
                        text.length,
                        Holdings.GAME,
                        "Ironing",
                        true,
                        Optional.empty(),
                        Optional.of(text)));
            });
    return List.copyOf(wanted.values());
  }

  private static Deployer deployer(Bench bench) {
    return new Deployer(new RealDisk(), bench.gameFolder());
  }

  private String now() {
    return clock.instant().truncatedTo(ChronoUnit.SECONDS).toString();
  }
}
