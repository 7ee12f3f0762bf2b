package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.choice.Candidate.Where;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.choice.Statement.Kind;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * The plain way to answer a question: every set of a small world is looked at, and the best by the
 * words of docs/formats/choice.md is kept. Shares nothing with the way that is tested but the
 * values.
 */
final class AllSets {
  private final ChoiceQuestion question;
  private final Map<String, List<Candidate>> byMod;
  private final List<String> mods;
  private final Map<String, Candidate> before = new TreeMap<>();
  private Map<String, Candidate> best;
  private int[] bestCost;

  AllSets(ChoiceQuestion question, Map<String, List<Candidate>> byMod) {
    this.question = question;
    this.byMod = new TreeMap<>();
    byMod.forEach(
        (m, all) -> {
          List<Candidate> sorted = new ArrayList<>(all);
          sorted.sort(
              Comparator.comparing(Candidate::version)
                  .reversed()
                  .thenComparing(Candidate::variant)
                  .thenComparing(Candidate::where)
                  .thenComparing(Candidate::key));
          this.byMod.put(m, sorted);
          for (Candidate c : all) if (c.where() == Where.ON) before.put(m, c);
        });
    mods = List.copyOf(this.byMod.keySet());
  }

  /** The best set; empty where there is none. */
  Optional<Map<String, Candidate>> best(Set<Statement> givenUp) {
    best = null;
    walk(0, new TreeMap<>(), givenUp);
    return Optional.ofNullable(best);
  }

  private void walk(int i, Map<String, Candidate> set, Set<Statement> givenUp) {
    if (i == mods.size()) {
      if (!isSet(set, givenUp)) return;
      int[] cost = cost(set, givenUp);
      if (best == null || compare(cost, bestCost) < 0) {
        best = new TreeMap<>(set);
        bestCost = cost;
      }
      return;
    }
    String mod = mods.get(i);
    walk(i + 1, set, givenUp);
    for (Candidate c : byMod.get(mod)) {
      set.put(mod, c);
      walk(i + 1, set, givenUp);
    }
    set.remove(mod);
  }

  private boolean isSet(Map<String, Candidate> set, Set<Statement> givenUp) {
    for (Wish w : question.wishes()) {
      if (givenUp.contains(wish(w))) continue;
      if (!set.containsKey(w.mod()) || !meant(w).contains(set.get(w.mod()))) return false;
    }
    if (question.missing() && !set.keySet().containsAll(before.keySet())) return false;
    Set<String> touched = touched(set, givenUp);
    for (Candidate c : set.values()) {
      boolean same = c.equals(before.get(c.mod()));
      boolean letOff = same && (question.missing() || !touched.contains(c.mod()));
      for (Broken b : broken(c, set)) {
        if (givenUp.contains(b.statement)) continue;
        boolean brokenBefore = same && broken(c, before).contains(b);
        boolean bothLetOff =
            b.with == null
                || (b.with.equals(before.get(b.with.mod())) && isUntouched(b.with, touched));
        // a need that was broken by a missing mod may be so by another version of it too
        if (b.statement.kind() == Kind.NEED || b.statement.kind() == Kind.BRIDGE)
          brokenBefore =
              same && broken(c, before).stream().anyMatch(x -> x.statement.equals(b.statement));
        if (!(letOff && brokenBefore && bothLetOff)) return false;
      }
      if (!variantMayCome(c, set, givenUp)) return false;
    }
    return true;
  }

  private boolean isUntouched(Candidate c, Set<String> touched) {
    return question.missing() || !touched.contains(c.mod());
  }

  private record Broken(Statement statement, Candidate with) {}

  private List<Broken> broken(Candidate c, Map<String, Candidate> set) {
    List<Broken> out = new ArrayList<>();
    for (Need n : c.needs()) if (!isMet(n, set)) out.add(new Broken(of(Kind.NEED, c, n), null));
    for (Need n : c.bridges()) if (!isMet(n, set)) out.add(new Broken(of(Kind.BRIDGE, c, n), null));
    for (Clash x : c.clashes()) {
      Candidate d = set.get(x.mod());
      if (d != null && !d.mod().equals(c.mod()) && x.versions().contains(d.version()))
        out.add(
            new Broken(
                new Statement(
                    Kind.CLASH, c.mod(), x.mod(), x.versions().toString(), Optional.empty()),
                d));
    }
    if (!fits(c))
      out.add(
          new Broken(
              new Statement(Kind.GAME, c.mod(), "", c.game().toString(), Optional.empty()), null));
    return out;
  }

