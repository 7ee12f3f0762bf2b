package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.documents.DocumentReader;
import ironing.core.documents.DocumentWriter;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.records.RecordIndex;
import ironing.server.library.ModStore;
import ironing.server.library.ModStore.BuiltFile;
import ironing.server.library.ModStore.LeftOutEntry;
import ironing.server.library.ModStore.Made;
import ironing.server.library.ModStore.Place;
import ironing.server.mends.MadeOf.Ingredients;
import ironing.server.mends.MendMapper.MendRow;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.LongConsumer;
import org.springframework.stereotype.Component;

/** Writes mends: their files into the library, and beside them what they are and were made of. */
@Component
class MendStore {
  private final MendMapper db;
  private final ModStore mods;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final Json json;

  MendStore(MendMapper db, ModStore mods, OpenWorkspaces workspaces, Folders folders, Json json) {
    this.db = db;
    this.mods = mods;
    this.workspaces = workspaces;
    this.folders = folders;
    this.json = json;
  }

  /**
   * A mend as it is kept.
   *
   * @param mod its number in the library
   */
  record Kept(
      long mod,
      String kind,
      String plugin,
      int records,
      String builtAt,
      Recipe recipe,
      Ingredients ingredients,
      MadeOf made) {
    boolean isPatch() {
      return kind.equals("patch");
    }

    boolean isMerge() {
      return kind.equals("merge");
    }

    boolean isOfTool() {
      return kind.equals(ToolOutput.KIND);
    }

    boolean isCombined() {
      return kind.equals(CombinedFiles.KIND);
    }
  }

  /** The mends of the profile in use that are in the library. */
  List<Kept> of(OpenWorkspace open) {
    return db.of(open.profile()).stream()
        .filter(r -> open.mods().containsKey(r.modId()))
        .map(this::kept)
        .toList();
  }

