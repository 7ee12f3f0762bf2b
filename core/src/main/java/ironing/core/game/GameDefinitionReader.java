package ironing.core.game;

import ironing.core.IroningException;
import ironing.core.archive.PackFile;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.game.GameDefinition.Counted;
import ironing.core.game.GameDefinition.ElementKey;
import ironing.core.game.GameDefinition.Limit;
import ironing.core.game.GameDefinition.Mount;
import ironing.core.game.GameDefinition.Packs;
import ironing.core.game.GameDefinition.Place;
import ironing.core.game.GameDefinition.Plugins;
import ironing.core.game.GameDefinition.Run;
import ironing.core.game.GameDefinition.Slots;
import ironing.core.game.GameDefinition.VersionSource;
import ironing.core.game.ReadyCheck.Kind;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.plugin.Plugin;
import ironing.core.version.VersionRange;
import ironing.core.yaml.YamlDocument;
import ironing.core.yaml.YamlDocument.Section;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** Reads game.yaml (ironing/game@1). Every mistake is told at once, with line and column. */
public final class GameDefinitionReader {
  private static final String FORMAT = "ironing/game@1";

  private GameDefinitionReader() {}

  /**
   * @param file the name to call it by in problems
   * @throws IroningException with code {@code yaml-invalid} for every mistake
   */
  public static YamlDocument.Read<GameDefinition> read(String file, String text) {
    return YamlDocument.read(file, text, GameDefinitionReader::definition);
  }

  private static GameDefinition definition(Section top) {
    if (!top.required("format").equals(FORMAT) && top.has("format")) {
      top.reject("format", "the format is not " + FORMAT, "Write format: " + FORMAT + ".");
    }
    String id = top.required("id");
    if (top.has("id") && !id.matches("[a-z0-9-]{1,64}")) {
      top.reject(
          "id",
          "an id has lower-case letters, digits and hyphens, at most 64",
          "Write one such as skerry-line.");
    }
    PathCase pathCase = pathCase(top);
    List<Place> beside = GamePlaces.read(top);
    GamePlaces places = new GamePlaces(beside);
    List<Mount> mounts = mounts(top, places, pathCase);
    Set<String> mountIds = new HashSet<>(mounts.stream().map(Mount::id).toList());
    GameDefinition game =
        new GameDefinition(
            id,
            top.required("title"),
            detect(top, places),
            top.section("version").map(s -> version(s, places)),
            top.text("manifest"),
            pathCase,
            beside,
            mounts,
            places.patterns(top, "protect", pathCase),
            places.patterns(top, "writable", pathCase),
            places.patterns(top, "perProfile", pathCase),
            PathPattern.all(top.texts("harmless"), pathCase),
            top.section("packs").map(s -> packs(s, mountIds, pathCase)),
            top.section("plugins").map(s -> plugins(s, mountIds, places, pathCase)),
            combine(top, pathCase),
            records(top),
            top.section("run").map(s -> run(s, places)),
            ready(top, places),
            limits(top, places, pathCase));
    top.warnOfUnknownKeys();
    return game;
  }

  private static List<String> detect(Section top, GamePlaces places) {
    List<String> paths = paths(top, "detect");
    for (String p : paths)
      if (places.isIn(p))
        top.reject("detect", "a game is known by its own folder", "Name a path in that.");
    return paths;
  }

  /** What would be passed over with another outcome than its author means is refused instead. */
  private static void refuse(Section s, String key, String why) {
    if (!s.has(key)) return;
    s.reject(key, why, "Leave “" + key + "” out.");
    s.known(key);
  }

