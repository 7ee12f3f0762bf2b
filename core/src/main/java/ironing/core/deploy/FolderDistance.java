package ironing.core.deploy;

import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.WantedFiles.Setting;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathPattern;
import ironing.core.picture.Picture;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * How many files of a game folder are not as a picture wants them, by the note of what is laid out:
 * what {@link WantedFiles} and the note come to, kept path by path, so that a change costs what it
 * changes.
 *
 * <p>Cost: a look at every path when it is made; afterwards a comparison of numbers for every path,
 * and a look at those whose file in play is another or at which files have changed.
 *
 * <p>Paths compare as the game compares them: a file that only has to be spelled otherwise counts
 * as right.
 *
 * <p>Threads: one at a time.
 */
public final class FolderDistance {
  private static final int NOT_WANTED = 0, RIGHT = 1, ADD = 2, REPLACE = 3, KINDS = 4;
  // beside the kind: it only guards the game’s own file; a file of ours lies there
  private static final int GUARD = 4, LAID = 8;
  private static final int UNSEEN = -2;

  private final GameDefinition game;
  private Holdings holdings;
  private final LaidOut laidOut;
  private final List<PathPattern> byTools;
  // by the key of a path
  private final Map<String, LaidOut.Item> laidAt = new HashMap<>();
  private LaidOut.Item[] laid = {};
  private int[] ofGame = {};
  private final BitSet written = new BitSet(), isProtected = new BitSet();
  private int[] seen = {};
  private byte[] kinds = {};
  private final int[] tally = new int[16];
  private final BitSet ruled = new BitSet(), off = new BitSet();

  /**
   * @param add files that are not there yet
   * @param replace files of the game, or of ours, that another takes the place of
   * @param takeOut files that go
   */
  public record Count(int add, int replace, int takeOut) {
    public int total() {
      return add + replace + takeOut;
    }
  }

  /**
   * @param picture any that is to be asked about; see {@link #isOf}
   * @param byTools what tools write to
   */
  public FolderDistance(Picture picture, LaidOut laidOut, List<PathPattern> byTools) {
    this.game = picture.game();
    this.holdings = picture.holdings();
    this.laidOut = laidOut;
    this.byTools = byTools;
    grow(holdings.pathCount());
    for (LaidOut.Item i : laidOut.files().values()) {
      laidAt.put(game.pathCase().key(i.path()), i);
      int id = holdings.idOf(i.path());
      if (id >= 0) laid[id] = i;
    }
    holdings.slotsOf(Holdings.GAME, path -> true, ofGame);
    for (int p = 0; p < holdings.pathCount(); p++) learn(p);
  }

  /** About how much memory it takes. */
  public long bytes() {
    return 14L * seen.length + 200L * laidAt.size();
  }

  private void grow(int has) {
    int had = seen.length;
    laid = Arrays.copyOf(laid, has);
    ofGame = Arrays.copyOf(ofGame, has);
    Arrays.fill(ofGame, had, has, -1);
    seen = Arrays.copyOf(seen, has);
    Arrays.fill(seen, had, has, UNSEEN);
    kinds = Arrays.copyOf(kinds, has);
    tally[NOT_WANTED] += has - had;
  }

  // what holds of a path whatever is in play there
  private void learn(int p) {
    if (ofGame[p] >= 0 && holdings.holderAt(ofGame[p]).pack().isPresent()) ofGame[p] = -1;
    String path = holdings.path(p);
    boolean linked = laid[p] != null && laid[p].how() == LaidOut.How.LINK;
    written.set(
        p, game.anyMatches(byTools, path) || (ofGame[p] >= 0 || linked) && game.isWritable(path));
    isProtected.set(p, game.isProtected(path));
  }

  /**
   * Whether it can be asked about a picture: of the same game and the same note, over the same
   * holdings or such that came from them.
   */
  @SuppressWarnings("ReferenceEquality")
  public boolean isOf(Picture picture, LaidOut note) {
    return note == laidOut && picture.game() == game && picture.holdings().isFrom(holdings);
  }

  @SuppressWarnings("ReferenceEquality")
  private void follow(Holdings next) {
    if (next == holdings) return;
    BitSet touched = next.touchedSince(holdings);
    holdings = next;
    // with some room, for more paths will come
    if (next.pathCount() > seen.length) grow(next.pathCount() + next.pathCount() / 16);
    for (int p = touched.nextSetBit(0); p >= 0; p = touched.nextSetBit(p + 1)) {
      laid[p] = laidAt.get(game.pathCase().key(next.path(p)));
      ofGame[p] = next.slotOfMod(p, Holdings.GAME);
      learn(p);
    }
  }

