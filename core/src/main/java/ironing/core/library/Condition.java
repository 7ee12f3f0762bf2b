package ironing.core.library;

import ironing.core.IroningException;
import ironing.core.path.GamePath;
import ironing.core.version.VersionRange;
import ironing.core.yaml.YamlDocument.Section;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/** A condition in a fitting: on other mods, the game, the picture, and earlier answers. */
public sealed interface Condition {
  /** Installed, on, and in range. */
  record ModOn(String mod, String versions) implements Condition {}

  record GameIn(String versions) implements Condition {}

  /** In the picture without this mod. */
  record FileThere(String path) implements Condition {}

  record Answered(String question, String answer) implements Condition {}

  record All(List<Condition> of) implements Condition {}

  record Any(List<Condition> of) implements Condition {}

  record Not(Condition of) implements Condition {}

  /**
   * @param taken question to answers, of the questions that were asked
   */
  default boolean holds(Facts facts, Map<String, Set<String>> taken) {
    if (this instanceof ModOn m) return facts.modOn(m.mod(), m.versions());
    if (this instanceof GameIn g) return facts.gameIn(g.versions());
    if (this instanceof FileThere f) return facts.inPicture(f.path());
    if (this instanceof Answered a)
      return taken.getOrDefault(a.question(), Set.of()).contains(a.answer());
    if (this instanceof All all) return all.of().stream().allMatch(c -> c.holds(facts, taken));
    if (this instanceof Any any) return any.of().stream().anyMatch(c -> c.holds(facts, taken));
    return !((Not) this).of().holds(facts, taken);
  }

  /** The parts that ask something of the workspace, each once, in the order of the file. */
  default void outward(Set<Condition> into) {
    if (this instanceof All all) all.of().forEach(c -> c.outward(into));
    else if (this instanceof Any any) any.of().forEach(c -> c.outward(into));
    else if (this instanceof Not not) not.of().outward(into);
    else if (!(this instanceof Answered)) into.add(this);
  }

  /** In words, as the end of “because …”; mods by their ids, so that it stays the same. */
  default String words() {
    return words(id -> id);
  }

  /**
   * The same for people.
   *
   * @param nameOf what to call a mod, by its id
   */
  default String words(UnaryOperator<String> nameOf) {
    if (this instanceof ModOn m)
      return "“" + nameOf.apply(m.mod()) + "”" + range(m.versions()) + " is installed and on";
    if (this instanceof GameIn g) return "the game’s version is" + range(g.versions());
    if (this instanceof FileThere f) return "another mod, or the game, brings " + f.path();
    if (this instanceof Answered a)
      return "“" + a.answer() + "” was answered to “" + a.question() + "”";
    if (this instanceof All all) return joined(all.of(), " and ", nameOf);
    if (this instanceof Any any) return joined(any.of(), " or ", nameOf);
    Condition not = ((Not) this).of();
    if (not instanceof ModOn m)
      return "“" + nameOf.apply(m.mod()) + "”" + range(m.versions()) + " is not installed, or off";
    return "it is not so that " + not.words(nameOf);
  }

  private static String range(String versions) {
    return versions.equals("*") ? "" : " " + versions;
  }

  private static String joined(List<Condition> of, String word, UnaryOperator<String> nameOf) {
    return of.stream().map(c -> c.words(nameOf)).collect(Collectors.joining(word));
  }

  /** Reads one from a mapping with exactly one of the known keys. */
  static Condition read(Section s) {
    Condition found = null;
    int kinds = 0;
    for (String kind : List.of("mod", "game", "file", "answer", "all", "any", "not")) {
      if (!s.has(kind)) continue;
      kinds++;
      found = of(s, kind);
    }
    if (kinds != 1) {
      s.reject(
          s.keys().stream().findFirst().orElse(""),
          "a condition is one of mod, game, file, answer, all, any, not",
          "Write one such as { mod: rope-locker }.");
      return new All(List.of());
    }
    s.warnOfUnknownKeys();
    return found;
  }

  private static Condition of(Section s, String kind) {
    switch (kind) {
      case "mod":
        return new ModOn(s.required("mod"), range(s, "versions"));
      case "game":
        return new GameIn(range(s, "game"));
      case "file":
        String path = s.required("file");
        if (GamePath.whyUnsafe(path) != null)
          s.reject(
              "file",
              "“" + path + "” is no game path: " + GamePath.whyUnsafe(path),
              "Write a plain relative path.");
        return new FileThere(path);
      case "answer":
        String text = s.required("answer");
        int slash = text.indexOf('/');
        if (slash <= 0 || slash == text.length() - 1) {
          s.reject(
              "answer",
              "“" + text + "” names no answer",
              "Write the question’s id, a slash, and the answer’s.");
          return new All(List.of());
        }
        return new Answered(text.substring(0, slash), text.substring(slash + 1));
      case "all":
        return new All(each(s, "all"));
      case "any":
        return new Any(each(s, "any"));
      default:
        return new Not(s.section("not").map(Condition::read).orElse(new All(List.of())));
    }
  }

  private static List<Condition> each(Section s, String key) {
    List<Condition> out = new ArrayList<>();
    for (Section part : s.sections(key)) out.add(read(part));
    return out;
  }

  private static String range(Section s, String key) {
    String text = s.text(key).orElse("*");
    try {
      VersionRange.of(text);
      return text;
    } catch (IroningException e) {
      s.reject(key, "“" + text + "” is no range of versions", "Write it like “>=1.4 <2”.");
      return "*";
    }
  }
}