  private static List<ReadyCheck> ready(Section top, GamePlaces places) {
    List<ReadyCheck> out = new ArrayList<>();
    for (Section s : top.sections("ready")) {
      List<Kind> said = Arrays.stream(Kind.values()).filter(k -> s.has(k.word())).toList();
      if (said.size() != 1) {
        top.reject(
            "ready",
            "a check says " + (said.isEmpty() ? "nothing" : "several things"),
            "Write one of: "
                + String.join(", ", Arrays.stream(Kind.values()).map(Kind::word).toList())
                + ".");
        continue;
      }
      Kind kind = said.get(0);
      String what = kind == Kind.PLUGINS ? "" : s.required(kind.word());
      if (kind == Kind.PLUGINS) s.truth(kind.word(), true);
      else if (kind == Kind.VERSION) requireRange(s, what);
      else if (GamePath.whyUnsafe(what) != null) {
        s.reject(
            kind.word(),
            "“" + what + "” is not a place in the game folder: " + GamePath.whyUnsafe(what),
            "Write a relative path.");
        continue;
      }
      if (kind != Kind.PLUGINS && kind != Kind.VERSION) places.require(s, kind.word(), what);
      out.add(new ReadyCheck(kind, what, s.text("says").orElse("")));
      s.warnOfUnknownKeys();
    }
    return List.copyOf(out);
  }

  private static List<Limit> limits(Section top, GamePlaces places, PathCase pathCase) {
    List<Limit> out = new ArrayList<>();
    for (Section s : top.sections("limits")) {
      String word = s.required("count");
      Optional<Counted> count =
          Arrays.stream(Counted.values())
              .filter(c -> c.name().toLowerCase(Locale.ROOT).equals(word))
              .findFirst();
      if (s.has("count") && count.isEmpty())
        s.reject(
            "count", "“" + word + "” cannot be counted", "Write files, bytes, plugins or mods.");
      boolean ofPaths = count.filter(c -> c == Counted.FILES || c == Counted.BYTES).isPresent();
      if (count.isPresent() && s.has("match") && !ofPaths)
        s.reject("match", "only files have paths to match", "Leave match out, or count files.");
      String max = s.required("max");
      boolean number = max.matches("[0-9]{1,15}") && Long.parseLong(max) > 0;
      if (s.has("max") && !number)
        s.reject("max", "“" + max + "” is no whole number above 0", "Write one such as max: 120.");
      s.text("match").ifPresent(m -> places.require(s, "match", m));
      Optional<PathPattern> match = s.text("match").map(m -> PathPattern.of(m, pathCase));
      if (count.isPresent() && number)
        out.add(new Limit(count.get(), match, Long.parseLong(max), s.text("says").orElse("")));
      s.known("says", "match");
      s.warnOfUnknownKeys();
    }
    return List.copyOf(out);
  }

  private static void requireRange(Section s, String range) {
    try {
      VersionRange.of(range);
    } catch (IroningException e) {
      s.reject("version", "“" + range + "” is no range of versions", "Write one like >=1.4 <2.");
    }
  }

  private static PathCase pathCase(Section top) {
    String text = top.text("pathCase").orElse("sensitive");
    if (!text.equals("sensitive") && !text.equals("insensitive")) {
      top.reject(
          "pathCase",
          "“" + text + "” is no way to compare paths",
          "Write sensitive or insensitive.");
    }
    return text.equals("insensitive") ? PathCase.INSENSITIVE : PathCase.SENSITIVE;
  }

  private static List<Mount> mounts(Section top, GamePlaces places, PathCase pathCase) {
    List<Mount> mounts = new ArrayList<>();
    if (!top.has("mounts")) top.required("mounts");
    Set<String> ids = new HashSet<>();
    for (Section s : top.sections("mounts")) {
      String id = s.required("id");
      if (!ids.add(id))
        s.reject("id", "two mounts are called “" + id + "”", "Give each its own id.");
      String at = s.text("at").orElse(".");
      if (!at.equals(".") && GamePath.whyUnsafe(at) != null) {
        s.reject(
            "at",
            "“" + at + "” is not a place in the game folder: " + GamePath.whyUnsafe(at),
            "Write a relative path, or . for the folder itself.");
      }
      mounts.add(new Mount(id, places.in(s, at), PathPattern.all(s.texts("holds"), pathCase)));
      s.warnOfUnknownKeys();
    }
    return List.copyOf(mounts);
  }

