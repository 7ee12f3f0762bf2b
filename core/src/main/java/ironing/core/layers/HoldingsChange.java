package ironing.core.layers;

import ironing.core.layers.Holdings.Source;
import ironing.core.path.PathTable;
import ironing.core.path.SplitPaths;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One change of the files of some mods, on its way from {@link Holdings} to the next.
 *
 * <p>Idea: a mod that has the same packs as before keeps its sources, and only the paths are
 * touched at which it has another file now; of any other mod the sources go and new ones come. The
 * holders of a path that was touched are written anew behind all slots; everything else is shared.
 */
final class HoldingsChange {
  private static final int NONE = -1;
  private static final int[] NOTHING = {};

  private final Holdings before;
  private final Holdings come;
  private final List<Source> sources;
  private final List<int[]> pathsOf;
  private final List<int[]> foldersOf;
  private final SplitPaths paths;
  // copied as soon as there is a new one
  private PathTable folders;
  // by path of those that come, and the other way about
  private final int[] pathOf;
  private final Map<Integer, Integer> comeAt = new HashMap<>();
  // by source of those that come
  private final int[] sourceOf;
  // whose files of before are not taken over
  private final BitSet replaced = new BitSet();
  private final BitSet touched = new BitSet();

  HoldingsChange(Holdings before, Set<Long> gone, Holdings come) {
    this.before = before;
    this.come = come;
    this.sources = new ArrayList<>(before.sources);
    this.pathsOf = new ArrayList<>(Arrays.asList(before.pathsOfSource));
    this.foldersOf = new ArrayList<>(Arrays.asList(before.foldersOfSource));
    this.paths = before.paths.extended();
    this.folders = before.folders;
    this.pathOf = new int[come.pathCount()];
    for (int p = 0; p < pathOf.length; p++) {
      pathOf[p] = paths.add(come.path(p));
      comeAt.put(pathOf[p], p);
    }
    this.sourceOf = new int[come.sources.size()];
    Set<Long> leaving = new HashSet<>(gone), have = new HashSet<>();
    for (Source s : come.sources) have.add(s.mod());
    leaving.removeAll(have);
    for (long mod : have) {
      List<Source> then = before.sourcesOfMod(mod), now = come.sourcesOfMod(mod);
      boolean same = packs(then).equals(packs(now));
      if (!same) leaving.add(mod);
      for (int i = 0; i < now.size(); i++)
        sourceOf[now.get(i).id()] = same ? then.get(i).id() : NONE;
    }
    for (long mod : leaving) for (Source s : before.sourcesOfMod(mod)) leave(s);
    for (Source s : come.sources) arrive(s);
  }

  private static List<Optional<String>> packs(List<Source> sources) {
    return sources.stream().map(Source::pack).toList();
  }

  private void leave(Source s) {
    for (int p : before.pathsOf(s.id())) touched.set(p);
    replaced.set(s.id());
    sources.set(s.id(), new Source(s.id(), Holdings.GONE, Optional.empty()));
    pathsOf.set(s.id(), NOTHING);
    foldersOf.set(s.id(), NOTHING);
  }

  private void arrive(Source s) {
    int[] own = Arrays.stream(come.pathsOf(s.id())).map(p -> pathOf[p]).toArray();
    int[] ownFolders = come.foldersOf(s.id()).stream().mapToInt(this::folder).toArray();
    if (sourceOf[s.id()] == NONE) {
      sourceOf[s.id()] = sources.size();
      sources.add(new Source(sources.size(), s.mod(), s.pack()));
      pathsOf.add(own);
      foldersOf.add(ownFolders);
      for (int p : own) touched.set(p);
      return;
    }
    int id = sourceOf[s.id()];
    replaced.set(id);
    for (int p : own) if (!isAsBefore(p, id, s.id())) touched.set(p);
    BitSet now = new BitSet();
    for (int p : own) now.set(p);
    for (int p : before.pathsOf(id)) if (!now.get(p)) touched.set(p);
    pathsOf.set(id, own);
    foldersOf.set(id, ownFolders);
  }

