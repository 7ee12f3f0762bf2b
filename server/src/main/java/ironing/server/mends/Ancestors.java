package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combine.LineDistance;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.text.DecodedText;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.core.workspace.FormerFile;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Recent;
import ironing.server.mends.Contests.Side;
import ironing.server.workbench.Bench;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * What a file was made from, where that is known: of a mod that is made for another, the version of
 * that other which its file is nearest to; of any mod, the game's file as it was in the version
 * that the mod was made on.
 */
@Component
class Ancestors {
  private static final int REMEMBERED = 5_000;
  private static final int SHORT = 12;
  private final Map<String, Integer> distances = Recent.map(REMEMBERED);

  /** A file of the game as it was in some versions, the newest of them last. */
  record FormerSide(Side side, List<String> versions) {}

  /** Whether choices that name this mean a file of the game of an earlier version. */
  static boolean isFormer(String id) {
    return id.startsWith("@");
  }

  /**
   * The game's files of earlier versions that are kept at a path, but those that are as it has it
   * now; the newest first.
   */
  List<FormerSide> former(Bench bench, int path, Side now) {
    Map<String, List<String>> versions = new LinkedHashMap<>();
    for (FormerFile f : bench.value().formerAt(bench.picture().holdings().path(path))) {
      if (f.sha256().equals(now.sha256())) continue;
      // one that came back counts as of its last version
      List<String> of = versions.remove(f.sha256());
      List<String> all = of == null ? new ArrayList<>() : of;
      all.add(f.version());
      versions.put(f.sha256(), all);
    }
    List<FormerSide> sides = new ArrayList<>();
    versions.forEach(
        (sha, all) -> {
          String last = all.get(all.size() - 1);
          String id = "@" + (last.isEmpty() ? sha.substring(0, SHORT) : last);
          sides.add(0, new FormerSide(new Side(id, Holdings.GAME, -1, sha), List.copyOf(all)));
        });
    return sides;
  }

  /**
   * The file of the game that a mod's was made from: that of the newest version in the range of its
   * card; where that names none, the one with the fewest other lines, of several the newest.
   *
   * @param former see {@link #former}
   */
  Side madeOn(Bench bench, Side mod, Side now, List<FormerSide> former) {
    if (former.isEmpty()) return now;
    String text = bench.mods().get(mod.mod()).card().gameVersions();
    if (!text.isBlank() && !text.strip().equals("*")) {
      VersionRange range = VersionRange.of(text);
      if (bench.gameVersion().filter(v -> range.contains(ModVersion.of(v))).isPresent()) return now;
      for (FormerSide f : former)
        if (f.versions().stream().anyMatch(v -> range.contains(ModVersion.of(v)))) return f.side();
    }
    Side nearest = now;
    int least = distance(bench, now, mod);
    for (FormerSide f : former) {
      int d = distance(bench, f.side(), mod);
      if (d >= least) continue;
      least = d;
      nearest = f.side();
    }
    return nearest;
  }

  /** By what choices name a version that is not in use. */
  static String idOf(Mod mod) {
    return mod.card().id() + "@" + mod.card().version();
  }

  /**
   * Versions of the contending mods that are kept and not in use, where their file is another.
   *
   * @param sides in layer order
   */
  List<Side> older(Bench bench, int path, List<Side> sides) {
    Holdings holdings = bench.picture().holdings();
    List<Side> older = new ArrayList<>();
    for (Side s : sides) {
      if (s.mod() == Holdings.GAME) continue;
      long strand = bench.mods().get(s.mod()).strand();
      for (Holdings.Source source : holdings.sourcesOf(path)) {
        Mod other = bench.mods().get(source.mod());
        if (other == null || other.strand() != strand || bench.inUse(other.id())) continue;
        int slot = holdings.slotOfMod(path, other.id());
        String id = idOf(other);
        boolean told =
            older.stream().anyMatch(o -> o.id().equals(id))
                || holdings.shaAt(slot).equals(s.sha256());
        if (!told) older.add(new Side(id, other.id(), slot, holdings.shaAt(slot)));
      }
    }
    return older;
  }

  /**
   * The version that one of two was made from, where it says that it needs the other, an older one
   * of that other is kept, and its file is nearer to that than to what is in use.
   *
   * @param sides in layer order, with the game's
   */
  Optional<Side> nearer(Bench bench, List<Side> sides, List<Side> older) {
    List<Side> mods = sides.stream().filter(s -> s.mod() != Holdings.GAME).toList();
    if (older.isEmpty() || mods.size() != 2) return Optional.empty();
    return nearer(bench, sides, mods.get(0), mods.get(1), older)
        .or(() -> nearer(bench, sides, mods.get(1), mods.get(0), older));
  }

  @SuppressWarnings("ReferenceEquality")
  private Optional<Side> nearer(
      Bench bench, List<Side> sides, Side of, Side made, List<Side> older) {
    ModCard card = bench.mods().get(of.mod()).card();
    boolean needs =
        bench.mods().get(made.mod()).card().needs().stream()
            .anyMatch(n -> n.mod().equals(card.id()));
    if (!needs) return Optional.empty();
    long strand = bench.mods().get(of.mod()).strand();
    Optional<Side> nearest = Optional.empty();
    int least = Integer.MAX_VALUE;
    for (Side s : sides) if (s != made) least = Math.min(least, distance(bench, s, made));
    for (Side o : older) {
      if (bench.mods().get(o.mod()).strand() != strand) continue;
      int d = distance(bench, o, made);
      if (d >= least) continue;
      least = d;
      nearest = Optional.of(o);
    }
    return nearest;
  }

  /** How many lines are others; the most where one of them is no text. */
  private int distance(Bench bench, Side a, Side b) {
    if (a.sha256().equals(b.sha256())) return 0;
    String both = a.sha256() + b.sha256();
    Integer known = distances.get(both);
    if (known != null) return known;
    try {
      int lines = LineDistance.of(text(bench, a), text(bench, b));
      distances.put(both, lines);
      return lines;
    } catch (IroningException unreadable) {
      // not remembered: its drive may be connected again
      return Integer.MAX_VALUE;
    }
  }

  private String text(Bench bench, Side s) {
    return DecodedText.of(Contests.read(bench, s)).text();
  }
}
