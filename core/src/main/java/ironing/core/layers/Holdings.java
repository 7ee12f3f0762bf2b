package ironing.core.layers;

import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.path.PathTable;
import ironing.core.path.SplitPaths;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.IntStream;

/**
 * Who brings what: every path with all sources that hold a file there, whatever the order. It
 * changes only when mods come and go, so a move in the order never rebuilds it.
 *
 * <p>A <i>source</i> is a body of files that stands at one height: the loose files of a mod (or of
 * the game), or one pack of it.
 *
 * <p>Invariant: the holders of a path lie in slots one behind the other, the game first and then
 * mods by their number. Where files of some mods have changed ({@link #with}) the holders of the
 * paths that were touched lie anew behind all others, and the slots where they lay are nobody's: so
 * ids of paths and of sources stay what they were, and a slot holds the same file for ever.
 *
 * <p>Cost: 48 bytes a file, beside the paths; 8 more a path once some have changed. Threads:
 * immutable after {@link HoldingsBuilder#build}.
 */
public final class Holdings {
  /** The mod id by which the unmodded game itself is known. */
  public static final long GAME = 0;

  /**
   * @param pack the game path of the pack whose content this is; empty for loose files
   */
  public record Source(int id, long mod, Optional<String> pack) {}

  /** The mod of a source that is nobody's any more, and holds nothing. */
  static final long GONE = -1;

  final SplitPaths paths;
  // those too that are gone
  final List<Source> sources;
  private final List<Source> present;
  private final Map<Long, List<Source>> ofMod = new HashMap<>();
  final Slots early;
  // by path where its slots began as long as all were early, and where the last ones ended
  final int[] start;
  // slots that came behind, when files had changed
  final Slots late;
  // by path where its slots are now; null as long as all are early
  final Runs runs;
  final int[][] pathsOfSource;
  final PathTable folders;
  final int[][] foldersOfSource;
  // tells which others these have come from
  final Lineage lineage;

  private final int files;

  /**
   * @param before what it came from; null for what was gathered anew
   * @param touched the paths at which the files are not those of before
   */
  @SuppressWarnings("ArrayRecordComponent")
  record Lineage(Lineage before, int[] touched) {
    @SuppressWarnings("ReferenceEquality")
    boolean isFrom(Lineage other) {
      for (Lineage l = this; l != null; l = l.before) if (l == other) return true;
      return false;
    }
  }

  Holdings(
      SplitPaths paths,
      List<Source> sources,
      Slots early,
      int[] start,
      Slots late,
      Runs runs,
      int[][] pathsOfSource,
      PathTable folders,
      int[][] foldersOfSource,
      int files,
      Lineage lineage) {
    this.paths = paths;
    this.sources = sources;
    this.present =
        lineage.before() == null ? sources : sources.stream().filter(s -> s.mod() != GONE).toList();
    for (Source s : present) ofMod.computeIfAbsent(s.mod(), m -> new ArrayList<>(1)).add(s);
    this.early = early;
    this.start = start;
    this.late = late;
    this.runs = runs;
    this.pathsOfSource = pathsOfSource;
    this.folders = folders;
    this.foldersOfSource = foldersOfSource;
    this.files = files;
    this.lineage = lineage;
  }

  /** As they were gathered at once. */
  Holdings(
      SplitPaths paths,
      List<Source> sources,
      Slots slots,
      int[] start,
      int[][] pathsOfSource,
      PathTable folders,
      int[][] foldersOfSource) {
    this(
        paths,
        sources,
        slots,
        start,
        Slots.NONE,
        null,
        pathsOfSource,
        folders,
        foldersOfSource,
        slots.count(),
        new Lineage(null, new int[0]));
  }

  /**
   * Reads what {@link #write} wrote, at a tenth of what it costs to gather it again.
   *
   * @param pathCase by which it was gathered
   */
  public static Holdings read(PathCase pathCase, ArrayFileReader in) throws IOException {
    SplitPaths paths = new SplitPaths(pathCase, in);
    long[] mods = in.longs();
    List<String> packs = in.texts();
    List<Source> sources =
        IntStream.range(0, mods.length)
            .mapToObj(
                s -> new Source(s, mods[s], Optional.of(packs.get(s)).filter(p -> !p.isEmpty())))
            .toList();
    Contents contents = new Contents(in);
    int[] start = in.ints(), slotSource = in.ints();
    long[] slotSize = in.longs();
    int[] spelled = in.ints();
    List<String> spellings = in.texts();
    String[] slotSpelling = new String[spelled.length == 0 ? 0 : slotSource.length];
    for (int i = 0; i < spelled.length; i++) slotSpelling[spelled[i]] = spellings.get(i);
    int[][] pathsOfSource = in.rows();
    return new Holdings(
        paths,
        sources,
        new Slots(slotSource, slotSize, contents, slotSpelling, new int[0]),
        start,
        pathsOfSource,
        new PathTable(PathCase.SENSITIVE, in),
        in.rows());
  }

