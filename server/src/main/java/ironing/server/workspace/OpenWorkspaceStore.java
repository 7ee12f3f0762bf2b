package ironing.server.workspace;

import com.fasterxml.jackson.core.type.TypeReference;
import ironing.core.IroningException;
import ironing.core.format.PluginFormats;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Picture;
import ironing.core.picture.PluginPaths;
import ironing.core.picture.Sections;
import ironing.core.workspace.Bytes;
import ironing.core.workspace.FilePlaces;
import ironing.core.workspace.Memo;
import ironing.core.workspace.Mod;
import ironing.core.workspace.PluginTables;
import ironing.core.workspace.Workspace;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaceMapper.ModRow;
import ironing.server.workspace.OpenWorkspaceMapper.PlaceRow;
import ironing.server.workspace.OpenWorkspaceMapper.ProfileRow;
import ironing.server.workspace.OpenWorkspaceMapper.WorkspaceRow;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import org.springframework.stereotype.Component;

/** From the database to an open workspace, and an arrangement back into the database. */
@Component
class OpenWorkspaceStore {
  // the file in play, beside the holdings
  private static final long BYTES_OF_A_PATH = 4;
  // its row, its card and its layer
  private static final long BYTES_OF_A_MOD = 4_000;

  private final OpenWorkspaceMapper db;
  private final FileGatherer gatherer;
  private final PluginTables tables;
  private final FormerFiles former;
  private final Folders folders;
  private final Memory memory;
  private final Json json;

  OpenWorkspaceStore(
      OpenWorkspaceMapper db,
      FileGatherer gatherer,
      FormerFiles former,
      Folders folders,
      Memory memory,
      PluginFormats formats,
      Json json) {
    this.tables = new PluginTables(formats);
    this.db = db;
    this.gatherer = gatherer;
    this.folders = folders;
    this.memory = memory;
    this.former = former;
    this.json = json;
  }

  GameDefinition definition(long workspace) {
    return definition(row(workspace));
  }

  Site site(long workspace) {
    WorkspaceRow row = row(workspace);
    return new Site(workspace, roots(row), definition(row));
  }

  private static GameDefinition definition(WorkspaceRow row) {
    return GameDefinitionReader.read("game.yaml of " + row.title(), row.definition()).value();
  }

  private GameRoots roots(WorkspaceRow row) {
    Map<String, Path> places = new TreeMap<>();
    for (PlaceRow p : db.places(row.id())) places.put(p.place(), Path.of(p.folder()));
    return GameRoots.of(Path.of(row.gameFolder()), places);
  }

  private WorkspaceRow row(long workspace) {
    WorkspaceRow row = db.workspace(workspace);
    if (row != null) return row;
    throw IroningException.of(
        "not-found",
        "Workspace " + workspace,
        "There is no such workspace.",
        "Choose one from the list.");
  }

  /**
   * An open workspace with what the next is made from.
   *
   * @param definition its text
   * @param cards by mod, but for those that cannot be read: these are told again
   */
  record Loaded(
      OpenWorkspace open,
      String definition,
      FileGatherer.Gathered gathered,
      Map<Long, Carded> cards) {
    /** About how much memory it takes. */
    long bytes() {
      Holdings holdings = gathered.files().holdings();
      return holdings.bytes()
          + BYTES_OF_A_PATH * holdings.pathCount()
          + BYTES_OF_A_MOD * cards.size()
          + open.value().memo().bytes();
    }

    Loaded with(OpenWorkspace now) {
      return new Loaded(now, definition, gathered, cards);
    }
  }

