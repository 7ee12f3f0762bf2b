package ironing.core.game;

import ironing.core.path.PathPattern;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/**
 * What a definition would match in a folder, for whoever writes it, and what the game’s manifest
 * makes of the folder.
 *
 * <p>Cost: every pattern against every path; no file is read.
 *
 * @param manifest empty where the game has none
 */
public record DefinitionPreview(List<Part> parts, Optional<OfManifest> manifest) {
  private static final int FIRST = 3;

  /** What files are matched as. */
  public enum What {
    MOUNT,
    PLUGINS,
    OWN_PLUGINS,
    /** Of plugins that are open text: what is counted is records, by their type. */
    RECORDS,
    PACKS,
    COMBINED,
    PROTECTED,
    WRITABLE,
    PER_PROFILE,
    HARMLESS
  }

  /**
   * One part of the definition.
   *
   * @param name by which it is told from others of its kind; empty where there is one
   * @param count how many files it matches
   * @param first some of them
   */
  public record Part(What what, String name, int count, List<String> first) {}

  /**
   * What is not as the manifest says, by path alone.
   *
   * @param named how many files it names
   * @param missing those that are not there
   * @param beside files that it does not name and that do not change by themselves: what a mod once
   *     brought, or a tool
   */
  public record OfManifest(int named, List<String> missing, List<String> beside) {}

  /**
   * @param paths of the files of the folder, without what is deployed there
   */
  public static DefinitionPreview of(
      GameDefinition game, Collection<String> paths, Optional<Manifest> manifest) {
    List<Part> parts = new ArrayList<>();
    for (GameDefinition.Mount m : game.mounts())
      parts.add(part(What.MOUNT, m.id(), paths, path -> holds(game, m, path)));
    if (game.plugins().isPresent()) {
      parts.add(part(What.PLUGINS, "", paths, game::isPlugin));
      // a plugin of text says itself what it is called: those are looked for in their manifests
      List<String> named = game.hasDocumentPlugins() ? List.of() : game.plugins().get().own();
      for (String own : named) {
        String place = game.pathCase().key(game.pluginPath(own));
        parts.add(
            part(What.OWN_PLUGINS, own, paths, path -> game.pathCase().key(path).equals(place)));
      }
    }
    if (game.packs().isPresent()) parts.add(part(What.PACKS, "", paths, game::isPack));
    for (GameDefinition.Combine c : game.combine())
      parts.add(
          part(
              What.COMBINED,
              c.match().toString(),
              paths,
              path -> game.combines(path).filter(c::equals).isPresent()));
    patterns(parts, What.PROTECTED, game.protect(), paths, game::isProtected);
    patterns(
        parts,
        What.WRITABLE,
        game.writable(),
        paths,
        path -> game.anyMatches(game.writable(), path));
    patterns(parts, What.PER_PROFILE, game.perProfile(), paths, game::isPerProfile);
    patterns(parts, What.HARMLESS, game.harmless(), paths, game::isHarmless);
    return new DefinitionPreview(parts, manifest.map(m -> compared(game, paths, m)));
  }

  /** With more parts behind these. */
  public DefinitionPreview with(List<Part> more) {
    List<Part> all = new ArrayList<>(parts);
    all.addAll(more);
    return new DefinitionPreview(List.copyOf(all), manifest);
  }

  private static boolean holds(GameDefinition game, GameDefinition.Mount m, String path) {
    String below = game.below(m.at(), path);
    return below != null && PathPattern.anyMatches(m.holds(), below);
  }

  private static void patterns(
      List<Part> parts,
      What what,
      List<PathPattern> patterns,
      Collection<String> paths,
      Predicate<String> matches) {
    if (!patterns.isEmpty()) parts.add(part(what, "", paths, matches));
  }

  private static Part part(
      What what, String name, Collection<String> paths, Predicate<String> matches) {
    int count = 0;
    List<String> first = new ArrayList<>();
    for (String path : paths) {
      if (!matches.test(path)) continue;
      if (count++ < FIRST) first.add(path);
    }
    return new Part(what, name, count, first);
  }

  private static OfManifest compared(
      GameDefinition game, Collection<String> paths, Manifest manifest) {
    List<String> beside = new ArrayList<>();
    for (String path : paths) if (isBeside(game, manifest, path)) beside.add(path);
    List<String> missing = new ArrayList<>(manifest.sums().keySet());
    List<String> keys = paths.stream().map(game.pathCase()::key).toList();
    Set<String> there = new HashSet<>(keys);
    missing.removeIf(path -> there.contains(game.pathCase().key(path)));
    return new OfManifest(manifest.size(), missing, beside);
  }

  /** Whether a file is none that the game’s manifest names, and none that changes by itself. */
  public static boolean isBeside(GameDefinition game, Manifest manifest, String path) {
    boolean changes =
        game.isProtected(path)
            // it names what lies in the game’s own folder
            || game.isPlaced(path)
            || game.isWritable(path)
            || game.isLog(path)
            || game.plugins()
                .flatMap(GameDefinition.Plugins::list)
                .filter(l -> game.pathCase().key(l.file()).equals(game.pathCase().key(path)))
                .isPresent();
    return !changes
        && !manifest.names(path)
        && !path.equals(GameFolder.DEFINITION)
        && game.manifest().filter(path::equals).isEmpty();
  }
}
