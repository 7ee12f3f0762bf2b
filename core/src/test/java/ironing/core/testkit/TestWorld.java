package ironing.core.testkit;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.documents.DocumentReader;
import ironing.core.format.PluginFormats;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordIndex;
import ironing.core.workspace.Bytes;
import ironing.core.workspace.FilePlaces;
import ironing.core.workspace.Memo;
import ironing.core.workspace.Mod;
import ironing.core.workspace.PluginTables;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** A small game and mods in memory: files as text, plugins in their text form. */
public final class TestWorld {
  /** Plugins, packs, a list, one file that the game writes to; paths compare without case. */
  public static final String DEFINITION =
      """
      format: ironing/game@1
      id: test-game
      title: Test Game
      pathCase: insensitive
      mounts:
        - { id: data, at: data, holds: [ "textures/", "tables/", "*.plug", "*.crate" ] }
        - { id: settings, at: settings, holds: [ "*.ini" ] }
      protect: [ "saves/**" ]
      writable: [ "settings/*.ini" ]
      packs: { match: "*.crate", mount: data }
      plugins:
        match: "*.plug"
        mount: data
        own: [ "Base.plug" ]
        slots: { total: 8, reserved: 1 }
        list: { file: settings/list.txt, on: "use {name}", off: "skip {name}" }
      records:
        vessel:
          title: Vessel
          label: name
          fields:
            name: { kind: text }
            speed: { kind: number, unit: kn }
            crew: { kind: set, of: { kind: ref } }
            hold: { kind: rows, key: goods, fields: { goods: { kind: ref }, tonnes: { kind: number } } }
            mesh: { kind: path }
            route: { kind: sequence, of: { kind: ref } }
            note: { kind: text, holdsIds: true }
      """;

  public static final GameDefinition GAME = game(DEFINITION);

  private final GameDefinition game;
  private final Map<Long, Map<String, byte[]>> loose = new TreeMap<>();
  private final Map<Long, Map<String, Map<String, byte[]>>> packed = new LinkedHashMap<>();
  private final Map<String, byte[]> bySha = new HashMap<>();
  private final List<Arrangement.Layer> layers = new ArrayList<>();
  private final List<Wish> wishes = new ArrayList<>();
  private final Set<Long> mends = new HashSet<>();

  public TestWorld() {
    this(GAME);
  }

  public TestWorld(GameDefinition game) {
    this.game = game;
    loose.put(Holdings.GAME, new LinkedHashMap<>());
  }

  public static GameDefinition game(String yaml) {
    return GameDefinitionReader.read("game.yaml", yaml).value();
  }

  /** The records of plugins in memory, read as the test game describes them. */
  public static RecordIndex index(List<Plugin> order, Set<String> patches) {
    Shapes shapes = Shapes.of(GAME);
    return RecordIndex.of(
        order.stream()
            .map(p -> RecordIndex.Source.of(p, shapes, patches.contains(PathCase.fold(p.name()))))
            .toList());
  }

  /** A file of the game (0) or of a mod; a mod gets its layer, switched on, at its first file. */
  public TestWorld file(long mod, String path, String content) {
    return file(mod, path, content.getBytes(StandardCharsets.UTF_8));
  }

  public TestWorld file(long mod, String path, byte[] content) {
    layer(mod);
    loose.computeIfAbsent(mod, m -> new LinkedHashMap<>()).put(path, content);
    bySha.put(ContentHash.of(content), content);
    return this;
  }

  public TestWorld packed(long mod, String pack, String path, String content) {
    layer(mod);
    loose
        .computeIfAbsent(mod, m -> new LinkedHashMap<>())
        .putIfAbsent(pack, pack.getBytes(StandardCharsets.UTF_8));
    packed
        .computeIfAbsent(mod, m -> new LinkedHashMap<>())
        .computeIfAbsent(pack, p -> new LinkedHashMap<>())
        .put(path, content.getBytes(StandardCharsets.UTF_8));
    return this;
  }

