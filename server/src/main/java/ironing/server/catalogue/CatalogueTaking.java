package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.core.catalogue.Catalogue;
import ironing.core.catalogue.Catalogue.Part;
import ironing.core.catalogue.FindingLines;
import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.catalogue.PartLines.Line;
import ironing.core.catalogue.PartLines.Mistake;
import ironing.core.catalogue.Trust;
import ironing.server.catalogue.CatalogueMapper.CatalogueRow;
import ironing.server.catalogue.CatalogueMapper.PartRow;
import ironing.server.catalogue.CatalogueMapper.Versions;
import ironing.server.platform.Json;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Writes a state of a catalogue down, in one transaction. */
@Component
class CatalogueTaking {
  private static final int ROWS_AT_ONCE = 1_000;
  private static final int MOST_MISTAKES = 1_000;
  private static final int MOST_NEWS = 200;

  private final CatalogueMapper db;
  private final TransactionTemplate transaction;
  private final Json json;

  CatalogueTaking(CatalogueMapper db, TransactionTemplate transaction, Json json) {
    this.db = db;
    this.transaction = transaction;
    this.json = json;
  }

  /**
   * How a state differs from the one before.
   *
   * @param first whether there was none before; then all mods are new, and none is listed
   * @param mods how many it offers now
   * @param newMods how many were not there before
   * @param goneMods how many are there no more
   * @param newReleases how many releases were not there before, of all mods
   * @param leftOut lines that could not be read
   * @param releases the first of the mods with new releases
   */
  record News(
      boolean first,
      int mods,
      int newMods,
      int goneMods,
      int newReleases,
      int leftOut,
      List<NewRelease> releases) {}

  /** A release that was not there before. */
  record NewRelease(String mod, String name, String version) {}

  /** The parts of a state that are not here, or have to be read again. */
  List<Part> due(CatalogueRow row, Catalogue state) {
    Set<String> kept = kept(row, state);
    return state.parts().stream().filter(p -> !kept.contains(p.sha256())).toList();
  }

  /**
   * The parts that stay as they are. One that names a mod of another part again does not when a
   * part goes: that may have been the other.
   */
  private Set<String> kept(CatalogueRow row, Catalogue state) {
    Set<String> named = new HashSet<>();
    state.parts().forEach(p -> named.add(p.sha256()));
    List<PartRow> here = db.parts(row.id());
    boolean goes = here.stream().anyMatch(p -> !named.contains(p.sha256()));
    Set<String> kept = new HashSet<>();
    for (PartRow p : here)
      if (named.contains(p.sha256()) && !(goes && p.repeating())) kept.add(p.sha256());
    return kept;
  }

  /** The state is the one that is here; only the tag may be another. */
  void sameAgain(CatalogueRow row, String etag) {
    db.setEtag(row.id(), etag.isEmpty() ? null : etag);
  }

  /**
   * Takes a state.
   *
   * @param fresh the files of {@link #due}
   * @param findings the file of its findings; null where those that are here are its own
   */
  News take(
      CatalogueRow row,
      Catalogue state,
      Trust kept,
      String sha256,
      String etag,
      String text,
      Map<Part, Path> fresh,
      Path findings) {
    return transaction.execute(
        s -> {
          try (PartReading reading = new PartReading(fresh, lines -> json.write(rows(lines)))) {
            if (db.lock(row.id()) == null) throw forgotten(state);
            Taking taking = new Taking(row, kept(row, state));
            for (Part part : fresh.keySet()) taking.add(part.sha256(), reading);
            takeFindings(row, state, findings);
            News news = taking.news();
            db.settleWords();
            if (taking.isMostlyNew()) db.count();
            db.taken(
                row.id(),
                state.title(),
                kept.key(),
                kept.sequence(),
                sha256,
                etag.isEmpty() ? null : etag,
                text,
                json.write(LookView.taken(fresh.size(), news)));
            return news;
          } catch (IOException e) {
            throw new UncheckedIOException(e);
          }
        });
  }

