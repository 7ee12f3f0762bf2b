package ironing.core.library;

import ironing.core.IroningException;
import ironing.core.catalogue.OfferedMod;
import ironing.core.version.VersionRange;
import ironing.core.yaml.YamlDocument;
import ironing.core.yaml.YamlDocument.Section;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Who a mod is and what it needs, as its mod-card.yaml (ironing/mod@1) says, or as inferred.
 *
 * @param gameVersions the versions of the game that it is made for, as a range; "*" is any
 * @param inferred whether name and version were guessed from the archive's name
 * @param game the id of the game that it is made for; empty where it names none
 * @param variant releases of one mod with other variants are no updates of each other; empty is the
 *     plain one
 * @param bridges it is only right where all of these are on
 * @param harmless whether its author says that no version of the game can break it
 * @param signs what shows in the game that it works
 */
public record ModCard(
    String id,
    String name,
    String version,
    List<String> authors,
    String summary,
    String gameVersions,
    List<Need> needs,
    List<Clash> clashes,
    List<String> after,
    List<String> before,
    Optional<String> band,
    Map<String, PluginWish> plugins,
    Optional<Source> source,
    boolean inferred,
    Optional<String> game,
    String variant,
    List<Need> bridges,
    boolean harmless,
    List<Sign> signs) {
  private static final Pattern VERSIONED = Pattern.compile("^(.*?)[ _-]+v?(\\d[\\w.]*)$");

  /** Stands for a version that nothing tells, and comes before all others. */
  private static final String UNTOLD = "0";

  private static final String FORMAT = "ironing/mod@1";

  /** The coarse tiers of the install order, the lowest first. */
  public static final List<String> BANDS =
      List.of("groundwork", "fixes", "looks", "sounds", "plays", "interface", "finishing");

  /**
   * A mod that has to be on.
   *
   * @param variant the one that it has to be of; empty where any will do
   */
  public record Need(String mod, String versions, Optional<String> variant) {
    public Need {
      // a need that was kept before there were variants
      variant = variant == null ? Optional.empty() : variant;
    }

    /** The same as a catalogue says it. */
    public OfferedMod.Need offered() {
      return new OfferedMod.Need(mod, VersionRange.of(versions), variant);
    }

    public Need(String mod, String versions) {
      this(mod, versions, Optional.empty());
    }
  }

  /** A mod that must not be on in these versions. */
  public record Clash(String mod, String versions, String why) {
    public Clash {
      // a clash that was kept before it had versions
      versions = versions == null ? "*" : versions;
    }

    public Clash(String mod, String why) {
      this(mod, "*", why);
    }
  }

  public record PluginWish(List<String> after, List<String> before) {}

  /** Where a mod comes from, as its author says; each part may be empty. */
  public record Source(String url, String item, String release) {}

  public ModCard {
    // a card that was kept before cards had a source
    source = source == null ? Optional.empty() : source;
    game = game == null ? Optional.empty() : game;
    // and before it had a variant
    variant = variant == null ? "" : variant;
    bridges = bridges == null ? List.of() : bridges;
    signs = signs == null ? List.of() : signs;
  }

  /** The same mod under what its user knows better; only these can be edited. */
  public ModCard edited(
      String name, String version, List<String> authors, String summary, Optional<Source> source) {
    return new ModCard(
        id,
        name,
        version,
        authors,
        summary,
        gameVersions,
        needs,
        clashes,
        after,
        before,
        band,
        plugins,
        source,
        inferred,
        game,
        variant,
        bridges,
        harmless,
        signs);
  }

  /**
   * @throws IroningException with code {@code yaml-invalid} for every mistake
   */
  public static ModCard read(String file, String text) {
    return readWithWarnings(file, text).value();
  }

  /** The same, with what is odd about it and no mistake, such as keys that mean nothing. */
  public static YamlDocument.Read<ModCard> readWithWarnings(String file, String text) {
    return YamlDocument.read(file, text, ModCard::card);
  }

  /**
   * A card for a mod without one: name and version from the archive's name, as people write them.
   */
  public static ModCard inferredFrom(String archiveName) {
    return inferredFrom(archiveName, "");
  }

  /**
   * The same.
   *
   * @param root the folder in the archive in which the mod begins: where the archive's name tells
   *     no version, that folder's may, or one above it
   */
  public static ModCard inferredFrom(String archiveName, String root) {
    String stem = archiveName.replaceFirst("(?i)\\.(zip|7z|tar|tgz|tar\\.(gz|xz|bz2|zst))$", "");
    Matcher m = VERSIONED.matcher(stem);
    boolean found = m.matches() && !m.group(1).isBlank();
    String version = found ? m.group(2) : UNTOLD;
    List<String> above = List.of(root.split("/"));
    for (int i = above.size() - 1; i >= 0 && version.equals(UNTOLD); i--) {
      Matcher folder = VERSIONED.matcher(above.get(i));
      if (folder.matches() && !folder.group(1).isBlank()) version = folder.group(2);
    }
    String name = (found ? m.group(1) : stem).replace('_', ' ').strip();
    if (name.indexOf(' ') < 0) name = name.replace('-', ' ');
    return new ModCard(
        idFrom(name),
        name,
        version,
        List.of(),
        "",
        "*",
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        Optional.empty(),
        Map.of(),
        Optional.empty(),
        true,
        Optional.empty(),
        "",
        List.of(),
        false,
        List.of());
  }

  /** The name and version for people, such as “Reefs” 1.2. */
  public String spoken() {
    return ("“" + name + "” " + shownVersion()).strip();
  }

  /** The version for people: empty where nothing tells one. */
  public String shownVersion() {
    return inferred && version.equals(UNTOLD) ? "" : version;
  }

  /** The same inferred card under another name, and the id that goes with it. */
  public ModCard named(String name) {
    return new ModCard(
        idFrom(name),
        name,
        version,
        authors,
        summary,
        gameVersions,
        needs,
        clashes,
        after,
        before,
        band,
        plugins,
        source,
        inferred,
        game,
        variant,
        bridges,
        harmless,
        signs);
  }

  /** A card for a mod that was made here. */
  public static ModCard generated(String id, String name, String version, String summary) {
    return new ModCard(
        id,
        name,
        version,
        List.of(),
        summary,
        "*",
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        Optional.of("finishing"),
        Map.of(),
        Optional.empty(),
        false,
        Optional.empty(),
        "",
        List.of(),
        false,
        List.of());
  }

  /** The same card of something that is made of others’ work and is only right with some mods. */
  public ModCard madeOf(List<String> authors, List<Need> needs, List<Clash> clashes) {
    return new ModCard(
        id,
        name,
        version,
        authors,
        summary,
        gameVersions,
        needs,
        clashes,
        after,
        before,
        band,
        plugins,
        source,
        inferred,
        game,
        variant,
        bridges,
        harmless,
        signs);
  }

  private static String idFrom(String name) {
    String id =
        Normalizer.normalize(name, Normalizer.Form.NFD)
            .replaceAll("\\p{M}", "")
            .toLowerCase(Locale.ROOT)
            .replaceAll("[^a-z0-9]+", "-")
            .replaceAll("^-|-$", "");
    String cut = id.substring(0, Math.min(64, id.length()));
    return cut.isEmpty() ? "mod" : cut;
  }

  private static ModCard card(Section top) {
    if (top.has("format") && !top.text("format").orElse("").equals(FORMAT))
      top.reject("format", "the format is not " + FORMAT, "Write format: " + FORMAT + ".");
    top.required("format");
    String id = top.required("id");
    if (top.has("id") && !id.matches("[a-z0-9-]{1,64}"))
      top.reject(
          "id",
          "an id has lower-case letters, digits and hyphens, at most 64",
          "Write one such as rope-locker.");
    List<Need> needs = needs(top, "needs");
    List<Clash> clashes = new ArrayList<>();
    for (Section s : top.sections("clashes")) {
      clashes.add(new Clash(s.required("mod"), range(s), s.text("why").orElse("")));
      s.warnOfUnknownKeys();
    }
    Optional<Section> game = top.section("game");
    String gameVersions = game.map(ModCard::gameVersions).orElse("*");
    Optional<String> band = top.text("band");
    if (band.isPresent() && !BANDS.contains(band.get()))
      top.reject(
          "band",
          "“" + band.get() + "” is no band",
          "Write one of: " + String.join(", ", BANDS) + ".");
    Map<String, PluginWish> plugins = new LinkedHashMap<>();
    top.section("plugins")
        .ifPresent(
            all -> {
              for (String name : all.keys())
                all.section(name)
                    .ifPresent(
                        s ->
                            plugins.put(name, new PluginWish(s.texts("after"), s.texts("before"))));
            });
    ModCard card =
        new ModCard(
            id,
            top.required("name"),
            top.required("version"),
            top.texts("authors"),
            top.text("summary").orElse(""),
            gameVersions,
            needs,
            clashes,
            top.texts("after"),
            top.texts("before"),
            band,
            plugins,
            top.section("source").map(ModCard::source),
            false,
            game.flatMap(g -> g.text("id")),
            top.text("variant").orElse(""),
            needs(top, "for"),
            top.truth("harmless", false),
            signs(top));
    top.warnOfUnknownKeys();
    return card;
  }

  private static List<Need> needs(Section top, String key) {
    List<Need> needs = new ArrayList<>();
    for (Section s : top.sections(key)) {
      needs.add(new Need(s.required("mod"), range(s), s.text("variant")));
      s.warnOfUnknownKeys();
    }
    return needs;
  }

  private static List<Sign> signs(Section top) {
    List<Sign> signs = new ArrayList<>();
    for (Section s : top.sections("signs")) {
      List<Sign.Kind> kinds =
          Stream.of(Sign.Kind.values()).filter(k -> s.text(k.word()).isPresent()).toList();
      String says = s.required("says");
      if (kinds.size() == 1) {
        Sign.Kind kind = kinds.get(0);
        signs.add(
            new Sign(kind, says, s.text(kind.word()).orElse(""), s.text("is"), s.text("unit")));
      } else {
        s.text("is");
        s.text("unit");
        s.reject(
            "says",
            "a sign is told by one of report, read, look, and this one names " + kinds.size(),
            "Write one of them, such as read: \"sound/gulls.ogg\".");
      }
      s.warnOfUnknownKeys();
    }
    return signs;
  }

  private static Source source(Section s) {
    Source source =
        new Source(
            s.text("url").orElse(""), s.text("item").orElse(""), s.text("release").orElse(""));
    s.warnOfUnknownKeys();
    return source;
  }

  private static String gameVersions(Section s) {
    s.known("id");
    String range = range(s);
    s.warnOfUnknownKeys();
    return range;
  }

  private static String range(Section s) {
    String text = s.text("versions").orElse("*");
    try {
      VersionRange.of(text);
    } catch (IroningException e) {
      s.reject("versions", "“" + text + "” is no range of versions", "Write it like “>=1.4 <2”.");
    }
    return text;
  }
}