  /**
   * Reads a workspace. Cost: all its files; where it is known from before, those that have changed
   * since.
   *
   * @param before the workspace as it was; null where it is not known
   */
  Loaded load(long workspace, Loaded before) {
    WorkspaceRow row = row(workspace);
    // another definition makes another workspace of it
    Loaded same = before != null && before.definition().equals(row.definition()) ? before : null;
    GameDefinition game = same == null ? definition(row) : same.open().game();
    GameRoots roots = roots(row);
    ProfileRow profile = db.profile(workspace);
    TolerantReader reader = new TolerantReader(json);
    CompletableFuture<Map<Long, Carded>> cards =
        CompletableFuture.supplyAsync(
            () -> cards(reader, db.mods(workspace), same == null ? Map.of() : same.cards()));
    FileGatherer.Gathered gathered =
        gatherer.gather(workspace, game.pathCase(), same == null ? null : same.gathered());
    GatheredFiles files = gathered.files();
    Holdings holdings = files.holdings();
    boolean grown = same != null && holdings.isFrom(same.open().picture().holdings());
    PluginPaths plugins =
        grown ? same.open().picture().pluginPathsOf(holdings) : PluginPaths.of(game, holdings);
    boolean text = game.hasDocumentPlugins();
    Map<Long, Mod> mods =
        mods(cards.join(), files, text ? Map.of() : pluginNames(holdings, plugins));
    if (text)
      mods =
          mods(
              cards.join(),
              files,
              documentNames(game, mods, bytes(workspace, roots), holdings, plugins));
    Arrangement arrangement = arrangement(reader, profile, row, mods);
    FilePlaces places = new FilePlaces(mods, bytes(workspace, roots), tables);
    Picture.Headers headers = places.headers(game);
    Picture picture =
        grown
            ? same.open().picture().over(holdings, plugins, arrangement, headers)
            : Picture.of(game, holdings, plugins, arrangement, headers);
    GatheredFiles.Of own = files.of(Holdings.GAME);
    OpenWorkspace open =
        new OpenWorkspace(
            workspace,
            row.title(),
            roots,
            profile.id(),
            profile.name(),
            row.revision(),
            new OpenWorkspace.Own(own.files(), own.sizeBytes()),
            reader.unreadable(),
            new Workspace(
                game,
                Optional.ofNullable(row.gameVersion()),
                places,
                former.of(workspace, game),
                picture,
                same == null
                    ? Memo.telling(() -> memory.weigh(workspace))
                    : same.open().value().memo()));
    Map<Long, Carded> readable = new LinkedHashMap<>(cards.join());
    reader.unreadable().forEach(u -> readable.remove(u.mod()));
    return new Loaded(open, row.definition(), gathered, readable);
  }

  private Bytes bytes(long workspace, GameRoots roots) {
    return new Bytes() {
      @Override
      public GameRoots roots() {
        return roots;
      }

      @Override
      public Path modFolder(String folder) {
        return folders.mods(workspace).resolve(folder);
      }

      @Override
      public byte[] former(String sha256) throws IOException {
        return former.read(workspace, sha256);
      }
    };
  }

  /** By mod the names of the plugins of text that it brings; those that can be read. */
  private Map<Long, List<String>> documentNames(
      GameDefinition game,
      Map<Long, Mod> mods,
      Bytes bytes,
      Holdings holdings,
      PluginPaths plugins) {
    Picture.Headers headers = new FilePlaces(mods, bytes, tables).headers(game);
    Map<Long, List<String>> names = new HashMap<>();
    plugins
        .byMod(holdings)
        .forEach(
            (mod, files) -> {
              if (mod == Holdings.GAME || mods.containsKey(mod))
                names.put(
                    mod, files.stream().map(f -> headers.document(f).name()).sorted().toList());
            });
    return names;
  }

  /** By mod the file names of the plugins that it brings. */
  private static Map<Long, List<String>> pluginNames(Holdings holdings, PluginPaths plugins) {
    Map<Long, List<String>> names = new HashMap<>();
    for (int p : plugins.plugins()) {
      for (Holdings.Source s : holdings.sourcesOf(p)) {
        if (s.pack().isEmpty())
          names
              .computeIfAbsent(s.mod(), m -> new ArrayList<>())
              .add(GamePath.name(holdings.spellingAt(holdings.slotOf(p, s.id()))));
      }
    }
    names.values().forEach(n -> n.sort(null));
    return names;
  }

  /**
   * A profile's arrangement with the mods of today: those that are gone are left out; a mod that
   * has no layer in it yet gets one on top, switched off.
   */
  private static Arrangement arrangement(
      TolerantReader reader, ProfileRow profile, WorkspaceRow row, Map<Long, Mod> mods) {
    Arrangement told =
        reader
            .parts(profile)
            .on(Arrangement.EMPTY)
            .withRules(reader.rules(row.rules()))
            .withLoadRules(reader.loadRules(row.loadRules()));
    return fitted(told, List.of(), mods);
  }

  /**
   * An arrangement of another day with the mods of today: gone ones left out; of the versions of
   * one mod, the one of that day is taken; what has no layer in it stands where it stands today,
   * above the rest, or else on top and off.
   */
  static Arrangement fitted(Arrangement told, List<Layer> today, Map<Long, Mod> mods) {
    List<Layer> layers = new ArrayList<>();
    Set<Long> placed = new HashSet<>();
    for (List<Layer> list : List.of(told.layers(), today)) {
      for (Layer l : list) {
        Mod m = mods.get(l.mod());
        if (m != null && placed.add(m.strand())) layers.add(l);
      }
    }
    Map<Long, Long> newest = new TreeMap<>();
    for (Mod m : mods.values())
      if (!placed.contains(m.strand())) newest.merge(m.strand(), m.id(), Math::max);
    newest.values().forEach(mod -> layers.add(new Layer(mod, false)));
    return told.withLayers(Sections.settled(layers));
  }

  /** A mod's row with its card as it was read. */
  record Carded(ModRow row, ModCard card) {}

