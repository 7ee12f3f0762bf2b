package ironing.core.layers;

import ironing.core.path.PathCase;
import ironing.core.path.PathTable;
import ironing.core.path.SplitPaths;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;

/**
 * Gathers {@link Holdings}: files source by source. The game comes first, so that its spelling of a
 * path is the one kept.
 */
public final class HoldingsBuilder {
  private final List<Holdings.Source> sources = new ArrayList<>();
  private final FileIntake intake;
  private FileBatch batch = new FileBatch();
  // each way in which a folder is spelled; where the game minds the case nobody asks for them
  private final PathTable folders = new PathTable(PathCase.SENSITIVE);
  private final boolean findsFolders;
  private int[] folder = new int[64], folderOf = new int[64];
  private int foldersFound;
  // by folder: the source that was last to have a file in it, from 1
  private int[] lastInFolder = new int[64];
  // the folder of the file before, and whose it was
  private byte[] folderText = new byte[256];
  private int folderLength, folderSource = -1;

  public HoldingsBuilder(PathCase pathCase) {
    this(pathCase, 0);
  }

  /**
   * @param expected about how many files are to come: so many are taken in without making room
   *     again and again
   */
  public HoldingsBuilder(PathCase pathCase, int expected) {
    this.intake = new FileIntake(pathCase, expected);
    this.findsFolders = pathCase == PathCase.INSENSITIVE;
  }

  public int source(long mod, Optional<String> pack) {
    sources.add(new Holdings.Source(sources.size(), mod, pack));
    return sources.size() - 1;
  }

  /**
   * Of two files of one source at one path (they differ in case only) the first counts. Those of a
   * source come one after the other.
   *
   * @param sha256 64 hexadecimal digits
   */
  public HoldingsBuilder file(int sourceId, String gamePath, long sizeBytes, String sha256) {
    byte[] utf8 = gamePath.getBytes(StandardCharsets.UTF_8);
    return file(sourceId, utf8, 0, utf8.length, sizeBytes, HexFormat.of().parseHex(sha256), 0);
  }

  /**
   * The same from bytes.
   *
   * @param utf8 holds the path from {@code at} on, {@code length} bytes of it
   * @param sha256 holds the 32 bytes from an offset on
   */
  public HoldingsBuilder file(
      int sourceId, byte[] utf8, int at, int length, long sizeBytes, byte[] sha256, int offset) {
    if (batch.isFull()) {
      intake.take(batch);
      batch = new FileBatch();
    }
    long hash = intake.hash(utf8, at, length);
    batch.add(hash, sourceId, utf8, at, length, sizeBytes, sha256, offset);
    if (findsFolders) folder(sourceId, utf8, at, length);
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
    int id = folders.intern(utf8, at, folderLength);
    if (id >= lastInFolder.length) lastInFolder = Arrays.copyOf(lastInFolder, id * 2);
    if (lastInFolder[id] == sourceId + 1) return;
    lastInFolder[id] = sourceId + 1;
    if (foldersFound == folder.length) {
      folder = Arrays.copyOf(folder, foldersFound * 2);
      folderOf = Arrays.copyOf(folderOf, foldersFound * 2);
    }
    folder[foldersFound] = id;
    folderOf[foldersFound++] = sourceId;
  }

  public Holdings build() {
    List<FileBatch> batches = intake.finish(batch);
    SplitPaths paths = intake.paths();
    CompletableFuture<int[][]> ofSources =
        CompletableFuture.supplyAsync(() -> pathsBySource(batches, paths));
    int[] start = intake.starts();
    int files = start[paths.size()];
    int[] next = Arrays.copyOf(start, paths.size());
    int[] slotSource = new int[files];
    Contents contents = new Contents(files);
    long[] slotSize = new long[files];
    boolean spelled = batches.stream().anyMatch(FileBatch::anySpelled);
    String[] slotSpelling = new String[spelled ? files : 0];
    // no path is in two parts, and so no slot
    IntStream.range(0, SplitPaths.PARTS)
        .parallel()
        .forEach(
            part -> {
              for (FileBatch b : batches) {
                for (int n = 0; n < b.count; n++) {
                  if (b.path[n] == FileBatch.DROPPED || b.path[n] % SplitPaths.PARTS != part)
                    continue;
                  int slot = next[pathId(paths, b.path[n])]++;
                  slotSource[slot] = b.source[n];
                  b.content(n, contents, slot);
                  slotSize[slot] = b.size[n];
                  if (spelled) slotSpelling[slot] = b.spelling(n);
                }
              }
            });
    return new Holdings(
        paths,
        List.copyOf(sources),
        new Slots(slotSource, slotSize, contents, slotSpelling, new int[0]),
        start,
        ofSources.join(),
        folders,
        bySource(folder, folderOf, foldersFound));
  }

  private static int pathId(SplitPaths paths, int path) {
    return paths.id(path % SplitPaths.PARTS, path / SplitPaths.PARTS);
  }

  private int[][] pathsBySource(List<FileBatch> batches, SplitPaths paths) {
    int all = batches.stream().mapToInt(b -> b.count).sum(), count = 0;
    int[] path = new int[all], of = new int[all];
    for (FileBatch b : batches) {
      for (int n = 0; n < b.count; n++) {
        if (b.path[n] == FileBatch.DROPPED) continue;
        path[count] = pathId(paths, b.path[n]);
        of[count++] = b.source[n];
      }
    }
    return bySource(path, of, count);
  }

  /** By source what it has, in the order in which it came. */
  private int[][] bySource(int[] what, int[] of, int count) {
    int[] each = new int[sources.size()];
    for (int i = 0; i < count; i++) each[of[i]]++;
    int[][] by = new int[each.length][];
    for (int s = 0; s < by.length; s++) by[s] = new int[each[s]];
    Arrays.fill(each, 0);
    for (int i = 0; i < count; i++) by[of[i]][each[of[i]]++] = what[i];
    return by;
  }
}