  private static Statement of(Kind kind, Candidate c, Need n) {
    return new Statement(kind, c.mod(), n.mod(), n.versions().toString(), n.variant());
  }

  private static Statement wish(Wish w) {
    return new Statement(Kind.WISH, w.mod(), w.mod(), w.key().orElse(""), w.variant());
  }

  private static boolean isMet(Need n, Map<String, Candidate> set) {
    Candidate d = set.get(n.mod());
    return d != null && meets(n, d);
  }

  private static boolean meets(Need n, Candidate d) {
    return n.versions().contains(d.version())
        && (n.variant().isEmpty() || n.variant().get().equals(d.variant()));
  }

  private boolean fits(Candidate c) {
    return c.harmless() || question.game().isEmpty() || c.game().contains(question.game().get());
  }

  private Set<String> touched(Map<String, Candidate> set, Set<Statement> givenUp) {
    Set<String> out = new HashSet<>();
    for (Wish w : question.wishes()) if (!givenUp.contains(wish(w))) out.add(w.mod());
    for (boolean more = true; more; ) {
      Set<String> further = new HashSet<>();
      for (Candidate c : set.values()) {
        boolean mine = out.contains(c.mod());
        if (mine) {
          c.needs().forEach(n -> further.add(n.mod()));
          c.bridges().forEach(n -> further.add(n.mod()));
        }
        for (Clash x : c.clashes()) {
          Candidate d = set.get(x.mod());
          if (d == null || d.mod().equals(c.mod()) || !x.versions().contains(d.version())) continue;
          if (mine) further.add(d.mod());
          if (out.contains(d.mod())) further.add(c.mod());
        }
      }
      more = out.addAll(further);
    }
    return out;
  }

  private boolean variantMayCome(Candidate c, Map<String, Candidate> set, Set<Statement> givenUp) {
    List<Candidate> here = byMod.get(c.mod()).stream().filter(Candidate::isHere).toList();
    if (here.isEmpty() || here.stream().anyMatch(h -> h.variant().equals(c.variant()))) return true;
    for (Wish w : question.wishes()) {
      if (!w.mod().equals(c.mod()) || givenUp.contains(wish(w))) continue;
      if (w.key().isPresent() ? w.key().get().equals(c.key()) : named(w, c)) return true;
    }
    for (Candidate n : set.values()) {
      for (Need need : n.needs()) if (names(need, c)) return true;
      for (Need need : n.bridges()) if (names(need, c)) return true;
    }
    return false;
  }

  private static boolean named(Wish w, Candidate c) {
    return w.variant().isPresent() && w.variant().get().equals(c.variant());
  }

  private static boolean names(Need need, Candidate c) {
    return need.variant().isPresent() && need.mod().equals(c.mod()) && meets(need, c);
  }

  /** What a wish can mean, the newest first. */
  private List<Candidate> meant(Wish w) {
    List<Candidate> all = byMod.getOrDefault(w.mod(), List.of());
    if (w.key().isPresent())
      return all.stream().filter(c -> c.key().equals(w.key().get())).toList();
    Optional<String> variant = w.variant();
    if (variant.isEmpty()) {
      Optional<Candidate> here =
          all.stream()
              .filter(Candidate::isHere)
              .min(Comparator.comparing((Candidate c) -> c.where() != Where.ON));
      variant = here.map(Candidate::variant).or(() -> byDefault(w.mod()));
    }
    Optional<String> v = variant;
    return all.stream()
        .filter(c -> !c.old() && !c.withdrawn())
        .filter(c -> v.isEmpty() || v.get().equals(c.variant()))
        .toList();
  }

  private Optional<String> byDefault(String mod) {
    List<Candidate> all = byMod.getOrDefault(mod, List.of());
    if (all.stream().anyMatch(c -> c.variant().isEmpty())) return Optional.of("");
    String said = question.defaultVariants().get(mod);
    return all.stream().map(Candidate::variant).filter(x -> x.equals(said)).findFirst();
  }

