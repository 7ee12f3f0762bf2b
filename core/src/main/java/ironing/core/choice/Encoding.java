package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.choice.ChoiceRules.Required;
import ironing.core.choice.Statement.Kind;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * A question as sentences over yes and no: for each candidate whether it is on afterwards, for each
 * statement whether it has to hold, for each mod whether the wishes touch it.
 *
 * <p>What does not hold today of a candidate that is on, and is not touched, does not have to hold.
 */
final class Encoding {
  private final ChoiceQuestion question;
  private final Cone cone;
  private final ClauseSolver solver;
  private final boolean each;
  private final Map<Candidate, Integer> chosen = new HashMap<>();
  private final Map<String, Integer> touched = new HashMap<>();
  private final Map<Statement, Integer> selectors = new TreeMap<>();
  private final Map<Statement, Integer> unmet = new TreeMap<>();

  private List<Naming> naming;

  /** For each wish, what it can mean, the newest first. */
  private final List<List<Candidate>> meant = new ArrayList<>();

  /**
   * @param each whether each statement can be let off by itself; else all of them hold
   */
  Encoding(ChoiceQuestion question, Cone cone, ClauseSolver solver, boolean each) {
    this.each = each;
    this.question = question;
    this.cone = cone;
    this.solver = solver;
    cone.byMod()
        .forEach(
            (mod, all) -> {
              for (Candidate c : all) chosen.put(c, solver.variable());
              if (!question.missing()) touched.put(mod, solver.variable());
              solver.atMost(variables(all), ones(all.size()), 1, 0);
            });
    for (Wish w : question.wishes()) wish(w);
    cone.byMod().forEach(this::mod);
  }

  private void wish(Wish w) {
    List<Candidate> all = cone.of(w.mod());
    List<Candidate> can;
    if (w.key().isPresent()) {
      can = all.stream().filter(c -> c.key().equals(w.key().get())).toList();
    } else {
      Optional<String> variant = variant(w);
      can =
          all.stream()
              .filter(ChoiceRules::isForAll)
              .filter(c -> variant.map(c.variant()::equals).orElse(true))
              .toList();
    }
    meant.add(can);
    if (isGivenUp(w.statement())) return;
    clause(w.statement(), variables(can));
    if (!question.missing()) clause(w.statement(), touched.get(w.mod()));
  }

  /** The variant that a wish means; empty where any will do, since there is only one. */
  private Optional<String> variant(Wish w) {
    if (w.variant().isPresent()) return w.variant();
    List<Candidate> all = cone.of(w.mod());
    Optional<String> here = ChoiceRules.here(all).map(Candidate::variant);
    return here.or(
        () -> ChoiceRules.meant(all, Optional.ofNullable(question.defaultVariants().get(w.mod()))));
  }

  private void mod(String mod, List<Candidate> all) {
    Set<String> here = new HashSet<>();
    for (Candidate c : all) if (c.isHere()) here.add(c.variant());
    for (Candidate c : all) {
      for (Required r : ChoiceRules.required(c)) required(c, r);
      for (Clash clash : c.clashes()) if (!clash.mod().equals(mod)) clash(c, clash);
      if (!ChoiceRules.fits(c, question.game())) {
        if (c.where() != Where.ON) clause(ChoiceRules.game(c), -chosen.get(c));
        else if (!question.missing())
          clause(ChoiceRules.game(c), -chosen.get(c), -touched.get(c.mod()));
      }
      if (!here.isEmpty() && !here.contains(c.variant())) anotherVariant(c);
    }
    if (question.missing()) ChoiceRules.on(all).ifPresent(c -> solver.clause(variables(all)));
  }