  // reading a card costs more than comparing its text
  private static Map<Long, Carded> cards(
      TolerantReader reader, List<ModRow> rows, Map<Long, Carded> known) {
    Map<Long, Carded> cards = new LinkedHashMap<>();
    for (ModRow m : rows) {
      Carded before = known.get(m.id());
      cards.put(
          m.id(),
          before != null && before.row().equals(m) ? before : new Carded(m, reader.card(m)));
    }
    return cards;
  }

  private static Map<Long, Mod> mods(
      Map<Long, Carded> cards, GatheredFiles files, Map<Long, List<String>> plugins) {
    Map<Long, Mod> mods = new LinkedHashMap<>();
    for (Carded c : cards.values()) {
      ModRow m = c.row();
      GatheredFiles.Of f = files.of(m.id());
      mods.put(
          m.id(),
          new Mod(
              m.id(),
              m.strandId(),
              m.kind(),
              m.folder(),
              c.card(),
              m.archiveName(),
              m.installedAt(),
              f.files(),
              f.sizeBytes(),
              List.copyOf(plugins.getOrDefault(m.id(), List.of())),
              Map.copyOf(f.edited())));
    }
    return mods;
  }

  /** An open workspace as it is under the profile in use now. */
  OpenWorkspace profileOf(OpenWorkspace before) {
    WorkspaceRow row = row(before.workspace());
    ProfileRow profile = db.profile(before.workspace());
    TolerantReader reader = new TolerantReader(json);
    Arrangement next = arrangement(reader, profile, row, before.mods());
    List<Unreadable> unreadable = new ArrayList<>(reader.unreadable());
    before.unreadable().stream().filter(u -> u.mod() != null).forEach(unreadable::add);
    return before.with(
        profile.id(),
        profile.name(),
        List.copyOf(unreadable),
        before.value().with(before.picture().rearranged(next)),
        row.revision());
  }

  /** A layer on top of all, switched on; nothing when the mod has its layer already. */
  void addTopLayer(ProfileRow profile, long mod, boolean on) {
    TolerantReader reader = new TolerantReader(json);
    Arrangement told = reader.parts(profile).on(Arrangement.EMPTY);
    if (told.layers().stream().anyMatch(l -> l.mod() == mod)) return;
    List<Layer> layers = new ArrayList<>(told.layers());
    layers.add(new Layer(mod, on));
    db.setArrangement(profile.id(), written(reader, told, told.withLayers(layers)));
  }

  /** Writes what could be read in the place of what could not. Inside the caller's transaction. */
  void drop(OpenWorkspace open, Unreadable gone) {
    Arrangement a = open.picture().arrangement();
    if (gone.mod() != null) db.setCard(gone.mod(), json.write(open.mods().get(gone.mod()).card()));
    else if (gone.key().equals(TolerantReader.RULES))
      db.setRules(open.workspace(), json.write(a.rules()));
    else if (gone.key().equals(TolerantReader.LOAD_RULES))
      db.setLoadRules(open.workspace(), json.write(a.loadRules()));
    else db.setArrangement(open.profile(), json.write(Parts.of(a)));
  }

  /**
   * Writes what differs from the arrangement of an open workspace. A part that could not be read
   * stays as it is written until another takes its place. Inside the caller's transaction.
   */
  void write(OpenWorkspace before, Arrangement next) {
    Arrangement present = before.picture().arrangement();
    TolerantReader reader = new TolerantReader(json);
    if (!next.rules().equals(present.rules())) {
      if (isUnreadable(before, TolerantReader.RULES)) reader.rules(row(before.workspace()).rules());
      List<Object> rules = new ArrayList<>(next.rules());
      rules.addAll(reader.unreadRules());
      db.setRules(before.workspace(), json.write(rules));
    }
    if (!next.loadRules().equals(present.loadRules()))
      db.setLoadRules(before.workspace(), json.write(next.loadRules()));
    if (next.withRules(present.rules()).withLoadRules(present.loadRules()).equals(present)) return;
    if (isUnreadable(before, TolerantReader.ARRANGEMENT))
      reader.parts(db.profile(before.workspace()));
    db.setArrangement(before.profile(), written(reader, present, next));
  }

  private static boolean isUnreadable(OpenWorkspace open, String key) {
    return open.unreadable().stream().anyMatch(u -> u.key().equals(key));
  }

  private String written(TolerantReader reader, Arrangement present, Arrangement next) {
    if (reader.unreadParts().isEmpty()) return json.write(Parts.of(next));
    TypeReference<Map<String, Object>> parts = new TypeReference<>() {};
    Map<String, Object> all = json.read(json.write(Parts.of(next)), parts);
    Set<String> changed = json.read(json.write(Parts.differing(next, present)), parts).keySet();
    reader
        .unreadParts()
        .forEach(
            (name, text) -> {
              if (!changed.contains(name)) all.put(name, text);
            });
    return json.write(all);
  }
}
