package ironing.server.catalogue;

import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.PartLines;
import ironing.core.library.Needs.Installed;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.catalogue.CatalogueSearchMapper.CountedUpTo;
import ironing.server.catalogue.CatalogueSearchMapper.LineRow;
import ironing.server.catalogue.CatalogueSearchMapper.Wanted;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Finds mods among all that the catalogues of a workspace offer; asks nobody but the database. */
@Component
class CatalogueSearch {
  private static final int MOST_COUNTED = 1_000;
  private static final int MOST_WORDS = 12;

  private final CatalogueSearchMapper db;
  private final Json json;

  CatalogueSearch(CatalogueSearchMapper db, Json json) {
    this.db = db;
    this.json = json;
  }

  /**
   * What is looked for.
   *
   * @param text words, each of which a mod has a word that begins with it
   * @param tag empty for any, as the author
   * @param fits only what goes with the game's version, where that is known
   * @param nothingMore only those whose newest release needs nothing that is not on
   */
  record Query(
      String text,
      String tag,
      String author,
      boolean fits,
      boolean nothingMore,
      int from,
      int count) {}

  /**
   * @param total how many there are; the bound where there are more
   * @param isMore whether there are more than were counted
   */
  record Page(List<Catalogues.Offered> mods, int total, boolean isMore) {}

  Page find(OpenWorkspace open, Query query) {
    Optional<String> words = words(query.text());
    if (words.isPresent() && words.get().isEmpty()) return new Page(List.of(), 0, false);
    String ranges =
        query.fits() && open.gameVersion().isPresent()
            ? json.write(holding(open, ModVersion.of(open.gameVersion().get())))
            : null;
    String met = query.nothingMore() ? json.write(met(open)) : null;
    String tag = query.tag().isEmpty() ? null : query.tag();
    String author = query.author().isEmpty() ? null : query.author();
    long workspace = open.workspace();
    String game = open.game().id();
    List<LineRow> rows =
        db.find(
            new Wanted(
                workspace,
                game,
                words.orElse(null),
                query.text().strip().toLowerCase(Locale.ROOT),
                tag,
                author,
                ranges,
                met,
                query.from(),
                query.count()));
    int total =
        db.count(
            new CountedUpTo(
                workspace, game, words.orElse(null), tag, author, ranges, met, MOST_COUNTED + 1));
    List<Catalogues.Offered> mods = new ArrayList<>();
    for (LineRow r : rows) {
      OfferedMod mod = PartLines.again(r.line());
      mods.add(new Catalogues.Offered(r.catalogue(), r.title(), mod));
    }
    return new Page(mods, Math.min(total, MOST_COUNTED), total > MOST_COUNTED);
  }

  List<CatalogueSearchMapper.Counted> tags(OpenWorkspace open) {
    return db.tags(open.workspace(), open.game().id());
  }

  /** A query of PostgreSQL; empty for all mods, an empty text where no mod can be meant. */
  private static Optional<String> words(String text) {
    if (text.isBlank()) return Optional.empty();
    List<String> words = new ArrayList<>();
    for (String w : text.split("[^\\p{L}\\p{N}]+"))
      if (!w.isEmpty() && words.size() < MOST_WORDS) words.add("'" + w + "':*");
    return Optional.of(String.join(" & ", words));
  }

  private List<String> holding(OpenWorkspace open, ModVersion game) {
    return db.ranges(open.workspace()).stream()
        .filter(r -> VersionRange.of(r).contains(game))
        .toList();
  }

  /** The needs that what is on meets, of all that are said. */
  private List<String> met(OpenWorkspace open) {
    Map<String, List<Installed>> here = open.installed();
    List<String> met = new ArrayList<>();
    for (String need : db.needs(open.workspace(), json.write(here.keySet()))) {
      String[] parts = need.split(" ", 3);
      VersionRange range = VersionRange.of(parts[2]);
      for (Installed i : here.getOrDefault(parts[0], List.of())) {
        boolean variant = parts[1].equals("*") || parts[1].equals("=" + i.card().variant());
        if (i.on() && variant && range.contains(ModVersion.of(i.card().version()))) {
          met.add(need);
          break;
        }
      }
    }
    return met;
  }
}