  private void required(Candidate c, Required r) {
    int self = chosen.get(c);
    if (!question.missing())
      solver.clause(-touched.get(c.mod()), -self, touched.get(r.need().mod()));
    if (isGivenUp(r.statement())) return;
    List<Candidate> meet = meeting(r.need());
    int[] clause = with(variables(meet), -self);
    if (c.where() == Where.ON && meet.stream().noneMatch(m -> m.where() == Where.ON)) {
      if (!question.missing()) {
        clause = with(clause, -touched.get(c.mod()));
      } else if (r.statement().kind() == Kind.NEED) {
        clause = with(clause, unmet.computeIfAbsent(r.statement(), x -> solver.variable()));
      } else {
        return;
      }
    }
    clause(r.statement(), clause);
  }

  private List<Candidate> meeting(Need need) {
    return cone.of(need.mod()).stream().filter(m -> ChoiceRules.meets(need, m)).toList();
  }

  private void clash(Candidate c, Clash clash) {
    Statement said = ChoiceRules.clash(c, clash);
    int self = chosen.get(c);
    for (Candidate d : cone.of(clash.mod())) {
      if (!ChoiceRules.clashes(clash, d)) continue;
      int other = chosen.get(d);
      boolean today = c.where() == Where.ON && d.where() == Where.ON;
      if (!question.missing()) {
        int mine = touched.get(c.mod()), its = touched.get(d.mod());
        solver.clause(-mine, -self, -other, its);
        solver.clause(-its, -self, -other, mine);
        if (today) clause(said, -self, -other, -mine);
      }
      if (!today) clause(said, -self, -other);
    }
  }

  /** A variant that is not the one that is here comes only where a wish or a need names it. */
  private void anotherVariant(Candidate c) {
    for (Wish w : question.wishes()) {
      if (!w.mod().equals(c.mod()) || question.givenUp().contains(w.statement())) continue;
      if (w.key().map(c.key()::equals).orElse(w.variant().equals(Optional.of(c.variant())))) return;
    }
    List<Integer> naming = new ArrayList<>();
    for (Naming n : naming()) {
      if (ChoiceRules.meets(n.need(), c)) naming.add(chosen.get(n.by()));
    }
    solver.clause(with(naming.stream().mapToInt(Integer::intValue).toArray(), -chosen.get(c)));
  }

  /** All needs that name a variant, and who has them. */
  private List<Naming> naming() {
    if (naming == null) {
      naming = new ArrayList<>();
      for (List<Candidate> all : cone.byMod().values()) {
        for (Candidate c : all) {
          for (Required r : ChoiceRules.required(c))
            if (r.need().variant().isPresent()) naming.add(new Naming(c, r.need()));
        }
      }
    }
    return naming;
  }

  private record Naming(Candidate by, Need need) {}

  private boolean isGivenUp(Statement s) {
    return question.givenUp().contains(s);
  }

  /** A clause that is there because of a statement, and falls with it. */
  private void clause(Statement s, int... literals) {
    if (isGivenUp(s)) return;
    solver.clause(
        each ? with(literals, -selectors.computeIfAbsent(s, x -> solver.variable())) : literals);
  }

  int variable(Candidate c) {
    return chosen.get(c);
  }

  /** The candidates of some mod that is chosen in the last outcome. */
  Optional<Candidate> outcome(String mod) {
    return cone.of(mod).stream().filter(c -> solver.holds(chosen.get(c))).findFirst();
  }

  /** By statement: whether it has to hold, where each can be let off. */
  Map<Statement, Integer> selectors() {
    return selectors;
  }

  /** By the need of something that is on: whether it stays unmet. */
  Map<Statement, Integer> unmet() {
    return unmet;
  }

  List<List<Candidate>> meant() {
    return meant;
  }

  int[] variables(List<Candidate> all) {
    return all.stream().mapToInt(chosen::get).toArray();
  }

  static int[] ones(int n) {
    int[] out = new int[n];
    Arrays.fill(out, 1);
    return out;
  }

  static int[] with(int[] literals, int... more) {
    int[] out = Arrays.copyOf(literals, literals.length + more.length);
    System.arraycopy(more, 0, out, literals.length, more.length);
    return out;
  }
}