  /** Whether the findings of a state are others than those that are here. */
  static boolean hasOtherFindings(CatalogueRow row, Catalogue state) {
    return !state.findings().map(Part::sha256).equals(Optional.ofNullable(row.findingsSha256()));
  }

  private void takeFindings(CatalogueRow row, Catalogue state, Path file) throws IOException {
    if (!hasOtherFindings(row, state)) return;
    db.removeFindings(row.id());
    List<Mistake> mistakes = new ArrayList<>();
    List<FindingRow> rows = new ArrayList<>();
    if (file != null) {
      try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
        FindingLines.read(
            in,
            f -> {
              rows.add(new FindingRow(f.mod(), FindingLines.line(f)));
              if (rows.size() == ROWS_AT_ONCE) addFindings(row, rows);
            },
            m -> {
              if (mistakes.size() < MOST_MISTAKES) mistakes.add(m);
            });
      }
    }
    addFindings(row, rows);
    db.setFindings(row.id(), state.findings().map(Part::sha256).orElse(null), json.write(mistakes));
  }

  /** A row of {@link CatalogueMapper#addFindings}. */
  private record FindingRow(String mod, String line) {}

  private void addFindings(CatalogueRow row, List<FindingRow> rows) {
    if (!rows.isEmpty()) db.addFindings(row.id(), json.write(rows));
    rows.clear();
  }

  private static IroningException forgotten(Catalogue state) {
    return IroningException.of(
        "not-found",
        "“" + state.title() + "”",
        "The catalogue was forgotten while it was read.",
        "Add it again if you want it.");
  }

  /** One state on its way into the database. */
  private final class Taking {
    private final CatalogueRow row;
    private final Map<String, Versions> before = new HashMap<>();
    private final Set<String> ranges = new TreeSet<>();
    private final Set<String> needs = new TreeSet<>();
    private final List<NewRelease> releases = new ArrayList<>();
    private int mods;
    private int written;
    private int newMods;
    private int newReleases;
    private int leftOut;

    Taking(CatalogueRow row, Set<String> kept) {
      this.row = row;
      List<String> gone = new ArrayList<>();
      for (PartRow p : db.parts(row.id())) {
        if (kept.contains(p.sha256())) {
          mods += p.mods();
          leftOut += json.read(p.mistakes(), Mistake[].class).length;
        } else {
          gone.add(p.sha256());
        }
      }
      for (Versions v : db.versionsOf(row.id(), json.write(gone))) before.put(v.mod(), v);
      for (String sha256 : gone) {
        db.removeMods(row.id(), sha256);
        db.removePart(row.id(), sha256);
      }
    }

    /** Writes the next part that is read. */
    void add(String sha256, PartReading reading) throws IOException {
      List<Mistake> mistakes = new ArrayList<>();
      int added = 0;
      boolean repeats = false;
      PartReading.Piece piece;
      do {
        piece = reading.next();
        if (!piece.lines().isEmpty()) {
          int before = mistakes.size();
          added += write(sha256, piece, mistakes);
          repeats |= mistakes.size() > before;
        }
        mistakes.addAll(piece.mistakes());
      } while (!piece.isLast());
      mods += added;
      written += added;
      leftOut += mistakes.size();
      mistakes.sort(Comparator.comparingInt(Mistake::line));
      List<Mistake> told = mistakes.subList(0, Math.min(MOST_MISTAKES, mistakes.size()));
      db.addPart(row.id(), sha256, added, json.write(told), repeats);
    }

    private int write(String sha256, PartReading.Piece piece, List<Mistake> mistakes) {
      Set<String> added = new HashSet<>(db.addMods(row.id(), sha256, piece.rows()));
      int count = added.size();
      for (Line line : piece.lines()) {
        if (added.remove(line.mod().mod())) tell(line.mod(), row(line));
        else
          mistakes.add(
              new Mistake(line.line(), "names the mod " + line.mod().mod() + " a second time"));
      }
      return count;
    }

    private void tell(OfferedMod mod, Row its) {
      ranges.addAll(its.ranges());
      needs.addAll(its.needs());
      if (needs.size() > ROWS_AT_ONCE) flush();
      Versions was = before.remove(mod.mod());
      if (row.stateSha256() == null) return;
      if (was == null) newMods++;
      Set<String> known = was == null ? Set.of() : Set.of(was.versions().split("\n"));
      for (String version : its.versions()) {
        if (known.contains(version)) continue;
        newReleases++;
        if (releases.size() < MOST_NEWS)
          releases.add(new NewRelease(mod.mod(), mod.name(), version));
      }
    }

    boolean isMostlyNew() {
      return written * 10 > mods;
    }

    private void flush() {
      db.addNeeds(row.id(), json.write(needs));
      needs.clear();
    }

    News news() {
      flush();
      db.addRanges(row.id(), json.write(ranges));
      return new News(
          row.stateSha256() == null,
          mods,
          newMods,
          before.size(),
          newReleases,
          leftOut,
          List.copyOf(releases));
    }
  }

  /**
   * A row of {@link CatalogueMapper#addMods}.
   *
   * @param named the words of its name and id, one blank between two
   * @param sorted those of its tags and authors
   * @param told those of its summary
   * @param files see {@link #prefix}
   * @param sides the mods that it is a bridge for
   */
  private record Row(
      String mod,
      String name,
      String game,
      List<String> tags,
      List<String> authors,
      String newestAt,
      String named,
      String sorted,
      String told,
      Set<String> versions,
      Set<String> ranges,
      Set<String> needs,
      List<Long> files,
      Set<String> sides,
      String line) {}

  private static List<Row> rows(List<Line> lines) {
    return lines.stream().map(CatalogueTaking::row).toList();
  }

  private static Row row(Line line) {
    OfferedMod mod = line.mod();
    Set<String> versions = new TreeSet<>(), ranges = new TreeSet<>(), needs = new TreeSet<>();
    Set<String> sides = new TreeSet<>();
    Set<Long> files = new TreeSet<>();
    String newestAt = "";
    for (Release r : mod.releases()) {
      files.add(prefix(r.file().sha256()));
      r.bridges().forEach(side -> sides.add(side.mod()));
      versions.add(r.version() + (r.variant().isEmpty() ? "" : " " + r.variant()));
      if (r.kind() != Kind.MAIN || !r.withdrawn().isEmpty()) continue;
      if (r.at().compareTo(newestAt) > 0) newestAt = r.at();
      ranges.add(r.harmless() ? "*" : r.game().toString());
    }
    newest(mod).ifPresent(r -> r.needs().forEach(n -> needs.add(sentence(n))));
    return new Row(
        mod.mod(),
        mod.name(),
        mod.game(),
        mod.tags(),
        mod.authors(),
        newestAt,
        Words.of(mod.name() + " " + mod.mod()),
        Words.of(String.join(" ", mod.tags()) + " " + String.join(" ", mod.authors())),
        Words.of(mod.summary()),
        versions,
        ranges,
        needs,
        List.copyOf(files),
        sides,
        line.text());
  }

  /** The beginning of a SHA-256 as a number: short enough to be kept of every archive. */
  static long prefix(String sha256) {
    return Long.parseLong(sha256.substring(0, 15), 16);
  }

  /** The release that most people want: the newest that stands, the plain variant before others. */
  static Optional<Release> newest(OfferedMod mod) {
    return mod.releases().stream()
        .filter(r -> r.kind() == Kind.MAIN && r.withdrawn().isEmpty())
        .min(
            Comparator.comparing((Release r) -> !r.variant().isEmpty())
                .thenComparing(Comparator.comparing(Release::version).reversed()));
  }

  /** A need as one text: mod, variant or “*”, range. */
  static String sentence(Need n) {
    return n.mod() + " " + n.variant().map(v -> "=" + v).orElse("*") + " " + n.versions();
  }
}