  /** Writes it as it was gathered; see {@link #gathered}. */
  public void write(ArrayFileWriter out) throws IOException {
    if (runs != null) throw new IllegalStateException("files have changed since");
    Contents contents = early.contents();
    int[] slotSource = early.source();
    long[] slotSize = early.size();
    String[] slotSpelling = early.spelling();
    paths.write(out);
    out.longs(sources.stream().mapToLong(Source::mod).toArray());
    out.texts(sources.stream().map(s -> s.pack().orElse("")).toList());
    contents.write(out);
    out.ints(start);
    out.ints(slotSource);
    out.longs(slotSize);
    int[] spelled =
        IntStream.range(0, slotSpelling.length).filter(s -> slotSpelling[s] != null).toArray();
    out.ints(spelled);
    out.texts(Arrays.stream(spelled).mapToObj(s -> slotSpelling[s]).toList());
    out.rows(pathsOfSource);
    folders.write(out);
    out.rows(foldersOfSource);
  }

  /**
   * These with other files of some mods.
   *
   * <p>Cost: a look at each file of those mods; beside them what came late is copied, and some
   * bytes for each path.
   *
   * @param gone mods that have no files any more
   * @param come gathered of mods alone, the game among them: all that each of them has now,
   *     whatever it had
   */
  public Holdings with(Set<Long> gone, Holdings come) {
    return new HoldingsChange(this, gone, come).made();
  }

  /** Whether so much has come late or gone that these had better be {@link #gathered} anew. */
  public boolean isScattered() {
    int unused = slotCount() - files;
    return late.count() > 50_000 + early.count() / 2 || unused > 50_000 + files / 2;
  }

  /** The same files as if they had been gathered at once. Cost: all files. */
  public Holdings gathered(PathCase pathCase) {
    if (runs == null) return this;
    HoldingsBuilder all = new HoldingsBuilder(pathCase, fileCount());
    present.stream()
        .sorted(Comparator.comparingLong(Source::mod))
        .forEach(
            s -> {
              int id = all.source(s.mod(), s.pack());
              for (int p : pathsOf(s.id())) {
                int slot = slotOf(p, s.id());
                all.file(id, spellingAt(slot), sizeAt(slot), shaAt(slot));
              }
            });
    return all.build();
  }

  /** Whether these came from others by {@link #with}, at once or step by step. */
  public boolean isFrom(Holdings others) {
    return lineage.isFrom(others.lineage);
  }

  /**
   * The paths of these at which there are other files than in others, or may be. Cost: as many as
   * there are.
   *
   * @param others from which these came; see {@link #isFrom}
   */
  @SuppressWarnings("ReferenceEquality")
  public BitSet touchedSince(Holdings others) {
    if (this == others) return new BitSet();
    if (!isFrom(others)) throw new IllegalArgumentException("these did not come from those");
    BitSet touched = new BitSet(pathCount());
    for (Lineage l = lineage; l != others.lineage; l = l.before())
      for (int p : l.touched()) touched.set(p);
    return touched;
  }

  /** About how much memory they take. */
  public long bytes() {
    // a slot and its place among those of its source; a path's own slots
    return paths.bytes()
        + folders.bytes()
        + 48L * slotCount()
        + (runs == null ? 4L : 12L) * pathCount();
  }

  /** One more than the highest id of a path. At some of them there may be no file any more. */
  public int pathCount() {
    return paths.size();
  }

  public int fileCount() {
    return files;
  }

  /** The path as the game or, failing that, the mod with the lowest number spells it. */
  public String path(int pathId) {
    int slot = firstSlot(pathId);
    String own = slot < endSlot(pathId) ? spelledAt(slot) : null;
    return own == null ? paths.pathOf(pathId) : own;
  }

  /**
   * The paths that pass, in order of their ids; only those are asked that may end in a text. Cost:
   * a look at the end of each path.
   *
   * @param tail as {@link PathPattern#tail} gives it
   */
  public int[] pathsEnding(String tail, Predicate<String> which) {
    byte[] small = tail.toLowerCase(Locale.ROOT).getBytes(StandardCharsets.US_ASCII);
    return IntStream.range(0, paths.size())
        .filter(p -> paths.mayEndIn(p, small) && isHeld(p) && which.test(path(p)))
        .toArray();
  }

  /** Whether there is a file at a path. */
  public boolean isHeld(int path) {
    return firstSlot(path) < endSlot(path);
  }

  /** The id of a path, -1 when nobody holds it. */
  public int idOf(String path) {
    int id = paths.idOf(path);
    return id >= 0 && isHeld(id) ? id : -1;
  }

  /** In the order of their ids, which may have gaps. */
  public List<Source> sources() {
    return present;
  }

  /** Those of a mod, or of the game, in the same order. */
  public List<Source> sourcesOfMod(long mod) {
    return ofMod.getOrDefault(mod, List.of());
  }

  /** One more than the highest id of a source. */
  public int sourceCount() {
    return sources.size();
  }

  public Source source(int id) {
    return sources.get(id);
  }