  private static List<Combine> combine(Section top, PathCase pathCase) {
    List<Combine> combine = new ArrayList<>();
    for (Section s : top.sections("combine")) {
      PathPattern match = PathPattern.of(s.required("match"), pathCase);
      CombineWay way = way(s);
      Optional<String> once = s.text("once").filter(p -> isPattern(s, p));
      List<String> key = s.texts("key");
      if (way == CombineWay.TABLE && key.isEmpty())
        s.reject("key", "the rows of a table need a key", "Write key: [ column ].");
      combine.add(new Combine(match, way, once, key, arrays(s), goesOn(s, way)));
      s.warnOfUnknownKeys();
    }
    return List.copyOf(combine);
  }

  private static CombineWay way(Section s) {
    String as = s.required("as");
    for (CombineWay way : CombineWay.values()) if (way.word().equals(as)) return way;
    List<String> words = Arrays.stream(CombineWay.values()).map(CombineWay::word).toList();
    if (s.has("as"))
      s.reject(
          "as",
          "“" + as + "” is no way to combine files",
          "Write one of: " + String.join(", ", words) + ".");
    return CombineWay.TEXT;
  }

  private static boolean isPattern(Section s, String pattern) {
    try {
      if (Pattern.compile(pattern, Pattern.MULTILINE).matcher("").groupCount() > 0) return true;
      s.reject("once", "the pattern has no group", "Put brackets around the name in it.");
    } catch (PatternSyntaxException e) {
      s.reject("once", "it is no pattern: " + e.getDescription(), "Write it like ^word (\\\\S+).");
    }
    return false;
  }

  private static Map<String, ElementKey> arrays(Section s) {
    Map<String, ElementKey> arrays = new LinkedHashMap<>();
    s.section("arrays")
        .ifPresent(
            all -> {
              for (String pointer : all.keys()) {
                if (!pointer.isEmpty() && !pointer.startsWith("/"))
                  all.reject(pointer, "a JSON pointer begins with /", "Write it like /widgets.");
                if (all.isText(pointer)) {
                  if (!all.required(pointer).equals("set"))
                    all.reject(
                        pointer,
                        "an array is a set, or its elements have a key",
                        "Write set, or { key: name }.");
                  arrays.put(pointer, new ElementKey(Optional.empty()));
                } else {
                  all.section(pointer)
                      .ifPresent(
                          e -> {
                            arrays.put(pointer, new ElementKey(Optional.of(e.required("key"))));
                            e.warnOfUnknownKeys();
                          });
                }
              }
            });
    // in the order of the definition, always the same
    return Collections.unmodifiableMap(arrays);
  }

  private static Set<GoesOn> goesOn(Section s, CombineWay way) {
    Set<GoesOn> all = new TreeSet<>();
    if (s.has("goesOn") && way != CombineWay.INI)
      s.reject("goesOn", "only values of ini go on over lines", "Leave it out, or write as: ini.");
    for (String word : s.texts("goesOn")) {
      Optional<GoesOn> known =
          Arrays.stream(GoesOn.values()).filter(g -> g.word().equals(word)).findFirst();
      if (known.isEmpty())
        s.reject(
            "goesOn",
            "“" + word + "” makes no value go on",
            "Write goesOn: [ braces, backslash ], or one of the two.");
      known.ifPresent(all::add);
    }
    return Collections.unmodifiableSet(all);
  }

  static List<String> paths(Section s, String key) {
    List<String> paths = s.texts(key);
    for (String p : paths) {
      if (GamePath.whyUnsafe(p) != null) {
        s.reject(
            key,
            "“" + p + "” is not a path in the game folder: " + GamePath.whyUnsafe(p),
            "Write a relative path with /.");
      }
    }
    return List.copyOf(paths);
  }

