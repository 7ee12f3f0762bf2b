package ironing.core.testrun;

import ironing.core.testrun.RunLog.Summary;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;

/**
 * What a game read in one run and not in another, or otherwise.
 *
 * @param files by path
 * @param plugins in another slot, read by one only; by name
 */
public record RunDifference(List<Change> files, List<Slot> plugins) {
  /** What became of a file from one run to the next. */
  public enum Kind {
    /** Only the later run read it. */
    COME,
    /** Only the earlier one did. */
    GONE,
    /** Both did, and its content was another. */
    OTHER
  }

  /** A file that was read otherwise. */
  public record Change(String path, Kind kind) {}

  /**
   * A plugin that was read otherwise.
   *
   * @param before the slot in the earlier run, null where it did not read it; {@code now} likewise
   */
  public record Slot(String plugin, Integer before, Integer now) {}

  /** Cost: linear in what both have read. A content that a log does not tell is no difference. */
  public static RunDifference between(Summary before, Summary now) {
    List<Change> files = new ArrayList<>();
    Map<String, String> was = new TreeMap<>(before.read()), is = new TreeMap<>(now.read());
    is.forEach(
        (path, sha) -> {
          String earlier = was.get(path);
          if (earlier == null) files.add(new Change(path, Kind.COME));
          else if (!sha.isEmpty() && !earlier.isEmpty() && !sha.equals(earlier))
            files.add(new Change(path, Kind.OTHER));
        });
    for (String path : was.keySet())
      if (!is.containsKey(path)) files.add(new Change(path, Kind.GONE));
    Map<String, Integer> names = new TreeMap<>(before.plugins());
    names.putAll(now.plugins());
    List<Slot> plugins = new ArrayList<>();
    for (String name : names.keySet()) {
      Integer a = before.plugins().get(name), b = now.plugins().get(name);
      if (!Objects.equals(a, b)) plugins.add(new Slot(name, a, b));
    }
    return new RunDifference(List.copyOf(files), List.copyOf(plugins));
  }
}