  /** All who hold a path, whether they stand or not. */
  public List<Source> sourcesOf(int path) {
    List<Source> all = new ArrayList<>();
    for (int slot = firstSlot(path); slot < endSlot(path); slot++) all.add(holderAt(slot));
    return all;
  }

  int firstSlot(int path) {
    return runs == null ? start[path] : runs.first(path);
  }

  int endSlot(int path) {
    return runs == null ? start[path + 1] : runs.end(path);
  }

  /** One more than the highest slot. */
  int slotCount() {
    return early.count() + late.count();
  }

  int sourceAt(int slot) {
    int n = early.count();
    return slot < n ? early.source()[slot] : late.source()[slot - n];
  }

  boolean sameContent(int slot, int other) {
    int n = early.count();
    Contents of = (slot < n ? early : late).contents(), and = (other < n ? early : late).contents();
    return of.same(slot < n ? slot : slot - n, and, other < n ? other : other - n);
  }

  /** The slot in which a source holds a path, -1 when it does not. */
  public int slotOf(int path, int sourceId) {
    for (int slot = firstSlot(path); slot < endSlot(path); slot++)
      if (sourceAt(slot) == sourceId) return slot;
    return -1;
  }

  /** The mods that hold a path with this in it, in folded form. Cost: all paths. */
  public List<Long> modsHolding(String part) {
    BitSet found = new BitSet();
    for (int p = 0; p < paths.size(); p++) {
      if (!PathCase.fold(paths.pathOf(p)).contains(part)) continue;
      for (int slot = firstSlot(p); slot < endSlot(p); slot++) found.set(sourceAt(slot));
    }
    return found.stream().mapToObj(s -> sources.get(s).mod()).distinct().toList();
  }

  /** The slot in which a mod holds a path, loose rather than packed; -1 when it does not. */
  public int slotOfMod(int path, long mod) {
    int found = -1;
    for (int slot = firstSlot(path); slot < endSlot(path); slot++) {
      Source s = holderAt(slot);
      if (s.mod() == mod && (found < 0 || s.pack().isEmpty())) found = slot;
    }
    return found;
  }

  /** Whether a mod holds any path that passes. Cost: its files. */
  public boolean holdsAny(long mod, Predicate<String> which) {
    for (Source s : sourcesOfMod(mod)) {
      for (int p : pathsOfSource[s.id()]) if (which.test(path(p))) return true;
    }
    return false;
  }

  /** Puts the slot of each path of a mod that passes into an array by path. Cost: its files. */
  public void slotsOf(long mod, Predicate<String> which, int[] byPath) {
    for (Source s : sourcesOfMod(mod)) {
      for (int p : pathsOfSource[s.id()]) if (which.test(path(p))) byPath[p] = slotOfMod(p, mod);
    }
  }

  int pathAt(int slot) {
    if (slot >= early.count()) return late.path()[slot - early.count()];
    int at = Arrays.binarySearch(start, slot);
    if (at < 0) return -at - 2;
    // paths without holders begin at the same slot as the one behind them
    while (at + 1 < start.length && start[at + 1] == slot) at++;
    return at;
  }

  /** The slots of the loose files of a mod whose spelled path passes. Cost: its files. */
  public List<Integer> looseSlots(long mod, Predicate<String> which) {
    List<Integer> slots = new ArrayList<>();
    for (Source s : sourcesOfMod(mod)) {
      if (s.pack().isPresent()) continue;
      for (int p : pathsOfSource[s.id()]) {
        int slot = slotOf(p, s.id());
        if (which.test(spellingAt(slot))) slots.add(slot);
      }
    }
    return slots;
  }

  /** The paths that a source holds. The array is this object's own: read only. */
  public int[] pathsOf(int sourceId) {
    return pathsOfSource[sourceId];
  }

  /**
   * Every folder in which a source has a file, as it spells it, in the order of first sight; none
   * where the game minds the case.
   */
  List<String> foldersOf(int sourceId) {
    return Arrays.stream(foldersOfSource[sourceId]).mapToObj(folders::pathOf).toList();
  }

  void copyContent(int slot, Contents to, int toSlot) {
    int n = early.count();
    to.set(toSlot, (slot < n ? early : late).contents(), slot < n ? slot : slot - n);
  }

  public long sizeAt(int slot) {
    int n = early.count();
    return slot < n ? early.size()[slot] : late.size()[slot - n];
  }

  public String shaAt(int slot) {
    int n = early.count();
    return slot < n ? early.contents().sha256(slot) : late.contents().sha256(slot - n);
  }

  /** The path as the holder in this slot spells it. */
  public String spellingAt(int slot) {
    String own = spelledAt(slot);
    return own == null ? paths.pathOf(pathAt(slot)) : own;
  }

  private String spelledAt(int slot) {
    int n = early.count();
    return slot < n ? early.spelled(slot) : late.spelled(slot - n);
  }

  public Source holderAt(int slot) {
    return sources.get(sourceAt(slot));
  }
}
