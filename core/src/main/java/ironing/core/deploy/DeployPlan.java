package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.layers.Holdings;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;

/**
 * What would have to happen for a game folder to agree with the picture. A value: nothing is
 * touched until {@link Deployer} applies it.
 *
 * @param steps in path order; what is right already is not among them
 * @param after what will be laid out when it is done
 */
public record DeployPlan(List<Step> steps, LaidOut after) {
  /** What happens to one path. */
  public enum Act {
    /** Nothing is there: a file is put there. */
    ADD,
    /** A file that we did not deploy is there: it is kept, and ours put in its place. */
    REPLACE,
    /** Our file is there: another one of ours takes its place. */
    SWAP,
    /** Our file goes; nothing was there before. */
    TAKE_OUT,
    /** Our file goes and the original comes back. */
    PUT_BACK,
    /**
     * What lies there is the game’s own new file: it is ours no more, and the original of before is
     * set aside.
     */
    LET_GO
  }

  /** Where the bytes of a wanted file come from. */
  public sealed interface Content {
    /**
     * A file of the library or of the game.
     *
     * @param spelled its path as its holder spells it
     */
    record File(String spelled) implements Content {}

    /**
     * A file in a pack that a ruling puts in play: it is laid out as a loose copy.
     *
     * @param pack the pack as its holder spells it
     * @param entry the name in the pack
     */
    record Packed(String pack, String entry) implements Content {}

    /** Written by Ironing itself, such as the plugin list. */
    record Text(byte[] utf8) implements Content {}
  }

  /** Who may write to a deployed file. */
  public enum Writer {
    NOBODY,
    /** A change of it is no drift: that is what the game has made of it. */
    GAME,
    /** A tool of the user's: it must not write through a link into the library. */
    TOOL
  }

  /**
   * A file that should be at a path.
   *
   * @param path spelled as it is to be on disk
   * @param mod {@link Holdings#GAME} for the game's own and for text
   * @param from whose it is, in words for people
   * @param writer with any but nobody it is copied
   */
  public record Wanted(
      String path,
      String sha256,
      long sizeBytes,
      long mod,
      String from,
      Writer writer,
      Content content) {
    /** Whether a hard link would be wrong whatever the file system allows. */
    public boolean mustCopy() {
      return writer != Writer.NOBODY || !(content instanceof Content.File);
    }

    /** Other bytes at the same path, of the same mod. */
    public Wanted with(byte[] instead) {
      return new Wanted(
          path,
          ContentHash.of(instead),
          instead.length,
          mod,
          from,
          writer,
          new Content.Text(instead));
    }

    /** A copy of the game's own file that keeps the original safe while the game writes. */
    public boolean guards() {
      return mod == Holdings.GAME && content instanceof Content.File;
    }
  }

  /** How a path of the game folder was found. */
  public enum Found {
    ABSENT,
    /** As we deployed it last. */
    AS_LAID_OUT,
    /** We deployed a file here, and it has changed since. */
    DRIFTED,
    /** Not deployed by us. */
    FOREIGN
  }

  /**
   * @param changed the file there is ours but was changed since: it is set aside, never thrown away
   */
  public record Step(
      String path,
      Act act,
      Optional<Wanted> wanted,
      Optional<LaidOut.Item> before,
      boolean changed) {}

  /**
   * The part of it that is about some paths; all else stays as it is laid out.
   *
   * @param before what is laid out now
   */
  public DeployPlan only(Set<String> paths, LaidOut before) {
    Map<String, LaidOut.Item> files = new TreeMap<>(before.files());
    for (String path : paths) {
      files.remove(path);
      if (after.files().containsKey(path)) files.put(path, after.files().get(path));
    }
    return new DeployPlan(
        steps.stream().filter(s -> paths.contains(s.path())).toList(),
        new LaidOut(after.at(), files, before.folders(), before.profile(), before.owner()));
  }

  /**
   * Leaves what lies at some paths to the game, whose update put it there.
   *
   * @param before what is laid out now
   * @param now RFC 3339
   */
  public static DeployPlan letGo(Set<String> paths, LaidOut before, String now) {
    Map<String, LaidOut.Item> files = new TreeMap<>(before.files());
    List<Step> steps = new ArrayList<>();
    for (String path : paths) {
      LaidOut.Item item = files.remove(path);
      if (item != null)
        steps.add(new Step(path, Act.LET_GO, Optional.empty(), Optional.of(item), false));
    }
    return new DeployPlan(
        steps, new LaidOut(now, files, before.folders(), before.profile(), before.owner()));
  }

  public boolean isEmpty() {
    return steps.isEmpty();
  }

  public long count(Act act) {
    return steps.stream().filter(s -> s.act() == act).count();
  }

  /** Looks at one path of the folder; asked by several threads at once. */
  public interface Look {
    Found at(String path, Optional<LaidOut.Item> item);

    /** The SHA-256 of what lies at a path. */
    String sha256(String path);
  }

