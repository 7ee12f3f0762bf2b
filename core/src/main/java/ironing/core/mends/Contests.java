package ironing.core.mends;

import ironing.core.IroningException;
import ironing.core.combinedfiles.CombinedFile;
import ironing.core.combinedfiles.Contender;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.combinedfiles.FileCombiner;
import ironing.core.combinedfiles.Remark;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Recent;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * The paths at which files can be combined: who contends there, and what combining comes to.
 *
 * <p>Threads: any. What combining came to is remembered by content, in whatever workspace.
 */
public final class Contests {
  private static final int REMEMBERED = 20_000;

  /** What combining came to, without its bytes. */
  public record Outline(boolean possible, int asked, List<String> reasons) {}

  private final Map<String, Outline> outlines = Recent.map(REMEMBERED);

  private final Ancestors ancestors = new Ancestors();

  /** All of them, by path. A path that the user has ruled on is none: that is decided. */
  public List<Contest> all(Workspace workspace) {
    return all(workspace, path -> of(workspace, path));
  }

  private List<Contest> all(Workspace workspace, IntFunction<Optional<Contest>> of) {
    Standing standing = workspace.picture().standing();
    return Arrays.stream(workspace.get(CombinablePaths.STAGE).paths())
        .filter(p -> standing.isContested(p) && !standing.isRuled(p))
        .mapToObj(of)
        .flatMap(Optional::stream)
        .sorted(Comparator.comparing(Contest::path))
        .toList();
  }

  /** The contest at a game path, if there is one. */
  public Optional<Contest> at(Workspace workspace, String path) {
    return at(workspace, path, Optional.empty());
  }

  /**
   * The same, or only that of one mod with what would be in play without it: what carrying its
   * change over comes to.
   *
   * @param carried the id of the mod whose change is carried over; empty to combine all
   */
  public Optional<Contest> at(Workspace workspace, String path, Optional<String> carried) {
    int id = workspace.picture().holdings().idOf(path);
    if (id < 0 || !workspace.picture().standing().isContested(id)) return Optional.empty();
    return carried.isPresent() ? of(workspace, id, carried.get()) : of(workspace, id);
  }

  /** The contests of one mod with what would be in play without it, by path. */
  public List<Contest> carried(Workspace workspace, String mod) {
    return all(workspace, path -> of(workspace, path, mod));
  }

  /**
   * A file of a mod that others have too, and that cannot be combined with theirs.
   *
   * @param ruled whether the user has ruled whose it is; else the definition does not say how
   * @param others mods, in layer order
   */
  public record Left(String path, boolean ruled, List<Long> others) {}

  /** What of one mod's change cannot be carried into others' files, by path. */
  public List<Left> left(Workspace workspace, String mod) {
    Picture picture = workspace.picture();
    Holdings holdings = picture.holdings();
    Standing standing = picture.standing();
    List<Left> left = new ArrayList<>();
    for (Arrangement.Layer l : picture.arrangement().layers()) {
      if (!workspace.mods().get(l.mod()).card().id().equals(mod)) continue;
      for (int path : standing.pathsOfMod(l.mod())) {
        if (!standing.isContested(path) || !standing.differs(path)) continue;
        boolean ruled = standing.isRuled(path);
        if (!ruled && workspace.game().combines(holdings.path(path)).isPresent()) continue;
        List<Long> others =
            standing.holders(path).stream()
                .map(slot -> holdings.holderAt(slot).mod())
                .filter(
                    m -> m != l.mod() && m != Holdings.GAME && !workspace.mods().get(m).isMend())
                .toList();
        if (!others.isEmpty()) left.add(new Left(picture.spelling().of(path), ruled, others));
      }
    }
    left.sort(Comparator.comparing(Left::path));
    return left;
  }

  private Optional<Contest> of(Workspace workspace, int path) {
    return contest(workspace, path, sides -> sides);
  }

