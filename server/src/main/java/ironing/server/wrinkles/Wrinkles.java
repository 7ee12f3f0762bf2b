package ironing.server.wrinkles;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.HARMLESS;
import static ironing.core.workspace.Stages.RECORDS;
import static java.nio.charset.StandardCharsets.UTF_8;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.game.GameFolder;
import ironing.core.layers.Holdings;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.Placements;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.limits.LimitUse;
import ironing.core.mends.RepeatedNames;
import ironing.core.mends.RepeatedNames.Repeated;
import ironing.core.mends.RepeatedNames.Where;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.layerrules.LayerRules;
import ironing.server.library.Fittings;
import ironing.server.loadorder.LoadHealth;
import ironing.server.loadorder.Troubles;
import ironing.server.loadorder.Troubles.TroubleView;
import ironing.server.mends.Mends;
import ironing.server.mends.Mends.MendView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Fix;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Unreadable;
import ironing.server.wrinkles.SetAsideMapper.SetAsideRow;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** Gathers what is wrong in a workspace, the weightiest first. */
@Component
public class Wrinkles {
  private static final int NAMED = 5;
  private static final int LONGEST_REASON = 400;
  private final Mends mends;
  private final Fittings fittings;
  private final LoadHealth health;
  private final SetAsideMapper db;
  private final OpenWorkspaces workspaces;

  private final RepeatedNames repeated;
  private final LayerRules rules;

  Wrinkles(
      LayerRules rules,
      Mends mends,
      RepeatedNames repeated,
      Fittings fittings,
      LoadHealth health,
      OpenWorkspaces workspaces,
      SetAsideMapper db) {
    this.workspaces = workspaces;
    this.rules = rules;
    this.health = health;
    this.mends = mends;
    this.repeated = repeated;
    this.db = db;
    this.fittings = fittings;
  }

  /** How much a wrinkle matters. */
  public enum Weight {
    /** The game would stop over it. */
    STOPS,
    /** Something that a mod brings is lost, or not as it should be. */
    LOSES,
    /** Good to know. */
    HINT
  }

  /** The screen on which a wrinkle is remedied, as in the address bar. */
  public enum Place {
    OVERVIEW,
    LIBRARY,
    /** What a choice brings with it that fills whatever is missing. */
    MISSING,
    LAYERS,
    LOAD_ORDER,
    RECORDS,
    MENDS,
    COMBINE_FILES,
    DEPLOY,
    TOOLS,
    GAME_VERSION
  }

  /**
   * One problem.
   *
   * @param mod the mod that it is about, absent where it is about none
   * @param other the second one, where it is about a pair
   * @param key stands for what it says; another one when its facts have changed
   */
  public record Wrinkle(
      String code,
      Weight weight,
      String title,
      String reason,
      String remedy,
      Place place,
      @MayBeAbsent Long mod,
      @MayBeAbsent Long other,
      @MayBeAbsent Fix fix,
      String key) {
    Wrinkle(
        String code,
        Weight weight,
        String title,
        String reason,
        String remedy,
        Place place,
        Long mod,
        Fix fix) {
      this(
          code,
          weight,
          title,
          reason,
          remedy,
          place,
          mod,
          null,
          fix,
          ContentHash.of((code + "\n" + title + "\n" + reason + "\n" + mod).getBytes(UTF_8)));
    }

    Wrinkle withOther(Long other) {
      return new Wrinkle(code, weight, title, reason, remedy, place, mod, other, fix, key);
    }

    /** With facts that its words do not tell. */
    Wrinkle withFacts(String facts) {
      String next = ContentHash.of((key + "\n" + facts).getBytes(UTF_8));
      return new Wrinkle(code, weight, title, reason, remedy, place, mod, other, fix, next);
    }
  }

  List<SetAsideRow> setAside(long workspace) {
    return db.all(workspace);
  }

