package ironing.core.picture;

import ironing.core.game.DocumentPlugins;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.plugin.PluginFiles;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * The paths, among all that somebody holds, at which the game would look for plugins; where a
 * plugin is a folder, those of its manifest and of its records.
 *
 * <p>Immutable.
 */
public final class PluginPaths {
  private static final int[] NONE = {};

  private final int[] plugins;
  // by plugin the paths of its records; empty where a plugin is one file
  private final int[][] records;

  private PluginPaths(int[] plugins, int[][] records) {
    this.plugins = plugins;
    this.records = records;
  }

  /** Cost: a look at the end of each path. */
  public static PluginPaths of(GameDefinition game, Holdings holdings) {
    if (game.plugins().isEmpty()) return new PluginPaths(NONE, new int[0][]);
    GameDefinition.Plugins form = game.plugins().get();
    int[] plugins =
        Stream.concat(Stream.of(form.match()), form.also().stream())
            .flatMapToInt(m -> Arrays.stream(holdings.pathsEnding(m.tail(), game::isPlugin)))
            .sorted()
            .distinct()
            .toArray();
    if (!form.areFolders()) return new PluginPaths(plugins, new int[0][]);
    int[] byPath =
        Arrays.stream(plugins)
            .boxed()
            .sorted(
                Comparator.comparing((Integer p) -> PluginFiles.sortedBy(holdings.path(p)))
                    .thenComparing(holdings::path))
            .mapToInt(Integer::intValue)
            .toArray();
    return new PluginPaths(byPath, records(game, form.documents().orElseThrow(), holdings, byPath));
  }

  private static int[][] records(
      GameDefinition game, DocumentPlugins form, Holdings holdings, int[] plugins) {
    PathCase pathCase = game.pathCase();
    Map<String, List<Integer>> byFolder = new HashMap<>();
    for (int i = 0; i < plugins.length; i++)
      byFolder
          .computeIfAbsent(
              pathCase.key(GamePath.folder(holdings.path(plugins[i]))), f -> new ArrayList<>())
          .add(i);
    List<List<Integer>> found = new ArrayList<>();
    for (int i = 0; i < plugins.length; i++) found.add(new ArrayList<>());
    TreeSet<Integer> candidates = new TreeSet<>();
    for (DocumentPlugins.RecordFiles r : form.records())
      IntStream.of(holdings.pathsEnding(r.files().tail(), p -> true)).forEach(candidates::add);
    for (int path : candidates) {
      String text = holdings.path(path);
      String folder = text;
      while (!folder.isEmpty()) {
        folder = GamePath.folder(folder);
        for (int plugin : byFolder.getOrDefault(pathCase.key(folder), List.of()))
          if (plugins[plugin] != path && form.hasRecords(below(text, folder)))
            found.get(plugin).add(path);
      }
    }
    return found.stream()
        .map(
            f ->
                f.stream()
                    .sorted(Comparator.comparing(holdings::path))
                    .mapToInt(Integer::intValue)
                    .toArray())
        .toArray(int[][]::new);
  }

  private static String below(String path, String folder) {
    return folder.isEmpty() ? path : path.substring(folder.length() + 1);
  }

  /**
   * Those of holdings that came from these. Cost: the paths that were touched; all where a plugin
   * is a folder.
   */
  PluginPaths in(GameDefinition game, Holdings before, Holdings next) {
    if (game.plugins().isEmpty()) return this;
    if (game.plugins().get().areFolders()) return of(game, next);
    BitSet paths = next.touchedSince(before);
    BitSet all = new BitSet();
    for (int p : plugins) all.set(p);
    for (int p = paths.nextSetBit(0); p >= 0; p = paths.nextSetBit(p + 1))
      all.set(p, next.isHeld(p) && game.isPlugin(next.path(p)));
    return new PluginPaths(all.stream().toArray(), new int[0][]);
  }

  /** The paths of plugins, or of their manifests. */
  public int[] plugins() {
    return plugins;
  }

  /**
   * The plugins of text that are in play, each with its files that are.
   *
   * @param which the slot that counts at a path; negative for none
   */
  List<PluginFiles> inPlay(Holdings holdings, IntUnaryOperator which) {
    List<PluginFiles> found = new ArrayList<>();
    String outer = null;
    for (int i = 0; i < plugins.length; i++) {
      Optional<PluginFiles.Part> manifest = part(holdings, which, plugins[i], "");
      if (manifest.isEmpty()) continue;
      String path = holdings.path(plugins[i]), folder = GamePath.folder(path);
      // a manifest below another's folder is none
      if (records.length > 0 && outer != null && GamePath.isBelow(folder, outer)) continue;
      outer = folder;
      List<PluginFiles.Part> parts = new ArrayList<>();
      parts.add(part(holdings, which, plugins[i], folder).orElseThrow());
      if (records.length > 0)
        for (int p : records[i]) part(holdings, which, p, folder).ifPresent(parts::add);
      found.add(new PluginFiles(path, parts));
    }
    return found;
  }

  /** The plugins of text that each mod brings, as they are when nobody else changes them. */
  public Map<Long, List<PluginFiles>> byMod(Holdings holdings) {
    Map<Long, List<PluginFiles>> found = new HashMap<>();
    for (int i = 0; i < plugins.length; i++) {
      int manifest = plugins[i];
      for (Holdings.Source s : holdings.sourcesOf(manifest)) {
        if (s.pack().isPresent()) continue;
        PluginPaths alone =
            new PluginPaths(
                new int[] {manifest}, records.length == 0 ? records : new int[][] {records[i]});
        found
            .computeIfAbsent(s.mod(), m -> new ArrayList<>())
            .addAll(alone.inPlay(holdings, p -> holdings.slotOfMod(p, s.mod())));
      }
    }
    return found;
  }

  private static Optional<PluginFiles.Part> part(
      Holdings holdings, IntUnaryOperator which, int path, String folder) {
    int slot = which.applyAsInt(path);
    if (slot < 0 || holdings.holderAt(slot).pack().isPresent()) return Optional.empty();
    return Optional.of(
        new PluginFiles.Part(
            below(holdings.path(path), folder),
            holdings.holderAt(slot).mod(),
            holdings.spellingAt(slot),
            holdings.shaAt(slot)));
  }
}
