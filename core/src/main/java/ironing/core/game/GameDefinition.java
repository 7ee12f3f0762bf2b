package ironing.core.game;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.PackFile;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * A game as its game.yaml describes it. Immutable; every pattern is compiled with the game's own
 * way of comparing paths.
 */
public record GameDefinition(
    String id,
    String title,
    List<String> detect,
    Optional<VersionSource> version,
    Optional<String> manifest,
    PathCase pathCase,
    List<Place> places,
    List<Mount> mounts,
    List<PathPattern> protect,
    List<PathPattern> writable,
    List<PathPattern> perProfile,
    List<PathPattern> harmless,
    Optional<Packs> packs,
    Optional<Plugins> plugins,
    List<Combine> combine,
    Map<String, RecordType> records,
    Optional<Run> run,
    List<ReadyCheck> ready,
    List<Limit> limits) {

  /**
   * How much of something the game can take.
   *
   * @param match of files that count; empty where all do
   * @param says what happens past it, for people; may be empty
   */
  public record Limit(Counted count, Optional<PathPattern> match, long max, String says) {}

  /** What a limit counts. */
  public enum Counted {
    /** Paths in play, the game's own among them. */
    FILES,
    /** The sizes of those together. */
    BYTES,
    /** Plugins that are on, the game's own among them. */
    PLUGINS,
    /** Mods with a file in play, mends among them. */
    MODS
  }

  /** Where the version is written: at a JSON pointer, or on a line counted from 1. */
  public record VersionSource(String file, Optional<String> pointer, int line) {}

  /**
   * A folder beside the game's own that belongs to it, such as one of settings in the user's.
   *
   * @param at where to look for it, the first first; "{home}", "{config}" and "{data}" are filled
   *     in
   * @param what lies there, for people; may be empty
   */
  public record Place(String id, List<String> at, String what) {}

  /**
   * A place where files of mods may go. {@code at} is "." for the top of the game folder, and a
   * game path else.
   */
  public record Mount(String id, String at, List<PathPattern> holds) {}

  /** Files that the game reads in place. */
  public record Packs(PathPattern match, String mount, PackFile.Container container) {}

  /**
   * Files that can be combined where mods collide.
   *
   * @param match relative to the mount
   * @param once what may stand only once in all files of the match: its first group is the name
   * @param key what rows of a table, or elements of XML, are known by; empty for none
   * @param arrays how arrays of JSON and YAML compare, by JSON pointer; others are whole
   * @param goesOn what makes a value of INI go on over the end of its line
   */
  public record Combine(
      PathPattern match,
      CombineWay as,
      Optional<String> once,
      List<String> key,
      Map<String, ElementKey> arrays,
      Set<GoesOn> goesOn) {}

  /**
   * How the elements of an array are known.
   *
   * @param key the member that each is known by; empty for a set, where the element itself counts
   */
  public record ElementKey(Optional<String> key) {}

  /**
   * What counts as a plugin and how the game is told their order.
   *
   * @param match what mods bring, and where their folders go
   * @param also others, such as the game's own in another place
   * @param mount empty where the patterns are ones of game paths
   * @param documents how they are read where they are open text
   * @param format in which they are otherwise
   */
  public record Plugins(
      PathPattern match,
      List<PathPattern> also,
      String mount,
      List<String> own,
      Optional<Slots> slots,
      Optional<ListFile> list,
      Optional<DocumentPlugins> documents,
      String format) {

    /** Whether a plugin is all that lies in the folder of its manifest. */
    public boolean areFolders() {
      return documents.filter(d -> d.is() == DocumentPlugins.Is.FOLDER).isPresent();
    }
  }

  /** {@code reserved} of the {@code total} are not free for plugins: the save takes them. */
  public record Slots(int total, int reserved) {}

  /**
   * The list that the game reads. {@code on} and {@code off} hold "{name}"; off may be absent.
   *
   * @param inside where in a document the list stands; empty where its lines are the file
   */
  public record ListFile(
      String file,
      String on,
      Optional<String> off,
      boolean omitOwn,
      String newline,
      Optional<ListInside> inside) {}

  /**
   * A list that is an array in a JSON document, or elements of one name in XML. All else in the
   * document stays as it is.
   *
   * @param xml whether the document is XML
   * @param at the names that lead to it; of XML those of elements, up to one of the list
   * @param entry what stands for one plugin, with "{name}" and "{on}" in it
   * @param keep whether entries of plugins that nobody has stay, at the end
   */
  public record ListInside(boolean xml, List<String> at, JsonNode entry, boolean keep) {

    /** Whether plugins that are off stand in it, marked so. */
    public boolean listsOff() {
      return entry.toString().contains("\"{on}\"");
    }
  }

  /**
   * How to start the game: arguments, never a shell; "{game}" and "{standins}" are filled in, in
   * the environment's values too.
   *
   * @param log game path of what it writes of a run
   * @param folder game path of the folder to start it in; empty for the game's own
   * @param environment what it gets beside what Ironing itself has
   * @param faults regular expressions: a line of its output in which one is found means a fault
   */
  public record Run(
      List<String> command,
      Optional<String> log,
      Optional<String> folder,
      Map<String, String> environment,
      List<String> faults) {

    /** The first line of an output that means a fault. Cost: linear in the lines. */
    public Optional<String> faultIn(String output) {
      List<Pattern> patterns = faults.stream().map(Pattern::compile).toList();
      return output
          .lines()
          .filter(line -> line.length() <= LONGEST_LINE)
          .filter(line -> patterns.stream().anyMatch(p -> p.matcher(line).find()))
          .findFirst();
    }

    /** A longer line is no message, and could keep a pattern busy for long. */
    private static final int LONGEST_LINE = 4_000;
  }

  /** How formats of plugins are named. */
  public static final String FORMAT_ID = "[a-z0-9-]{1,32}/[a-z0-9-]{1,32}@[0-9]{1,4}";

  public Optional<Mount> mount(String id) {
    return mounts.stream().filter(m -> m.id().equals(id)).findFirst();
  }

  /** The first mount that holds a path given relative to the mount. */
  public Optional<Mount> holder(String relative) {
    return mounts.stream().filter(m -> PathPattern.anyMatches(m.holds(), relative)).findFirst();
  }

  /** Whether deploying and undeploying must leave this path alone. */
  public boolean isProtected(String path) {
    String key = pathCase.key(path);
    int from = isPlaced(path) ? key.indexOf('/') + 1 : 0;
    return key.startsWith(GameRoots.HOME, from)
            && (key.length() == from + GameRoots.HOME.length()
                || key.charAt(from + GameRoots.HOME.length()) == '/')
        || anyMatches(protect, path);
  }

  /** Whether this is where the game tells of its runs. */
  public boolean isLog(String path) {
    return run.flatMap(Run::log)
        .filter(log -> pathCase.key(log).equals(pathCase.key(path)))
        .isPresent();
  }

  /** Whether the game writes to this file itself, so that a link to the library would be unsafe. */
  public boolean isWritable(String path) {
    return anyMatches(writable, path) || anyMatches(perProfile, path);
  }

  /** Whether each profile has its own copy of this file. */
  public boolean isPerProfile(String path) {
    return anyMatches(perProfile, path) && !isProtected(path);
  }

  /** Whether this is a save of which each profile has its own: deploying leaves it alone. */
  public boolean isOwnSave(String path) {
    return anyMatches(perProfile, path)
        && anyMatches(protect, path)
        && !pathCase
            .key(isPlaced(path) ? path.substring(path.indexOf('/') + 1) : path)
            .startsWith(GameRoots.HOME + "/");
  }

  /** Whether it says that there are such saves. */
  public boolean hasOwnSaves() {
    return Stream.concat(perProfile.stream(), protect.stream())
        .anyMatch(p -> isOwnSave(p.example()));
  }

  /**
   * Whether a loose file at this game path is a plugin that the game would look at, or the manifest
   * of one.
   */
  public boolean isPlugin(String path) {
    return plugins.isPresent() && isPlugin(path, plugins.get());
  }

  private boolean isPlugin(String path, Plugins of) {
    if (matchesBelow(path, of.mount(), of.match())) return true;
    for (PathPattern p : of.also()) if (matchesBelow(path, of.mount(), p)) return true;
    return false;
  }

  /** Whether a loose file at this game path is a pack that the game reads in place. */
  public boolean isPack(String path) {
    return packs.isPresent() && matchesBelow(path, packs.get().mount(), packs.get().match());
  }

  /** Whether a file at this game path cannot break with a new version of the game. */
  public boolean isHarmless(String path) {
    for (Mount m : mounts) {
      String below = below(m.at(), path);
      if (below != null && PathPattern.anyMatches(harmless, below)) return true;
    }
    return false;
  }

  /** How colliding files at a game path can be combined; the first match wins, empty for whole. */
  public Optional<Combine> combines(String path) {
    for (Combine c : combine) {
      for (Mount m : mounts) {
        String below = below(m.at(), path);
        if (below != null && c.match().matches(below)) return Optional.of(c);
      }
    }
    return Optional.empty();
  }

  /** The name in its pack of a packed file that is spelled as a game path. */
  public String nameInPack(String spelled) {
    String at = packs.flatMap(p -> mount(p.mount())).map(Mount::at).orElse(".");
    if (!at.equals(".")) return spelled.substring(at.length() + 1);
    return !places.isEmpty() && spelled.startsWith("@@") ? spelled.substring(1) : spelled;
  }

  /** The game path of a file by its name in a pack. */
  public String pathOfPacked(String name) {
    return packs
        .flatMap(p -> mount(p.mount()))
        .map(m -> gamePath(m, name))
        .orElseGet(() -> GameRoots.escaped(name, !places.isEmpty()));
  }

  private boolean matchesBelow(String path, String mountId, PathPattern pattern) {
    if (mountId.isEmpty()) return matches(pattern, path);
    String below = below(mount(mountId).map(Mount::at).orElse("."), path);
    return below != null && pattern.matches(below);
  }

  /** Whether a path lies in one of the places beside the game folder. */
  public boolean isPlaced(String path) {
    return !places.isEmpty() && path.startsWith("@") && !path.startsWith("@@");
  }

  /** Whether a pattern of game paths means this one: of places it has to name the place. */
  public boolean matches(PathPattern pattern, String path) {
    return (!isPlaced(path) || pattern.toString().startsWith("@")) && pattern.matches(path);
  }

  /** Whether one of several patterns of game paths means it. */
  public boolean anyMatches(List<PathPattern> patterns, String path) {
    for (PathPattern p : patterns) if (matches(p, path)) return true;
    return false;
  }

  /** A path below a mount as a game path. */
  public String gamePath(Mount mount, String below) {
    return mount.at().equals(".")
        ? GameRoots.escaped(below, !places.isEmpty())
        : GamePath.join(mount.at(), below);
  }

  /** The path as seen from a mount's place, or null when it does not lie below it. */
  public String below(String at, String path) {
    if (at.isEmpty() || at.equals(".")) return isPlaced(path) ? null : path;
    String key = pathCase.key(path), prefix = pathCase.key(at) + "/";
    return key.startsWith(prefix) ? path.substring(at.length() + 1) : null;
  }

  /** Whether its plugins are open text. */
  public boolean hasDocumentPlugins() {
    return plugins.flatMap(Plugins::documents).isPresent();
  }

  /** Whether a patch can hold records of a type. */
  public boolean canPatch(String type) {
    return plugins
        .flatMap(Plugins::documents)
        .map(d -> d.patch().isPresent() && d.writes(type).isPresent())
        .orElse(true);
  }

  /** Whether a patch can say that a record of a type is removed. */
  public boolean canRemove(String type) {
    return plugins
        .flatMap(Plugins::documents)
        .map(d -> d.writes(type).filter(r -> r.removed().isPresent()).isPresent())
        .orElse(true);
  }

  /**
   * Where the game looks for a plugin of this file name. Where plugins are open text, that is where
   * one that is made here has its manifest; others lie where they lie.
   */
  public String pluginPath(String name) {
    Optional<String> ofPatch =
        plugins.flatMap(Plugins::documents).flatMap(DocumentPlugins::patch).map(p -> p.at());
    if (ofPatch.isPresent()) return ofPatch.get().replace("{name}", name);
    return GamePath.join(plugins.flatMap(p -> mount(p.mount())).map(Mount::at).orElse("."), name);
  }

  /** Whether this is one of the game's own plugins, which are always first and always on. */
  public boolean isOwnPlugin(String name) {
    String key = PathCase.fold(name);
    return plugins.isPresent()
        && plugins.get().own().stream().anyMatch(o -> PathCase.fold(o).equals(key));
  }
}
