package ironing.core.mends;

import ironing.core.IroningException;
import ironing.core.combinedfiles.LineDistance;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.text.DecodedText;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.core.workspace.FormerFile;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Recent;
import ironing.core.workspace.Workspace;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a file was made from, where that is known: of a mod that is made for another, the version of
 * that other which its file is nearest to; of any mod, the game's file as it was in the version
 * that the mod was made on.
 */
public final class Ancestors {
  private static final int REMEMBERED = 5_000;
  private static final int SHORT = 12;
  private final Map<String, Integer> distances = Recent.map(REMEMBERED);

  /** A file of the game as it was in some versions, the newest of them last. */
  record FormerSide(FileSide side, List<String> versions) {}

  /** Whether choices that name this mean a file of the game of an earlier version. */
  public static boolean isFormer(String id) {
    return id.startsWith("@");
  }

  /**
   * The game's files of earlier versions that are kept at a path, but those that are as it has it
   * now; the newest first.
   */
  List<FormerSide> former(Workspace workspace, int path, FileSide now) {
    Map<String, List<String>> versions = new LinkedHashMap<>();
    for (FormerFile f : workspace.formerAt(workspace.picture().holdings().path(path))) {
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
          sides.add(0, new FormerSide(new FileSide(id, Holdings.GAME, -1, sha), List.copyOf(all)));
        });
    return sides;
  }

  /**
   * The file of the game that a mod's was made from: that of the newest version in the range of its
   * card; where that names none, the one with the fewest other lines, of several the newest.
   *
   * @param former see {@link #former}
   */
  FileSide madeOn(Workspace workspace, FileSide mod, FileSide now, List<FormerSide> former) {
    if (former.isEmpty()) return now;
    String text = workspace.mods().get(mod.mod()).card().gameVersions();
    if (!text.isBlank() && !text.strip().equals("*")) {
      VersionRange range = VersionRange.of(text);
      if (workspace.gameVersion().filter(v -> range.contains(ModVersion.of(v))).isPresent())
        return now;
      for (FormerSide f : former)
        if (f.versions().stream().anyMatch(v -> range.contains(ModVersion.of(v)))) return f.side();
    }
    FileSide nearest = now;
    int least = distance(workspace, now, mod);
    for (FormerSide f : former) {
      int d = distance(workspace, f.side(), mod);
      if (d >= least) continue;
      least = d;
      nearest = f.side();
    }
    return nearest;
  }

  /** By what choices name a version that is not in use. */
  public static String idOf(Mod mod) {
    return mod.card().id() + "@" + mod.card().version();
  }

  /**
   * Versions of the contending mods that are kept and not in use, where their file is another.
   *
   * @param sides in layer order
   */
  List<FileSide> older(Workspace workspace, int path, List<FileSide> sides) {
    Holdings holdings = workspace.picture().holdings();
    List<FileSide> older = new ArrayList<>();
    for (FileSide s : sides) {
      if (s.mod() == Holdings.GAME) continue;
      long strand = workspace.mods().get(s.mod()).strand();
      for (Holdings.Source source : holdings.sourcesOf(path)) {
        Mod other = workspace.mods().get(source.mod());
        if (other == null || other.strand() != strand || workspace.inUse(other.id())) continue;
        int slot = holdings.slotOfMod(path, other.id());
        String id = idOf(other);
        boolean told =
            older.stream().anyMatch(o -> o.id().equals(id))
                || holdings.shaAt(slot).equals(s.sha256());
        if (!told) older.add(new FileSide(id, other.id(), slot, holdings.shaAt(slot)));
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
  Optional<FileSide> nearer(Workspace workspace, List<FileSide> sides, List<FileSide> older) {
    List<FileSide> mods = sides.stream().filter(s -> s.mod() != Holdings.GAME).toList();
    if (older.isEmpty() || mods.size() != 2) return Optional.empty();
    return nearer(workspace, sides, mods.get(0), mods.get(1), older)
        .or(() -> nearer(workspace, sides, mods.get(1), mods.get(0), older));
  }

  @SuppressWarnings("ReferenceEquality")
  private Optional<FileSide> nearer(
      Workspace workspace, List<FileSide> sides, FileSide of, FileSide made, List<FileSide> older) {
    ModCard card = workspace.mods().get(of.mod()).card();
    boolean needs =
        workspace.mods().get(made.mod()).card().needs().stream()
            .anyMatch(n -> n.mod().equals(card.id()));
    if (!needs) return Optional.empty();
    long strand = workspace.mods().get(of.mod()).strand();
    Optional<FileSide> nearest = Optional.empty();
    int least = Integer.MAX_VALUE;
    for (FileSide s : sides) if (s != made) least = Math.min(least, distance(workspace, s, made));
    for (FileSide o : older) {
      if (workspace.mods().get(o.mod()).strand() != strand) continue;
      int d = distance(workspace, o, made);
      if (d >= least) continue;
      least = d;
      nearest = Optional.of(o);
    }
    return nearest;
  }

  /** How many lines are others; the most where one of them is no text. */
  private int distance(Workspace workspace, FileSide a, FileSide b) {
    if (a.sha256().equals(b.sha256())) return 0;
    String both = a.sha256() + b.sha256();
    Integer known = distances.get(both);
    if (known != null) return known;
    try {
      int lines = LineDistance.of(text(workspace, a), text(workspace, b));
      distances.put(both, lines);
      return lines;
    } catch (IroningException unreadable) {
      // not remembered: its drive may be connected again
      return Integer.MAX_VALUE;
    }
  }

  private String text(Workspace workspace, FileSide s) {
    return DecodedText.of(Contests.read(workspace, s)).text();
  }
}
