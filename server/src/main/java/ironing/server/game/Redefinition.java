package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.drift.Drift.Own;
import ironing.core.format.PluginFormats;
import ironing.core.game.DefinitionPreview;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Packed;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.yaml.YamlDocument;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.Relayout;
import ironing.server.library.Relayout.Otherwise;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.GameFiles;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** Gives a workspace another definition of its game, after telling what that changes. */
@Component
class Redefinition {
  private final WorkspaceMapper db;
  private final OpenWorkspaces workspaces;
  private final GameFiles own;
  private final Relayout relayout;
  private final Places places;
  private final PluginFormats formats;
  private final PlaceChange placeChange;
  private final FolderUse use;
  private final Jobs jobs;

  Redefinition(
      WorkspaceMapper db,
      OpenWorkspaces workspaces,
      GameFiles own,
      Relayout relayout,
      Places places,
      PluginFormats formats,
      PlaceChange placeChange,
      FolderUse use,
      Jobs jobs) {
    this.db = db;
    this.workspaces = workspaces;
    this.own = own;
    this.relayout = relayout;
    this.places = places;
    this.formats = formats;
    this.placeChange = placeChange;
    this.use = use;
    this.jobs = jobs;
  }

  /**
   * What another definition would change.
   *
   * @param mods those that would be installed otherwise
   * @param more game paths that mods whose layers are on would bring anew
   * @param gone game paths that they would bring no longer
   * @param newPlugins file names of plugins of such paths, that the load order would gain
   * @param gonePlugins those that it would lose
   * @param places that it names and that are not known of this game yet
   */
  record Look(
      GameDefinition game,
      List<Problem> warnings,
      DefinitionPreview preview,
      List<Otherwise> mods,
      Set<String> more,
      Set<String> gone,
      Set<String> newPlugins,
      Set<String> gonePlugins,
      List<Places.Offer> places) {}

  String text(long workspace) {
    workspaces.game(workspace);
    return db.definition(workspace);
  }

  /**
   * Looks; changes nothing.
   *
   * @throws IroningException for all that is wrong with the definition
   */
  Look look(long workspace, String text) {
    OpenWorkspace open = workspaces.get(workspace);
    YamlDocument.Read<GameDefinition> read = read(open, text);
    GameDefinition next = read.value();
    List<String> paths = own.loose(workspace).stream().map(Own::path).toList();
    List<Otherwise> mods = relayout.under(open, next);
    Set<String> more = new TreeSet<>(), gone = new TreeSet<>();
    Set<Long> on = new TreeSet<>();
    open.picture().arrangement().layers().stream()
        .filter(l -> l.on())
        .forEach(l -> on.add(l.mod()));
    for (Otherwise o : mods) {
      if (!on.contains(o.mod())) continue;
      more.addAll(o.more());
      gone.addAll(o.gone());
    }
    Set<String> newPlugins = new TreeSet<>(), gonePlugins = new TreeSet<>();
    for (String p : plugins(open, open.game(), gone, Set.of())) gonePlugins.add(GamePath.name(p));
    for (String p : plugins(open, next, more, gone)) newPlugins.add(GamePath.name(p));
    Set<String> both = new TreeSet<>(newPlugins);
    both.retainAll(gonePlugins);
    newPlugins.removeAll(both);
    gonePlugins.removeAll(both);
    DocumentsFound found =
        DocumentsFound.in(
            next, paths, path -> Files.readAllBytes(open.value().locate(Holdings.GAME, path)));
    List<Problem> warnings = new ArrayList<>(warnings(open, next, read.warnings()));
    warnings.addAll(found.warnings());
    return new Look(
        next,
        List.copyOf(warnings),
        DefinitionPreview.of(next, paths, Optional.empty()).with(found.parts()),
        mods,
        more,
        gone,
        newPlugins,
        gonePlugins,
        places.offers(next, open.gameFolder()).stream()
            .filter(o -> !open.roots().places().containsKey(o.place().id()))
            .toList());
  }

