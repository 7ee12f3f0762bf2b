package ironing.server.gameversion;

import static ironing.core.workspace.Stages.HARMLESS;

import ironing.core.IroningException;
import ironing.core.catalogue.Finding;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.gameversion.ModStanding;
import ironing.core.gameversion.ModStanding.Known;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.core.workspace.Mod;
import ironing.server.findings.ModFindings;
import ironing.server.gameversion.GameVersionMapper.EarlierRow;
import ironing.server.gameversion.GameWordMapper.WordRow;
import ironing.server.updates.Updates;
import ironing.server.updates.Updates.OfMod;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** How each mod stands with the game's version, and what the user says of it. */
@Component
class ModStandings {
  private static final int LONGEST_NOTE = 400;
  private final Updates updates;
  private final ModFindings findings;
  private final GameWordMapper words;
  private final GameVersionMapper versions;
  private final OpenWorkspaces workspaces;

  ModStandings(
      Updates updates,
      ModFindings findings,
      GameWordMapper words,
      GameVersionMapper versions,
      OpenWorkspaces workspaces) {
    this.updates = updates;
    this.findings = findings;
    this.words = words;
    this.versions = versions;
    this.workspaces = workspaces;
  }

  /**
   * A mod in use.
   *
   * @param waitsFor the point of the playthrough at which it is to be switched on; empty for none
   */
  record OfMods(
      Mod mod,
      boolean on,
      String version,
      boolean essential,
      String waitsFor,
      ModStanding standing) {}

  /**
   * All mods in use, in the order of their layers.
   *
   * @param since when the game got the version that it is in; empty where it was so from the start
   */
  record Standings(Optional<String> game, Optional<String> since, List<OfMods> mods) {}

  Standings of(OpenWorkspace open) {
    Optional<ModVersion> game = open.gameVersion().map(ModVersion::of);
    Map<Long, WordRow> said = new HashMap<>();
    for (WordRow w : words.all(open.workspace())) said.put(w.strandId(), w);
    ModFindings.Known found = findings.speaking(open);
    List<OfMods> out = new ArrayList<>();
    for (OfMod m : updates.of(open)) {
      WordRow word = said.get(m.mod().strand());
      out.add(
          new OfMods(
              m.mod(),
              m.on(),
              m.version().toString(),
              word != null && word.essential(),
              word == null ? "" : word.waitsFor(),
              ModStanding.of(known(open, m, verdict(open, word), found), game)));
    }
    Optional<String> since =
        versions.earlier(open.workspace()).stream().map(EarlierRow::until).findFirst();
    return new Standings(open.gameVersion(), since, out);
  }

  // what was said with another version of the game says nothing of this one
  private static Optional<Boolean> verdict(OpenWorkspace open, WordRow word) {
    if (word == null || word.verdict() == null) return Optional.empty();
    if (!word.game().equals(open.gameVersion().orElse(""))) return Optional.empty();
    return Optional.of(word.verdict().equals("works"));
  }

  private static Known known(
      OpenWorkspace open, OfMod m, Optional<Boolean> said, ModFindings.Known found) {
    String id = m.identity().mod();
    List<Finding> own = found.own().getOrDefault(id, List.of());
    List<Finding> others = found.others().getOrDefault(id, List.of());
    return new Known(
        said,
        open.get(HARMLESS).contains(m.mod().id()),
        VersionRange.of(m.mod().card().gameVersions()),
        m.same().map(Release::game).filter(ModStandings::saysSomething),
        own,
        others,
        open.gameVersion().map(ModVersion::of).flatMap(m::covering));
  }

  // a line that names no versions of the game has nothing newer to say than the card
  private static boolean saysSomething(VersionRange range) {
    return !range.toString().equals("*");
  }

  /** What the user says of a mod. */
  enum Said {
    WORKS,
    BROKEN,
    NOTHING
  }

  /**
   * Keeps what the user says.
   *
   * @param waitsFor empty for nothing
   * @throws IroningException with code {@code bad-reason}
   */
  void say(OpenWorkspace open, long mod, boolean essential, Said said, String waitsFor) {
    Mod m = open.required(mod);
    if (waitsFor.length() > LONGEST_NOTE) {
      throw IroningException.of(
          "bad-reason",
          "What it waits for",
          "It is longer than " + LONGEST_NOTE + " letters.",
          "Say it in a sentence; notes have room for more.");
    }
    String verdict =
        switch (said) {
          case WORKS -> "works";
          case BROKEN -> "broken";
          case NOTHING -> null;
        };
    workspaces.note(
        open.workspace(),
        "game-words",
        "Said of " + open.nameOf(mod) + " how it stands with the game",
        () ->
            words.say(
                m.strand(), essential, verdict, open.gameVersion().orElse(""), waitsFor.strip()));
  }
}
