package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Fault;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.SearchedMods.InSets;
import ironing.core.trouble.Suspicions;
import ironing.core.trouble.Suspicions.Reason;
import ironing.server.platform.MayBeAbsent;
import ironing.server.testrun.Runs.Earlier;
import ironing.server.trouble.MeasuredViews.MeasuredView;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.trouble.SearchMapper.TryRow;
import ironing.server.trouble.Suspecting.Suspected;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** What {@link TroubleController} gives and takes. */
final class TroubleViews {
  private static final int LONGEST_TEXT = 500;
  private static final int LONGEST_LIMIT_SECONDS = 24 * 3600;
  private static final int LIMIT_SECONDS = 300;
  private static final int MOST_FIRST = 20;

  private TroubleViews() {}

  /**
   * A fault, and by what a run tells it.
   *
   * @param kind how it is told
   * @param name the code of a fault or warning, the name of a report, the path of a file, a line of
   *     the output, or your own words
   * @param place the path or plugin that the game names with it; absent for any
   * @param value of a report, an exit code, or a limit in milliseconds or MiB; absent where the
   *     kind has none
   * @param path that the game names; absent for none
   * @param plugin that the game names; absent for none
   * @param record that the game names, by key; absent for none
   * @param about the mod without which it has no meaning, such as one whose sign is missing: it and
   *     what it needs are in play in every set; absent for none
   */
  record FaultRequest(
      Fault.Kind kind,
      @MayBeAbsent String name,
      @MayBeAbsent String place,
      @MayBeAbsent String value,
      @MayBeAbsent String path,
      @MayBeAbsent String plugin,
      @MayBeAbsent String record,
      @MayBeAbsent Long about) {
    Fault fault() {
      Fault f = new Fault(kind, text(name), text(place), text(value));
      if (wrong(f).isPresent())
        throw IroningException.of(
            "fault-invalid",
            "The fault",
            wrong(f).get(),
            "Choose it from what a run says, or write it in words.");
      return f;
    }

    Named named() {
      return new Named(text(path), text(plugin), text(record));
    }

    private static String text(String given) {
      return Objects.requireNonNullElse(given, "").strip();
    }

    private static Optional<String> wrong(Fault f) {
      boolean unnamed = f.name().isEmpty();
      boolean tooLong =
          f.name().length() > LONGEST_TEXT
              || f.place().length() > LONGEST_TEXT
              || f.value().length() > LONGEST_TEXT;
      if (tooLong)
        return Optional.of("One of its texts is longer than " + LONGEST_TEXT + " letters.");
      return switch (f.kind()) {
        case EXITS ->
            f.value().matches("-?\\d{1,9}")
                ? Optional.empty()
                : Optional.of("“" + f.value() + "” is no exit code.");
        case SLOWER, LOADS_SLOWER ->
            f.value().matches("[1-9]\\d{0,8}")
                ? Optional.empty()
                : Optional.of("“" + f.value() + "” is no number of milliseconds above 0.");
        case OVER_MEMORY ->
            f.value().matches("[1-9]\\d{0,6}")
                ? Optional.empty()
                : Optional.of("“" + f.value() + "” is no number of MiB above 0.");
        case COSTS -> Optional.of("What a mod costs is no fault: it is measured.");
        case ANY -> Optional.empty();
        default -> unnamed ? Optional.of("It has no name.") : Optional.empty();
      };
    }
  }

  /**
   * How to search.
   *
   * @param fault what to search for
   * @param automatic whether it goes on by itself; else you play, and say how it went
   * @param limitSeconds how long one run may take; absent for five minutes
   * @param mends what becomes of patches, merges and other mends in a set
   * @param inSteps whether the set is built up in steps, to stop at the first that fails; absent
   *     for no
   * @param wholeFirst how often the whole set is tried first, to see whether the fault comes every
   *     time; absent for once
   */
  record SearchRequest(
      FaultRequest fault,
      boolean automatic,
      @MayBeAbsent Integer limitSeconds,
      InSets mends,
      @MayBeAbsent Boolean inSteps,
      @MayBeAbsent Integer wholeFirst) {
    Beginnings.Manner manner() {
      return new Beginnings.Manner(
          automatic, limitOf(limitSeconds), mends, Boolean.TRUE.equals(inSteps), often(wholeFirst));
    }
  }