  /** Of some paths those that are plugins, and those in play that only one definition calls so. */
  private static Set<String> plugins(
      OpenWorkspace open, GameDefinition game, Set<String> paths, Set<String> without) {
    Set<String> found = new TreeSet<>();
    for (String p : paths) if (game.isPlugin(p)) found.add(p);
    Holdings holdings = open.picture().holdings();
    boolean isNow = game.equals(open.game());
    for (int id = 0; !isNow && id < holdings.pathCount(); id++) {
      int slot = open.picture().standing().inPlay(id);
      String path = holdings.path(id);
      boolean loose = slot >= 0 && holdings.holderAt(slot).pack().isEmpty();
      if (loose && game.isPlugin(path) && !open.game().isPlugin(path) && !without.contains(path))
        found.add(path);
    }
    return found;
  }

  private static List<Problem> warnings(
      OpenWorkspace open, GameDefinition next, List<Problem> read) {
    List<Problem> all = new ArrayList<>(read);
    if (open.game().hasOwnSaves() && !next.hasOwnSaves())
      all.add(
          new Problem(
              "saves-shared",
              "The saves",
              "By this definition profiles have no saves of their own any more.",
              "Those of the profiles that are not in use stay in .ironing/saves of the game folder."));
    return all;
  }

  private YamlDocument.Read<GameDefinition> read(OpenWorkspace open, String text) {
    YamlDocument.Read<GameDefinition> read = GameDefinitionReader.read("the definition", text);
    formats.check(read.value());
    if (Files.isDirectory(open.gameFolder()))
      GameFolder.requireGame(read.value(), open.gameFolder());
    return read;
  }

  /**
   * Takes another definition, and installs anew what it installs otherwise. A crash leaves the
   * definition of before, or the new one with some mods still as they were: the preview of the same
   * definition names those, and taking it again goes on with them.
   *
   * @param named folders of places that are new, by their ids
   */
  Job change(long workspace, String text, Map<String, String> named) {
    OpenWorkspace open = workspaces.get(workspace);
    GameDefinition next = read(open, text).value();
    GameFolder.requireFolder(open.gameFolder());
    placeChange.requireSettled(open, next, named);
    use.requireStill(open);
    return jobs.start(
        workspace,
        Lane.GAME,
        "definition",
        "Change the definition of " + next.title(),
        p -> changeNow(workspace, text, named, p));
  }

  private Long changeNow(
      long workspace, String text, Map<String, String> named, Jobs.Progress progress) {
    OpenWorkspace open = workspaces.get(workspace);
    GameDefinition next = read(open, text).value();
    List<Otherwise> mods = relayout.under(open, next);
    PlaceChange.Change change = placeChange.of(open, next, named, progress);
    List<Packed> packed = packed(open, next);
    String version =
        GameFolder.version(next, path -> open.value().locate(Holdings.GAME, path)).orElse(null);
    workspaces.changeLibrary(
        workspace,
        "Changed the definition of the game",
        LibraryChange.BESIDE,
        () -> {
          db.setDefinition(workspace, text, next.title(), version);
          placeChange.write(workspace, change);
          own.replacePacked(workspace, packed);
          return 0;
        });
    List<Problem> problems = new ArrayList<>();
    for (int i = 0; i < mods.size(); i++) {
      progress.at(i, mods.size(), "mods");
      if (mods.get(i).asIs().isPresent()) continue;
      try {
        relayout.again(workspace, mods.get(i).mod(), (done, total, unit) -> {});
      } catch (IroningException e) {
        problems.addAll(e.problems());
      }
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
    return null;
  }

  private List<Packed> packed(OpenWorkspace open, GameDefinition next) {
    List<Packed> packed = new ArrayList<>();
    for (Own o : own.loose(open.workspace()))
      if (next.isPack(o.path()))
        packed.addAll(
            GameFolder.packContent(next, o.path(), open.value().locate(Holdings.GAME, o.path())));
    return packed;
  }
}