  private static VersionSource version(Section s, GamePlaces places) {
    for (String p : paths(s, "file")) places.require(s, "file", p);
    VersionSource v = new VersionSource(s.required("file"), s.text("pointer"), s.number("line", 1));
    if (v.pointer().isPresent()
        && !v.pointer().get().isEmpty()
        && !v.pointer().get().startsWith("/")) {
      s.reject("pointer", "a JSON pointer begins with /", "Write it like /version.");
    }
    s.warnOfUnknownKeys();
    return v;
  }

  private static Packs packs(Section s, Set<String> mountIds, PathCase pathCase) {
    String container = s.text("container").orElse("zip");
    if (!container.equals("zip") && !container.equals("tar"))
      s.reject("container", "only zip and tar packs can be read", "Write zip or tar.");
    if (!s.text("standing").orElse("below-loose").equals("below-loose")) {
      s.reject("standing", "packs stand below loose files", "Write standing: below-loose.");
    }
    Packs packs =
        new Packs(
            PathPattern.of(s.required("match"), pathCase),
            mountOf(s, mountIds),
            container.equals("tar") ? PackFile.Container.TAR : PackFile.Container.ZIP);
    s.warnOfUnknownKeys();
    return packs;
  }

  private static Plugins plugins(
      Section s, Set<String> mountIds, GamePlaces places, PathCase pathCase) {
    refuse(s, "wins", "the last version of a record counts whole");
    String format = s.text("format").orElse(Plugin.FORMAT);
    if (!format.matches(GameDefinition.FORMAT_ID))
      s.reject(
          "format",
          "“" + format + "” is no name of a format",
          "Write one such as format: ironing/plugin@1; it names a format, never a file.");
    Optional<Slots> slots =
        s.section("slots")
            .map(
                t -> {
                  Slots read = new Slots(t.number("total", 0), t.number("reserved", 0));
                  if (read.total() < 1 || read.reserved() < 0 || read.reserved() > read.total()) {
                    t.reject(
                        "total",
                        "slots need a total above 0 and no more reserved than that",
                        "Write { total: 96, reserved: 1 }.");
                  }
                  t.warnOfUnknownKeys();
                  return read;
                });
    String in = places.in(s, "");
    Optional<DocumentPlugins> documents = DocumentPluginsReader.read(s, in, pathCase);
    if (s.has("in") && (documents.isEmpty() || s.has("mount")))
      s.reject("in", "the mount says where these plugins lie", "Write in: at the mount.");
    List<PathPattern> matches = matches(s, in, places, pathCase);
    Plugins plugins =
        new Plugins(
            matches.get(0),
            List.copyOf(matches.subList(1, matches.size())),
            documents.isPresent() && !s.has("mount") ? "" : mountOf(s, mountIds),
            List.copyOf(s.texts("own")),
            slots,
            s.section("list").map(l -> ListFileReader.read(l, places)),
            documents,
            format);
    if (documents.flatMap(DocumentPlugins::number).isPresent() && s.has("list"))
      s.reject("number", "a game goes by a list or by numbers", "Keep one of list and number.");
    s.warnOfUnknownKeys();
    return plugins;
  }

  // of those in a place that is named with "in", each is in that
  private static List<PathPattern> matches(
      Section s, String in, GamePlaces places, PathCase pathCase) {
    List<String> texts = s.texts("match");
    if (texts.isEmpty()) texts = List.of(s.required("match"));
    List<PathPattern> all = new ArrayList<>();
    for (String t : texts) {
      places.require(s, "match", t);
      all.add(PathPattern.of(GamePath.join(in, t), pathCase));
    }
    return all;
  }

  private static String mountOf(Section s, Set<String> mountIds) {
    String mount = s.required("mount");
    if (s.has("mount") && !mountIds.contains(mount)) {
      s.reject(
          "mount",
          "there is no mount “" + mount + "”",
          "Name one of: " + String.join(", ", mountIds.stream().sorted().toList()) + ".");
    }
    return mount;
  }