  /**
   * Sets a wrinkle aside: it stays quiet until its facts change.
   *
   * @throws IroningException with code {@code not-found} or {@code bad-reason}
   */
  void setAside(OpenWorkspace open, String key, String why) {
    Wrinkle wrinkle = wrinkle(open, key);
    if (why.length() > LONGEST_REASON) {
      throw IroningException.of(
          "bad-reason",
          "The reason",
          "It is longer than " + LONGEST_REASON + " letters.",
          "Say it in a sentence; notes have room for more.");
    }
    workspaces.note(
        open.workspace(),
        "profiles",
        "Set aside: " + wrinkle.title(),
        () -> db.add(open.workspace(), wrinkle.key(), why));
  }

  /**
   * Takes a wrinkle up again.
   *
   * @throws IroningException with code {@code not-found}
   */
  void takeUp(OpenWorkspace open, String key) {
    Wrinkle wrinkle = wrinkle(open, key);
    workspaces.note(
        open.workspace(),
        "profiles",
        "Took up again: " + wrinkle.title(),
        () -> db.drop(open.workspace(), wrinkle.key()));
  }

  private Wrinkle wrinkle(OpenWorkspace open, String key) {
    return of(open).stream()
        .filter(w -> w.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "The wrinkle",
                    "It is no longer there as it was: its facts have changed.",
                    "Look at the list as it is now."));
  }

  /** Those that nobody has set aside. */
  public List<Wrinkle> open(OpenWorkspace open) {
    Set<String> quiet = new HashSet<>();
    for (SetAsideRow r : db.all(open.workspace())) quiet.add(r.key());
    return of(open).stream().filter(w -> !quiet.contains(w.key())).toList();
  }

  /** All of them, whether or not somebody has set them aside. */
  public List<Wrinkle> of(OpenWorkspace open) {
    List<Wrinkle> out = new ArrayList<>();
    folder(open, out);
    out.addAll(GameReadiness.of(open));
    unreadable(open, out);
    newVersion(open, out);
    limits(open, out);
    for (TroubleView t : Troubles.of(open)) out.add(trouble(open, t));
    for (TroubleView t : health.ofRules(open)) out.add(trouble(open, t));
    cards(open, out);
    records(open, out);
    oddPlugins(open, out);
    files(open, out);
    mends(open, out);
    betterFittings(open, out);
    brokenRules(open, out);
    idleMods(open, out);
    out.sort((a, b) -> a.weight().compareTo(b.weight()));
    return List.copyOf(out);
  }

  private static void limits(OpenWorkspace open, List<Wrinkle> out) {
    for (LimitUse u : LimitUse.of(open.picture())) {
      String says = u.limit().says().isEmpty() ? "" : u.limit().says() + ". ";
      String reason = says + "Most of them are of " + u.takers(open::nameOf) + ".";
      String remedy = "Switch off what you can do without.";
      Long most = u.byMod().isEmpty() ? null : u.byMod().get(0).mod();
      if (u.state() == LimitUse.State.PAST)
        out.add(
            new Wrinkle(
                "limit-passed",
                Weight.STOPS,
                "More than the game can take: " + u.words(),
                reason,
                remedy,
                Place.LAYERS,
                most,
                null));
      if (u.state() == LimitUse.State.NEAR)
        out.add(
            new Wrinkle(
                "limit-near",
                Weight.HINT,
                "Near a limit: " + u.words(),
                reason,
                remedy,
                Place.LAYERS,
                most,
                null));
    }
  }

  private static void folder(OpenWorkspace open, List<Wrinkle> out) {
    open.roots()
        .places()
        .forEach(
            (id, folder) -> {
              if (Files.isDirectory(folder)) return;
              out.add(
                  new Wrinkle(
                      "place-gone",
                      Weight.STOPS,
                      "A folder of the game is gone",
                      folder + " is not there, the place “" + id + "” of the game.",
                      "Connect its drive, or say in Overview where it is now.",
                      Place.DEPLOY,
                      null,
                      null));
            });
    if (Files.isDirectory(open.gameFolder())) return;
    out.add(
        new Wrinkle(
            "game-folder-gone",
            Weight.STOPS,
            "The game’s folder is gone",
            open.gameFolder() + " is not there.",
            "Put the game back there, or connect its drive.",
            Place.DEPLOY,
            null,
            null));
  }

  private void newVersion(OpenWorkspace open, List<Wrinkle> out) {
    String known = open.gameVersion().orElse("");
    String found =
        GameFolder.version(open.game(), path -> open.value().locate(Holdings.GAME, path))
            .orElse("");
    // a folder that is gone tells none
    if (found.isEmpty() || found.equals(known)) return;
    out.add(
        new Wrinkle(
            "game-updated",
            Weight.LOSES,
            "The game is in version " + found + " now",
            known.isEmpty()
                ? "It told no version before."
                : "The mods were arranged for " + known + ".",
            "See what the update means for them, and take it in.",
            Place.GAME_VERSION,
            null,
            null));
  }

  private static Wrinkle trouble(OpenWorkspace open, TroubleView t) {
    Long mod = open.picture().loadOrder().find(t.plugin()).map(e -> e.plugin().mod()).orElse(0L);
    String whose = mod == Holdings.GAME ? "" : " It comes with " + open.nameOf(mod) + ".";
    String stops = t.stops() ? "The game would stop over it." + whose : whose.strip();
    String text = t.text().replaceFirst("\\.$", "");
    return new Wrinkle(
            t.code().name().toLowerCase(Locale.ROOT).replace('_', '-'),
            t.stops() ? Weight.STOPS : Weight.LOSES,
            text.contains(t.plugin()) ? text : t.plugin() + ": " + text,
            stops,
            t.remedy(),
            Place.LOAD_ORDER,
            mod == Holdings.GAME ? null : mod,
            t.fix())
        .withFacts(t.plugin());
  }

  private void cards(OpenWorkspace open, List<Wrinkle> out) {
    Map<String, List<Needs.Installed>> installed = open.installed();
    // in the order of the layers
    Map<String, Long> onById = new LinkedHashMap<>(), byId = new HashMap<>();
    for (Layer l : open.picture().arrangement().layers()) {
      String id = open.mods().get(l.mod()).card().id();
      byId.putIfAbsent(id, l.mod());
      if (l.on()) onById.put(id, l.mod());
    }
    for (long mod : onById.values()) {
      ModCard card = open.mods().get(mod).card();
      for (Needs.Checked c : Needs.of(card, installed)) {
        if (c.state() != Needs.State.MET) out.add(need(mod, card, c, byId.get(c.need().mod())));
      }
      for (Needs.Checked c : Needs.sides(card, installed)) {
        if (c.state() != Needs.State.MET) out.add(bridge(mod, card, c, byId.get(c.need().mod())));
      }
      for (ModCard.Clash clash : card.clashes()) {
        Long other = onById.get(clash.mod());
        if (other != null && isMeant(clash, open.mods().get(other).card()))
          out.add(clash(open, mod, card, clash, other));
      }
      card.game()
          .filter(g -> !g.equals(open.game().id()))
          .ifPresent(g -> out.add(otherGame(open, mod, card, g)));
      open.gameVersion()
          .filter(v -> !VersionRange.of(card.gameVersions()).contains(ModVersion.of(v)))
          .filter(v -> !open.get(HARMLESS).contains(mod))
          .ifPresent(v -> out.add(gameVersion(mod, card, v)));
    }
  }

  private static boolean isMeant(ModCard.Clash clash, ModCard other) {
    return VersionRange.of(clash.versions()).contains(ModVersion.of(other.version()));
  }

  private static Wrinkle bridge(long mod, ModCard card, Needs.Checked c, Long other) {
    String what = c.found().map(ModCard::name).orElse(c.need().mod());
    String range = c.need().versions().equals("*") ? "" : " " + c.need().versions();
    return new Wrinkle(
            "bridge-without-side",
            Weight.LOSES,
            card.name() + " is only right together with " + what + range,
            c.state() == Needs.State.OFF
                ? what + " is in your library, and off."
                : c.state() == Needs.State.WRONG_VERSION
                    ? what + " is here in version " + c.found().get().version() + "."
                    : "No mod of that name is in your library.",
            "Switch " + card.name() + " off until it is there.",
            Place.LAYERS,
            mod,
            new Fix(Fix.Kind.SWITCH_MOD_OFF, mod, null, card.name()))
        .withOther(other);
  }

  private static Wrinkle need(long mod, ModCard card, Needs.Checked c, Long other) {
    String what = c.found().map(ModCard::name).orElse(c.need().mod());
    String range = c.need().versions().equals("*") ? "" : " " + c.need().versions();
    Fix fix =
        c.state() == Needs.State.OFF ? new Fix(Fix.Kind.SWITCH_MOD_ON, other, null, what) : null;
    String reason =
        switch (c.state()) {
          case OFF -> what + " is in your library, and off.";
          case WRONG_VERSION -> what + " is here in version " + c.found().get().version() + ".";
          default -> "No mod of that name is in your library.";
        };
    String remedy =
        switch (c.state()) {
          case OFF -> "Switch it on.";
          case WRONG_VERSION -> "Bring in a version that fits.";
          default -> "Bring it in, or switch " + card.name() + " off.";
        };
    return new Wrinkle(
            "need-unmet",
            Weight.LOSES,
            card.name() + " needs " + what + range,
            reason,
            remedy,
            c.state() == Needs.State.OFF ? Place.LIBRARY : Place.MISSING,
            mod,
            fix)
        .withOther(other);
  }

  private static Wrinkle clash(
      OpenWorkspace open, long mod, ModCard card, ModCard.Clash clash, long other) {
    return new Wrinkle(
            "clash",
            Weight.LOSES,
            card.name() + " does not go with " + open.nameOf(other),
            clash.why().isEmpty() ? "Its card says so." : "Its card says: " + clash.why() + ".",
            "Switch one of the two off.",
            Place.LAYERS,
            mod,
            new Fix(Fix.Kind.SWITCH_MOD_OFF, other, null, open.nameOf(other)))
        .withOther(other);
  }

  private static Wrinkle otherGame(OpenWorkspace open, long mod, ModCard card, String game) {
    return new Wrinkle(
        "other-game",
        Weight.LOSES,
        card.name() + " is made for another game",
        "Its card names the game “" + game + "”; this is “" + open.game().id() + "”.",
        "Switch it off, unless you know that it works here.",
        Place.LIBRARY,
        mod,
        new Fix(Fix.Kind.SWITCH_MOD_OFF, mod, null, card.name()));
  }

  private static Wrinkle gameVersion(long mod, ModCard card, String version) {
    return new Wrinkle(
        "game-version",
        Weight.HINT,
        card.name() + " is made for another version of the game",
        "Its card says " + card.gameVersions() + "; this is " + version + ".",
        "Look for a version of it that fits.",
        Place.LIBRARY,
        mod,
        null);
  }

  private static void unreadable(OpenWorkspace open, List<Wrinkle> out) {
    for (Unreadable u : open.unreadable())
      out.add(
          new Wrinkle(
              "row-unreadable",
              Weight.LOSES,
              u.what() + " cannot be read",
              "What is written down of it is not as Ironing writes it: " + u.because(),
              "Go on without it: the rest of the workspace is as it was. The server’s log has its text.",
              Place.OVERVIEW,
              u.mod(),
              new Fix(Fix.Kind.DROP_UNREADABLE, null, null, u.key())));
  }

  /** What is odd about a plugin that can be read all the same. */
  private void oddPlugins(OpenWorkspace open, List<Wrinkle> out) {
    RecordIndex plugins = open.get(RECORDS).index();
    for (int p = 0; p < plugins.pluginCount(); p++) {
      String name = plugins.name(p);
      Long mod =
          open.picture().loadOrder().find(name).map(e -> e.plugin().mod()).orElse(Holdings.GAME);
      for (String warning : plugins.table(p).warnings())
        out.add(
            new Wrinkle(
                "plugin-odd",
                Weight.HINT,
                name + " is not quite as its format asks",
                warning,
                "Tell its author; the game reads it.",
                Place.LOAD_ORDER,
                mod == Holdings.GAME ? null : mod,
                null));
    }
  }

  private void records(OpenWorkspace open, List<Wrinkle> out) {
    Collisions all = open.get(COLLISIONS);
    List<Integer> asked = standing(all, State.NEEDS_YOU);
    List<Integer> combine = standing(all, State.COMBINES);
    if (!asked.isEmpty()) {
      out.add(
          new Wrinkle(
                  "records-asked",
                  Weight.LOSES,
                  asked.size() == 1
                      ? "“"
                          + open.get(RECORDS).index().label(all.record(asked.get(0)))
                          + "” needs a decision"
                      : asked.size() + " records need a decision",
                  "Plugins change them in different ways; the game reads the last one whole.",
                  "Decide field by field in Records.",
                  Place.RECORDS,
                  null,
                  null)
              .withFacts(recordsOf(all, asked)));
    }
    if (!combine.isEmpty()) {
      int lost = combine.stream().mapToInt(all::lost).sum();
      String those = combine.size() == 1 ? "1 record loses " : combine.size() + " records lose ";
      out.add(
          new Wrinkle(
                  "records-unpatched",
                  Weight.LOSES,
                  those + (lost == 1 ? "a change" : lost + " changes"),
                  "Their changes can be combined, and no patch holds the outcome.",
                  "Put the outcome into a patch.",
                  Place.RECORDS,
                  null,
                  new Fix(Fix.Kind.BUILD_PATCH, null, null, "the patch"))
              .withFacts(recordsOf(all, combine)));
    }
  }

  private static List<Integer> standing(Collisions all, State state) {
    return IntStream.range(0, all.size()).filter(i -> all.state(i) == state).boxed().toList();
  }

  private static String recordsOf(Collisions all, List<Integer> which) {
    return which.stream()
        .map(i -> all.record(i) + " " + Long.toHexString(all.madeOf(all.record(i))))
        .collect(Collectors.joining("\n"));
  }

  private void files(OpenWorkspace open, List<Wrinkle> out) {
    List<String> asked = mends.filesAsked(open);
    if (!asked.isEmpty()) {
      String more = asked.size() > NAMED ? " and " + (asked.size() - NAMED) + " more" : "";
      out.add(
          new Wrinkle(
                  "files-asked",
                  Weight.LOSES,
                  asked.size() == 1
                      ? asked.get(0) + " needs a decision"
                      : asked.size() + " files need a decision",
                  "Mods change them in different ways at one place; the highest layer decides: "
                      + String.join(", ", asked.subList(0, Math.min(NAMED, asked.size())))
                      + more
                      + ".",
                  "Settle them place by place in Combine files.",
                  Place.COMBINE_FILES,
                  null,
                  null)
              .withFacts(String.join("\n", asked)));
    }
    for (Repeated r : repeated.of(open.value())) out.add(repeated(open, r));
  }

  private static Wrinkle repeated(OpenWorkspace open, Repeated r) {
    String names = r.names().stream().map(n -> "“" + n + "”").collect(Collectors.joining(", "));
    String files =
        r.files().stream()
            .map(w -> w.path() + " (" + open.nameOf(w.mod()) + ")")
            .collect(Collectors.joining(" and "));
    long mod = r.files().stream().mapToLong(Where::mod).max().orElse(0);
    return new Wrinkle(
        "name-twice",
        Weight.LOSES,
        names + (r.names().size() == 1 ? " stands more than once" : " stand more than once"),
        "The game wants a name once in all of " + r.match() + "; in play are " + files + ".",
        "Edit one of these files, or leave one of them out.",
        Place.LIBRARY,
        mod,
        null);
  }

  private void mends(OpenWorkspace open, List<Wrinkle> out) {
    for (MendView m : mends.of(open)) {
      if (m.stale() && m.kind() == Mends.MendKind.TOOL)
        out.add(
            new Wrinkle(
                "tool-stale",
                Weight.LOSES,
                m.name() + " is stale",
                String.join(" ", m.reasons()),
                "Run the tool again.",
                Place.TOOLS,
                m.mod(),
                null));
      else if (m.stale())
        out.add(
            new Wrinkle(
                "mend-stale",
                Weight.LOSES,
                m.name() + " is stale",
                String.join(" ", m.reasons()),
                "Rebuild it.",
                Place.MENDS,
                m.mod(),
                new Fix(Fix.Kind.REBUILD_MEND, m.mod(), null, "the mend")));
      if (!m.wrong().isEmpty())
        out.add(
            new Wrinkle(
                "mend-wrong",
                Weight.LOSES,
                m.name() + " is not right here",
                String.join(" ", m.wrong()),
                "Switch it off, or bring in what it is made for.",
                Place.MENDS,
                m.mod(),
                new Fix(Fix.Kind.SWITCH_MOD_OFF, m.mod(), null, m.name())));
    }
  }

  private void betterFittings(OpenWorkspace open, List<Wrinkle> out) {
    fittings
        .better(open)
        .forEach(
            (mod, better) ->
                out.add(
                    new Wrinkle(
                        "better-fitting",
                        Weight.HINT,
                        "Another choice of " + open.nameOf(mod) + " would fit better",
                        String.join(" ", better.because()),
                        "Fit it again; your own answers are where you start.",
                        Place.LIBRARY,
                        mod,
                        null)));
  }

  /**
   * The user's own rules of placement, and those of the cards of mods that are on, that the order
   * breaks.
   */
  private void brokenRules(OpenWorkspace open, List<Wrinkle> out) {
    LayerRules.Ruled ruled = rules.of(open);
    Map<Long, Long> modOf = ruled.modOf();
    Set<Long> on = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers())
      if (l.on()) on.add(open.mods().get(l.mod()).strand());
    for (PlacementRule r : Placements.broken(ruled.order(), ruled.rules())) {
      if (!LayerRules.isStated(r)) continue;
      boolean own = open.picture().arrangement().rules().contains(r);
      boolean bothOn = on.contains(r.layer()) && (!r.kind().hasOther() || on.contains(r.other()));
      if (!own && !bothOn) continue;
      String other = r.kind().hasOther() ? " " + open.nameOf(modOf.get(r.other())) : "";
      out.add(
          new Wrinkle(
                  "rule-broken",
                  Weight.LOSES,
                  open.nameOf(modOf.get(r.layer())) + " is to stand " + words(r.kind()) + other,
                  own
                      ? "Your rule: " + r.reason() + "."
                      : "So says " + r.from() + ": " + r.reason() + ".",
                  "Move the fewest layers that make it hold again.",
                  Place.LAYERS,
                  modOf.get(r.layer()),
                  new Fix(
                      Fix.Kind.MEND_RULE,
                      modOf.get(r.layer()),
                      null,
                      open.nameOf(modOf.get(r.layer())),
                      r.kind(),
                      r.kind().hasOther() ? modOf.get(r.other()) : null))
              .withOther(r.kind().hasOther() ? modOf.get(r.other()) : null));
    }
  }

  private static String words(PlacementRule.Kind kind) {
    return switch (kind) {
      case ABOVE -> "above";
      case BELOW -> "below";
      case DIRECTLY_ABOVE -> "directly above";
      case DIRECTLY_BELOW -> "directly below";
      case TOP -> "on top";
      case BOTTOM -> "lowest";
    };
  }

  private void idleMods(OpenWorkspace open, List<Wrinkle> out) {
    Standing standing = open.picture().standing();
    Map<Long, int[]> counts = new HashMap<>();
    for (Holdings.Source s : open.picture().holdings().sources()) {
      int[] c = counts.computeIfAbsent(s.mod(), m -> new int[2]);
      c[0] += standing.count(s.id(), Way.IN_PLAY) + standing.count(s.id(), Way.COVERING);
      c[1] += standing.count(s.id(), Way.COVERED) + standing.count(s.id(), Way.TWIN);
    }
    Set<Long> contributing = mends.contributed(open).keySet();
    for (Layer l : open.picture().arrangement().layers()) {
      if (contributing.contains(l.mod())) continue;
      int[] c = Optional.ofNullable(counts.get(l.mod())).orElse(new int[2]);
      if (!l.on() || c[0] > 0 || c[1] == 0) continue;
      out.add(
          new Wrinkle(
              "adds-nothing",
              Weight.HINT,
              "Nothing of " + open.nameOf(l.mod()) + " reaches the game",
              (c[1] == 1 ? "Its only file is" : "Its " + c[1] + " files are")
                  + " covered by higher layers, or the same there.",
              "Move it higher, or switch it off.",
              Place.LAYERS,
              l.mod(),
              new Fix(Fix.Kind.SWITCH_MOD_OFF, l.mod(), null, open.nameOf(l.mod()))));
    }
  }
}