  private static int often(Integer wholeFirst) {
    int often = Objects.requireNonNullElse(wholeFirst, 1);
    if (often < 1 || often > MOST_FIRST)
      throw IroningException.of(
          "fault-invalid",
          "How often the whole set is tried first",
          "It is not between once and " + MOST_FIRST + " times.",
          "Say how often.");
    return often;
  }

  /**
   * A limit in seconds, five minutes where none is given.
   *
   * @throws IroningException with code {@code fault-invalid} where it is none
   */
  static int limitOf(Integer limitSeconds) {
    int limit = Objects.requireNonNullElse(limitSeconds, LIMIT_SECONDS);
    if (limit < 1 || limit > LONGEST_LIMIT_SECONDS)
      throw IroningException.of(
          "fault-invalid",
          "The time of one run",
          "It is not between one second and a day.",
          "Say how many seconds a run may take.");
    return limit;
  }

  /**
   * How a set did.
   *
   * @param answer what you have seen
   */
  record AnswerRequest(Answer answer) {}

  /**
   * A fault.
   *
   * @param kind how it is told
   * @param name of it
   * @param place that the game names with it; empty for any
   * @param value of a report, an exit code, or a limit in milliseconds; empty for none
   * @param says in a sentence
   */
  record FaultView(Fault.Kind kind, String name, String place, String value, String says) {
    static FaultView of(Fault f) {
      return new FaultView(f.kind(), f.name(), f.place(), f.value(), FaultWords.of(f));
    }
  }

  /** How far a search has come with a part. */
  enum PartStanding {
    /** Among these is one that the fault needs. */
    SUSPECTED,
    /** Nobody knows yet whether the fault needs it too: that comes later. */
    LATER,
    /** The fault needs it, or one that does needs it. */
    CERTAIN,
    /** The fault shows without it. */
    CLEARED,
    /** It is in the smallest set. */
    FOUND
  }

  /**
   * What a search may leave out.
   *
   * @param number in this search
   * @param modName what the mod is called
   * @param path of a file; empty for a whole mod
   * @param record of a plugin, by key; empty for none
   * @param field of that record; empty for none
   * @param above the mod that stands above this one, where that is the part; absent for others
   * @param aboveName what that is called; absent for others
   * @param standing how far the search has come with it
   * @param reasons why it is suspected
   * @param suspicion how much that is, from 0 to 1
   * @param isNeeded whether another part of the set needs it, so that it may be there for that only
   */
  record PartView(
      int number,
      long mod,
      String modName,
      String path,
      String record,
      String field,
      @MayBeAbsent Long above,
      @MayBeAbsent String aboveName,
      PartStanding standing,
      Set<Reason> reasons,
      double suspicion,
      boolean isNeeded) {}

  /**
   * A set that was tried.
   *
   * @param id its number
   * @param why what it was tried for
   * @param members numbers of its parts
   * @param run the run that showed it; absent where none did
   * @param answer what it showed
   * @param byUser whether you said so
   * @param note what else went wrong; empty for nothing
   * @param at when
   * @param picture the hash of all that the game could read; empty where no run is known
   * @param ms how long its run took; absent where that is not known
   * @param loadingMs how long until the game had loaded; absent where its log does not say
   * @param peakBytes the most memory that the game had at a time; absent where nobody knows
   */
  record TryView(
      long id,
      Next.Why why,
      List<Integer> members,
      @MayBeAbsent Long run,
      Answer answer,
      boolean byUser,
      String note,
      String at,
      String picture,
      @MayBeAbsent Long ms,
      @MayBeAbsent Long loadingMs,
      @MayBeAbsent Long peakBytes) {}

