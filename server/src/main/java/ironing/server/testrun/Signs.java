package ironing.server.testrun;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.LaidOut;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.Sign;
import ironing.core.path.GamePath;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.testrun.RunLog;
import ironing.core.trouble.SignCheck;
import ironing.core.trouble.SignCheck.OwnFile;
import ironing.core.trouble.SignCheck.Seen;
import ironing.core.workspace.Mod;
import ironing.server.deploy.Deployments;
import ironing.server.platform.Json;
import ironing.server.testrun.RunMapper.RunRow;
import ironing.server.testrun.SignMapper.OwnSignRow;
import ironing.server.testrun.SignMapper.TickRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * What the last run has shown of each mod that is on: the signs of its card, and the user’s own.
 */
@Component
public class Signs {
  private final SignMapper db;
  private final RunMapper runs;
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;
  private final Json json;

  Signs(
      SignMapper db,
      RunMapper runs,
      OpenWorkspaces workspaces,
      Deployments deployments,
      Json json) {
    this.db = db;
    this.runs = runs;
    this.workspaces = workspaces;
    this.deployments = deployments;
    this.json = json;
  }

  /**
   * A sign with what the run has shown of it.
   *
   * @param own its number, where the user has written it; 0 for one of the card
   * @param found what was reported under its name; empty for nothing, or where it is told otherwise
   * @param path of a file, where it lies in the game folder; empty for others, and for one that the
   *     mod does not have
   */
  record Checked(long own, Sign sign, Seen seen, String found, String path) {}

  /**
   * A mod with its signs.
   *
   * @param inGame whether it is on, and something of it lay in the game folder
   * @param read how many of its files in play the run has read
   * @param files how many it has in play
   * @param slots of its plugins, by name
   */
  record OfMod(
      long mod,
      String name,
      boolean inGame,
      List<Checked> signs,
      int read,
      int files,
      Map<String, Integer> slots) {}

  /**
   * @param run the last one that is over; 0 for none
   */
  record Checklist(long run, List<OfMod> mods) {}

  Checklist of(OpenWorkspace open) {
    RunRow last = runs.lastEnded(open.workspace());
    Optional<RunLog.Summary> said =
        Optional.ofNullable(last)
            .filter(r -> !r.log().isBlank())
            .map(r -> RunLog.sinceLastStart(r.log().lines().toList()));
    Map<Long, List<OwnSignRow>> own = new HashMap<>();
    for (OwnSignRow r : db.own(open.workspace()))
      own.computeIfAbsent(r.strandId(), s -> new ArrayList<>()).add(r);
    Map<String, Boolean> ticks = new HashMap<>();
    if (last != null)
      for (TickRow t : db.ticks(last.id())) ticks.put(t.strandId() + " " + t.says(), t.isSeen());
    Look look = new Look(open, said, deployments.laidOut(open));
    List<OfMod> mods = new ArrayList<>();
    for (Layer l : open.picture().arrangement().layers()) {
      Mod mod = open.mods().get(l.mod());
      if (l.on() && mod != null)
        mods.add(look.of(mod, own.getOrDefault(mod.strand(), List.of()), ticks));
    }
    return new Checklist(last == null ? 0 : last.id(), mods);
  }

  /**
   * A sign of a mod, as the last run has told it.
   *
   * @param seen what came of it
   */
  public record Told(String mod, String says, Seen seen) {}

  /** The signs of some mods of which the last run tells whether they were seen. */
  public List<Told> told(OpenWorkspace open, Set<Long> mods) {
    List<Told> out = new ArrayList<>();
    for (OfMod m : of(open).mods()) {
      if (!mods.contains(m.mod())) continue;
      for (Checked c : m.signs())
        if (c.seen() != Seen.CANNOT_TELL) out.add(new Told(m.name(), c.sign().says(), c.seen()));
    }
    return out;
  }

  /** What is looked at for all mods alike. */
  private final class Look {
    private final OpenWorkspace open;
    private final Optional<RunLog.Summary> said;
    private final Map<Long, List<LaidOut.Item>> laid = new HashMap<>();
    private final Map<String, String> read = new HashMap<>();

    Look(OpenWorkspace open, Optional<RunLog.Summary> said, LaidOut note) {
      this.open = open;
      this.said = said;
      for (LaidOut.Item i : note.files().values())
        laid.computeIfAbsent(i.mod(), m -> new ArrayList<>()).add(i);
      said.ifPresent(s -> s.read().forEach((path, sha) -> read.put(key(path), sha)));
    }

    private String key(String path) {
      return open.game().pathCase().key(path);
    }

