package ironing.core.library;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What a user decided of an archive's contents; kept with the mod, so that it can be installed
 * again in the same way. Immutable.
 *
 * @param root the folder in which the mod begins; empty to have it recognised
 * @param leaveOut entries, and folders with {@code /} at the end, that stay out
 * @param sendTo entries, and folders with {@code /} at the end, to the mount that they go to,
 *     whatever the game's definition would do with them
 * @param answers question of the fitting to the answers taken
 * @param plain whether a fitting is left aside, and the archive taken as it is
 * @param name what to call the mod when it has no card; empty to take it from the archive's name
 */
public record Choices(
    Optional<String> root,
    List<String> leaveOut,
    Map<String, String> sendTo,
    Map<String, List<String>> answers,
    boolean plain,
    Optional<String> name) {
  public static final Choices NONE =
      new Choices(Optional.empty(), List.of(), Map.of(), Map.of(), false, Optional.empty());

  public Choices {
    root = root == null ? Optional.empty() : root;
    leaveOut = leaveOut == null ? List.of() : List.copyOf(leaveOut);
    sendTo = sendTo == null ? Map.of() : Map.copyOf(new TreeMap<>(sendTo));
    answers = answers == null ? Map.of() : Map.copyOf(answers);
    name = name == null ? Optional.empty() : name;
  }

  public Choices withRoot(String folder) {
    return new Choices(Optional.of(folder), leaveOut, sendTo, answers, plain, name);
  }

  public Choices withAnswers(Map<String, List<String>> other) {
    return new Choices(root, leaveOut, sendTo, other, plain, name);
  }

  /**
   * Choices of one version of a mod for another: the same answers, and what was left out or sent
   * elsewhere, counted from where the content begins, as far as the other has it.
   *
   * @param root where the content of this version begins
   * @param otherRoot where that of the other begins
   * @param entries of the other
   */
  public Choices carriedTo(
      Choices other, String root, String otherRoot, Collection<String> entries) {
    List<String> out = new ArrayList<>();
    for (String l : leaveOut) moved(l, root, otherRoot, entries).ifPresent(out::add);
    Map<String, String> sent = new TreeMap<>();
    sendTo.forEach(
        (path, mount) -> moved(path, root, otherRoot, entries).ifPresent(p -> sent.put(p, mount)));
    return new Choices(other.root, out, sent, answers, other.plain, other.name);
  }

  private static Optional<String> moved(
      String path, String root, String otherRoot, Collection<String> entries) {
    String prefix = root.isEmpty() ? "" : root + "/",
        other = otherRoot.isEmpty() ? "" : otherRoot + "/";
    if (!path.startsWith(prefix)) return Optional.empty();
    String there = other + path.substring(prefix.length());
    return entries.stream().anyMatch(e -> covers(there, e)) ? Optional.of(there) : Optional.empty();
  }

  boolean leavesOut(String entry) {
    return leaveOut.stream().anyMatch(l -> covers(l, entry));
  }

  /** The longest of the chosen folders, or the entry itself, that says where an entry goes. */
  Optional<String> sentBy(String entry) {
    return sendTo.keySet().stream()
        .filter(s -> covers(s, entry))
        .max(java.util.Comparator.comparingInt(String::length));
  }

  /** Whether a path is an entry itself or, ending in {@code /}, a folder above it. */
  public static boolean covers(String path, String entry) {
    return path.endsWith("/") ? entry.startsWith(path) : entry.equals(path);
  }
}
