package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceAnswer.Becomes;
import ironing.core.choice.ChoiceAnswer.GoesOff;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.choice.ChoiceRules.Required;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What a choice brings with it.
 *
 * <p>Cost: with 20,000 mods offered and 300 on, tens of milliseconds; never more than the time that
 * is given, twice. Threads: any; nothing is shared.
 */
public final class WhatItBrings {
  private final ChoiceQuestion question;
  private final Cone cone;

  private WhatItBrings(ChoiceQuestion question) {
    this.question = question;
    this.cone = new Cone(question);
  }

  /**
   * Answers a question.
   *
   * @param most after this the best so far is given, and called so
   */
  public static ChoiceAnswer answer(ChoiceQuestion question, Duration most) {
    return new WhatItBrings(question).answer(most);
  }

  private ChoiceAnswer answer(Duration most) {
    for (Wish w : question.wishes()) {
      Optional<ChoiceAnswer> asked = whichVariant(w);
      if (asked.isPresent()) return asked.get();
    }
    BestSet set = new BestSet(question, cone, System.nanoTime() + most.toNanos());
    boolean found;
    try {
      found = set.find();
    } catch (ClauseSolver.GaveUp e) {
      return new ChoiceAnswer.None(List.of(), List.of(), false);
    }
    if (!found)
      return new Contradiction(question, Cone.ofNeeds(question), System.nanoTime() + most.toNanos())
          .find();
    return told(set.best(), set.isProved());
  }

  private Optional<ChoiceAnswer> whichVariant(Wish w) {
    List<Candidate> all = cone.of(w.mod());
    if (w.key().isPresent() || w.variant().isPresent() || ChoiceRules.here(all).isPresent())
      return Optional.empty();
    Optional<String> byDefault = Optional.ofNullable(question.defaultVariants().get(w.mod()));
    if (ChoiceRules.meant(all, byDefault).isPresent()) return Optional.empty();
    TreeSet<String> variants = new TreeSet<>();
    all.stream().filter(ChoiceRules::isForAll).forEach(c -> variants.add(c.variant()));
    if (variants.size() < 2) return Optional.empty();
    return Optional.of(new ChoiceAnswer.WhichVariant(w.mod(), List.copyOf(variants)));
  }

  private ChoiceAnswer told(Map<String, Candidate> after, boolean best) {
    Map<String, Candidate> before = new TreeMap<>();
    for (List<Candidate> all : cone.byMod().values())
      ChoiceRules.on(all).ifPresent(c -> before.put(c.mod(), c));
    Map<String, List<String>> paths = paths(after);
    List<Member> members = new ArrayList<>();
    for (Map.Entry<String, List<String>> e : paths.entrySet())
      members.add(member(after.get(e.getKey()), e.getValue(), Optional.empty()));
    for (Candidate c : new TreeMap<>(after).values()) {
      Candidate was = before.get(c.mod());
      if (paths.containsKey(c.mod()) || c.equals(was)) continue;
      Optional<Statement> because =
          was == null ? Optional.empty() : whatForbids(was, before, after);
      members.add(member(c, List.of(), because));
    }
    List<GoesOff> off = new ArrayList<>();
    for (Candidate was : before.values()) {
      if (after.containsKey(was.mod())) continue;
      off.add(new GoesOff(was, whatForbids(was, before, after)));
    }
    return new ChoiceAnswer.Found(List.copyOf(members), List.copyOf(off), unmet(after), best);
  }

  private Member member(Candidate c, List<String> path, Optional<Statement> because) {
    Optional<Candidate> here = ChoiceRules.here(cone.of(c.mod()));
    Optional<Candidate> from = here.filter(h -> !h.equals(c));
    Becomes becomes =
        switch (c.where()) {
          case ON -> Becomes.STAYS;
          case OFF ->
              from.filter(f -> f.where() == Where.ON).isPresent()
                  ? Becomes.CHANGED
                  : Becomes.SWITCHED_ON;
          case TO_FETCH -> from.isPresent() ? Becomes.CHANGED : Becomes.FETCHED;
        };
    return new Member(
        c, becomes, becomes == Becomes.CHANGED ? from : Optional.empty(), path, because);
  }

