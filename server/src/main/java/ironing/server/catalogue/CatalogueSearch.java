package ironing.server.catalogue;

import ironing.core.catalogue.PartLines;
import ironing.core.library.Needs.Installed;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.catalogue.CatalogueSearchMapper.Wanted;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Finds mods among all that the catalogues of a workspace offer; asks nobody but the database. */
@Component
class CatalogueSearch {
  private static final int MOST_COUNTED = 1_000;
  private static final int MOST_WORDS = 12;

  /** So many are quickly found by their words and put in order. */
  private static final int FEW = 3_000;

  private final CatalogueSearchMapper db;
  private final TransactionTemplate transaction;
  private final Json json;

  CatalogueSearch(CatalogueSearchMapper db, TransactionTemplate transaction, Json json) {
    this.db = db;
    this.transaction = transaction;
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

  /**
   * Finds them: first the mod whose id is what was typed, then those whose names have the words,
   * then the others; among equals the newest first, and of several catalogues the first.
   */
  Page find(OpenWorkspace open, Query query) {
    return transaction.execute(s -> findNow(open, query));
  }

  private Page findNow(OpenWorkspace open, Query query) {
    Optional<List<String>> words = words(query.text());
    if (words.isPresent() && words.get().isEmpty()) return new Page(List.of(), 0, false);
    int total = 0, from = query.from();
    List<Catalogues.Offered> mods = new ArrayList<>();
    for (Step step : steps(open, query, words)) {
      int left = query.count() - mods.size();
      if (left == 0 && total > MOST_COUNTED) break;
      Optional<Way> way = way(step.wanted);
      if (way.isEmpty()) continue;
      Wanted wanted = way.get().wanted;
      int there =
          way.get().count.isPresent()
              ? way.get().count.getAsInt()
              : db.count(wanted, MOST_COUNTED + 1);
      List<String> lines = left == 0 ? List.of() : db.find(wanted, from, left);
      for (String line : lines)
        mods.add(
            new Catalogues.Offered(step.wanted.catalogue(), step.title, PartLines.again(line)));
      boolean isOver = lines.size() < left;
      // the next step begins where this one ends: then all of it has to be known
      if (isOver && there > MOST_COUNTED) there = db.count(wanted, Integer.MAX_VALUE);
      total += there;
      from = Math.max(0, from - there);
    }
    return new Page(mods, Math.min(total, MOST_COUNTED), total > MOST_COUNTED);
  }

  /**
   * How a question is asked.
   *
   * @param count how many there are, up to the bound, where that is known by then
   */
  private record Way(Wanted wanted, OptionalInt count) {}

  /** Chooses how the database looks; empty where there is nothing to be found. */
  private Optional<Way> way(Wanted wanted) {
    db.byWords();
    boolean isByAge = wanted.words() == null && wanted.mod() == null;
    OptionalInt count = OptionalInt.empty();
    if (wanted.words() != null) {
      int some = db.withWords(wanted, FEW + 1);
      if (some == 0) return Optional.empty();
      isByAge = some > FEW;
      if (wanted.isByWordsAlone()) count = OptionalInt.of(Math.min(some, MOST_COUNTED + 1));
    }
    if (!isByAge) return Optional.of(new Way(wanted, count));
    db.byAge();
    return Optional.of(new Way(wanted.byAge(), count));
  }

  /** One question to the database. */
  private record Step(Wanted wanted, String title) {}

  private List<Step> steps(OpenWorkspace open, Query query, Optional<List<String>> words) {
    String ranges =
        query.fits() && open.gameVersion().isPresent()
            ? json.write(holding(open, ModVersion.of(open.gameVersion().get())))
            : null;
    String met = query.nothingMore() ? json.write(met(open)) : null;
    String tag = query.tag().isEmpty() ? null : query.tag();
    String author = query.author().isEmpty() ? null : query.author();
    String game = open.game().id();
    List<Step> steps = new ArrayList<>();
    // by words: which query, which not, the very mod, not the very mod
    List<String[]> kinds = new ArrayList<>();
    if (words.isEmpty()) {
      kinds.add(new String[] {null, null, null, null});
    } else {
      String all = String.join(" & ", words.get());
      String named = String.join("A & ", words.get()) + "A";
      String typed = String.join("-", query.text().strip().toLowerCase(Locale.ROOT).split("\\s+"));
      kinds.add(new String[] {null, null, typed, null});
      kinds.add(new String[] {named, null, null, typed});
      kinds.add(new String[] {all, named, null, typed});
    }
    for (String[] k : kinds) {
      List<Long> before = new ArrayList<>();
      for (CatalogueSearchMapper.Place c : db.places(open.workspace())) {
        steps.add(
            new Step(
                new Wanted(
                    c.id(),
                    List.copyOf(before),
                    game,
                    k[0],
                    k[1],
                    k[2],
                    k[3],
                    tag,
                    author,
                    ranges,
                    met,
                    false),
                c.title()));
        before.add(c.id());
      }
    }
    return steps;
  }

  List<CatalogueSearchMapper.Counted> tags(OpenWorkspace open) {
    return db.tags(open.workspace(), open.game().id());
  }

  /** Parts of a query of PostgreSQL; empty for all mods, no parts where no mod can be meant. */
  private static Optional<List<String>> words(String text) {
    if (text.isBlank()) return Optional.empty();
    List<String> words = new ArrayList<>();
    for (String w : Words.in(text)) if (words.size() < MOST_WORDS) words.add("'" + w + "':*");
    return Optional.of(words);
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