  private static Map<String, RecordType> records(Section top) {
    Map<String, RecordType> types = new LinkedHashMap<>();
    top.section("records")
        .ifPresent(
            all -> {
              for (String type : all.keys()) {
                all.section(type)
                    .ifPresent(
                        s -> {
                          types.put(
                              type,
                              new RecordType(
                                  s.text("title").orElse(type), s.text("label"), fields(s)));
                          s.warnOfUnknownKeys();
                        });
              }
            });
    return types;
  }

  private static Map<String, RecordType.Field> fields(Section s) {
    Map<String, RecordType.Field> fields = new LinkedHashMap<>();
    s.section("fields")
        .ifPresent(
            all -> {
              for (String name : all.keys())
                all.section(name).ifPresent(f -> fields.put(name, field(f)));
            });
    return fields;
  }

  private static RecordType.Field field(Section s) {
    String word = s.text("kind").orElse("whole").toUpperCase(Locale.ROOT);
    RecordType.Kind kind = RecordType.Kind.WHOLE;
    try {
      kind = RecordType.Kind.valueOf(word);
    } catch (IllegalArgumentException e) {
      s.reject(
          "kind",
          "“" + word.toLowerCase(Locale.ROOT) + "” is no kind of field",
          "Write text, number, truth, ref, path, set, rows, sequence or whole.");
    }
    if (kind == RecordType.Kind.ROWS && !s.has("key")) {
      s.reject("kind", "rows need a key", "Name the field that tells the rows apart: key: goods.");
    }
    RecordType.Field field =
        new RecordType.Field(
            kind,
            s.text("title"),
            s.text("unit"),
            s.text("pair"),
            s.section("of").map(GameDefinitionReader::field),
            s.text("key"),
            fields(s),
            s.text("to"),
            bound(s, "min"),
            bound(s, "max"),
            s.truth("holdsIds", false));
    s.warnOfUnknownKeys();
    return field;
  }

  private static OptionalDouble bound(Section s, String key) {
    Optional<String> text = s.text(key);
    if (text.isEmpty()) return OptionalDouble.empty();
    try {
      double number = Double.parseDouble(text.get());
      if (!Double.isNaN(number) && !Double.isInfinite(number)) return OptionalDouble.of(number);
    } catch (NumberFormatException e) {
      // told below, like a number that is not finite
    }
    s.reject(key, "“" + text.get() + "” is no number", "Write a number, such as " + key + ": 0.");
    return OptionalDouble.empty();
  }

  private static Run run(Section s, GamePlaces places) {
    List<String> command = s.texts("command");
    if (command.isEmpty())
      s.reject("command", "the game needs a command", "Write a list: [ program, argument ].");
    for (String p : paths(s, "log")) places.require(s, "log", p);
    for (String p : paths(s, "folder")) places.require(s, "folder", p);
    for (String fault : s.texts("faults")) {
      try {
        Pattern.compile(fault);
      } catch (PatternSyntaxException e) {
        s.reject(
            "faults",
            "“" + fault + "” is no pattern: " + e.getDescription(),
            "Write it like ^error.");
      }
    }
    Map<String, String> environment = new TreeMap<>();
    s.section("environment")
        .ifPresent(
            e -> {
              for (String name : e.keys()) {
                if (!name.matches("[A-Za-z_][A-Za-z0-9_]*"))
                  e.reject(name, "“" + name + "” is no name of a variable", "Use letters and _.");
                e.text(name).ifPresent(value -> environment.put(name, value));
              }
            });
    Run run =
        new Run(
            List.copyOf(command),
            s.text("log"),
            s.text("folder"),
            Map.copyOf(environment),
            List.copyOf(s.texts("faults")));
    s.warnOfUnknownKeys();
    return run;
  }
}
