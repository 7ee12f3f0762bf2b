package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combine.Choice;
import ironing.core.combine.CombinedFile;
import ironing.core.combine.Contender;
import ironing.core.combine.FileCombiner;
import ironing.core.combine.Remark;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Recent;
import ironing.server.mends.Ancestors.FormerSide;
import ironing.server.platform.Json;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Memory;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** The paths at which files can be combined: who contends there, and what combining comes to. */
@Component
class Contests {
  private static final int REMEMBERED = 20_000;

  /** The place by which the choice of a base is kept. */
  static final String BASE = "/base";

  private final Json json;

  /** What combining came to, without its bytes. */
  record Outline(boolean possible, int asked, List<String> reasons) {}

  private final Map<String, Outline> outlines = Recent.map(REMEMBERED);

  private final Ancestors ancestors;

  private final Memory.Kept<Combinable> combinable;

  /** Paths that a definition says how to combine. */
  private record Combinable(GameDefinition game, Holdings holdings, BitSet paths) {
    @SuppressWarnings("ReferenceEquality")
    boolean isOf(Bench bench) {
      return bench.game() == game && bench.picture().holdings().isFrom(holdings);
    }

    /** Those of a workspace; of paths that are known already nobody is asked again. */
    Combinable of(Bench bench) {
      Holdings next = bench.picture().holdings();
      BitSet all = (BitSet) paths.clone();
      next.touchedSince(holdings).stream()
          .filter(p -> game.combines(next.path(p)).isPresent())
          .forEach(all::set);
      return new Combinable(game, next, all);
    }

    static Combinable anew(Bench bench) {
      Holdings h = bench.picture().holdings();
      BitSet all = new BitSet();
      Arrays.stream(
              IntStream.range(0, h.pathCount())
                  .parallel()
                  .filter(p -> bench.game().combines(h.path(p)).isPresent())
                  .toArray())
          .forEach(all::set);
      return new Combinable(bench.game(), h, all);
    }
  }

  Contests(Ancestors ancestors, Memory memory, Json json) {
    this.combinable = memory.keeping(c -> c.paths().size() / Byte.SIZE);
    this.ancestors = ancestors;
    this.json = json;
  }

  /**
   * A version of a file.
   *
   * @param id by which choices name it: that of the mod's card; empty for the game; see {@link
   *     Ancestors#isFormer}
   * @param mod 0 for the game
   * @param slot -1 for the game's file of an earlier version
   */
  record Side(String id, long mod, int slot, String sha256) {}

  /**
   * @param path in the spelling that is deployed
   * @param base what each is measured against
   * @param known whether the base is the game's, or known to be what the others were made from
   * @param sure whether the contenders cannot have been made from a file of the game that nobody
   *     knows; see {@link FileCombiner}
   * @param all every version, in layer order
   * @param older versions of the contending mods that are in the library and not in use, and those
   *     of the game that are kept
   * @param contenders in layer order; those that are as the base is are none. Where the base is the
   *     game's of before an update, the game as it is now is the first of them
   * @param madeOn by the id of a contender what it was made from, where that is neither the base
   *     nor the game as it is now
   * @param choices by the keys of places
   */
  record Contest(
      String path,
      Combine rule,
      Side base,
      boolean known,
      boolean sure,
      List<Side> all,
      List<Side> older,
      List<Side> contenders,
      Map<String, Side> madeOn,
      Map<String, Choice> choices) {
    /** Whether the base is the game's, and not one of the mods'. */
    boolean ofGame() {
      return base.mod() == Holdings.GAME;
    }

    /** Whether the base is what the game had before an update. */
    boolean isBeforeUpdate() {
      return ofGame() && base.slot() < 0;
    }

    /** What each can be measured against. */
    List<Side> bases() {
      return Stream.concat(all.stream(), older.stream()).toList();
    }

    /** The same while combining comes to the same. */
    String print() {
      StringBuilder out = new StringBuilder(path).append('\n').append(base.sha256);
      out.append(rule.as()).append(rule.once()).append(rule.key()).append(rule.arrays());
      if (!rule.goesOn().isEmpty()) out.append(rule.goesOn());
      out.append(sure);
      contenders.forEach(c -> out.append('\n').append(c.id).append(' ').append(c.sha256));
      new TreeMap<>(madeOn)
          .forEach((id, on) -> out.append('\n').append(id).append('<').append(on.sha256));
      new TreeMap<>(choices).forEach((k, c) -> out.append('\n').append(k).append(' ').append(c));
      return out.toString();
    }
  }

  /** All of them, by path. A path that the user has ruled on is none: that is decided. */
  List<Contest> all(Bench bench) {
    return all(bench, path -> of(bench, path));
  }

  private List<Contest> all(Bench bench, IntFunction<Optional<Contest>> of) {
    Standing standing = bench.picture().standing();
    return Arrays.stream(combinable(bench))
        .filter(p -> standing.isContested(p) && !standing.isRuled(p))
        .mapToObj(of)
        .flatMap(Optional::stream)
        .sorted(Comparator.comparing(Contest::path))
        .toList();
  }