    OfMod of(Mod mod, List<OwnSignRow> own, Map<String, Boolean> ticks) {
      List<LaidOut.Item> items = laid.getOrDefault(mod.id(), List.of());
      List<Checked> signs = new ArrayList<>();
      for (Sign s : mod.card().signs()) signs.add(checked(0, s, mod, ticks));
      for (OwnSignRow r : own)
        signs.add(checked(r.id(), json.read(r.sign(), Sign.class), mod, ticks));
      Map<String, Integer> slots = new HashMap<>();
      for (LaidOut.Item i : items) {
        String name = GamePath.name(i.path());
        Integer slot = said.map(s -> s.plugins().get(name)).orElse(null);
        if (slot != null) slots.put(name, slot);
      }
      int seen = (int) items.stream().filter(i -> read.containsKey(key(i.path()))).count();
      return new OfMod(
          mod.id(), mod.card().name(), !items.isEmpty(), signs, seen, items.size(), slots);
    }

    private Checked checked(long own, Sign sign, Mod mod, Map<String, Boolean> ticks) {
      Optional<OwnFile> file =
          sign.kind() == Sign.Kind.READ ? file(mod.id(), sign.what()) : Optional.empty();
      Optional<Boolean> ticked = Optional.ofNullable(ticks.get(mod.strand() + " " + sign.says()));
      boolean inGame = laid.containsKey(mod.id());
      Seen seen = SignCheck.of(sign, said, inGame, file, ticked, open.game().pathCase());
      String found =
          sign.kind() != Sign.Kind.REPORT
              ? ""
              : said.flatMap(s -> SignCheck.reported(sign.what(), s))
                  .map(r -> (r.value() + " " + r.unit()).strip())
                  .orElse("");
      return new Checked(own, sign, seen, found, file.map(OwnFile::path).orElse(""));
    }

    /** The file of a mod at a path of its content: below whichever mount took it. */
    private Optional<OwnFile> file(long mod, String path) {
      Holdings holdings = open.picture().holdings();
      for (GameDefinition.Mount m : open.game().mounts()) {
        String place = open.game().gamePath(m, path);
        int id = holdings.idOf(place);
        int slot = id < 0 ? -1 : holdings.slotOfMod(id, mod);
        if (slot >= 0)
          return Optional.of(
              new OwnFile(
                  place, holdings.shaAt(slot), isDeployed(mod, place, holdings.shaAt(slot))));
      }
      return Optional.empty();
    }

    private boolean isDeployed(long mod, String path, String sha256) {
      for (LaidOut.Item i : laid.getOrDefault(mod, List.of())) {
        if (!key(i.path()).equals(key(path)) || !i.sha256().equals(sha256)) continue;
        try {
          Path place = open.at(i.path());
          return ContentHash.of(place).equals(sha256);
        } catch (IOException gone) {
          return false;
        }
      }
      return false;
    }
  }

  /**
   * Ticks a sign to look for, of the last run.
   *
   * @param seen empty takes the tick away
   * @throws IroningException with code {@code not-found} where no run is over, or the mod has no
   *     such sign
   */
  void tick(OpenWorkspace open, long mod, String says, Optional<Boolean> seen) {
    Checklist list = of(open);
    boolean there =
        list.mods().stream()
            .filter(m -> m.mod() == mod)
            .flatMap(m -> m.signs().stream())
            .anyMatch(c -> c.sign().kind() == Sign.Kind.LOOK && c.sign().says().equals(says));
    if (list.run() == 0 || !there)
      throw IroningException.of(
          "not-found",
          says,
          list.run() == 0
              ? "The game was not played yet, so nothing can have been seen."
              : "The mod has no such sign to look for.",
          "Start the game, then choose a sign from the list.");
    long strand = open.required(mod).strand();
    workspaces.note(
        open.workspace(),
        "signs",
        "Looked for a sign of " + open.nameOf(mod),
        () -> {
          if (seen.isPresent()) db.tick(list.run(), strand, says, seen.get());
          else db.untick(list.run(), strand, says);
        });
  }

  /** Writes a sign of the user’s down for a mod, whatever version of it is in use. */
  void add(OpenWorkspace open, long mod, Sign sign) {
    long strand = open.required(mod).strand();
    workspaces.note(
        open.workspace(),
        "signs",
        "Wrote a sign of " + open.nameOf(mod) + " down",
        () -> db.add(strand, json.write(sign)));
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  void remove(OpenWorkspace open, long id) {
    workspaces.note(
        open.workspace(),
        "signs",
        "Took a sign away",
        () -> {
          if (db.remove(open.workspace(), id) > 0) return;
          throw IroningException.of(
              "not-found",
              "Sign " + id,
              "There is no such sign of yours.",
              "Choose one from the list.");
        });
  }
}
