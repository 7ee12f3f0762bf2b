package ironing.core.layers;

import ironing.core.path.PathCase;
import ironing.core.path.PathTable;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Who brings what: every path with all sources that hold a file there, whatever the order. It
 * changes only when mods come and go, so a move in the order never rebuilds it.
 *
 * <p>A <i>source</i> is a body of files that stands at one height: the loose files of a mod (or of
 * the game), or one pack of it.
 *
 * <p>Invariant: holders of path p are the slots {@code start[p]..start[p+1]-1}. Cost: three ints a
 * file, one an int a path, beside the texts. Threads: immutable after {@link Builder#build}.
 */
public final class Holdings {
  /** The mod id by which the unmodded game itself is known. */
  public static final long GAME = 0;

  /**
   * @param pack the game path of the pack whose content this is; empty for loose files
   */
  public record Source(int id, long mod, Optional<String> pack) {}

  private final PathTable paths;
  private final List<Source> sources;
  private final ContentTable contents;
  private final int[] start;
  private final int[] slotSource;
  private final int[] slotContent;
  private final long[] slotSize;
  // where a holder spells a path in another way than the path is kept; mostly null
  private final String[] slotSpelling;
  private final int[][] pathsOfSource;
  private final List<List<String>> foldersOfSource;

  private Holdings(
      PathTable paths,
      List<Source> sources,
      ContentTable contents,
      int[] start,
      int[] slotSource,
      int[] slotContent,
      long[] slotSize,
      String[] slotSpelling,
      int[][] pathsOfSource,
      List<List<String>> foldersOfSource) {
    this.paths = paths;
    this.sources = sources;
    this.contents = contents;
    this.start = start;
    this.slotSource = slotSource;
    this.slotContent = slotContent;
    this.slotSize = slotSize;
    this.slotSpelling = slotSpelling;
    this.pathsOfSource = pathsOfSource;
    this.foldersOfSource = foldersOfSource;
  }

  /**
   * Gathers files source by source. The game comes first, so that its spelling of a path is the one
   * kept.
   */
  public static final class Builder {
    private final PathTable paths;
    private final List<Source> sources = new ArrayList<>();
    private final ContentTable contents = new ContentTable();
    private int[] path = new int[1024], source = new int[1024], content = new int[1024];
    private long[] size = new long[1024];
    private String[] spelling = new String[1024];
    private final List<Set<String>> folders = new ArrayList<>();
    private int files;
    // the folder of the file before, and whose it was
    private byte[] folderText = new byte[256];
    private int folderLength, folderSource = -1;
    // by path: the source that was last to bring it, from 1
    private int[] lastSource = new int[1024];

    public Builder(PathCase pathCase) {
      this.paths = new PathTable(pathCase);
    }

    public int source(long mod, Optional<String> pack) {
      sources.add(new Source(sources.size(), mod, pack));
      folders.add(new LinkedHashSet<>());
      return sources.size() - 1;
    }

    /**
     * Of two files of one source at one path (they differ in case only) the first counts.
     *
     * @param sha256 64 hexadecimal digits
     */
    public Builder file(int sourceId, String gamePath, long sizeBytes, String sha256) {
      byte[] utf8 = gamePath.getBytes(StandardCharsets.UTF_8);
      return file(sourceId, utf8, 0, utf8.length, sizeBytes, HexFormat.of().parseHex(sha256), 0);
    }

    /**
     * The same from bytes.
     *
     * @param utf8 holds the path from {@code at} on, {@code length} bytes of it
     * @param sha256 holds the 32 bytes from an offset on
     */
    public Builder file(
        int sourceId, byte[] utf8, int at, int length, long sizeBytes, byte[] sha256, int offset) {
      int id = paths.intern(utf8, at, length);
      if (id >= lastSource.length) lastSource = Arrays.copyOf(lastSource, id * 2);
      if (lastSource[id] == sourceId + 1) return this;
      boolean fresh = lastSource[id] == 0;
      lastSource[id] = sourceId + 1;
      if (files == path.length) grow();
      path[files] = id;
      source[files] = sourceId;
      content[files] = contents.intern(sha256, offset);
      size[files] = sizeBytes;
      spelling[files] =
          fresh || paths.isSpelled(id, utf8, at, length)
              ? null
              : new String(utf8, at, length, StandardCharsets.UTF_8);
      folder(sourceId, utf8, at, length);
      files++;
      return this;
    }

    // files of one folder mostly come one after the other
    private void folder(int sourceId, byte[] utf8, int at, int length) {
      int end = at + length - 1;
      while (end >= at && utf8[end] != '/') end--;
      end = Math.max(end, at);
      if (folderSource == sourceId && Arrays.equals(folderText, 0, folderLength, utf8, at, end))
        return;
      folderLength = end - at;
      if (folderText.length < folderLength) folderText = new byte[folderLength * 2];
      System.arraycopy(utf8, at, folderText, 0, folderLength);
      folderSource = sourceId;
      folders.get(sourceId).add(new String(utf8, at, folderLength, StandardCharsets.UTF_8));
    }

    private void grow() {
      int bigger = files * 2;
      path = Arrays.copyOf(path, bigger);
      source = Arrays.copyOf(source, bigger);
      content = Arrays.copyOf(content, bigger);
      size = Arrays.copyOf(size, bigger);
      spelling = Arrays.copyOf(spelling, bigger);
    }

    public Holdings build() {
      int[] start = new int[paths.size() + 1];
      for (int f = 0; f < files; f++) start[path[f] + 1]++;
      for (int p = 0; p < paths.size(); p++) start[p + 1] += start[p];
      int[] next = Arrays.copyOf(start, paths.size());
      int[] slotSource = new int[files], slotContent = new int[files];
      long[] slotSize = new long[files];
      String[] slotSpelling = new String[files];
      int[] count = new int[sources.size()];
      for (int f = 0; f < files; f++) {
        int slot = next[path[f]]++;
        slotSource[slot] = source[f];
        slotContent[slot] = content[f];
        slotSize[slot] = size[f];
        slotSpelling[slot] = spelling[f];
        count[source[f]]++;
      }
      int[][] of = new int[sources.size()][];
      for (int s = 0; s < of.length; s++) of[s] = new int[count[s]];
      Arrays.fill(count, 0);
      for (int f = 0; f < files; f++) of[source[f]][count[source[f]]++] = path[f];
      return new Holdings(
          paths,
          List.copyOf(sources),
          contents.trimmed(),
          start,
          slotSource,
          slotContent,
          slotSize,
          slotSpelling,
          of,
          folders.stream().map(List::copyOf).toList());
    }
  }

  public int pathCount() {
    return paths.size();
  }

  public int fileCount() {
    return slotSource.length;
  }

  /** The path as the game or, failing that, the first source spells it. */
  public String path(int pathId) {
    return paths.pathOf(pathId);
  }

  /** The id of a path, -1 when nobody holds it. */
  public int idOf(String path) {
    return paths.idOf(path);
  }

  public List<Source> sources() {
    return sources;
  }

  public Source source(int id) {
    return sources.get(id);
  }

  /** All who hold a path, whether they stand or not. */
  public List<Source> sourcesOf(int path) {
    List<Source> all = new ArrayList<>();
    for (int slot = start[path]; slot < start[path + 1]; slot++) all.add(holderAt(slot));
    return all;
  }

  int firstSlot(int path) {
    return start[path];
  }

  int endSlot(int path) {
    return start[path + 1];
  }

  int sourceAt(int slot) {
    return slotSource[slot];
  }

  int contentAt(int slot) {
    return slotContent[slot];
  }

  /** The slot in which a source holds a path, -1 when it does not. */
  public int slotOf(int path, int sourceId) {
    for (int slot = start[path]; slot < start[path + 1]; slot++)
      if (slotSource[slot] == sourceId) return slot;
    return -1;
  }

  /** The mods that hold a path with this in it, in folded form. Cost: all paths. */
  public List<Long> modsHolding(String part) {
    BitSet found = new BitSet();
    for (int p = 0; p < paths.size(); p++) {
      if (!PathCase.fold(paths.pathOf(p)).contains(part)) continue;
      for (int slot = start[p]; slot < start[p + 1]; slot++) found.set(slotSource[slot]);
    }
    return found.stream().mapToObj(s -> sources.get(s).mod()).distinct().toList();
  }

  /** The slot in which a mod holds a path, loose rather than packed; -1 when it does not. */
  public int slotOfMod(int path, long mod) {
    int found = -1;
    for (int slot = start[path]; slot < start[path + 1]; slot++) {
      Source s = holderAt(slot);
      if (s.mod() == mod && (found < 0 || s.pack().isEmpty())) found = slot;
    }
    return found;
  }

  /** Whether a mod holds any path that passes. Cost: its files. */
  public boolean holdsAny(long mod, Predicate<String> which) {
    for (Source s : sources) {
      if (s.mod() != mod) continue;
      for (int p : pathsOfSource[s.id()]) if (which.test(paths.pathOf(p))) return true;
    }
    return false;
  }

  /** Puts the slot of each path of a mod that passes into an array by path. Cost: its files. */
  public void slotsOf(long mod, Predicate<String> which, int[] byPath) {
    for (Source s : sources) {
      if (s.mod() != mod) continue;
      for (int p : pathsOfSource[s.id()])
        if (which.test(paths.pathOf(p))) byPath[p] = slotOfMod(p, mod);
    }
  }

  int pathAt(int slot) {
    int at = Arrays.binarySearch(start, slot);
    if (at < 0) return -at - 2;
    // paths without holders begin at the same slot as the one behind them
    while (at + 1 < start.length && start[at + 1] == slot) at++;
    return at;
  }

  /** The slots of the loose files of a mod whose spelled path passes. Cost: its files. */
  public List<Integer> looseSlots(long mod, Predicate<String> which) {
    List<Integer> slots = new ArrayList<>();
    for (Source s : sources) {
      if (s.mod() != mod || s.pack().isPresent()) continue;
      for (int p : pathsOfSource[s.id()]) {
        int slot = slotOf(p, s.id());
        if (which.test(spellingAt(slot))) slots.add(slot);
      }
    }
    return slots;
  }

  /** The paths that a source holds. The array is this object's own: read only. */
  int[] pathsOf(int sourceId) {
    return pathsOfSource[sourceId];
  }

  /** Every folder in which a source has a file, as it spells it, in the order of first sight. */
  List<String> foldersOf(int sourceId) {
    return foldersOfSource.get(sourceId);
  }

  public long sizeAt(int slot) {
    return slotSize[slot];
  }

  public String shaAt(int slot) {
    return contents.sha256(slotContent[slot]);
  }

  /** The path as the holder in this slot spells it. */
  public String spellingAt(int slot) {
    String own = slotSpelling[slot];
    return own == null ? path(pathAt(slot)) : own;
  }

  public Source holderAt(int slot) {
    return sources.get(slotSource[slot]);
  }
}
