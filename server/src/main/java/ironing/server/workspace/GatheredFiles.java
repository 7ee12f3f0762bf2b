package ironing.server.workspace;

import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import ironing.core.layers.Holdings;
import ironing.core.path.PathCase;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * The files of all mods of a workspace, and of the game.
 *
 * @param of by mod, {@link Holdings#GAME} for the game; none for a mod without files
 */
record GatheredFiles(Holdings holdings, Map<Long, Of> of) {
  /**
   * @param files loose ones
   * @param edited game path of a file that was edited here to where it lies below the mod's folder
   */
  record Of(int files, long sizeBytes, Map<String, String> edited) {
    static final Of NOTHING = new Of(0, 0, Map.of());
  }

  Of of(long mod) {
    return of.getOrDefault(mod, Of.NOTHING);
  }

  /** The same as if they had been gathered at once; see {@link Holdings#gathered}. */
  GatheredFiles gathered(PathCase pathCase) {
    return new GatheredFiles(holdings.gathered(pathCase), of);
  }

  void write(ArrayFileWriter out) throws IOException {
    holdings.write(out);
    List<Long> mods = List.copyOf(of.keySet());
    out.longs(mods.stream().mapToLong(Long::longValue).toArray());
    out.ints(mods.stream().mapToInt(m -> of(m).files()).toArray());
    out.longs(mods.stream().mapToLong(m -> of(m).sizeBytes()).toArray());
    out.ints(mods.stream().mapToInt(m -> of(m).edited().size()).toArray());
    List<String> edited = new ArrayList<>();
    for (long m : mods) {
      of(m)
          .edited()
          .forEach(
              (path, stored) -> {
                edited.add(path);
                edited.add(stored);
              });
    }
    out.texts(edited);
  }

  static GatheredFiles read(PathCase pathCase, ArrayFileReader in) throws IOException {
    Holdings holdings = Holdings.read(pathCase, in);
    long[] mods = in.longs();
    int[] files = in.ints();
    long[] sizes = in.longs();
    int[] edits = in.ints();
    List<String> texts = in.texts();
    Map<Long, Of> of = new HashMap<>();
    int text = 0;
    for (int m = 0; m < mods.length; m++) {
      Map<String, String> edited = new TreeMap<>();
      for (int e = 0; e < edits[m]; e++) edited.put(texts.get(text++), texts.get(text++));
      of.put(mods[m], new Of(files[m], sizes[m], edited));
    }
    return new GatheredFiles(holdings, of);
  }
}