  @SuppressWarnings("ReferenceEquality")
  private Optional<Contest> of(Workspace workspace, int path, String mod) {
    return contest(
        workspace,
        path,
        sides -> {
          List<FileSide> others = sides.stream().filter(s -> !s.id().equals(mod)).toList();
          if (others.size() == sides.size() || others.isEmpty()) return List.of();
          FileSide inPlay = others.get(others.size() - 1);
          return sides.stream().filter(s -> s == inPlay || s.id().equals(mod)).toList();
        });
  }

  /**
   * @param who of all versions, in layer order, those that contend
   */
  private Optional<Contest> contest(
      Workspace workspace, int path, UnaryOperator<List<FileSide>> who) {
    Holdings holdings = workspace.picture().holdings();
    Optional<Combine> rule = workspace.game().combines(holdings.path(path));
    if (rule.isEmpty()) return Optional.empty();
    List<FileSide> sides = new ArrayList<>();
    Map<String, Integer> ids = new TreeMap<>();
    for (int slot : workspace.picture().standing().holders(path)) {
      Mod mod = workspace.mods().get(holdings.holderAt(slot).mod());
      if (mod == null || mod.isMend()) continue;
      String id = mod.card().id();
      int twice = ids.merge(id, 1, Integer::sum);
      String own = twice == 1 ? id : id + "#" + twice;
      sides.add(0, new FileSide(own, mod.id(), slot, holdings.shaAt(slot)));
    }
    int unmodded = workspace.picture().unmodded(path);
    if (unmodded >= 0)
      sides.add(0, new FileSide("", Holdings.GAME, unmodded, holdings.shaAt(unmodded)));
    if (sides.size() < 2) return Optional.empty();
    String spelled = workspace.picture().spelling().of(path);
    FileChoices said = workspace.picture().arrangement().choicesOn(spelled);
    List<FileSide> older = new ArrayList<>(ancestors.older(workspace, path, sides));
    Optional<FileSide> now = sides.stream().filter(s -> s.mod() == Holdings.GAME).findFirst();
    List<Ancestors.FormerSide> earlier =
        now.map(n -> ancestors.former(workspace, path, n)).orElse(List.of());
    Optional<FileSide> chosen =
        Stream.of(sides, older, earlier.stream().map(Ancestors.FormerSide::side).toList())
            .flatMap(List::stream)
            .filter(s -> said.base().equals(Optional.of(s.id())))
            .findFirst();
    Optional<FileSide> nearer =
        chosen.isPresent() ? Optional.empty() : ancestors.nearer(workspace, sides, older);
    earlier.forEach(f -> older.add(f.side()));
    List<FileSide> contending = who.apply(sides);
    Map<String, FileSide> madeOn = new TreeMap<>();
    if (chosen.isEmpty() && nearer.isEmpty() && now.isPresent())
      for (FileSide s : contending)
        if (s.mod() != Holdings.GAME)
          madeOn.put(s.id(), ancestors.madeOn(workspace, s, now.get(), earlier));
    // else the lowest, which is the game's if it has one
    FileSide base = chosen.or(() -> nearer).or(() -> oldest(earlier, madeOn)).orElse(sides.get(0));
    List<FileSide> others = new ArrayList<>();
    boolean beforeUpdate = base.mod() == Holdings.GAME && base.slot() < 0;
    // what the update changed is one more change; else the game changes nothing
    if (beforeUpdate) others.add(now.orElseThrow());
    for (FileSide s : contending)
      if (s.mod() != Holdings.GAME && !s.sha256().equals(base.sha256())) others.add(s);
    // with one who changed it there is nothing to combine
    if (others.size() < 2) return Optional.empty();
    madeOn.values().removeIf(on -> on.equals(base) || on.slot() >= 0);
    boolean known = base.mod() == Holdings.GAME || nearer.isPresent();
    boolean sure = chosen.isPresent() || base.mod() != Holdings.GAME || !earlier.isEmpty();
    return Optional.of(
        new Contest(
            spelled, rule.get(), base, known, sure, sides, older, others, madeOn, said.places()));
  }

