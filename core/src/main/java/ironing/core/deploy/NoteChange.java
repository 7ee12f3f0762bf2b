package ironing.core.deploy;

import ironing.core.deploy.LaidOut.Item;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * What is different in a note of what is laid out: written instead of the whole where little is.
 *
 * @param number one more than that of the change before
 * @param at when, RFC 3339
 * @param put files that are new or others, by path
 * @param gone paths
 * @param made folders that deploying made
 * @param left those of before that it made and that are gone
 */
record NoteChange(
    long number,
    String at,
    Optional<Long> profile,
    Optional<String> owner,
    List<Item> put,
    List<String> gone,
    List<String> made,
    List<String> left) {
  static final String FORMAT = "ironing/laid-out-change@1";
  // more than that, and the whole is written
  private static final int PART = 8;

  /**
   * What leads from one note to another, where that is little beside the whole. Cost: a comparison
   * of each file, and none of its texts where it has stayed.
   */
  @SuppressWarnings("ReferenceEquality") // an item that has stayed is the same object mostly
  static Optional<NoteChange> between(LaidOut before, LaidOut after, long number) {
    Items was = Items.of(before.files()), is = Items.of(after.files());
    int most = is.size() / PART;
    List<Item> put = new ArrayList<>();
    List<String> gone = new ArrayList<>();
    int w = 0, i = 0;
    while (w < was.size() || i < is.size()) {
      if (put.size() + gone.size() > most) return Optional.empty();
      Item old = w < was.size() ? was.at(w) : null, now = i < is.size() ? is.at(i) : null;
      int side = old == now ? 0 : old == null ? 1 : now == null ? -1 : compare(old, now);
      if (side < 0) gone.add(old.path());
      else if (side > 0 || old != now && !old.equals(now)) put.add(now);
      if (side <= 0) w++;
      if (side >= 0) i++;
    }
    if (put.size() + gone.size() > most) return Optional.empty();
    return Optional.of(
        new NoteChange(
            number,
            after.at(),
            after.profile(),
            after.owner(),
            put,
            gone,
            beside(after.folders(), before.folders()),
            beside(before.folders(), after.folders())));
  }

  private static int compare(Item a, Item b) {
    return a.path().compareTo(b.path());
  }

  private static List<String> beside(List<String> all, List<String> without) {
    Set<String> rest = new LinkedHashSet<>(all);
    without.forEach(rest::remove);
    return List.copyOf(rest);
  }

  LaidOut on(LaidOut before) {
    Map<String, Item> fresh = new HashMap<>();
    for (Item i : put) fresh.put(i.path(), i);
    Set<String> without = new HashSet<>(gone);
    List<Item> files = new ArrayList<>(before.files().size() + put.size());
    for (Item i : before.files().values()) {
      Item other = fresh.remove(i.path());
      if (other != null) files.add(other);
      else if (!without.contains(i.path())) files.add(i);
    }
    List<String> folders = new ArrayList<>(beside(before.folders(), left));
    folders.addAll(made);
    folders.sort(null);
    Items all =
        fresh.isEmpty()
            ? new Items(files.toArray(Item[]::new))
            : merged(files, new TreeMap<>(fresh));
    return new LaidOut(at, all, folders, profile, owner);
  }

  private static Items merged(List<Item> files, TreeMap<String, Item> fresh) {
    Item[] all = new Item[files.size() + fresh.size()];
    int n = 0, f = 0;
    for (Item i : fresh.values()) {
      while (f < files.size() && files.get(f).path().compareTo(i.path()) < 0)
        all[n++] = files.get(f++);
      all[n++] = i;
    }
    while (f < files.size()) all[n++] = files.get(f++);
    return new Items(all);
  }
}