  /**
   * The set to try next.
   *
   * @param why what for
   * @param members numbers of its parts
   * @param without the part that a proof leaves out; absent for others
   * @param atMostLeft how many there are left at most, this one among them, if the fault needs no
   *     part more than those that are certain and one
   * @param running whether the game runs with it now
   */
  record AskedView(
      Next.Why why,
      List<Integer> members,
      @MayBeAbsent Integer without,
      int atMostLeft,
      boolean running) {}

  /**
   * A search.
   *
   * @param id its number
   * @param level what its parts are
   * @param state where it stands
   * @param automatic whether it goes on by itself
   * @param begunAt when
   * @param fault what is searched for
   * @param tries how many sets were tried
   * @param parent the search that this one goes on inside of; absent for one among mods
   */
  record SearchLine(
      long id,
      Level level,
      SearchState state,
      boolean automatic,
      String begunAt,
      FaultView fault,
      int tries,
      @MayBeAbsent Long parent) {}

  /**
   * A search with all that it knows.
   *
   * @param search it
   * @param limitSeconds how long one run may take
   * @param parts all of them
   * @param tries what was tried, in this order
   * @param asked the set to try next; absent where it is over
   * @param shown in how many tries of sets that can show the fault it has shown
   * @param told how many tries of sets that can show the fault tell whether it shows
   * @param triesToTrust how often a set must work to count as working
   * @param unproved numbers of the parts without which it could not be told
   * @param inside the search that goes on inside of what was found; absent where none does
   * @param order the search whether it is their order; absent where none is
   * @param steps numbers of the parts that come with each step, where the set is built up
   * @param updated the mods that have another version in use since it began
   * @param always the mods that are in play in every set, since the fault is about them
   * @param measured what a mod costs, where that is what this is about; absent for a search
   */
  record SearchView(
      SearchLine search,
      int limitSeconds,
      List<PartView> parts,
      List<TryView> tries,
      @MayBeAbsent AskedView asked,
      int shown,
      int told,
      int triesToTrust,
      List<Integer> unproved,
      @MayBeAbsent Long inside,
      @MayBeAbsent Long order,
      List<List<Integer>> steps,
      List<String> updated,
      List<String> always,
      @MayBeAbsent MeasuredView measured) {}

  /**
   * A mod that is suspected.
   *
   * @param name what it is called
   * @param reasons why
   */
  record SuspectView(long mod, String name, Set<Reason> reasons) {}

  /**
   * Who is suspected of a fault, the most suspicious first.
   *
   * @param fault in a sentence
   * @param suspects of which something is odd; all others are suspected a little
   * @param others how many mods are on besides
   * @param worked the last run of this profile that did not show the fault; absent for none
   * @param workedAt when that was; absent for none
   * @param earlier searches that have found who was behind the same fault
   */
  record SuspectsView(
      String fault,
      List<SuspectView> suspects,
      int others,
      @MayBeAbsent Long worked,
      @MayBeAbsent String workedAt,
      List<Long> earlier) {}

  static SuspectsView suspects(
      OpenWorkspace open,
      Fault fault,
      Set<Long> about,
      Suspected suspected,
      List<SearchRow> earlier) {
    List<SuspectView> out = new ArrayList<>();
    for (Map.Entry<Long, Set<Reason>> e : suspected.reasons().entrySet())
      if (!e.getValue().equals(Set.of(Reason.HARMLESS)) && !about.contains(e.getKey()))
        out.add(new SuspectView(e.getKey(), open.nameOf(e.getKey()), e.getValue()));
    out.sort(Comparator.comparingDouble((SuspectView s) -> -Suspicions.of(s.reasons())));
    int on = (int) open.picture().arrangement().layers().stream().filter(l -> l.on()).count();
    return new SuspectsView(
        FaultWords.of(fault),
        out,
        Math.max(0, on - out.size() - about.size()),
        suspected.worked().map(Earlier::run).orElse(null),
        suspected.worked().map(e -> e.startedAt().toString()).orElse(null),
        earlier.stream().map(SearchRow::id).toList());
  }