  private Kept kept(MendRow r) {
    return new Kept(
        r.modId(),
        r.kind(),
        r.plugin(),
        r.records(),
        r.builtAt().toString(),
        json.read(r.recipe(), Recipe.class),
        json.read(r.ingredients(), Ingredients.class),
        json.read(r.made(), MadeOf.class));
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  Kept require(OpenWorkspace open, long mod) {
    return of(open).stream()
        .filter(k -> k.mod() == mod)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Mend " + mod,
                    "There is no such mend in this profile.",
                    "Choose one from the list of mends."));
  }

  /**
   * What is written of a mend.
   *
   * @param files game path to bytes; the plugin of the mend is among them
   * @param copied game path to a file on disk that is copied there
   * @param beside what lies beside them and is not deployed, by its name
   */
  record Writing(
      String kind,
      ModCard card,
      String plugin,
      Map<String, byte[]> files,
      Map<String, Path> copied,
      Map<String, byte[]> beside,
      int records,
      Recipe recipe,
      Ingredients ingredients,
      MadeOf made) {
    Writing(
        String kind,
        ModCard card,
        String plugin,
        Map<String, byte[]> files,
        Map<String, byte[]> beside,
        int records,
        Recipe recipe,
        Ingredients ingredients,
        MadeOf made) {
      this(kind, card, plugin, files, Map.of(), beside, records, recipe, ingredients, made);
    }
  }

  /** A new mend; {@code on} tells whether its layer is switched on at once. */
  long add(OpenWorkspace open, Writing w, boolean on) throws IOException {
    try (ModStore.WorkFolder work = mods.workFolder(open.workspace())) {
      Path built = write(work.path(), w);
      Place place = on ? new Place.OnTop() : new Place.OnTopOff();
      return mods.add(open.workspace(), made(w, built), place, built, row(open, w));
    }
  }

  /** A new mend, and a step of its own, which can be undone, that switches its layer on. */
  long addAndUse(OpenWorkspace open, Writing w) throws IOException {
    long mod = add(open, w, false);
    workspaces.change(
        open.workspace(),
        Expected.ANY,
        "Made “" + w.card().name() + "” and switched it on",
        b -> {
          Arrangement a = b.picture().arrangement();
          return a.withLayers(
              a.layers().stream().map(l -> l.mod() == mod ? l.withOn(true) : l).toList());
        });
    return mod;
  }

  /**
   * Gives a mend new content; its layer, its switch and its place stay. One step, which can be
   * undone.
   */
  void replace(OpenWorkspace open, long mod, Writing w, String said) throws IOException {
    try (ModStore.WorkFolder work = mods.workFolder(open.workspace())) {
      Path built = write(work.path(), w);
      mods.replace(open.workspace(), mod, made(w, built), built, said, row(open, w));
    }
  }

  /** The same for what another program wrote: no step, since running it is not undone. */
  void replaceForGood(OpenWorkspace open, long mod, Writing w, String said) throws IOException {
    try (ModStore.WorkFolder work = mods.workFolder(open.workspace())) {
      Path built = write(work.path(), w);
      mods.replaceForGood(open.workspace(), mod, made(w, built), built, said, row(open, w));
    }
  }

  private static Path write(Path work, Writing w) throws IOException {
    Path built = work.resolve("mod");
    for (Map.Entry<String, byte[]> f : w.files().entrySet())
      put(content(built, f.getKey()), f.getValue());
    for (Map.Entry<String, Path> f : w.copied().entrySet()) {
      Path to = content(built, f.getKey());
      Files.createDirectories(to.getParent());
      Files.copy(f.getValue(), to);
    }
    for (Map.Entry<String, byte[]> f : w.beside().entrySet())
      put(built.resolve("papers").resolve(f.getKey()), f.getValue());
    return built;
  }

  private static Path content(Path built, String path) {
    return GamePath.resolve(built.resolve("content"), path);
  }

  private static void put(Path file, byte[] bytes) throws IOException {
    Files.createDirectories(file.getParent());
    Files.write(file, bytes);
  }

  private static Made made(Writing w, Path built) throws IOException {
    List<BuiltFile> files = new ArrayList<>();
    w.files()
        .forEach(
            (path, bytes) ->
                files.add(new BuiltFile("", path, "", bytes.length, ContentHash.of(bytes))));
    for (String path : w.copied().keySet()) {
      Path file = content(built, path);
      files.add(new BuiltFile("", path, "", Files.size(file), ContentHash.of(file)));
    }
    List<LeftOutEntry> beside = new ArrayList<>();
    w.beside()
        .forEach(
            (name, bytes) ->
                beside.add(new LeftOutEntry(name, "to be read here", bytes.length, true, false)));
    return Made.generated(w.kind(), w.card(), "Ironing made it", files, beside);
  }

  private LongConsumer row(OpenWorkspace open, Writing w) {
    return mod ->
        db.put(
            mod,
            open.profile(),
            w.kind(),
            w.plugin(),
            w.records(),
            json.write(w.ingredients()),
            json.write(w.recipe()),
            json.write(w.made()));
  }

  void setRecipe(long mod, Recipe recipe) {
    db.setRecipe(mod, json.write(recipe));
  }

  /** The version of a mend that is made anew: one more than before. */
  static String nextVersion(OpenWorkspace open, Optional<Kept> before) {
    return before
        .map(k -> open.mods().get(k.mod()).card().version())
        .filter(v -> v.matches("\\d{1,8}"))
        .map(v -> Integer.toString(Integer.parseInt(v) + 1))
        .orElse("1");
  }

  /** Whether a mend's layer is on. */
  static boolean isOn(OpenWorkspace open, long mod) {
    return open.picture().arrangement().layers().stream().anyMatch(l -> l.mod() == mod && l.on());
  }

  /** The content of a mend's plugin as it is in the library now; empty when it is gone. */
  static String contentNow(OpenWorkspace open, Kept k) {
    Holdings holdings = open.picture().holdings();
    if (open.game().hasDocumentPlugins() && k.isPatch()) {
      Map<String, String> sums = new TreeMap<>();
      for (int path : pathsOf(open, k))
        sums.put(holdings.path(path), holdings.shaAt(holdings.slotOfMod(path, k.mod())));
      return sum(sums);
    }
    int path = holdings.idOf(open.game().pluginPath(k.plugin()));
    int slot = path < 0 ? -1 : holdings.slotOfMod(path, k.mod());
    return slot < 0 ? "" : holdings.shaAt(slot);
  }

  // the paths of what a mend's mod holds
  private static List<Integer> pathsOf(OpenWorkspace open, Kept k) {
    Holdings holdings = open.picture().holdings();
    return holdings.sourcesOfMod(k.mod()).stream()
        .flatMapToInt(s -> Arrays.stream(holdings.pathsOf(s.id())))
        .boxed()
        .toList();
  }

  /** The game paths of what a mend's mod holds. */
  static List<String> paths(OpenWorkspace open, Kept k) {
    return pathsOf(open, k).stream().map(open.picture().holdings()::path).toList();
  }

  /** What files of a mend are known by: of one file its hash. */
  static String content(Map<String, byte[]> files) {
    if (files.size() == 1) return ContentHash.of(files.values().iterator().next());
    Map<String, String> sums = new TreeMap<>();
    files.forEach((path, bytes) -> sums.put(path, ContentHash.of(bytes)));
    return sum(sums);
  }

  private static String sum(Map<String, String> sums) {
    StringBuilder lines = new StringBuilder();
    sums.forEach((path, sha) -> lines.append(sha).append("  ").append(path).append('\n'));
    return ContentHash.of(lines.toString());
  }

  /** The records of a patch of text as it lies in the library. */
  RecordTable ofText(OpenWorkspace open, Kept k) {
    Map<String, byte[]> files = new TreeMap<>();
    Holdings holdings = open.picture().holdings();
    for (int path : pathsOf(open, k)) {
      String spelled = holdings.spellingAt(holdings.slotOfMod(path, k.mod()));
      try {
        files.put(holdings.path(path), Files.readAllBytes(open.value().locate(k.mod(), spelled)));
      } catch (IOException e) {
        throw RecordIndex.unreadable(k.plugin(), e);
      }
    }
    return read(open, k.plugin(), files);
  }

  /**
   * The records of a patch of text.
   *
   * @param files by game path
   */
  static RecordTable read(OpenWorkspace open, String plugin, Map<String, byte[]> files) {
    String manifest = open.game().pluginPath(plugin), folder = GamePath.folder(manifest);
    List<PluginFiles.Part> parts = new ArrayList<>();
    files.forEach(
        (path, bytes) -> {
          String below = folder.isEmpty() ? path : path.substring(folder.length() + 1);
          PluginFiles.Part part = new PluginFiles.Part(below, 0, path, ContentHash.of(bytes));
          if (path.equals(manifest)) parts.add(0, part);
          else parts.add(part);
        });
    try {
      return new DocumentReader(open.game(), open.shapes())
          .read(new PluginFiles(manifest, parts), p -> files.get(p.spelled()));
    } catch (IOException e) {
      throw RecordIndex.unreadable(plugin, e);
    }
  }

  /** The bytes of a mend's plugin as they lie in the library. */
  byte[] plugin(OpenWorkspace open, Kept k) {
    Path mod = folders.mods(open.workspace()).resolve(open.mods().get(k.mod()).folder());
    Path file = mod.resolve("content").resolve(open.game().pluginPath(k.plugin()));
    try {
      return Files.readAllBytes(file);
    } catch (IOException e) {
      throw RecordIndex.unreadable(k.plugin(), e);
    }
  }

  /** A file name that the game takes for a plugin and that nobody has. */
  static String freeName(OpenWorkspace open, String wished) {
    if (open.game().hasDocumentPlugins()) return freeFolder(open, DocumentWriter.slug(wished));
    String match = open.game().plugins().orElseThrow().match().toString();
    if (!match.startsWith("*.")) {
      throw IroningException.of(
          "patch-unnameable",
          match,
          "Ironing cannot make up a plugin’s name for this pattern.",
          "Write the pattern in the game’s definition like “*.plug”.");
    }
    Holdings holdings = open.picture().holdings();
    String plain = wished.replaceAll("[\\\\/:*?\"<>|\\p{Cntrl}]", " ").strip();
    for (int i = 1; ; i++) {
      String name = plain + (i == 1 ? "" : " " + i) + match.substring(1);
      if (holdings.idOf(open.game().pluginPath(name)) < 0) return name;
    }
  }

  // a patch never takes a folder that is there, nor a name that somebody has
  private static String freeFolder(OpenWorkspace open, String slug) {
    Holdings holdings = open.picture().holdings();
    Set<String> taken = new HashSet<>();
    open.mods().values().forEach(m -> m.plugins().forEach(p -> taken.add(PathCase.fold(p))));
    open.picture().loadOrder().entries().forEach(e -> taken.add(PathCase.fold(e.name())));
    Set<String> folders = new HashSet<>();
    for (int p = 0; p < holdings.pathCount(); p++)
      for (String f = holdings.path(p); !f.isEmpty(); f = GamePath.folder(f))
        folders.add(open.game().pathCase().key(f));
    for (int i = 1; ; i++) {
      String name = slug + (i == 1 ? "" : "-" + i);
      String folder = GamePath.folder(open.game().pluginPath(name));
      if (!taken.contains(PathCase.fold(name))
          && !folders.contains(open.game().pathCase().key(folder))) return name;
    }
  }

  static void requirePlugins(OpenWorkspace open) {
    boolean written =
        open.game()
            .plugins()
            .filter(p -> p.documents().isEmpty() || p.documents().get().patch().isPresent())
            .isPresent();
    if (written) return;
    if (open.game().hasDocumentPlugins())
      throw IroningException.of(
          "no-plugins",
          open.title(),
          "The game’s definition does not say how a patch is written.",
          "Add patch to plugins in its game.yaml, or settle files in Layers.");
    throw IroningException.of(
        "no-plugins",
        open.title(),
        "This game has no plugins, so nothing can be patched.",
        "Settle files in Layers instead.");
  }
}