  /** The paths that the definition says how to combine; at some of them there may be no file. */
  int[] combinable(Bench bench) {
    return combinable
        .of(
            bench.workspace(),
            k -> k != null && k.isOf(bench) ? k.of(bench) : Combinable.anew(bench))
        .paths()
        .stream()
        .toArray();
  }

  /** The contest at a game path, if there is one. */
  Optional<Contest> at(Bench bench, String path) {
    return at(bench, path, Optional.empty());
  }

  /**
   * The same, or only that of one mod with what would be in play without it: what carrying its
   * change over comes to.
   *
   * @param carried the id of the mod whose change is carried over; empty to combine all
   */
  Optional<Contest> at(Bench bench, String path, Optional<String> carried) {
    int id = bench.picture().holdings().idOf(path);
    if (id < 0 || !bench.picture().standing().isContested(id)) return Optional.empty();
    return carried.isPresent() ? of(bench, id, carried.get()) : of(bench, id);
  }

  /** The contests of one mod with what would be in play without it, by path. */
  List<Contest> carried(Bench bench, String mod) {
    return all(bench, path -> of(bench, path, mod));
  }

  /**
   * A file of a mod that others have too, and that cannot be combined with theirs.
   *
   * @param ruled whether the user has ruled whose it is; else the definition does not say how
   * @param others mods, in layer order
   */
  record Left(String path, boolean ruled, List<Long> others) {}

  /** What of one mod's change cannot be carried into others' files, by path. */
  List<Left> left(Bench bench, String mod) {
    Picture picture = bench.picture();
    Holdings holdings = picture.holdings();
    Standing standing = picture.standing();
    List<Left> left = new ArrayList<>();
    for (Arrangement.Layer l : picture.arrangement().layers()) {
      if (!bench.mods().get(l.mod()).card().id().equals(mod)) continue;
      for (int path : standing.pathsOfMod(l.mod())) {
        if (!standing.isContested(path) || !standing.differs(path)) continue;
        boolean ruled = standing.isRuled(path);
        if (!ruled && bench.game().combines(holdings.path(path)).isPresent()) continue;
        List<Long> others =
            standing.holders(path).stream()
                .map(slot -> holdings.holderAt(slot).mod())
                .filter(m -> m != l.mod() && m != Holdings.GAME && !bench.mods().get(m).isMend())
                .toList();
        if (!others.isEmpty()) left.add(new Left(picture.spelling().of(path), ruled, others));
      }
    }
    left.sort(Comparator.comparing(Left::path));
    return left;
  }

  private Optional<Contest> of(Bench bench, int path) {
    return contest(bench, path, sides -> sides);
  }

  @SuppressWarnings("ReferenceEquality")
  private Optional<Contest> of(Bench bench, int path, String mod) {
    return contest(
        bench,
        path,
        sides -> {
          List<Side> others = sides.stream().filter(s -> !s.id().equals(mod)).toList();
          if (others.size() == sides.size() || others.isEmpty()) return List.of();
          Side inPlay = others.get(others.size() - 1);
          return sides.stream().filter(s -> s == inPlay || s.id().equals(mod)).toList();
        });
  }

  /**
   * @param who of all versions, in layer order, those that contend
   */
  private Optional<Contest> contest(Bench bench, int path, UnaryOperator<List<Side>> who) {
    Holdings holdings = bench.picture().holdings();
    Optional<Combine> rule = bench.game().combines(holdings.path(path));
    if (rule.isEmpty()) return Optional.empty();
    List<Side> sides = new ArrayList<>();
    Map<String, Integer> ids = new TreeMap<>();
    for (int slot : bench.picture().standing().holders(path)) {
      Mod mod = bench.mods().get(holdings.holderAt(slot).mod());
      if (mod == null || mod.isMend()) continue;
      String id = mod.card().id();
      int twice = ids.merge(id, 1, Integer::sum);
      String own = twice == 1 ? id : id + "#" + twice;
      sides.add(0, new Side(own, mod.id(), slot, holdings.shaAt(slot)));
    }
    int unmodded = bench.picture().unmodded(path);
    if (unmodded >= 0)
      sides.add(0, new Side("", Holdings.GAME, unmodded, holdings.shaAt(unmodded)));
    if (sides.size() < 2) return Optional.empty();
    String spelled = bench.picture().spelling().of(path);
    Map<String, Choice> choices = choices(bench.picture().arrangement(), spelled);
    Choice wished = choices.remove(BASE);
    List<Side> older = new ArrayList<>(ancestors.older(bench, path, sides));
    Optional<Side> now = sides.stream().filter(s -> s.mod() == Holdings.GAME).findFirst();
    List<FormerSide> earlier = now.map(n -> ancestors.former(bench, path, n)).orElse(List.of());
    Optional<Side> chosen =
        Stream.of(sides, older, earlier.stream().map(FormerSide::side).toList())
            .flatMap(List::stream)
            .filter(s -> wished != null && wished.take().contains(s.id()))
            .findFirst();
    Optional<Side> nearer =
        chosen.isPresent() ? Optional.empty() : ancestors.nearer(bench, sides, older);
    earlier.forEach(f -> older.add(f.side()));
    List<Side> contending = who.apply(sides);
    Map<String, Side> madeOn = new TreeMap<>();
    if (chosen.isEmpty() && nearer.isEmpty() && now.isPresent())
      for (Side s : contending)
        if (s.mod() != Holdings.GAME)
          madeOn.put(s.id(), ancestors.madeOn(bench, s, now.get(), earlier));
    // else the lowest, which is the game's if it has one
    Side base = chosen.or(() -> nearer).or(() -> oldest(earlier, madeOn)).orElse(sides.get(0));
    List<Side> others = new ArrayList<>();
    boolean beforeUpdate = base.mod() == Holdings.GAME && base.slot() < 0;
    // what the update changed is one more change; else the game changes nothing
    if (beforeUpdate) others.add(now.orElseThrow());
    for (Side s : contending)
      if (s.mod() != Holdings.GAME && !s.sha256().equals(base.sha256())) others.add(s);
    // with one who changed it there is nothing to combine
    if (others.size() < 2) return Optional.empty();
    madeOn.values().removeIf(on -> on.equals(base) || on.slot() >= 0);
    boolean known = base.mod() == Holdings.GAME || nearer.isPresent();
    boolean sure = chosen.isPresent() || base.mod() != Holdings.GAME || !earlier.isEmpty();
    return Optional.of(
        new Contest(spelled, rule.get(), base, known, sure, sides, older, others, madeOn, choices));
  }

