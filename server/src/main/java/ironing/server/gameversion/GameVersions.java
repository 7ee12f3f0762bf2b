package ironing.server.gameversion;

import static ironing.core.workspace.Stages.HARMLESS;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.drift.Drift.Own;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Packed;
import ironing.core.game.Manifest;
import ironing.core.game.Manifest.Unlike;
import ironing.core.gameversion.BaseChange;
import ironing.core.gameversion.BaseChange.Changed;
import ironing.core.gameversion.BaseChange.Kind;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.deploy.BeforeUndeploying;
import ironing.server.deploy.Deployments;
import ironing.server.gameversion.GameVersionMapper.EarlierRow;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.mends.Mends;
import ironing.server.mends.Mends.Ingredient;
import ironing.server.mends.Mends.MendKind;
import ironing.server.mends.Mends.MendView;
import ironing.server.tools.ToolStrays;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.FormerFiles;
import ironing.server.workspace.FormerFiles.Kept;
import ironing.server.workspace.GameFiles;
import ironing.server.workspace.GameFiles.PackedRow;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/**
 * Finds what an update of the game has done, what that means for the mods, and takes it in.
 *
 * <p>Cost of looking: as of {@link BaseChange}; the packs that changed are read.
 */
@Component
class GameVersions implements BeforeUndeploying {
  private static final int LONGEST_NAME = 80;
  private final GameVersionMapper db;
  private final GameFiles own;
  private final FormerFiles former;
  private final Deployments deployments;
  private final ToolStrays strays;
  private final Mends mends;
  private final OpenWorkspaces workspaces;
  private final FolderUse use;
  private final Jobs jobs;

  GameVersions(
      GameVersionMapper db,
      GameFiles own,
      FormerFiles former,
      Deployments deployments,
      ToolStrays strays,
      Mends mends,
      OpenWorkspaces workspaces,
      FolderUse use,
      Jobs jobs) {
    this.db = db;
    this.own = own;
    this.former = former;
    this.deployments = deployments;
    this.strays = strays;
    this.mends = mends;
    this.workspaces = workspaces;
    this.use = use;
    this.jobs = jobs;
  }

  /**
   * A file of the game that an update has changed.
   *
   * @param pack in which it lies; empty for a loose one
   * @param overDeployed whether it lies where a file of a mod was deployed
   */
  record UpdateFile(String path, String pack, Kind kind, long sizeBytes, boolean overDeployed) {}

  /**
   * A mod that is on and whose card does not cover the version.
   *
   * @param harmless whether all its files are of a kind that cannot break
   */
  record UncoveredMod(long mod, String name, String range, boolean harmless) {}

  /**
   * A mend that is made of changed files.
   *
   * @param of those files
   */
  record TouchedMend(long mod, String name, List<String> of) {}

  /** A mod’s file in play that stands over a changed file of the game. */
  record CoveringFile(String path, long mod, String name) {}

  /**
   * What is new of the game.
   *
   * @param known the version that was taken in last; empty where the game tells none
   * @param found the version that lies there; empty likewise
   * @param byManifest whether the game’s manifest says what is its own
   * @param behind see {@link BaseChange}
   * @param unlike files of the game that were not as the manifest says when it was taken in
   */
  record Update(
      String known,
      String found,
      boolean byManifest,
      BaseChange change,
      List<UpdateFile> files,
      List<String> behind,
      List<Unlike> unlike,
      List<UncoveredMod> uncovered,
      List<TouchedMend> mends,
      List<CoveringFile> covering) {
    boolean noticed() {
      return !known.equals(found) || !change.isEmpty();
    }
  }

  /**
   * What the user says of the files that may have been removed by the update or by somebody else.
   *
   * @param removed by the update: they are the game's no more
   * @param kept the game has them still: undeploying brings them back
   */
  record Word(Set<String> removed, Set<String> kept) {
    static final Word NONE = new Word(Set.of(), Set.of());
  }

  /** Looks; changes nothing. */
  Update look(OpenWorkspace open) {
    return look(open, Word.NONE);
  }

  private Update look(OpenWorkspace open, Word word) {
    GameFolder.requireFolder(open.gameFolder());
    Set<String> deployed = deployments.laidOut(open).files().keySet();
    Optional<Manifest> manifest =
        Manifest.of(open.game(), path -> open.value().locate(Holdings.GAME, path));
    BaseChange change = change(open, manifest).withRemoved(word.removed());
    Function<String, Path> place = place(open, change, deployed);
    List<UpdateFile> files = files(open, change);
    String found = GameFolder.version(open.game(), place).orElse("");
    return new Update(
        open.gameVersion().orElse(""),
        found,
        manifest.isPresent(),
        change,
        files,
        change.behind(),
        manifest.map(m -> unlike(open, m, change)).orElse(List.of()),
        uncovered(open, found),
        touched(open, files),
        covering(open, files));
  }