  /**
   * Compares what is wanted with what lies there.
   *
   * <pre>
   * not ours before: absent                        → ADD
   *                  something there               → REPLACE (kept)
   * ours before, same content: as laid out         → nothing
   *                            changed by the game → nothing, where the game may write
   *                            drifted or gone     → SWAP (a changed one is set aside)
   * ours before, other content                     → SWAP
   * ours before, not wanted: nothing was replaced  → TAKE_OUT
   *                          an original was kept  → PUT_BACK
   * </pre>
   *
   * @param before what is laid out now
   * @param profile whose files these are
   * @param now RFC 3339
   */
  public static DeployPlan make(
      List<Wanted> wanted, LaidOut before, Optional<Long> profile, Look look, String now) {
    Items laid = Items.of(before.files());
    Wanted[] ofLaid = new Wanted[laid.size()];
    List<Wanted> others = new ArrayList<>();
    for (Wanted w : wanted) {
      int at = laid.find(w.path());
      if (at < 0) others.add(w);
      else ofLaid[at] = w;
    }
    Wanted[] fresh = sorted(others);
    // both are in path order, and so is what comes of them
    Wanted[] sorted = new Wanted[fresh.length + laid.size()];
    LaidOut.Item[] was = new LaidOut.Item[sorted.length];
    List<LaidOut.Item> leaving = new ArrayList<>();
    int n = 0, f = 0;
    for (int at = 0; at < laid.size(); at++) {
      LaidOut.Item item = laid.at(at);
      while (f < fresh.length && fresh[f].path().compareTo(item.path()) < 0)
        sorted[n++] = fresh[f++];
      if (ofLaid[at] == null) leaving.add(item);
      else {
        was[n] = item;
        sorted[n++] = ofLaid[at];
      }
    }
    while (f < fresh.length) sorted[n++] = fresh[f++];
    return compared(sorted, was, n, leaving, before, profile, look, now);
  }

  /**
   * @param was by the number of what is wanted what is laid out there now; null for nothing
   * @param count how many are wanted
   * @param leaving what is laid out and not wanted
   */
  private static DeployPlan compared(
      Wanted[] sorted,
      LaidOut.Item[] was,
      int count,
      List<LaidOut.Item> leaving,
      LaidOut before,
      Optional<Long> profile,
      Look look,
      String now) {
    Found[] founds =
        IntStream.range(0, count)
            .parallel()
            .mapToObj(n -> look.at(sorted[n].path(), Optional.ofNullable(was[n])))
            .toArray(Found[]::new);
    List<Step> steps = new ArrayList<>();
    LaidOut.Item[] after = new LaidOut.Item[count];
    for (int n = 0; n < count; n++) {
      Wanted w = sorted[n];
      Optional<LaidOut.Item> had = Optional.ofNullable(was[n]);
      boolean stays = had.isPresent() && stays(w, had.get(), founds[n]);
      after[n] = item(w, had, stays, founds[n], look);
      if (stays) continue;
      Act act = had.isPresent() ? Act.SWAP : founds[n] == Found.ABSENT ? Act.ADD : Act.REPLACE;
      steps.add(new Step(w.path(), act, Optional.of(w), had, founds[n] == Found.DRIFTED));
    }
    List<Found> left =
        leaving.parallelStream().map(i -> look.at(i.path(), Optional.of(i))).toList();
    for (int i = 0; i < leaving.size(); i++) {
      LaidOut.Item item = leaving.get(i);
      boolean drifted = left.get(i) == Found.DRIFTED;
      Act act = item.replaced().isPresent() ? Act.PUT_BACK : Act.TAKE_OUT;
      steps.add(new Step(item.path(), act, Optional.empty(), Optional.of(item), drifted));
    }
    return new DeployPlan(
        List.copyOf(steps), new LaidOut(now, new Items(after), before.folders(), profile));
  }

  /** By path; of several for one path the last. */
  private static Wanted[] sorted(List<Wanted> wanted) {
    Wanted[] all = wanted.toArray(Wanted[]::new);
    Arrays.parallelSort(all, Comparator.comparing(Wanted::path));
    int n = 0;
    for (Wanted w : all) {
      if (n > 0 && all[n - 1].path().equals(w.path())) n--;
      all[n++] = w;
    }
    return n == all.length ? all : Arrays.copyOf(all, n);
  }

  private static boolean stays(Wanted w, LaidOut.Item was, Found found) {
    if (!was.sha256().equals(w.sha256())) return false;
    // somebody may write to it now who did not when it was linked
    if (w.mustCopy() && was.how() == LaidOut.How.LINK) return false;
    return found == Found.AS_LAID_OUT || w.writer() == Writer.GAME && found == Found.DRIFTED;
  }

  private static LaidOut.Item item(
      Wanted w, Optional<LaidOut.Item> was, boolean stays, Found found, Look look) {
    Optional<String> replaced = Optional.empty();
    if (was.isPresent()) replaced = was.get().replaced();
    else if (found == Found.FOREIGN) replaced = Optional.of(look.sha256(w.path()));
    LaidOut.How how = w.mustCopy() ? LaidOut.How.COPY : LaidOut.How.LINK;
    if (stays && isOf(was.get(), w)) return was.get();
    return new LaidOut.Item(
        w.path(),
        w.sha256(),
        w.sizeBytes(),
        w.mod(),
        w.from(),
        stays ? was.get().how() : how,
        replaced,
        stays ? was.get().stamp() : Optional.empty());
  }

  private static boolean isOf(LaidOut.Item was, Wanted w) {
    return was.mod() == w.mod() && was.sizeBytes() == w.sizeBytes() && was.from().equals(w.from());
  }
}
