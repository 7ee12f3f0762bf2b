package ironing.core.library;

import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

/**
 * Where the content of an archive begins and where each of its files goes in the game.
 *
 * <p>The content begins at the folder of the card; without one, at the highest folder below which
 * some file is held by a mount, paths there being tried as they are and with a mount's place taken
 * off.
 */
public final class ContentLayout {
  public static final String CARD = "mod-card.yaml";
  public static final String FITTING = "fitting.yaml";

  /** A file that goes into the game: where it lies in the archive and where in the game folder. */
  public record Placed(String entry, String gamePath, String mount) {}

  /** A file that stays out, and why. */
  public record LeftOut(String entry, String reason) {}

  /** What reading an archive's shape came to. */
  public sealed interface Outcome {
    /**
     * @param reason why the content begins at {@code root} ("" is the archive's top)
     */
    record Laid(String root, String reason, List<Placed> placed, List<LeftOut> leftOut)
        implements Outcome {}

    /** Several folders side by side could each be a mod: the user picks one. */
    record Several(List<String> roots) implements Outcome {}

    /** Nothing in it is held by any mount of this game. */
    record Nothing() implements Outcome {}
  }

  private ContentLayout() {}

  /** Cost: entries times depth. Pure. */
  public static Outcome of(GameDefinition game, Collection<String> entries) {
    List<String> cards =
        entries.stream()
            .filter(e -> GamePath.name(e).equals(CARD))
            .map(GamePath::folder)
            .sorted()
            .toList();
    int highest = cards.stream().mapToInt(ContentLayout::depth).min().orElse(-1);
    List<String> roots = cards.stream().filter(c -> depth(c) == highest).toList();
    if (roots.size() > 1) return new Outcome.Several(roots);
    if (roots.size() == 1) return at(game, entries, roots.get(0), "its card lies here");
    int deepest = entries.stream().mapToInt(ContentLayout::depth).max().orElse(0);
    for (int depth = 0; depth <= deepest; depth++) {
      List<String> found = rootsAt(game, entries, depth);
      if (found.size() > 1) return new Outcome.Several(found);
      if (found.size() == 1)
        return at(
            game, entries, found.get(0), "it is the highest folder with files that the game knows");
    }
    return new Outcome.Nothing();
  }

  /** The layout when the content begins at a given folder. */
  public static Outcome at(
      GameDefinition game, Collection<String> entries, String root, String reason) {
    List<Placed> placed = new ArrayList<>();
    List<LeftOut> leftOut = new ArrayList<>();
    Map<String, String> taken = new HashMap<>();
    String prefix = root.isEmpty() ? "" : root + "/";
    for (String entry : entries) {
      if (!entry.startsWith(prefix)) {
        leftOut.add(new LeftOut(entry, "It lies outside the folder where the mod begins."));
        continue;
      }
      String relative = entry.substring(prefix.length());
      if (relative.equals(CARD) || relative.equals(FITTING)) {
        leftOut.add(new LeftOut(entry, "It is for Ironing, not for the game."));
        continue;
      }
      Optional<Placed> place = place(game, entry, relative);
      if (place.isEmpty()) {
        leftOut.add(new LeftOut(entry, "No part of the game reads such a file at this place."));
      } else if (game.isProtected(place.get().gamePath())) {
        leftOut.add(new LeftOut(entry, "The game’s definition protects this place."));
      } else {
        String earlier = taken.putIfAbsent(game.pathCase().key(place.get().gamePath()), entry);
        if (earlier == null) placed.add(place.get());
        else leftOut.add(new LeftOut(entry, "“" + earlier + "” goes to the same place."));
      }
    }
    return placed.isEmpty()
        ? new Outcome.Nothing()
        : new Outcome.Laid(root, reason, List.copyOf(placed), List.copyOf(leftOut));
  }

  private static Optional<Placed> place(GameDefinition game, String entry, String relative) {
    for (GameDefinition.Mount m : game.mounts()) {
      for (String below : candidates(game, m, relative)) {
        if (m.holds().stream().anyMatch(p -> p.matches(below)))
          return Optional.of(new Placed(entry, GamePath.join(m.at(), below), m.id()));
      }
    }
    return Optional.empty();
  }

  private static List<String> candidates(
      GameDefinition game, GameDefinition.Mount m, String relative) {
    String stripped = m.at().equals(".") ? null : game.below(m.at(), relative);
    return stripped == null ? List.of(relative) : List.of(relative, stripped);
  }

  private static List<String> rootsAt(GameDefinition game, Collection<String> entries, int depth) {
    TreeSet<String> roots = new TreeSet<>();
    for (String entry : entries) {
      if (depth(entry) < depth) continue;
      String root = firstSteps(entry, depth);
      if (!roots.contains(root)
          && place(game, entry, root.isEmpty() ? entry : entry.substring(root.length() + 1))
              .isPresent()) roots.add(root);
    }
    return List.copyOf(roots);
  }

  private static String firstSteps(String path, int count) {
    int at = 0;
    for (int i = 0; i < count; i++) at = path.indexOf('/', at) + 1;
    return at == 0 ? "" : path.substring(0, at - 1);
  }

  /** How many folders a path lies in; for a folder's own path, how deep it is. */
  private static int depth(String path) {
    return (int) path.chars().filter(c -> c == '/').count();
  }
}