  /**
   * By mod, the shortest way from a wish to it; of ways of one length the one that begins first.
   */
  private Map<String, List<String>> paths(Map<String, Candidate> after) {
    Map<String, List<String>> paths = new LinkedHashMap<>();
    Deque<String> next = new ArrayDeque<>();
    List<String> starts = new ArrayList<>(question.wishes().stream().map(Wish::mod).toList());
    if (question.missing())
      for (String mod : new TreeSet<>(cone.byMod().keySet()))
        if (ChoiceRules.on(cone.of(mod)).isPresent()) starts.add(mod);
    for (String mod : starts) {
      if (after.containsKey(mod) && paths.putIfAbsent(mod, List.of(mod)) == null) next.add(mod);
    }
    while (!next.isEmpty()) {
      String mod = next.remove();
      TreeSet<String> needed = new TreeSet<>();
      for (Required r : ChoiceRules.required(after.get(mod))) needed.add(r.need().mod());
      for (String n : needed) {
        if (paths.containsKey(n) || !after.containsKey(n)) continue;
        List<String> path = new ArrayList<>(paths.get(mod));
        path.add(n);
        paths.put(n, List.copyOf(path));
        next.add(n);
      }
    }
    return paths;
  }

  /** What would not hold if a mod that was on had stayed as it was. */
  private Optional<Statement> whatForbids(
      Candidate was, Map<String, Candidate> before, Map<String, Candidate> after) {
    List<Statement> broken = brokenBy(was, after), brokenBefore = brokenBy(was, before);
    // what did not hold before may be let off; what did is the better reason
    Optional<Statement> own =
        broken.stream()
            .filter(s -> !brokenBefore.contains(s))
            .findFirst()
            .or(() -> broken.stream().findFirst());
    if (own.isPresent()) return own;
    for (Candidate other : after.values()) {
      if (other.mod().equals(was.mod())) continue;
      for (Clash clash : other.clashes()) {
        Statement s = ChoiceRules.clash(other, clash);
        if (ChoiceRules.clashes(clash, was) && !question.givenUp().contains(s))
          return Optional.of(s);
      }
      for (Required r : ChoiceRules.required(other)) {
        if (r.need().mod().equals(was.mod())
            && !ChoiceRules.meets(r.need(), was)
            && !question.givenUp().contains(r.statement())) return Optional.of(r.statement());
      }
    }
    return question.wishes().stream()
        .filter(w -> w.mod().equals(was.mod()))
        .map(Wish::statement)
        .findFirst();
  }

  /** The statements of a candidate that do not hold beside what is on afterwards. */
  private List<Statement> brokenBy(Candidate c, Map<String, Candidate> after) {
    List<Statement> out = new ArrayList<>();
    for (Required r : ChoiceRules.required(c)) {
      Candidate there = after.get(r.need().mod());
      if (there == null || !ChoiceRules.meets(r.need(), there)) out.add(r.statement());
    }
    for (Clash clash : c.clashes()) {
      Candidate there = after.get(clash.mod());
      if (there != null && !there.mod().equals(c.mod()) && ChoiceRules.clashes(clash, there))
        out.add(ChoiceRules.clash(c, clash));
    }
    if (!ChoiceRules.fits(c, question.game())) out.add(ChoiceRules.game(c));
    out.removeAll(question.givenUp());
    return out;
  }

  /** What does not hold afterwards either, kinds and owners in order. */
  private List<Statement> unmet(Map<String, Candidate> after) {
    TreeSet<Statement> out = new TreeSet<>();
    for (Candidate c : after.values()) out.addAll(brokenBy(c, after));
    return List.copyOf(out);
  }
}