  /** Of the game's earlier files that some were made from, the oldest. */
  private static Optional<FileSide> oldest(
      List<Ancestors.FormerSide> earlier, Map<String, FileSide> madeOn) {
    for (int i = earlier.size() - 1; i >= 0; i--)
      if (madeOn.containsValue(earlier.get(i).side())) return Optional.of(earlier.get(i).side());
    return Optional.empty();
  }

  /** Combines the versions as they lie in the library and in the game. */
  public CombinedFile combine(Workspace workspace, Contest c) {
    CombinedFile f = combined(workspace, c);
    outlines.put(c.print(), outline(f));
    return f;
  }

  private CombinedFile combined(Workspace workspace, Contest c) {
    List<Contender> contenders = new ArrayList<>();
    for (FileSide s : c.contenders()) {
      FileSide on = c.madeOn().get(s.id());
      Optional<Contender> contender =
          on == null ? Optional.of(contender(workspace, s)) : carriedOver(workspace, c, s, on);
      if (contender.isEmpty()) return apart(workspace, c, s, on);
      contenders.add(contender.get());
    }
    return FileCombiner.combine(
        c.rule(), contender(workspace, c.base()), contenders, c.choices(), c.sure());
  }

  /** A mod's file with what the game has changed since the version that it was made on. */
  private Optional<Contender> carriedOver(Workspace workspace, Contest c, FileSide s, FileSide on) {
    FileSide now = c.contenders().get(0);
    List<Contender> both = List.of(contender(workspace, now), contender(workspace, s));
    return FileCombiner.combine(c.rule(), contender(workspace, on), both, Map.of())
        .outcome()
        .map(bytes -> new Contender(s.id(), bytes));
  }

  private static CombinedFile apart(Workspace workspace, Contest c, FileSide s, FileSide on) {
    String reason =
        workspace.nameOf(s.mod())
            + "’s was made on version "
            + on.id().substring(1)
            + " of the game, another’s on "
            + c.base().id().substring(1)
            + ", and the game has changed the same places since. Choose what they are measured against.";
    return new CombinedFile(
        c.rule().as(),
        Optional.empty(),
        "",
        List.of(),
        List.of(),
        List.of(new Remark("made-on-others", s.id(), reason)));
  }

  private Contender contender(Workspace workspace, FileSide s) {
    return new Contender(s.id(), read(workspace, s));
  }

  static byte[] read(Workspace workspace, FileSide s) {
    try {
      return s.slot() < 0
          ? workspace.files().bytes().former(s.sha256())
          : workspace.read(s.slot(), FileCombiner.MOST_BYTES + 1);
    } catch (IOException e) {
      throw IroningException.of(
          "file-unreadable",
          workspace.nameOf(s.mod()),
          "Its file cannot be read: " + e.getMessage() + ".",
          "Connect the drive again, or check the mod’s files.",
          e);
    }
  }

  private static Outline outline(CombinedFile f) {
    List<String> reasons =
        f.outcome().isPresent() || f.asked() > 0
            ? List.of()
            : f.remarks().stream().map(r -> r.text()).toList();
    return new Outline(f.outcome().isPresent(), f.asked(), reasons);
  }

  /** What combining would come to; remembered by content. */
  public Outline outline(Workspace workspace, Contest c) {
    Outline known = outlines.get(c.print());
    if (known != null) return known;
    try {
      return outline(combine(workspace, c));
    } catch (IroningException unreadable) {
      // one file that is away must not hide all others
      return new Outline(false, 0, List.of(unreadable.getMessage()));
    }
  }

  /** Files that wait for the user, so that the layers alone decide them. */
  public List<String> asked(Workspace workspace) {
    return all(workspace).parallelStream()
        .filter(c -> !c.isTwins() && outline(workspace, c).asked() > 0)
        .map(Contest::path)
        .toList();
  }
}