  private int[] cost(Map<String, Candidate> set, Set<Statement> givenUp) {
    List<Integer> cost = new ArrayList<>();
    int unmet = 0;
    if (question.missing()) {
      for (Candidate c : before.values()) {
        if (!c.equals(set.get(c.mod()))) continue;
        Set<Statement> open = new LinkedHashSet<>();
        for (Broken b : broken(c, set)) if (b.statement.kind() == Kind.NEED) open.add(b.statement);
        open.removeAll(givenUp);
        unmet += open.size();
      }
    }
    cost.add(unmet);
    for (Wish w : question.wishes()) {
      if (givenUp.contains(wish(w)) || w.key().isPresent()) continue;
      List<String> versions = new ArrayList<>();
      for (Candidate c : meant(w)) {
        String v = c.version().toString();
        if (!versions.contains(v)) versions.add(v);
      }
      cost.add(versions.indexOf(set.get(w.mod()).version().toString()));
    }
    int bad = 0, off = 0, back = 0, changed = 0, fetched = 0, on = 0, newer = 0, unmeant = 0;
    for (String m : before.keySet()) if (!set.containsKey(m)) off++;
    for (Candidate c : set.values()) {
      boolean wished =
          question.wishes().stream()
              .anyMatch(w -> w.mod().equals(c.mod()) && w.key().equals(Optional.of(c.key())));
      List<Candidate> all = byMod.get(c.mod());
      if ((c.old() || c.withdrawn()) && c.where() == Where.TO_FETCH && !wished) bad++;
      Candidate base = before.get(c.mod());
      Optional<Candidate> newestHere = all.stream().filter(Candidate::isHere).findFirst();
      if (base == null && c.where() == Where.TO_FETCH) base = newestHere.orElse(null);
      if (base != null && !base.equals(c)) {
        int order = c.version().compareTo(base.version());
        if (order < 0) back++;
        if (order != 0 || !c.variant().equals(base.variant())) changed++;
      }
      if (c.where() == Where.TO_FETCH) fetched++;
      if (c.where() == Where.OFF) on++;
      TreeSet<String> above = new TreeSet<>();
      for (Candidate d : all) {
        if (d.variant().equals(c.variant())
            && d.version().compareTo(c.version()) > 0
            && !d.withdrawn()
            && fits(d)) above.add(d.version().toString());
      }
      newer += above.size();
      boolean said =
          question.wishes().stream()
              .anyMatch(
                  w -> w.mod().equals(c.mod()) && (w.key().isPresent() || w.variant().isPresent()));
      Optional<String> byDefault = byDefault(c.mod());
      if (newestHere.isEmpty()
          && !said
          && byDefault.isPresent()
          && !byDefault.get().equals(c.variant())) unmeant++;
    }
    for (int n : new int[] {bad, off, back, changed, fetched, on, newer, unmeant}) cost.add(n);
    for (String m : mods) {
      Candidate c = set.get(m);
      cost.add(c == null ? 1_000 : byMod.get(m).indexOf(c));
    }
    return cost.stream().mapToInt(Integer::intValue).toArray();
  }

  private static int compare(int[] a, int[] b) {
    for (int i = 0; i < a.length; i++) if (a[i] != b[i]) return Integer.compare(a[i], b[i]);
    return 0;
  }

  /** All statements of the question that are not given up. */
  Set<Statement> statements() {
    Set<Statement> out = new TreeSet<>();
    for (Wish w : question.wishes()) out.add(wish(w));
    for (List<Candidate> all : byMod.values()) {
      for (Candidate c : all) {
        for (Need n : c.needs()) out.add(of(Kind.NEED, c, n));
        for (Need n : c.bridges()) out.add(of(Kind.BRIDGE, c, n));
        for (Clash x : c.clashes())
          out.add(
              new Statement(
                  Kind.CLASH, c.mod(), x.mod(), x.versions().toString(), Optional.empty()));
        if (!fits(c))
          out.add(new Statement(Kind.GAME, c.mod(), "", c.game().toString(), Optional.empty()));
      }
    }
    out.removeAll(question.givenUp());
    return out;
  }
}
