package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.choice.ChoiceQuestion.Wish;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * The mods that can matter to a question, with their candidates, the best first. All others stay as
 * they are whatever is chosen: nothing here needs them, and they speak of nothing here.
 *
 * <p>Cost: the candidates of these mods, each looked at once; one look-up for each step away from
 * the wishes.
 */
final class Cone {
  private final Map<String, List<Candidate>> byMod = new TreeMap<>();

  /** The mods that can matter to whether there is a set: what is not needed can be off. */
  static Cone ofNeeds(ChoiceQuestion question) {
    return new Cone(question, false);
  }

  /** The mods that can matter to which set is the best. */
  Cone(ChoiceQuestion question) {
    this(question, true);
  }

  private Cone(ChoiceQuestion question, boolean withOthers) {
    Map<String, Candidate> on = new HashMap<>();
    Map<String, Set<String>> spokenOfBy = new HashMap<>();
    for (Candidate c : question.offers().on()) {
      on.put(c.mod(), c);
      for (String target : targets(c))
        spokenOfBy.computeIfAbsent(target, t -> new HashSet<>()).add(c.mod());
    }
    Set<String> next = new LinkedHashSet<>();
    for (Wish w : question.wishes()) next.add(w.mod());
    if (question.missing()) next.addAll(on.keySet());
    while (!next.isEmpty()) {
      Map<String, List<Candidate>> got = question.offers().of(next);
      Set<String> further = new LinkedHashSet<>();
      for (String mod : next) {
        List<Candidate> all = new ArrayList<>(got.getOrDefault(mod, List.of()));
        all.sort(ChoiceRules.BEST_FIRST);
        byMod.put(mod, all);
        for (Candidate c : all) {
          c.needs().forEach(n -> further.add(n.mod()));
          c.bridges().forEach(n -> further.add(n.mod()));
          if (!withOthers) continue;
          for (Clash clash : c.clashes()) if (on.containsKey(clash.mod())) further.add(clash.mod());
        }
        if (withOthers) further.addAll(spokenOfBy.getOrDefault(mod, Set.of()));
      }
      further.removeAll(byMod.keySet());
      next = further;
    }
  }

  private static Set<String> targets(Candidate c) {
    Set<String> out = new HashSet<>();
    c.needs().forEach(n -> out.add(n.mod()));
    c.bridges().forEach(n -> out.add(n.mod()));
    c.clashes().forEach(n -> out.add(n.mod()));
    return out;
  }

  /** By the ids of the mods. */
  Map<String, List<Candidate>> byMod() {
    return byMod;
  }

  List<Candidate> of(String mod) {
    return byMod.getOrDefault(mod, List.of());
  }
}
