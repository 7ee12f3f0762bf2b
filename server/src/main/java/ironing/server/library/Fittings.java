package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.library.Choices;
import ironing.core.library.ContentDifference;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Facts;
import ironing.core.library.Fitting;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.ModStore.Fitted;
import ironing.server.platform.Json;
import ironing.server.workspace.Memory;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** Finds mods for which another choice would fit better by now. */
@Component
public class Fittings {
  private static final long BYTES_OF_AN_ENTRY = 300;

  private final LibraryMapper db;
  private final OwnPlaces places;
  private final Json json;
  // what a mod's fitting was like never changes; it may be long to read
  private final Memory.Kept<Map<Long, Known>> known;

  private record Known(Fitted fitted, Fitting fitting, Choices choices) {}

  Fittings(LibraryMapper db, OwnPlaces places, Memory memory, Json json) {
    this.known =
        memory.keeping(
            all ->
                all.values().stream()
                    .mapToLong(k -> BYTES_OF_AN_ENTRY * k.fitted().entries().size())
                    .sum());
    this.db = db;
    this.places = places;
    this.json = json;
  }

  /**
   * A choice that would fit better than the one that was made.
   *
   * @param because what has changed since, in words
   * @param answers that fit now; the user's own among them
   */
  public record Better(
      List<String> because,
      Map<String, List<String>> answers,
      List<String> added,
      List<String> gone,
      List<String> different) {}

  /**
   * What was answered when a mod was fitted, as question/answer; nothing for one without questions.
   */
  public Set<String> answers(OpenWorkspace open, long mod) {
    ModRow row = db.mod(open.workspace(), mod);
    if (row == null || row.fitting() == null) return Set.of();
    Set<String> all = new TreeSet<>();
    json.read(row.fitting(), Fitted.class)
        .answers()
        .forEach((question, answers) -> answers.forEach(a -> all.add(question + "/" + a)));
    return all;
  }

  /** By mod: those in use whose conditions have other answers than when they were fitted. */
  public Map<Long, Better> better(OpenWorkspace open) {
    Map<Long, Better> out = new LinkedHashMap<>();
    for (long mod : db.fittedMods(open.workspace()))
      if (open.inUse(mod)) better(open, mod).ifPresent(b -> out.put(mod, b));
    return out;
  }

  private Known known(OpenWorkspace open, long mod) {
    return known
        .of(
            open.workspace(),
            before -> {
              if (before != null && before.containsKey(mod)) return before;
              Map<Long, Known> all = before == null ? new HashMap<>() : new HashMap<>(before);
              all.put(mod, read(db.mod(open.workspace(), mod)));
              return all;
            })
        .get(mod);
  }

  /** The same for one mod that has a fitting. */
  Optional<Better> better(OpenWorkspace open, long mod) {
    Known k = known(open, mod);
    Facts now = new BenchFacts(() -> open, Intake.strandOf(open, mod));
    Map<String, Boolean> truths = k.fitting().truths(now);
    if (truths.equals(k.fitted().truths())) return Optional.empty();
    Facts then = Facts.remembered(k.fitted().truths());
    Map<String, List<String>> answers = k.fitting().renewed(k.fitted().answers(), then, now);
    Map<String, String> entries = new HashMap<>();
    k.fitted().entries().forEach(e -> entries.put(e.path(), e.sha256()));
    Map<String, String> after = new TreeMap<>();
    try {
      Outcome outcome =
          ContentLayout.fitted(
              places.of(open),
              k.fitted().entries().stream().map(Fitted.Entry::path).toList(),
              k.choices(),
              k.fitting().moves(k.fitting().asked(answers, now)));
      if (outcome instanceof Outcome.Laid laid)
        for (Placed p : laid.placed()) after.put(p.gamePath(), entries.get(p.entry()));
    } catch (IroningException gone) {
      // the game's definition has changed since: what would come cannot be said
      return Optional.empty();
    }
    Map<String, String> before = new TreeMap<>();
    for (FileRow f : db.allFiles(mod))
      if (f.pack().isEmpty())
        before.put(f.path(), f.givenSha256() == null ? f.sha256() : f.givenSha256());
    ContentDifference d = ContentDifference.between(open.game().pathCase(), before, after);
    if (d.isNone()) return Optional.empty();
    return Optional.of(
        new Better(
            because(k.fitted().truths(), truths, k.fitting().spoken(id -> nameOf(open, id))),
            answers,
            d.added(),
            d.gone(),
            d.different()));
  }

  /** What to call a mod by the id of its card; the id where it is not in the library. */
  static String nameOf(OpenWorkspace open, String id) {
    return open.mods().values().stream()
        .filter(m -> m.card().id().equals(id))
        .map(m -> m.card().name())
        .findFirst()
        .orElse(id);
  }

  private static List<String> because(
      Map<String, Boolean> then, Map<String, Boolean> now, Map<String, String> spoken) {
    List<String> out = new ArrayList<>();
    now.forEach(
        (words, holds) -> {
          if (!holds.equals(then.get(words)))
            out.add((holds ? "By now, " : "It is no longer so that ") + spoken.get(words) + ".");
        });
    return out;
  }

  private Known read(ModRow row) {
    Fitted fitted = json.read(row.fitting(), Fitted.class);
    return new Known(
        fitted,
        Fitting.read(ContentLayout.FITTING, fitted.text()),
        json.read(row.choices(), Choices.class));
  }
}
