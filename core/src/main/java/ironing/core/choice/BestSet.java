package ironing.core.choice;

import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.version.ModVersion;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToIntFunction;

/**
 * The best set that answers a question, by the order of docs/formats/choice.md: after the wishes'
 * own newest, the fewest that are withdrawn or old, off, set back, changed, fetched, switched on;
 * then the newest. There is one.
 */
final class BestSet {
  private final ChoiceQuestion question;
  private final Cone cone;
  private final ClauseSolver solver;
  private final Encoding encoding;
  private final Minimiser minimiser;
  private Map<String, Candidate> best = Map.of();
  private boolean proved;

  BestSet(ChoiceQuestion question, Cone cone, long deadline) {
    this.question = question;
    this.cone = cone;
    solver = new Sat4jSolver(deadline);
    encoding = new Encoding(question, cone, solver, false);
    minimiser = new Minimiser(solver, this::keep);
  }

  /**
   * Looks for it.
   *
   * @return whether there is a set
   * @throws ClauseSolver.GaveUp when the time was up before any was found
   */
  boolean find() throws ClauseSolver.GaveUp {
    if (!solver.solve()) return false;
    keep();
    try {
      improve();
      proved = true;
    } catch (ClauseSolver.GaveUp e) {
      // the best so far is kept, and called so
    }
    return true;
  }

  private void improve() throws ClauseSolver.GaveUp {
    int[] unmet = encoding.unmet().values().stream().mapToInt(Integer::intValue).toArray();
    minimiser.minimise(unmet, Encoding.ones(unmet.length));
    for (int i = 0; i < question.wishes().size(); i++) newest(i);
    fewest(c -> isBad(c) ? 1 : 0);
    fewestOff();
    fewest(c -> base(c).map(b -> c.version().compareTo(b.version()) < 0).orElse(false) ? 1 : 0);
    fewest(c -> base(c).map(b -> isAnother(b, c)).orElse(false) ? 1 : 0);
    fewest(c -> c.where() == Where.TO_FETCH ? 1 : 0);
    fewest(c -> c.where() == Where.OFF ? 1 : 0);
    Map<Candidate, Integer> newer = newer();
    fewest(c -> newer.getOrDefault(c, 0));
    fewest(c -> isUnmeantVariant(c) ? 1 : 0);
    for (String mod : undecided()) minimiser.firstOf(encoding.variables(cone.of(mod)));
  }

  /** Of what a wish can mean, the newest version that some set has. */
  private void newest(int wish) throws ClauseSolver.GaveUp {
    Wish w = question.wishes().get(wish);
    if (question.givenUp().contains(w.statement())) return;
    Map<ModVersion, List<Candidate>> byVersion = new LinkedHashMap<>();
    for (Candidate c : encoding.meant().get(wish))
      byVersion.computeIfAbsent(c.version(), v -> new ArrayList<>()).add(c);
    int[] literals = new int[byVersion.size()];
    int i = 0;
    for (List<Candidate> same : byVersion.values()) {
      literals[i] = solver.variable();
      solver.clause(Encoding.with(encoding.variables(same), -literals[i]));
      for (Candidate c : same) solver.clause(-encoding.variable(c), literals[i]);
      i++;
    }
    minimiser.firstOf(literals);
  }

  private boolean isBad(Candidate c) {
    return (c.old() || c.withdrawn())
        && !c.isHere()
        && question.wishes().stream()
            .noneMatch(w -> w.mod().equals(c.mod()) && w.key().equals(Optional.of(c.key())));
  }

  private void fewestOff() throws ClauseSolver.GaveUp {
    List<Integer> off = new ArrayList<>();
    for (List<Candidate> mod : cone.byMod().values()) {
      if (ChoiceRules.on(mod).isEmpty()) continue;
      int variable = solver.variable();
      solver.clause(Encoding.with(encoding.variables(mod), variable));
      for (int c : encoding.variables(mod)) solver.clause(-c, -variable);
      off.add(variable);
    }
    minimiser.minimise(
        off.stream().mapToInt(Integer::intValue).toArray(), Encoding.ones(off.size()));
  }

  /** What a candidate would be instead of: what is on, or for what is fetched also what is here. */
  private Optional<Candidate> base(Candidate c) {
    List<Candidate> mod = cone.of(c.mod());
    Optional<Candidate> on = ChoiceRules.on(mod);
    if (on.isPresent() || c.where() != Where.TO_FETCH) return on.filter(b -> !b.equals(c));
    return ChoiceRules.here(mod);
  }