  /** A plugin below data/, from its text form. */
  public TestWorld plugin(long mod, String name, String text) {
    return file(mod, "data/" + name, PluginCodec.encode(PluginText.parse(name, text)));
  }

  /** A plugin with nothing but a stage and masters. */
  public TestWorld plugin(long mod, String name, int stage, String... masters) {
    return file(
        mod,
        "data/" + name,
        PluginCodec.encode(
            new Plugin(name, Plugin.Header.of(stage, List.of(masters), 1), List.of())));
  }

  public TestWorld mend(long mod) {
    mends.add(mod);
    return this;
  }

  public TestWorld wish(String name, boolean on) {
    wishes.add(new Wish(name, on));
    return this;
  }

  private void layer(long mod) {
    if (mod != Holdings.GAME && layers.stream().noneMatch(l -> l.mod() == mod))
      layers.add(new Arrangement.Layer(mod, true));
  }

  public Arrangement arrangement() {
    return new Arrangement(layers, wishes, Map.of());
  }

  /** These mods from the lowest to the highest, all on. */
  public Arrangement arrangement(long... mods) {
    List<Arrangement.Layer> order = new ArrayList<>();
    for (long m : mods) order.add(new Arrangement.Layer(m, true));
    return new Arrangement(order, wishes, Map.of());
  }

  public Holdings holdings() {
    return holdings(loose.keySet());
  }

  private Holdings holdings(Set<Long> mods) {
    HoldingsBuilder b = new HoldingsBuilder(game.pathCase());
    loose.forEach(
        (mod, files) -> {
          if (!mods.contains(mod)) return;
          int source = b.source(mod, Optional.empty());
          files.forEach((path, bytes) -> b.file(source, path, bytes.length, ContentHash.of(bytes)));
          packed
              .getOrDefault(mod, Map.of())
              .forEach(
                  (pack, inside) -> {
                    int s = b.source(mod, Optional.of(pack));
                    inside.forEach(
                        (path, bytes) -> b.file(s, path, bytes.length, ContentHash.of(bytes)));
                  });
        });
    return b.build();
  }

  /** Takes all files of a mod away, or of the game; a mod keeps its layer. */
  public TestWorld without(long mod) {
    loose.remove(mod);
    packed.remove(mod);
    return this;
  }

  /**
   * The picture of this world as it is now, from one of before.
   *
   * @param changed whose files are not what they were then
   */
  public Picture over(Picture before, Arrangement next, Set<Long> changed) {
    Holdings now = before.holdings().with(changed, holdings(changed));
    return before.over(now, before.pluginPathsOf(now), next, headers());
  }

  public Picture picture() {
    return Picture.of(game, holdings(), arrangement(), headers());
  }

  public Picture picture(Arrangement arrangement) {
    return Picture.of(game, holdings(), arrangement, headers());
  }

  public byte[] content(String sha256) {
    return bySha.get(sha256);
  }

  public byte[] content(long mod, String path) {
    return loose.get(mod).get(path);
  }

  public Plugin decoded(String name, String sha256) {
    return PluginCodec.decode(name, bySha.get(sha256)).plugin();
  }

