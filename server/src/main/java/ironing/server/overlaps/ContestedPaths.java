package ironing.server.overlaps;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.core.picture.Picture;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;

/**
 * The contested paths of one picture, by kind, folder and pair of mods. Everything is counted from
 * the index in memory.
 */
final class ContestedPaths {
  private final Picture picture;
  private final Standing standing;
  private final Holdings holdings;

  ContestedPaths(Picture picture) {
    this.picture = picture;
    this.standing = picture.standing();
    this.holdings = picture.holdings();
  }

  /** How the files of a path stand to one another. A path can be of several kinds. */
  enum Kind {
    /** All have the same content. */
    SAME,
    DIFFERS,
    /** A loose file stands before one in a pack. */
    LOOSE_OVER_PACKED,
    /** The definition says how such files can be combined. */
    COMBINES,
    RULED
  }

  boolean is(Kind kind, int path) {
    return switch (kind) {
      case SAME -> !standing.differs(path);
      case DIFFERS -> standing.differs(path);
      case RULED -> standing.isRuled(path);
      case COMBINES ->
          standing.differs(path) && picture.game().combines(holdings.path(path)).isPresent();
      case LOOSE_OVER_PACKED -> {
        List<Integer> holders = standing.holders(path);
        yield holdings.holderAt(holders.get(0)).pack().isEmpty()
            && holders.stream().anyMatch(s -> holdings.holderAt(s).pack().isPresent());
      }
    };
  }

  /**
   * @param find part of the path, folded; empty for all
   * @param kinds all of which a path must be
   * @param mods all of which must hold it
   */
  record Filter(String find, Set<Kind> kinds, Set<Long> mods) {
    /** A blank in a request's list comes as a null: it asks for nothing. */
    Filter {
      kinds = kinds.stream().filter(Objects::nonNull).collect(Collectors.toSet());
      mods = mods.stream().filter(Objects::nonNull).collect(Collectors.toSet());
    }
  }

  int[] matching(Filter filter) {
    IntPredicate test = p -> true;
    if (!filter.find().isEmpty())
      test = test.and(p -> PathCase.fold(holdings.path(p)).contains(filter.find()));
    for (Kind k : filter.kinds()) test = test.and(p -> is(k, p));
    for (long mod : filter.mods()) {
      test =
          test.and(
              p -> standing.holders(p).stream().anyMatch(s -> holdings.holderAt(s).mod() == mod));
    }
    return Arrays.stream(standing.contested()).filter(test).toArray();
  }

  /**
   * What lies directly in a folder.
   *
   * @param path with a slash at its end
   * @param contested paths below it
   * @param differs those whose contents are not all the same
   */
  record FolderCount(String path, String name, int contested, int differs) {}

  /** The folders directly below one, with counts, by name. */
  List<FolderCount> foldersIn(int[] paths, String folder) {
    String key = picture.game().pathCase().key(folder);
    Map<String, int[]> counts = new TreeMap<>();
    Map<String, String> spelled = new HashMap<>();
    for (int p : paths) {
      String path = holdings.path(p);
      int slash = path.indexOf('/', folder.length());
      if (slash < 0 || !picture.game().pathCase().key(path).startsWith(key)) continue;
      String below = path.substring(0, slash + 1);
      String belowKey = picture.game().pathCase().key(below);
      spelled.putIfAbsent(belowKey, below);
      int[] c = counts.computeIfAbsent(belowKey, k -> new int[2]);
      c[0]++;
      if (standing.differs(p)) c[1]++;
    }
    List<FolderCount> folders = new ArrayList<>();
    counts.forEach(
        (k, c) -> {
          String path = spelled.get(k);
          String bare = path.substring(0, path.length() - 1);
          folders.add(new FolderCount(path, bare.substring(bare.lastIndexOf('/') + 1), c[0], c[1]));
        });
    return folders;
  }

  /** Whether a path lies directly in a folder. */
  boolean isDirectlyIn(int path, String folder) {
    String spelled = holdings.path(path);
    return spelled.indexOf('/', folder.length()) < 0
        && picture.game().pathCase().key(spelled).startsWith(picture.game().pathCase().key(folder));
  }

  /**
   * Two mods at the same paths.
   *
   * @param over the one in play there, or else above the other
   */
  record Pair(long over, long under) {}

  /**
   * @param paths both of them bring
   * @param differs those of other content
   */
  record Count(int paths, int differs) {}

  /** By pair how many paths: of each path the one in play over each of the others. */
  Map<Pair, Count> pairs(int[] paths) {
    Map<Pair, int[]> counts = new HashMap<>();
    for (int p : paths) {
      List<Integer> holders = standing.holders(p);
      long over = holdings.holderAt(holders.get(0)).mod();
      Set<Long> seen = new HashSet<>(Set.of(over));
      for (int slot : holders.subList(1, holders.size())) {
        long under = holdings.holderAt(slot).mod();
        if (!seen.add(under)) continue;
        int[] c = counts.computeIfAbsent(new Pair(over, under), x -> new int[2]);
        c[0]++;
        if (!holdings.shaAt(slot).equals(holdings.shaAt(holders.get(0)))) c[1]++;
      }
    }
    Map<Pair, Count> pairs = new HashMap<>();
    counts.forEach((pair, c) -> pairs.put(pair, new Count(c[0], c[1])));
    return pairs;
  }

  private record Named(int path, String name) {}

  /** Paths by name. */
  List<Integer> byName(int[] paths) {
    // a name is made when it is asked for, so once for each and not for each comparison
    return Arrays.stream(paths)
        .mapToObj(p -> new Named(p, holdings.path(p)))
        .sorted(Comparator.comparing(Named::name))
        .map(Named::path)
        .toList();
  }
}