  /**
   * @param settings as of {@link WantedFiles#of}
   */
  public Count of(Picture picture, List<Setting> settings) {
    follow(picture.holdings());
    Standing standing = picture.standing();
    int n = holdings.pathCount();
    BitSet offNow = picture.switchedOff();
    BitSet switched = (BitSet) off.clone();
    switched.xor(offNow);
    off.clear();
    off.or(offNow);
    for (int p = switched.nextSetBit(0); p >= 0; p = switched.nextSetBit(p + 1))
      see(standing, p, standing.isRuled(p));
    if (standing.hasRulings() || !ruled.isEmpty()) {
      for (int p = 0; p < n; p++) {
        boolean rule = standing.isRuled(p);
        if (standing.inPlay(p) != seen[p] || rule != ruled.get(p)) see(standing, p, rule);
      }
    } else {
      for (int p = standing.nextUnlike(seen, 0); p < n; p = standing.nextUnlike(seen, p + 1))
        see(standing, p, false);
    }
    return count(special(picture, settings));
  }

  private void see(Standing standing, int p, boolean rule) {
    seen[p] = standing.inPlay(p);
    ruled.set(p, rule);
    int kind = kind(p, seen[p], rule);
    tally[kinds[p]]--;
    kinds[p] = (byte) kind;
    tally[kind]++;
  }

  private int kind(int p, int slot, boolean rule) {
    if (slot < 0 || isProtected.get(p) || off.get(p)) return NOT_WANTED;
    Holdings.Source holder = holdings.holderAt(slot);
    boolean packed = holder.pack().isPresent();
    if (packed && !rule) return NOT_WANTED;
    boolean guard = holder.mod() == Holdings.GAME && !packed;
    if (guard && !written.get(p)) return NOT_WANTED;
    return kind(p, holdings.shaAt(slot), packed || written.get(p)) + (guard ? GUARD : 0);
  }

  private int kind(int p, String sha256, boolean mustCopy) {
    if (laid[p] != null) return LAID + (isRight(laid[p], sha256, mustCopy) ? RIGHT : REPLACE);
    return ofGame[p] >= 0 ? REPLACE : ADD;
  }

  // as DeployPlan has it: what has to be a file of its own is not right as a link
  private static boolean isRight(LaidOut.Item item, String sha256, boolean mustCopy) {
    return item.sha256().equals(sha256) && !(mustCopy && item.how() == LaidOut.How.LINK);
  }

  /**
   * What is written by us, whatever the picture has at its path: the list, a profile’s settings.
   */
  private List<Wanted> special(Picture picture, List<Setting> settings) {
    List<Wanted> special = new ArrayList<>();
    for (Setting s : settings)
      if (!game.isProtected(s.path())) special.add(WantedFiles.settingsFile(s.path(), s.content()));
    special.addAll(WantedFiles.ordering(picture));
    return special;
  }

  private Count count(List<Wanted> special) {
    int[] now = tally.clone();
    int[] other = new int[KINDS];
    int otherLaid = 0;
    Set<Integer> instead = new HashSet<>();
    for (Wanted w : special) {
      int id = holdings.idOf(w.path());
      if (id >= 0 && !instead.add(id)) continue;
      if (id >= 0) now[kinds[id]]--;
      Optional<LaidOut.Item> item =
          id >= 0
              ? Optional.ofNullable(laid[id])
              : Optional.ofNullable(laidOut.files().get(w.path()));
      if (item.isPresent()) otherLaid++;
      boolean right = item.isPresent() && isRight(item.get(), w.sha256(), w.mustCopy());
      boolean there = item.isPresent() || id >= 0 && ofGame[id] >= 0;
      other[right ? RIGHT : there ? REPLACE : ADD]++;
    }
    int ofMods = 0;
    for (int k = 1; k < KINDS; k++) ofMods += tally[k] + tally[k + LAID];
    // with nothing of a mod in play nothing is deployed at all
    if (ofMods == 0) return new Count(0, 0, laidOut.files().size());
    int wantedLaid = otherLaid;
    for (int k = LAID + 1; k < LAID + KINDS; k++) wantedLaid += now[k] + now[k + GUARD];
    return new Count(
        all(now, ADD) + other[ADD],
        all(now, REPLACE) + other[REPLACE],
        laidOut.files().size() - wantedLaid);
  }

  private static int all(int[] tally, int kind) {
    return tally[kind] + tally[kind + GUARD] + tally[kind + LAID] + tally[kind + LAID + GUARD];
  }
}