  private Picture.Headers headers() {
    return new Picture.Headers() {
      @Override
      public Optional<byte[]> own(String path) {
        return Optional.ofNullable(loose.get(Holdings.GAME)).map(f -> f.get(path));
      }

      @Override
      public Optional<byte[]> part(PluginFiles.Part part) {
        return Optional.of(content(part.mod(), part.spelled()));
      }

      @Override
      public Picture.NamedHeader document(PluginFiles files) {
        try {
          RecordTable t =
              new DocumentReader(game, Shapes.of(game))
                  .read(files, part -> content(part.mod(), part.spelled()));
          return new Picture.NamedHeader(
              t.name(), new Picture.HeaderOrFlaw(Optional.of(t.header()), Optional.empty()));
        } catch (IroningException e) {
          return new Picture.NamedHeader(
              files.manifest(),
              new Picture.HeaderOrFlaw(
                  Optional.empty(), Optional.of(e.problems().get(0).reason())));
        } catch (IOException e) {
          throw new UncheckedIOException(e);
        }
      }

      @Override
      public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
        try {
          return new Picture.HeaderOrFlaw(
              Optional.of(decoded(name, sha256).header()), Optional.empty());
        } catch (IroningException e) {
          return new Picture.HeaderOrFlaw(
              Optional.empty(), Optional.of(e.problems().get(0).reason()));
        }
      }

      @Override
      public boolean isMend(long mod) {
        return mends.contains(mod);
      }
    };
  }

  /**
   * This world as it lies below a folder: the game in {@code game}, each mod in a folder that its
   * content names. Packs are not written.
   *
   * @param before the workspace that it was; null for the first
   */
  public Workspace workspace(Path folder, Workspace before, Arrangement arrangement)
      throws IOException {
    Map<Long, Mod> mods = new TreeMap<>();
    for (Map.Entry<Long, Map<String, byte[]>> of : loose.entrySet()) {
      boolean own = of.getKey() == Holdings.GAME;
      String name = own ? "game" : "mod" + of.getKey() + "-" + files(of.getValue());
      Path content = own ? folder.resolve(name) : folder.resolve(name).resolve(FilePlaces.CONTENT);
      Files.createDirectories(content);
      for (Map.Entry<String, byte[]> file : of.getValue().entrySet()) {
        Path at = content.resolve(file.getKey());
        Files.createDirectories(at.getParent());
        Files.write(at, file.getValue());
      }
      if (!own) mods.put(of.getKey(), mod(of.getKey(), name, of.getValue()));
    }
    Bytes bytes = new FolderBytes(folder);
    FilePlaces places = new FilePlaces(mods, bytes, new PluginTables(new PluginFormats()));
    Picture picture = Picture.of(game, holdings(), arrangement, places.headers(game));
    Memo memo = before == null ? Memo.ofItsOwn() : before.memo();
    return new Workspace(game, Optional.empty(), places, Map.of(), picture, memo);
  }

  private static String files(Map<String, byte[]> files) {
    StringBuilder all = new StringBuilder();
    new TreeMap<>(files).forEach((path, b) -> all.append(path).append(ContentHash.of(b)));
    return ContentHash.of(all.toString().getBytes(StandardCharsets.UTF_8)).substring(0, 12);
  }

  private Mod mod(long id, String folder, Map<String, byte[]> files) {
    List<String> plugins =
        files.keySet().stream().filter(game::isPlugin).map(GamePath::name).sorted().toList();
    return new Mod(
        id,
        id,
        mends.contains(id) ? "patch" : "archive",
        folder,
        ModCard.inferredFrom("Mod" + id),
        "",
        OffsetDateTime.MIN,
        files.size(),
        0,
        plugins,
        Map.of());
  }

  /** A mod with another strand, and with files that were edited here. */
  public static Mod like(Mod m, long strand, Map<String, String> edited) {
    return new Mod(
        m.id(),
        strand,
        m.kind(),
        m.folder(),
        m.card(),
        m.archiveName(),
        m.installedAt(),
        m.files(),
        m.sizeBytes(),
        m.plugins(),
        edited);
  }

  private record FolderBytes(Path folder) implements Bytes {
    @Override
    public GameRoots roots() {
      return GameRoots.of(folder.resolve("game"));
    }

    @Override
    public Path modFolder(String name) {
      return folder.resolve(name);
    }

    @Override
    public byte[] former(String sha256) throws IOException {
      return Files.readAllBytes(folder.resolve("former").resolve(sha256));
    }
  }

  /** Who is in play at a path, as mod number and content; "nobody" where nobody is. */
  public static String inPlay(Picture picture, String path) {
    int id = picture.holdings().idOf(path);
    int slot = id < 0 ? -1 : picture.standing().inPlay(id);
    if (slot < 0) return "nobody";
    Holdings.Source s = picture.holdings().holderAt(slot);
    return s.mod() + s.pack().map(p -> " in " + GamePath.name(p)).orElse("");
  }
}
