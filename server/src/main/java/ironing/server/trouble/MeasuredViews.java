package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.trouble.Measuring;
import ironing.core.trouble.Part;
import ironing.core.trouble.Spread;
import ironing.server.platform.MayBeAbsent;
import ironing.server.trouble.SearchMapper.TryRow;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;

/** What {@link TroubleController} gives and takes of what a mod costs. */
final class MeasuredViews {
  private static final int TIMES = 5;
  private static final int MOST_TIMES = 50;

  private MeasuredViews() {}

  /**
   * What to measure.
   *
   * @param mod of which it is measured what it costs; it must be on
   * @param times how often the set is run with it, and as often without; absent for five
   * @param limitSeconds how long one run may take; absent for five minutes
   */
  record MeasureRequest(long mod, @MayBeAbsent Integer times, @MayBeAbsent Integer limitSeconds) {
    int often() {
      int often = Objects.requireNonNullElse(times, TIMES);
      if (often < 1 || often > MOST_TIMES)
        throw IroningException.of(
            "fault-invalid",
            "How often to measure",
            "It is not between once and " + MOST_TIMES + " times.",
            "Say how often each of the two sets is to be run.");
      return often;
    }
  }

  /** What of a run is compared. */
  enum Measure {
    /** Milliseconds until the game had ended. */
    TIME,
    /** Milliseconds until the game had loaded. */
    LOADING,
    /** The most bytes of memory at a time. */
    MEMORY
  }

  /**
   * How far the values of one set lie apart.
   *
   * @param least of them
   * @param middle the median
   * @param most of them
   * @param runs how many there are
   */
  record SpreadView(long least, long middle, long most, int runs) {
    private static SpreadView of(Spread s) {
      return new SpreadView(s.least(), s.middle(), s.most(), s.runs());
    }
  }

  /**
   * One measure, compared.
   *
   * @param measure what is compared
   * @param with the values with the mod; absent where none is known
   * @param without the values without it; absent where none is known
   * @param apart whether every value of one lies beyond every value of the other
   */
  record FigureView(
      Measure measure,
      @MayBeAbsent SpreadView with,
      @MayBeAbsent SpreadView without,
      boolean apart) {}

  /**
   * What a mod costs, as far as it is measured.
   *
   * @param mod it
   * @param name of it
   * @param alsoLeftOut the mods that need it: they are out where it is
   * @param times how often each of the two sets is run
   * @param figures compared
   */
  record MeasuredView(
      long mod, String name, List<String> alsoLeftOut, int times, List<FigureView> figures) {}

  /** Null for a search, as a member that is absent has it. */
  static MeasuredView of(OpenWorkspace open, Search s) {
    if (s.measuring().isEmpty()) return null;
    List<Part> parts = s.searched().parts();
    int member = s.row().measured();
    BitSet out = s.searched().members().all();
    out.andNot(s.searched().members().without(out, member));
    out.clear(member);
    return new MeasuredView(
        parts.get(member).mod(),
        open.nameOf(parts.get(member).mod()),
        s.parts(out).stream().map(p -> open.nameOf(p.mod())).toList(),
        Integer.parseInt(s.fault().value()),
        List.of(
            figure(s, Measure.TIME, TryRow::ms),
            figure(s, Measure.LOADING, TryRow::loadingMs),
            figure(s, Measure.MEMORY, TryRow::peakBytes)));
  }

  private static FigureView figure(Search s, Measure measure, Function<TryRow, Long> value) {
    Measuring measuring = s.measuring().orElseThrow();
    List<Long> with = new ArrayList<>(), without = new ArrayList<>();
    for (TryRow t : s.tries()) {
      Long v = value.apply(t);
      if (v != null && Measuring.measures(t.answer()))
        (measuring.isWith(Search.set(t.members())) ? with : without).add(v);
    }
    Optional<Spread> a = Spread.of(with), b = Spread.of(without);
    boolean apart = a.isPresent() && b.isPresent() && a.get().isApartFrom(b.get());
    return new FigureView(
        measure, a.map(SpreadView::of).orElse(null), b.map(SpreadView::of).orElse(null), apart);
  }
}