  static boolean isAnother(Candidate a, Candidate b) {
    return !a.version().equals(b.version()) || !a.variant().equals(b.variant());
  }

  /** By candidate, how many newer versions of its variant there are that anybody may take. */
  private Map<Candidate, Integer> newer() {
    Map<Candidate, Integer> out = new HashMap<>();
    for (List<Candidate> mod : cone.byMod().values()) {
      Map<String, Set<ModVersion>> seen = new HashMap<>();
      // a version is newer than those behind it, as the list has the highest first
      for (Candidate c : mod) {
        Set<ModVersion> above = seen.computeIfAbsent(c.variant(), v -> new HashSet<>());
        int count = above.size() - (above.contains(c.version()) ? 1 : 0);
        if (count > 0) out.put(c, count);
        if (!c.withdrawn() && ChoiceRules.fits(c, question.game())) above.add(c.version());
      }
    }
    return out;
  }

  /**
   * Whether nobody means this variant: neither the mod that is here, nor a wish, nor its makers.
   */
  private boolean isUnmeantVariant(Candidate c) {
    List<Candidate> mod = cone.of(c.mod());
    if (ChoiceRules.here(mod).isPresent()) return false;
    for (Wish w : question.wishes())
      if (w.mod().equals(c.mod()) && (w.key().isPresent() || w.variant().isPresent())) return false;
    return !ChoiceRules.meant(mod, Optional.ofNullable(question.defaultVariants().get(c.mod())))
        .map(c.variant()::equals)
        .orElse(true);
  }

  /**
   * Makes a cost as small as can be. As one candidate of a mod is on at the most, the cost of a mod
   * is told by steps: “it is at least this much”, each of which weighs what it adds.
   */
  private void fewest(ToIntFunction<Candidate> cost) throws ClauseSolver.GaveUp {
    List<Integer> literals = new ArrayList<>(), weights = new ArrayList<>();
    for (List<Candidate> mod : cone.byMod().values()) {
      TreeMap<Integer, List<Integer>> byCost = new TreeMap<>();
      for (Candidate c : mod) {
        int its = cost.applyAsInt(c);
        if (its > 0) byCost.computeIfAbsent(its, x -> new ArrayList<>()).add(variable(c));
      }
      int below = 0;
      for (int step : byCost.keySet()) {
        literals.add(oneOf(byCost.tailMap(step).values().stream().flatMap(List::stream).toList()));
        weights.add(step - below);
        below = step;
      }
    }
    minimiser.minimise(
        literals.stream().mapToInt(Integer::intValue).toArray(),
        weights.stream().mapToInt(Integer::intValue).toArray());
  }

  /** A variable that holds where one of some does. */
  private int oneOf(List<Integer> variables) {
    if (variables.size() == 1) return variables.get(0);
    int any = solver.variable();
    for (int v : variables) solver.clause(-v, any);
    return any;
  }

  /**
   * The mods that are not the same in all sets that are as good in what was counted. The others are
   * held as they are.
   */
  private Set<String> undecided() throws ClauseSolver.GaveUp {
    Map<String, Candidate> one = best;
    TreeSet<String> same = new TreeSet<>(cone.byMod().keySet());
    Set<String> undecided = new TreeSet<>();
    while (!same.isEmpty()) {
      int guard = solver.variable();
      List<Integer> another = new ArrayList<>();
      for (String mod : same)
        for (Candidate c : cone.of(mod)) another.add(as(one, c) ? -variable(c) : variable(c));
      solver.clause(Encoding.with(another.stream().mapToInt(Integer::intValue).toArray(), -guard));
      boolean more = solver.solve(guard);
      if (more) {
        keep();
        for (String mod : List.copyOf(same)) {
          if (Objects.equals(one.get(mod), best.get(mod))) continue;
          same.remove(mod);
          undecided.add(mod);
        }
      }
      solver.clause(-guard);
      if (!more) break;
    }
    for (String mod : same)
      for (Candidate c : cone.of(mod)) solver.clause(as(one, c) ? variable(c) : -variable(c));
    return undecided;
  }

  private static boolean as(Map<String, Candidate> set, Candidate c) {
    return c.equals(set.get(c.mod()));
  }

  private int variable(Candidate c) {
    return encoding.variable(c);
  }

  private void keep() {
    Map<String, Candidate> now = new HashMap<>();
    for (String mod : cone.byMod().keySet()) encoding.outcome(mod).ifPresent(c -> now.put(mod, c));
    best = now;
  }

  /** By mod, what is on afterwards; mods that stay off are not in it. */
  Map<String, Candidate> best() {
    return best;
  }

  boolean isProved() {
    return proved;
  }
}
