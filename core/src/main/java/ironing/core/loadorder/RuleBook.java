package ironing.core.loadorder;

import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * The user's word on rules of the load order, for all profiles of a workspace. Immutable.
 *
 * @param own in the order in which they were made
 * @param treated by the keys of rules of others
 */
public record RuleBook(List<Own> own, Map<String, Treatment> treated) {
  public static final RuleBook EMPTY = new RuleBook(List.of(), Map.of());

  /**
   * A rule that the user made.
   *
   * @param id 1 for the first one ever
   * @param reason in the user's words, may be empty
   */
  public record Own(long id, Kind kind, Who plugin, Who other, String reason) {
    public String key() {
      return "own " + id;
    }

    LoadRule asRule() {
      String why = reason.isEmpty() ? "you said so" : reason;
      return new LoadRule(key(), kind, plugin, other, why, "your rule " + id, Strength.USER);
    }
  }

  /** What becomes of somebody else's rule. */
  public enum Treatment {
    DROPPED,
    REVERSED
  }

  public RuleBook {
    own = own == null ? List.of() : List.copyOf(own);
    treated = treated == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(treated));
  }

  public RuleBook with(Kind kind, Who plugin, Who other, String reason) {
    long id = 1 + own.stream().mapToLong(Own::id).max().orElse(0);
    List<Own> next = new ArrayList<>(own);
    next.add(new Own(id, kind, plugin, other, reason));
    return new RuleBook(next, treated);
  }

  public RuleBook without(String key) {
    return new RuleBook(own.stream().filter(o -> !o.key().equals(key)).toList(), treated);
  }

  /**
   * @param treatment null for none any more
   */
  public RuleBook treating(String key, Treatment treatment) {
    Map<String, Treatment> next = new TreeMap<>(treated);
    if (treatment == null) next.remove(key);
    else next.put(key, treatment);
    return new RuleBook(own, next);
  }

  /**
   * The rules that count: the user's own first, then those of others, each as the user treats it.
   * What is fixed cannot be treated.
   *
   * @param stated by files, cards and lists
   */
  public List<LoadRule> applied(List<LoadRule> stated) {
    List<LoadRule> rules = new ArrayList<>(own.stream().map(Own::asRule).toList());
    for (LoadRule r : stated) {
      Treatment t = r.strength() == Strength.FIXED ? null : treated.get(r.key());
      if (t == Treatment.DROPPED) continue;
      rules.add(t == Treatment.REVERSED ? r.reversed() : r);
    }
    return rules;
  }
}
