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
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * How many files of a game folder are not as a picture wants them, by the note of what is laid out:
 * what {@link WantedFiles} and the note come to, kept path by path, so that a change costs what it
 * changes.
 *
 * <p>Cost: a look at every path when it is made; afterwards a comparison of numbers for every path,
 * and a look at those whose file in play is another.
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
  private final Holdings holdings;
  private final LaidOut laidOut;
  private final LaidOut.Item[] laid;
  private final int[] ofGame;
  private final BitSet written = new BitSet(), isProtected = new BitSet();
  private final int[] seen;
  private final byte[] kinds;
  private final int[] tally = new int[16];
  private final BitSet ruled = new BitSet();

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
   * @param picture any over the holdings that are to be asked about
   * @param byTools what tools write to
   */
  public FolderDistance(Picture picture, LaidOut laidOut, List<PathPattern> byTools) {
    this.game = picture.game();
    this.holdings = picture.holdings();
    this.laidOut = laidOut;
    int n = holdings.pathCount();
    this.laid = new LaidOut.Item[n];
    for (LaidOut.Item i : laidOut.files().values()) {
      int id = holdings.idOf(i.path());
      if (id >= 0) laid[id] = i;
    }
    this.ofGame = new int[n];
    Arrays.fill(ofGame, -1);
    holdings.slotsOf(Holdings.GAME, path -> true, ofGame);
    for (int p = 0; p < n; p++) {
      if (ofGame[p] >= 0 && holdings.holderAt(ofGame[p]).pack().isPresent()) ofGame[p] = -1;
      String path = holdings.path(p);
      boolean linked = laid[p] != null && laid[p].how() == LaidOut.How.LINK;
      if (PathPattern.anyMatches(byTools, path)
          || (ofGame[p] >= 0 || linked) && game.isWritable(path)) written.set(p);
      if (game.isProtected(path)) isProtected.set(p);
    }
    this.seen = new int[n];
    Arrays.fill(seen, UNSEEN);
    this.kinds = new byte[n];
    tally[NOT_WANTED] = n;
  }

  /** Whether it is about these very holdings and this very note. */
  @SuppressWarnings("ReferenceEquality")
  public boolean isOf(Picture picture, LaidOut note) {
    return picture.holdings() == holdings && note == laidOut;
  }

  /**
   * @param settings as of {@link WantedFiles#of}
   */
  public Count of(Picture picture, List<Setting> settings) {
    Standing standing = picture.standing();
    for (int p = 0; p < seen.length; p++) {
      int slot = standing.inPlay(p);
      boolean rule = standing.isRuled(p);
      if (slot == seen[p] && rule == ruled.get(p)) continue;
      seen[p] = slot;
      ruled.set(p, rule);
      int kind = kind(p, slot, rule);
      tally[kinds[p]]--;
      kinds[p] = (byte) kind;
      tally[kind]++;
    }
    return count(special(picture, settings));
  }

  private int kind(int p, int slot, boolean rule) {
    if (slot < 0 || isProtected.get(p)) return NOT_WANTED;
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
    WantedFiles.pluginList(picture).ifPresent(special::add);
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