  /** Of the game's earlier files that some were made from, the oldest. */
  private static Optional<Side> oldest(List<FormerSide> earlier, Map<String, Side> madeOn) {
    for (int i = earlier.size() - 1; i >= 0; i--)
      if (madeOn.containsValue(earlier.get(i).side())) return Optional.of(earlier.get(i).side());
    return Optional.empty();
  }

  /** Under which key the arrangement keeps the choices for a file. */
  static String key(String path) {
    return "file:" + path;
  }

  private Map<String, Choice> choices(Arrangement a, String path) {
    Map<String, Choice> choices = new TreeMap<>();
    a.decisionsOn(key(path)).forEach((place, c) -> choices.put(place, json.read(c, Choice.class)));
    return choices;
  }

  /** Combines the versions as they lie in the library and in the game. */
  CombinedFile combine(Bench bench, Contest c) {
    CombinedFile f = combined(bench, c);
    outlines.put(c.print(), outline(f));
    return f;
  }

  private CombinedFile combined(Bench bench, Contest c) {
    List<Contender> contenders = new ArrayList<>();
    for (Side s : c.contenders()) {
      Side on = c.madeOn().get(s.id());
      Optional<Contender> contender =
          on == null ? Optional.of(contender(bench, s)) : carriedOver(bench, c, s, on);
      if (contender.isEmpty()) return apart(bench, c, s, on);
      contenders.add(contender.get());
    }
    return FileCombiner.combine(
        c.rule(), contender(bench, c.base()), contenders, c.choices(), c.sure());
  }

  /** A mod's file with what the game has changed since the version that it was made on. */
  private Optional<Contender> carriedOver(Bench bench, Contest c, Side s, Side on) {
    Side now = c.contenders().get(0);
    List<Contender> both = List.of(contender(bench, now), contender(bench, s));
    return FileCombiner.combine(c.rule(), contender(bench, on), both, Map.of())
        .outcome()
        .map(bytes -> new Contender(s.id(), bytes));
  }

  private static CombinedFile apart(Bench bench, Contest c, Side s, Side on) {
    String reason =
        bench.nameOf(s.mod())
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

  private Contender contender(Bench bench, Side s) {
    return new Contender(s.id(), read(bench, s));
  }

  static byte[] read(Bench bench, Side s) {
    try {
      return s.slot() < 0
          ? bench.value().files().bytes().former(s.sha256())
          : bench.value().read(s.slot(), FileCombiner.MOST_BYTES + 1);
    } catch (IOException e) {
      throw IroningException.of(
          "file-unreadable",
          bench.nameOf(s.mod()),
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
  Outline outline(Bench bench, Contest c) {
    Outline known = outlines.get(c.print());
    if (known != null) return known;
    try {
      return outline(combine(bench, c));
    } catch (IroningException unreadable) {
      // one file that is away must not hide all others
      return new Outline(false, 0, List.of(unreadable.getMessage()));
    }
  }

  /** Files that wait for the user, so that the layers alone decide them. */
  List<String> asked(Bench bench) {
    return all(bench).parallelStream()
        .filter(c -> !isTwins(c) && outline(bench, c).asked() > 0)
        .map(Contest::path)
        .toList();
  }

  /** Whether all who changed it have the same. */
  static boolean isTwins(Contest c) {
    return c.contenders().stream().map(Side::sha256).distinct().count() == 1;
  }
}