  // somebody had changed them before the game was taken in; what an update does is told by itself
  private List<Unlike> unlike(OpenWorkspace open, Manifest manifest, BaseChange change) {
    Map<String, String> there = new HashMap<>();
    for (Own o : own.loose(open.workspace())) there.put(o.path(), o.sha256());
    Set<String> told = new HashSet<>(change.behind());
    for (Changed c : change.files()) told.add(c.path());
    return manifest.unlike(open.game(), there).stream()
        .filter(u -> !told.contains(u.path()))
        .toList();
  }

  List<EarlierRow> earlier(long workspace) {
    return db.earlier(workspace);
  }

  private BaseChange change(OpenWorkspace open, Optional<Manifest> manifest) {
    Set<String> left = new TreeSet<>(db.leftAlone(open.workspace()));
    Function<String, Optional<String>> tools = strays.owners(open);
    return BaseChange.find(
        open.game(),
        open.roots(),
        deployments.laidOut(open),
        own.loose(open.workspace()),
        manifest,
        path -> left.contains(path) || tools.apply(path).isPresent());
  }

  // the game’s own file: in its place, or among what is kept while a mod’s lies there
  private Function<String, Path> place(
      OpenWorkspace open, BaseChange change, Set<String> deployed) {
    Set<String> over = change.overDeployed();
    return path ->
        deployed.contains(path) && !over.contains(path)
            ? open.value().locate(Holdings.GAME, path)
            : open.at(path);
  }

  private List<UpdateFile> files(OpenWorkspace open, BaseChange change) {
    List<UpdateFile> files = new ArrayList<>();
    for (Changed c : change.files()) {
      long size = c.now().map(Own::sizeBytes).orElse(0L);
      files.add(new UpdateFile(c.path(), "", c.kind(), size, c.overDeployed()));
      if (open.game().isPack(c.path())) files.addAll(inPack(open, c));
    }
    return files;
  }

  private List<UpdateFile> inPack(OpenWorkspace open, Changed pack) {
    Map<String, String> was = new TreeMap<>();
    for (PackedRow r : own.packed(open.workspace(), pack.path())) was.put(r.path(), r.sha256());
    List<UpdateFile> files = new ArrayList<>();
    for (Packed p : packed(open, pack)) {
      String before = was.remove(p.path());
      if (before != null && before.equals(p.sha256())) continue;
      Kind kind = before == null ? Kind.ADDED : Kind.CHANGED;
      files.add(new UpdateFile(p.path(), pack.path(), kind, p.sizeBytes(), false));
    }
    for (String gone : was.keySet())
      files.add(new UpdateFile(gone, pack.path(), Kind.GONE, 0, false));
    return files;
  }

  private static List<Packed> packed(OpenWorkspace open, Changed pack) {
    if (pack.now().isEmpty()) return List.of();
    Path file = open.at(pack.path());
    return GameFolder.packContent(open.game(), pack.path(), file);
  }

  private List<UncoveredMod> uncovered(OpenWorkspace open, String version) {
    List<UncoveredMod> out = new ArrayList<>();
    if (version.isEmpty()) return out;
    for (Layer l : open.picture().arrangement().layers()) {
      if (!l.on()) continue;
      String range = open.mods().get(l.mod()).card().gameVersions();
      if (VersionRange.of(range).contains(ModVersion.of(version))) continue;
      out.add(
          new UncoveredMod(
              l.mod(), open.nameOf(l.mod()), range, open.get(HARMLESS).contains(l.mod())));
    }
    return out;
  }

  private List<TouchedMend> touched(OpenWorkspace open, List<UpdateFile> files) {
    GameDefinition game = open.game();
    // a plugin goes by its name, any other file by its path
    Map<String, String> changed = new HashMap<>();
    List<String> ownPlugins = new ArrayList<>();
    for (UpdateFile f : files) {
      if (f.kind() == Kind.ADDED) continue;
      changed.put(game.pathCase().key(f.path()), f.path());
      if (!game.isPlugin(f.path()) || !f.pack().isEmpty()) continue;
      changed.put(game.pathCase().key(GamePath.name(f.path())), f.path());
      ownPlugins.add(f.path());
    }
    List<TouchedMend> out = new ArrayList<>();
    for (MendView m : mends.of(open)) {
      if (!m.on()) continue;
      Set<String> of = new TreeSet<>();
      for (Ingredient i : m.ingredients()) {
        String path = changed.get(game.pathCase().key(i.plugin()));
        if (path != null) of.add(path);
      }
      // what the records of the game are is where a patch and a merge begin
      if (m.kind() == MendKind.PATCH || m.kind() == MendKind.MERGE) of.addAll(ownPlugins);
      if (!of.isEmpty()) out.add(new TouchedMend(m.mod(), m.name(), List.copyOf(of)));
    }
    return out;
  }

