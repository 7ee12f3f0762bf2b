package ironing.demo;

import ironing.core.archive.Unpacker;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.deploy.Deployer;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.layers.Holdings;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Placing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GameRoots;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginFiles;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** The sample world, packed and unpacked again, as a library of files on disk. */
final class DemoLibrary {
  private final Path temp;
  final GameDefinition game;
  final Path folder;
  final Path library;
  final Holdings holdings;
  final Map<String, Long> modByArchive = new TreeMap<>();

  /**
   * @param temp an empty folder to pack into
   */
  DemoLibrary(Path temp) throws IOException {
    this.temp = temp;
    DemoPacker.pack(Path.of("world"), temp);
    folder = temp.resolve("game");
    library = temp.resolve("library");
    game =
        GameDefinitionReader.read("game.yaml", Files.readString(folder.resolve("game.yaml")))
            .value();
    HoldingsBuilder b = new HoldingsBuilder(game.pathCase());
    int source = b.source(Holdings.GAME, Optional.empty());
    List<GameFolder.Seen> seen = GameFolder.scan(GameRoots.of(folder), n -> {});
    for (GameFolder.Seen s : seen) b.file(source, s.path(), s.sizeBytes(), s.sha256());
    for (GameFolder.Seen s : seen)
      if (game.isPack(s.path())) packs(b, Holdings.GAME, s.path(), folder.resolve(s.path()));
    for (String archive : DemoPacker.installOrder()) bringIn(b, archive);
    holdings = b.build();
  }

  private void bringIn(HoldingsBuilder b, String archive) throws IOException {
    long mod = modByArchive.size() + 1L;
    modByArchive.put(archive, mod);
    Path out = Files.createDirectories(library.resolve(Long.toString(mod)));
    List<Unpacked> files =
        Unpacker.plain()
            .unpack(
                temp.resolve("archives").resolve(archive),
                archive,
                out,
                nested -> true,
                (done, total) -> {});
    Map<String, Unpacked> byPath = new HashMap<>();
    files.forEach(f -> byPath.put(f.path(), f));
    Outcome.Laid laid =
        (Outcome.Laid)
            ContentLayout.of(Placing.of(game), byPath.keySet().stream().sorted().toList());
    int source = b.source(mod, Optional.empty());
    List<Placed> packs = new ArrayList<>();
    for (Placed p : laid.placed()) {
      Path content = library.resolve("content").resolve(Long.toString(mod)).resolve(p.gamePath());
      Files.createDirectories(content.getParent());
      Files.move(out.resolve(p.entry()), content);
      b.file(
          source, p.gamePath(), byPath.get(p.entry()).sizeBytes(), byPath.get(p.entry()).sha256());
      if (game.isPack(p.gamePath())) packs.add(p);
    }
    for (Placed p : packs) packs(b, mod, p.gamePath(), content(mod, p.gamePath()));
  }

  private void packs(HoldingsBuilder b, long mod, String path, Path file) {
    int source = b.source(mod, Optional.of(path));
    for (GameFolder.Packed f : GameFolder.packContent(game, path, file))
      b.file(source, f.path(), f.sizeBytes(), f.sha256());
  }

  Path content(long mod, String path) {
    if (mod != Holdings.GAME)
      return library.resolve("content").resolve(Long.toString(mod)).resolve(path);
    Path kept = Deployer.keptOriginal(GameRoots.of(folder), path);
    return Files.exists(kept) ? kept : folder.resolve(path);
  }

  Plugin plugin(String name, long mod) {
    try {
      return PluginCodec.decode(name, Files.readAllBytes(content(mod, "data/" + name))).plugin();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  Picture picture(List<Long> mods, List<LoadOrder.Wish> wishes) {
    Arrangement a =
        new Arrangement(
            mods.stream().map(m -> new Arrangement.Layer(m, true)).toList(), wishes, Map.of());
    return Picture.of(
        game,
        holdings,
        a,
        new Picture.Headers() {
          @Override
          public Optional<byte[]> own(String path) {
            return Optional.empty();
          }

          @Override
          public Optional<byte[]> part(PluginFiles.Part part) {
            return Optional.empty();
          }

          @Override
          public Picture.NamedHeader document(PluginFiles files) {
            throw new IllegalStateException("no plugin of this game is text");
          }

          @Override
          public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
            return new Picture.HeaderOrFlaw(
                Optional.of(plugin(name, mod).header()), Optional.empty());
          }

          @Override
          public boolean isMend(long mod) {
            return false;
          }
        });
  }

  /** All mods in install order, but for archives that begin so. */
  List<Long> mods(String... without) {
    return DemoPacker.installOrder().stream()
        .filter(a -> Set.of(without).stream().noneMatch(a::startsWith))
        .map(modByArchive::get)
        .toList();
  }
}
