package ironing.server.loadorder;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.LaidOut;
import ironing.core.game.GameDefinition.ListFile;
import ironing.core.game.GameDefinition.Plugins;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.ListText;
import ironing.core.loadorder.ListText.Told;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.Ordering;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The list file in the game folder, read back; and plugins there that nobody deployed. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order")
class ListFileController {
  /** Larger ones are no plugin lists. In bytes. */
  private static final int LARGEST = 4 << 20;

  private final OpenWorkspaces workspaces;
  private final Deployments deployments;
  private final LoadOrders orders;
  private final Jobs jobs;

  ListFileController(
      OpenWorkspaces workspaces, Deployments deployments, LoadOrders orders, Jobs jobs) {
    this.workspaces = workspaces;
    this.deployments = deployments;
    this.orders = orders;
    this.jobs = jobs;
  }

  /** How the list file was found. */
  enum ListState {
    /** The game has none. */
    NONE,
    /** It is not there, and none was deployed. */
    ABSENT,
    /** It is there, and none was deployed: the game’s or the user’s own. */
    NOT_DEPLOYED,
    AS_DEPLOYED,
    /** It was deployed, and has been changed since. */
    CHANGED,
    /** It was deployed, and is gone. */
    GONE
  }

  /**
   * @param from from 1, among the plugins that both name; {@code to} likewise
   */
  record ListMove(String name, int from, int to) {}

  record ListSwitch(String name, boolean on) {}

  /**
   * What the list file says otherwise than the load order here. All lists are empty where it is as
   * deployed.
   *
   * @param unknown names of plugins that are not in play
   * @param unnamed plugins in play that it does not name
   * @param remarks what could not be understood
   */
  record ListFileView(
      ListState state,
      @MayBeAbsent String file,
      List<ListMove> moves,
      List<ListSwitch> switches,
      List<String> unknown,
      List<String> unnamed,
      List<String> remarks) {
    static ListFileView plain(ListState state, String file) {
      return new ListFileView(state, file, List.of(), List.of(), List.of(), List.of(), List.of());
    }
  }

  /** A plugin in the game folder that nobody deployed. */
  record StrayPlugin(String path, long sizeBytes) {}

  /** The list of plugins in the game folder beside the one that is wanted. */
  @GetMapping("/list-file")
  ListFileView listFile(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Optional<ListFile> list = open.game().plugins().flatMap(Plugins::list);
    if (list.isEmpty()) return ListFileView.plain(ListState.NONE, null);
    String file = list.get().file();
    LaidOut.Item item = deployments.laidOut(open).files().get(file);
    Optional<byte[]> there = there(open, file);
    if (there.isEmpty())
      return ListFileView.plain(item == null ? ListState.ABSENT : ListState.GONE, file);
    if (item != null && item.sha256().equals(ContentHash.of(there.get())))
      return ListFileView.plain(ListState.AS_DEPLOYED, file);
    return compared(
        item == null ? ListState.NOT_DEPLOYED : ListState.CHANGED,
        file,
        ListText.read(list.get(), there.get()),
        open.picture().loadOrder());
  }

  private static ListFileView compared(ListState state, String file, Told told, LoadOrder order) {
    List<String> names = new ArrayList<>(), unknown = new ArrayList<>();
    List<ListSwitch> switches = new ArrayList<>();
    for (Wish w : told.wishes()) {
      Optional<Entry> e = order.find(w.name());
      if (e.isEmpty()) unknown.add(w.name());
      else if (!e.get().own()) {
        names.add(e.get().name());
        if (e.get().on() != w.on()) switches.add(new ListSwitch(e.get().name(), w.on()));
      }
    }
    Set<String> named = new HashSet<>(names);
    List<String> now = new ArrayList<>(), unnamed = new ArrayList<>();
    for (Entry e : order.entries()) {
      if (e.own()) continue;
      (named.contains(e.name()) ? now : unnamed).add(e.name());
    }
    List<ListMove> moves =
        Ordering.moves(now, names).stream()
            .map(m -> new ListMove(m.item(), m.from() + 1, m.to() + 1))
            .toList();
    return new ListFileView(state, file, moves, switches, unknown, unnamed, told.remarks());
  }

  private static Optional<byte[]> there(OpenWorkspace open, String file) {
    Path path = open.at(file);
    try {
      if (!Files.isRegularFile(path)) return Optional.empty();
      if (Files.size(path) > LARGEST) {
        throw IroningException.of(
            "bad-list", file, "It is larger than 4 MiB.", "Put it back, or write a new one.");
      }
      return Optional.of(Files.readAllBytes(path));
    } catch (IOException e) {
      throw IroningException.of(
          "bad-list", file, "It cannot be read.", "Look at who may read it, and try again.", e);
    }
  }

  /** Takes over what the list file says: order and switches of the plugins that it names. */
  @PostMapping("/list-file/take")
  ResponseEntity<LoadDifferenceView> takeListFile(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    ListFile list = open.game().plugins().flatMap(Plugins::list).orElseThrow(() -> noList(open));
    byte[] there = there(open, list.file()).orElseThrow(() -> noList(open));
    LoadDifferenceView d =
        orders.follow(
            workspace,
            Expected.of(dryRun, ifMatch),
            "Took over what " + list.file() + " says",
            ListText.read(list, there).wishes());
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }

  private static String name(Path file) {
    return file.getFileName().toString();
  }

  private static IroningException noList(OpenWorkspace open) {
    return IroningException.of(
        "no-list", open.title(), "There is no list file to take over.", "Deploy to write one.");
  }

  /** Writes the list file again as it is wanted here; nothing else is touched. */
  @PostMapping("/list-file/put-back")
  ResponseEntity<Job> putListFileBack(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, deployments.putListBack(workspace), prefer);
  }

  /** Plugins in the game folder that neither the game nor Ironing put there. */
  @GetMapping("/strays")
  List<StrayPlugin> strayPlugins(@PathVariable long workspace) throws IOException {
    OpenWorkspace open = workspaces.get(workspace);
    // a folder with a manifest that came by itself is among the game's own after the next look
    if (open.game().plugins().isEmpty() || open.game().hasDocumentPlugins()) return List.of();
    Path folder = open.at(open.game().pluginPath("x")).getParent();
    if (!Files.isDirectory(folder)) return List.of();
    Set<String> ours = new HashSet<>();
    deployments.laidOut(open).files().keySet().forEach(p -> ours.add(PathCase.fold(p)));
    List<StrayPlugin> strays = new ArrayList<>();
    try (Stream<Path> all = Files.list(folder)) {
      for (Path p : all.sorted().toList()) {
        String path = GamePath.join(GamePath.folder(open.game().pluginPath("x")), name(p));
        boolean plugin = Files.isRegularFile(p) && open.game().isPlugin(path);
        if (plugin && !ours.contains(PathCase.fold(path)) && !isTheGames(open, path))
          strays.add(new StrayPlugin(path, Files.size(p)));
      }
    }
    return strays;
  }

  private static boolean isTheGames(OpenWorkspace open, String path) {
    int id = open.picture().holdings().idOf(path);
    return id >= 0
        && open.picture().holdings().sourcesOf(id).stream()
            .anyMatch(s -> s.mod() == Holdings.GAME && s.pack().isEmpty());
  }
}