  static SearchLine line(SearchRow r, Fault fault, int tries) {
    return new SearchLine(
        r.id(),
        r.level(),
        r.state(),
        r.isAutomatic(),
        r.begunAt().toString(),
        FaultView.of(fault),
        tries,
        r.parentId());
  }

  static SearchView view(
      OpenWorkspace open,
      Search s,
      Optional<SearchRow> inside,
      Optional<SearchRow> order,
      boolean running) {
    AskedView asked = null;
    if (s.next() instanceof Next.Try t && !s.row().state().isOver())
      asked =
          new AskedView(
              t.why(),
              numbers(t.set()),
              t.without() < 0 ? null : t.without(),
              t.atMostLeft(),
              running);
    List<Integer> unproved = s.next() instanceof Next.Found f ? numbers(f.unproved()) : List.of();
    return new SearchView(
        line(s.row(), s.fault(), s.tries().size()),
        s.row().limitSeconds(),
        parts(open, s),
        s.tries().stream().map(TroubleViews::tried).toList(),
        asked,
        s.tried().shown(),
        s.tried().told(),
        s.tried().triesToTrust(),
        unproved,
        inside.map(SearchRow::id).orElse(null),
        order.map(SearchRow::id).orElse(null),
        s.searched().steps(),
        updated(open, s),
        always(open, s),
        MeasuredViews.of(open, s));
  }

  // mends that are made anew are in every set too, and the fault is not about them
  private static List<String> always(OpenWorkspace open, Search s) {
    return s.searched().always().stream()
        .filter(m -> !open.mods().containsKey(m) || !open.mods().get(m).isMend())
        .map(open::nameOf)
        .toList();
  }

  private static List<Integer> numbers(BitSet set) {
    return set.stream().boxed().toList();
  }

  private static TryView tried(TryRow t) {
    return new TryView(
        t.id(),
        Next.Why.valueOf(t.why()),
        numbers(Search.set(t.members())),
        t.runId(),
        t.answer(),
        t.isByUser(),
        t.note(),
        t.at().toString(),
        t.picture(),
        t.ms(),
        t.loadingMs(),
        t.peakBytes());
  }

  private static List<PartView> parts(OpenWorkspace open, Search s) {
    BitSet needed = new BitSet();
    BitSet found = s.next() instanceof Next.Found f ? f.set() : new BitSet();
    for (var n : s.searched().needs()) if (found.get(n.member())) needed.set(n.other());
    List<PartView> out = new ArrayList<>();
    for (int i = 0; i < s.searched().parts().size(); i++) {
      Part p = s.searched().parts().get(i);
      out.add(
          new PartView(
              i,
              p.mod(),
              open.nameOf(p.mod()),
              p.path(),
              p.record(),
              p.field(),
              p.above() == 0 ? null : p.above(),
              p.above() == 0 ? null : open.nameOf(p.above()),
              standing(s, i),
              s.searched().reasons().get(i),
              Suspicions.of(s.searched().reasons().get(i)),
              needed.get(i)));
    }
    return out;
  }

  private static PartStanding standing(Search s, int part) {
    if (s.next() instanceof Next.Found f)
      return f.set().get(part) ? PartStanding.FOUND : PartStanding.CLEARED;
    if (!(s.next() instanceof Next.Try t)) return PartStanding.SUSPECTED;
    if (t.certain().get(part)) return PartStanding.CERTAIN;
    if (t.hunted().get(part)) return PartStanding.SUSPECTED;
    return t.suspects().get(part) ? PartStanding.LATER : PartStanding.CLEARED;
  }

  private static List<String> updated(OpenWorkspace open, Search s) {
    Set<Long> used = new HashSet<>();
    open.picture().arrangement().layers().forEach(l -> used.add(l.mod()));
    return s.searched().parts().stream()
        .map(Part::mod)
        .distinct()
        .filter(m -> !used.contains(m))
        .map(open::nameOf)
        .toList();
  }
}
