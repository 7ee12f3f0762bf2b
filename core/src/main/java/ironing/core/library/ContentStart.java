package ironing.core.library;

import ironing.core.path.GamePath;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * In which folder of an archive a mod begins.
 *
 * <p>At the folder of the card; without one, at that of the fitting; without both, at the highest
 * folder below which some file has a certain place ({@link Placing}). Where nothing is certain, or
 * a file that would only be guessed at has a certain place further down, the user picks.
 */
final class ContentStart {
  /** More folders side by side are no choice between variants: only those above them are named. */
  private static final int MOST_BESIDE = 8;

  private final Placing placing;
  private final Collection<String> entries;

  private ContentStart(Placing placing, Collection<String> entries) {
    this.placing = placing;
    this.entries = entries;
  }

  /** Folders that it can begin at: none, one with the reason, or several to pick from. */
  record Found(List<String> roots, String reason) {}

  /** Cost: entries times depth times patterns. Pure. */
  static Found of(Placing placing, Collection<String> entries) {
    return new ContentStart(placing, entries).found();
  }

  private Found found() {
    for (String marker : List.of(ContentLayout.CARD, ContentLayout.FITTING)) {
      List<String> roots = highestWith(marker);
      if (!roots.isEmpty())
        return new Found(
            roots,
            marker.equals(ContentLayout.CARD) ? "its card lies here" : "its questions lie here");
    }
    int deepest = entries.stream().mapToInt(ContentStart::depth).max().orElse(-1);
    for (int depth = 0; depth <= deepest; depth++) {
      List<String> roots = certainAt(depth);
      if (roots.isEmpty()) continue;
      if (roots.size() == 1) roots = withDoubts(roots.get(0));
      return new Found(roots, "it is the highest folder with files that the game knows");
    }
    List<String> ofPlugins = List.copyOf(PluginFolders.highest(placing.game(), entries));
    if (!ofPlugins.isEmpty()) return new Found(ofPlugins, "folders with a manifest lie here");
    return guessed();
  }

  private List<String> highestWith(String marker) {
    List<String> folders =
        entries.stream()
            .filter(e -> GamePath.name(e).equals(marker))
            .map(GamePath::folder)
            .sorted()
            .toList();
    int highest = folders.stream().mapToInt(ContentStart::depthOfFolder).min().orElse(0);
    return folders.stream().filter(f -> depthOfFolder(f) == highest).toList();
  }

  /** The folders of a depth, below which some file has a certain place. */
  private List<String> certainAt(int depth) {
    TreeSet<String> roots = new TreeSet<>();
    for (String entry : entries) {
      if (depth(entry) < depth) continue;
      String root = firstSteps(entry, depth);
      if (!roots.contains(root) && isCertain(entry, depth)) roots.add(root);
    }
    return List.copyOf(roots);
  }

  /** The folder, and those further down in which a file that is guessed at has a certain place. */
  private List<String> withDoubts(String root) {
    int depth = depthOfFolder(root);
    Set<String> others = new TreeSet<>();
    for (String entry : entries) {
      if (!GamePath.isBelow(entry, root)) continue;
      Optional<Placing.Place> place = placing.of(relative(entry, depth));
      if (place.isEmpty() || place.get().certain()) continue;
      for (int d = depth + 1; d <= depth(entry); d++) {
        if (!isCertain(entry, d)) continue;
        others.add(firstSteps(entry, d));
        break;
      }
    }
    List<String> all = new ArrayList<>(List.of(root));
    all.addAll(others);
    return List.copyOf(all);
  }

  /** Nothing is certain: one folder if there is but one, else those that may be meant. */
  private Found guessed() {
    List<String> held =
        entries.stream().filter(e -> placing.of(e).isPresent() && depth(e) >= 0).toList();
    if (held.isEmpty()) return new Found(List.of(), "");
    if (held.stream().allMatch(e -> depth(e) == 0))
      return new Found(List.of(""), "it has no folders");
    List<String> roots = new ArrayList<>(List.of(""));
    String at = "";
    while (true) {
      Set<String> folders = new TreeSet<>();
      boolean files = false;
      for (String e : held) {
        if (!GamePath.isBelow(e, at)) continue;
        int next = e.indexOf('/', at.isEmpty() ? 0 : at.length() + 1);
        if (next < 0) files = true;
        else folders.add(e.substring(0, next));
      }
      if (folders.isEmpty() || folders.size() > MOST_BESIDE) break;
      roots.addAll(folders);
      if (files || folders.size() > 1) break;
      at = folders.iterator().next();
    }
    return new Found(List.copyOf(roots), "");
  }

  private boolean isCertain(String entry, int depth) {
    return placing.of(relative(entry, depth)).filter(Placing.Place::certain).isPresent();
  }

  private static String relative(String entry, int depth) {
    return depth == 0 ? entry : entry.substring(firstSteps(entry, depth).length() + 1);
  }

  private static String firstSteps(String path, int count) {
    int at = 0;
    for (int i = 0; i < count; i++) at = path.indexOf('/', at) + 1;
    return at == 0 ? "" : path.substring(0, at - 1);
  }

  /** How many folders a file lies in. */
  private static int depth(String path) {
    return (int) path.chars().filter(c -> c == '/').count();
  }

  private static int depthOfFolder(String folder) {
    return folder.isEmpty() ? 0 : depth(folder) + 1;
  }
}