  private static List<CoveringFile> covering(OpenWorkspace open, List<UpdateFile> files) {
    Holdings holdings = open.picture().holdings();
    List<CoveringFile> out = new ArrayList<>();
    Set<Integer> told = new HashSet<>();
    for (UpdateFile f : files) {
      int path = holdings.idOf(f.path());
      int slot = path < 0 ? -1 : open.picture().standing().inPlay(path);
      long mod = slot < 0 ? Holdings.GAME : holdings.holderAt(slot).mod();
      if (mod != Holdings.GAME && told.add(path))
        out.add(new CoveringFile(f.path(), mod, open.nameOf(mod)));
    }
    return out;
  }

  /**
   * Takes the game as it lies there for the unmodded game from now on. The one of before is kept,
   * and every profile gets a restore point.
   *
   * <p>A crash leaves the folder with files of mods taken off where the update wrote over them, and
   * the game as it was known; taking it in again goes on from there.
   */
  Job take(long workspace, Word word) {
    OpenWorkspace open = workspaces.get(workspace);
    GameFolder.requireFolder(open.gameFolder());
    use.requireStill(open);
    requireSaid(look(open, word), word);
    String title = "Take the game in as it is now";
    return jobs.start(
        workspace, Lane.GAME, "game-version", title, p -> takeNow(workspace, word, p));
  }

  /** An update that was not taken in may have removed what undeploying would bring back. */
  @Override
  public void require(OpenWorkspace open) {
    if (!Files.isDirectory(open.gameFolder())) return;
    Update update = look(open);
    // a deployed file that somebody removed is no update
    boolean updated = !update.known().equals(update.found()) || !update.change().files().isEmpty();
    List<Problem> unanswered = new ArrayList<>();
    if (updated)
      for (String path : update.change().unsure())
        unanswered.add(
            new Problem(
                "update-unsure",
                path,
                "The game was updated, and the update may have removed it; undeploying would bring it back.",
                "Take the game in as it is first, and say what the update did; or bring it back all the same (bringBack=true)."));
    if (!unanswered.isEmpty()) throw new IroningException(unanswered);
  }

  private static void requireSaid(Update update, Word word) {
    List<Problem> open = new ArrayList<>();
    for (String path : update.change().unsure())
      if (!word.kept().contains(path))
        open.add(
            new Problem(
                "update-unsure",
                path,
                "A mod’s file lay over it, and nothing lies there now: the update may have removed it.",
                "Say whether the update removed it, or the game has it still."));
    if (!open.isEmpty()) throw new IroningException(open);
  }

  private Long takeNow(long workspace, Word word, Jobs.Progress progress) {
    Update update = look(workspaces.get(workspace), word);
    requireSaid(update, word);
    if (!update.noticed())
      throw IroningException.of(
          "nothing-new",
          workspaces.get(workspace).title(),
          "The game is as it was when it was taken in last.",
          "Go on as things are.");
    List<String> changed = update.change().files().stream().map(Changed::path).toList();
    // while the originals of before lie there
    List<Kept> replaced = former.replaced(workspaces.get(workspace), changed);
    deployments.letGo(workspace, update.change().overDeployed(), progress);
    OpenWorkspace open = workspaces.get(workspace);
    List<Own> loose = new ArrayList<>();
    List<Packed> packed = new ArrayList<>();
    for (Changed c : update.change().files()) {
      c.now().ifPresent(loose::add);
      if (open.game().isPack(c.path())) packed.addAll(packed(open, c));
    }
    String to = update.found().isEmpty() ? "the game" : "version " + update.found();
    String said = "Took " + to + " in as the unmodded game";
    workspaces.changeLibrary(
        workspace,
        said,
        LibraryChange.BESIDE,
        () -> {
          former.keep(workspace, replaced);
          return save(workspace, update, loose, packed);
        });
    // by the next update they may be overwritten
    former.keep(workspace, former.asTheyAre(workspaces.get(workspace)));
    return null;
  }

  private long save(long workspace, Update update, List<Own> loose, List<Packed> packed) {
    db.keep(
        workspace,
        update.known(),
        count(update, Kind.CHANGED),
        count(update, Kind.ADDED),
        count(update, Kind.GONE));
    String before = update.found().isEmpty() ? "the game was updated" : "game " + update.found();
    String name = "Before " + before;
    db.addPoints(workspace, name.substring(0, Math.min(LONGEST_NAME, name.length())));
    List<String> paths = update.change().files().stream().map(Changed::path).toList();
    own.forget(workspace, paths);
    own.add(workspace, loose, packed);
    db.setVersion(workspace, update.found().isEmpty() ? null : update.found());
    return 0;
  }

  private static int count(Update update, Kind kind) {
    return (int) update.change().files().stream().filter(c -> c.kind() == kind).count();
  }
}
