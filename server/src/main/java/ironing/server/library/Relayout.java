package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.library.Choices;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Fitting;
import ironing.core.library.KnownPlaces;
import ironing.core.library.Placing;
import ironing.core.workspace.Mod;
import ironing.server.job.Jobs;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryMapper.StoredLeftOut;
import ironing.server.library.ModStore.Fitted;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** Which mods another definition of the game would install otherwise, and installing them so. */
@Component
public class Relayout {
  private final LibraryMapper db;
  private final OwnPlaces places;
  private final Installer installer;
  private final Json json;

  Relayout(LibraryMapper db, OwnPlaces places, Installer installer, Json json) {
    this.db = db;
    this.places = places;
    this.installer = installer;
    this.json = json;
  }

  /**
   * A mod that would be installed otherwise.
   *
   * @param more game paths that it would bring anew
   * @param gone game paths that it would bring no longer
   * @param asIs why it stays as it is all the same; empty where it is installed anew
   */
  public record Otherwise(
      long mod, String name, Set<String> more, Set<String> gone, Optional<String> asIs) {}

  /**
   * All mods of the library that came in an archive and would be installed otherwise. Cost: the
   * rows of all their files; no archive is read.
   */
  public List<Otherwise> under(OpenWorkspace open, GameDefinition next) {
    Placing placing = new Placing(next, KnownPlaces.of(next, () -> places.paths(open)));
    List<Otherwise> out = new ArrayList<>();
    for (Mod m : open.mods().values())
      if (!m.isMend()) otherwise(open, next, placing, m).ifPresent(out::add);
    return out;
  }

  private Optional<Otherwise> otherwise(
      OpenWorkspace open, GameDefinition next, Placing placing, Mod m) {
    ModRow row = db.mod(open.workspace(), m.id());
    List<FileRow> files = db.allFiles(m.id());
    Set<String> now = new TreeSet<>(), entries = new LinkedHashSet<>(), then = new TreeSet<>();
    boolean edited = false, packs = false;
    for (FileRow f : files) {
      packs |= !f.pack().isEmpty() && !next.isPack(f.pack());
      if (!f.pack().isEmpty()) continue;
      entries.add(f.entry());
      now.add(f.entry() + "\0" + f.path());
      edited |= f.stored() != null;
      packs |= next.isPack(f.path()) != open.game().isPack(f.path());
    }
    for (StoredLeftOut l : db.leftOut(m.id())) entries.add(l.entry());
    List<Placed> placed;
    try {
      ArchiveRow from = db.archive(open.workspace(), row.archiveId());
      Placing named = from == null ? placing : placing.ofArchive(from.name());
      placed = placed(open, named, row, entries);
    } catch (IroningException wrong) {
      return Optional.of(asIs(m, wrong.problems().get(0).reason()));
    }
    placed.forEach(p -> then.add(p.entry() + "\0" + p.gamePath()));
    if (then.equals(now) && !packs) return Optional.empty();
    if (placed.isEmpty())
      return Optional.of(asIs(m, "The definition leaves nothing of it for the game."));
    if (edited) return Optional.of(asIs(m, "Files of it were edited here."));
    Set<String> more = paths(then), gone = paths(now);
    more.removeAll(paths(now));
    gone.removeAll(paths(then));
    return Optional.of(new Otherwise(m.id(), m.card().name(), more, gone, Optional.empty()));
  }

  private static Otherwise asIs(Mod m, String why) {
    return new Otherwise(m.id(), m.card().name(), Set.of(), Set.of(), Optional.of(why));
  }

  private static Set<String> paths(Set<String> entriesAndPaths) {
    Set<String> paths = new TreeSet<>();
    for (String e : entriesAndPaths) paths.add(e.substring(e.indexOf('\0') + 1));
    return paths;
  }

  private List<Placed> placed(
      OpenWorkspace open, Placing placing, ModRow row, Set<String> entries) {
    Choices choices = json.read(row.choices(), Choices.class);
    // where it was decided to begin it begins still
    if (choices.root().isEmpty() && isDecided(placing, entries, choices))
      choices = choices.withRoot(row.contentRoot());
    Outcome outcome;
    if (row.fitting() == null) {
      outcome = ContentLayout.of(placing, entries, choices);
    } else {
      Fitted fitted = json.read(row.fitting(), Fitted.class);
      Fitting fitting = Fitting.read(ContentLayout.FITTING, fitted.text());
      BenchFacts facts = new BenchFacts(() -> open, Intake.strandOf(open, row.id()));
      outcome =
          ContentLayout.fitted(
              placing, entries, choices, fitting.moves(fitting.asked(fitted.answers(), facts)));
    }
    return outcome instanceof Outcome.Laid laid ? laid.placed() : List.of();
  }

  private static boolean isDecided(Placing placing, Set<String> entries, Choices choices) {
    return ContentLayout.begins(placing, entries, choices) instanceof Outcome.Several;
  }

  /** Installs a mod again as the definition says by now; its number, layer and card stay. */
  public void again(long workspace, long mod, Jobs.Progress progress) {
    installer.layOutAnew(workspace, mod, progress);
  }
}