  @SuppressWarnings("ReferenceEquality")
  private int folder(String folder) {
    int known = folders.idOf(folder);
    if (known >= 0) return known;
    if (folders == before.folders) folders = new PathTable(folders);
    return folders.intern(folder);
  }

  private boolean isAsBefore(int path, int source, int comeSource) {
    if (path >= before.pathCount()) return false;
    int was = before.slotOf(path, source), is = come.slotOf(comeAt.get(path), comeSource);
    return was >= 0
        && before.sizeAt(was) == come.sizeAt(is)
        && before.shaAt(was).equals(come.shaAt(is))
        && before.spellingAt(was).equals(come.spellingAt(is));
  }

  /**
   * A file at a path that was touched.
   *
   * @param source of the holdings that are made
   */
  private record File(Holdings of, int slot, int source) {}

  Holdings made() {
    Runs runs = before.runs == null ? Runs.of(before.start) : before.runs;
    Runs.Change changed = runs.changed(paths.size());
    List<File> files = new ArrayList<>();
    int[] pathsTouched = touched.stream().toArray();
    int[] ends = new int[pathsTouched.length];
    int from = before.slotCount(), gone = 0;
    for (int i = 0; i < pathsTouched.length; i++) {
      int p = pathsTouched[i], first = from + files.size();
      if (p < before.pathCount()) gone += before.endSlot(p) - before.firstSlot(p);
      files.addAll(holders(p));
      ends[i] = files.size();
      changed.set(p, first, from + files.size());
    }
    return new Holdings(
        paths,
        List.copyOf(sources),
        before.early,
        before.start,
        late(files, pathsTouched, ends),
        changed.made(),
        pathsOf.toArray(int[][]::new),
        folders,
        foldersOf.toArray(int[][]::new),
        before.fileCount() - gone + files.size(),
        new Holdings.Lineage(before.lineage, pathsTouched));
  }

  private List<File> holders(int path) {
    List<File> files = new ArrayList<>();
    if (path < before.pathCount()) {
      for (int slot = before.firstSlot(path); slot < before.endSlot(path); slot++)
        if (!replaced.get(before.sourceAt(slot)))
          files.add(new File(before, slot, before.sourceAt(slot)));
    }
    Integer at = comeAt.get(path);
    if (at != null) {
      for (int slot = come.firstSlot(at); slot < come.endSlot(at); slot++)
        files.add(new File(come, slot, sourceOf[come.sourceAt(slot)]));
    }
    files.sort(
        Comparator.comparingLong((File f) -> sources.get(f.source()).mod())
            .thenComparingInt(File::source));
    return files;
  }

  /**
   * @param ends by path that was touched how many of the files come before those of the next
   */
  private Slots late(List<File> files, int[] paths, int[] ends) {
    Slots was = before.late;
    int from = was.count(), count = from + files.size();
    int[] source = Arrays.copyOf(was.source(), count), path = Arrays.copyOf(was.path(), count);
    long[] size = Arrays.copyOf(was.size(), count);
    Contents contents = was.contents().longer(count);
    String[] spelling = Arrays.copyOf(was.spelling(), count);
    for (int i = 0, n = 0; i < paths.length; i++) {
      String kept = this.paths.pathOf(paths[i]);
      for (; n < ends[i]; n++) {
        File f = files.get(n);
        int slot = from + n;
        source[slot] = f.source();
        path[slot] = paths[i];
        size[slot] = f.of().sizeAt(f.slot());
        f.of().copyContent(f.slot(), contents, slot);
        String spelled = f.of().spellingAt(f.slot());
        spelling[slot] = spelled.equals(kept) ? null : spelled;
      }
    }
    return new Slots(source, size, contents, spelling, path);
  }
}
