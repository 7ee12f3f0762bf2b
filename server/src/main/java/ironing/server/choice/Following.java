package ironing.server.choice;

import ironing.core.choice.Candidate;
import ironing.core.choice.ChoiceAnswer.Becomes;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.GoesOff;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.core.layers.Placements;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layerrules.LayerRules;
import ironing.server.layerrules.LayerRules.Ruled;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** What following a choice makes of the layers, once all of its mods are in the library. */
@Component
class Following {
  private final LayerRules rules;

  Following(LayerRules rules) {
    this.rules = rules;
  }

  /** The arrangement with a choice followed. */
  Arrangement arranged(OpenWorkspace open, Candidates candidates, Found found) {
    Arrangement next = open.picture().arrangement();
    Set<Long> on = new HashSet<>(), off = new HashSet<>(), fresh = new HashSet<>();
    for (GoesOff o : found.off()) off.add(candidates.modOf(o.candidate()));
    for (Member m : found.members()) {
      if (m.becomes() == Becomes.STAYS) continue;
      long mod = candidates.modOf(m.candidate());
      on.add(mod);
      if (!open.inUse(mod)) next = next.withInstead(inUseOf(open, mod), mod);
      else if (!isOn(open, mod)) fresh.add(mod);
      // another mod of the same id that was on gives way
      m.from()
          .filter(Candidate::isHere)
          .map(candidates::modOf)
          .filter(f -> f != mod)
          .ifPresent(off::add);
    }
    List<Layer> layers = new ArrayList<>();
    for (Layer l : next.layers())
      layers.add(
          on.contains(l.mod()) ? l.withOn(true) : off.contains(l.mod()) ? l.withOn(false) : l);
    return placed(open, next.withLayers(layers), fresh);
  }

  private static boolean isOn(OpenWorkspace open, long mod) {
    return open.picture().arrangement().layers().stream().anyMatch(l -> l.mod() == mod && l.on());
  }

  /** The version of a mod that has its layer. */
  private static long inUseOf(OpenWorkspace open, long mod) {
    long strand = open.mods().get(mod).strand();
    return open.picture().arrangement().layers().stream()
        .map(Layer::mod)
        .filter(m -> open.mods().get(m).strand() == strand)
        .findFirst()
        .orElseThrow();
  }

  /** Moves what is new to where rules and bands want it; all others keep their order. */
  private Arrangement placed(OpenWorkspace open, Arrangement next, Set<Long> fresh) {
    if (fresh.isEmpty()) return next;
    OpenWorkspace after = open.as(open.picture().rearranged(next));
    Ruled ruled = rules.of(after);
    Set<Long> kept = new HashSet<>(ruled.order());
    for (long mod : fresh) kept.remove(after.mods().get(mod).strand());
    Placements.Suggestion s = Placements.suggest(ruled.order(), ruled.rules(), ruled.bands(), kept);
    if (!(s.outcome() instanceof Outcome.Sorted<Long> sorted)) return next;
    Map<Long, Layer> byMod = new HashMap<>();
    for (Layer l : next.layers()) byMod.put(l.mod(), l);
    return next.withLayers(
        sorted.order().stream().map(strand -> byMod.get(ruled.modOf().get(strand))).toList());
  }
}
