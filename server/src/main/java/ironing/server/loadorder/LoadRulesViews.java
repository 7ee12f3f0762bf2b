package ironing.server.loadorder;

import ironing.core.IroningException;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.LoadOrderProposal.Exit;
import ironing.core.loadorder.LoadOrderProposal.GaveWay;
import ironing.core.loadorder.LoadRule;
import ironing.core.loadorder.LoadRule.By;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.PluginFacts;
import ironing.core.loadorder.RuleBook;
import ironing.core.loadorder.RuleBook.Treatment;
import ironing.core.order.WaysOut;
import ironing.core.picture.Arrangement;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** What {@link LoadRulesController} gives and takes, and how it is made of what the core says. */
final class LoadRulesViews {
  private LoadRulesViews() {}

  static final int LONGEST = 200;

  /** One plugin, or a group of them. */
  record WhoView(By by, String text) {
    WhoView {
      Objects.requireNonNull(by, "by");
      Objects.requireNonNull(text, "text");
    }

    static WhoView of(Who who) {
      return new WhoView(who.by(), who.text());
    }

    Who asWho() {
      return new Who(by, text.strip());
    }
  }

  /**
   * @param what in words
   * @param own whether the user made it, and can take it back
   * @param dropped whether the user has dropped somebody else’s rule
   * @param reversed whether the user has turned somebody else’s rule about
   * @param muted whether it does not count in this profile
   * @param concerns how many plugins in play it is about
   * @param broken whether the order as it is, or what is on, breaks it
   */
  record LoadRuleView(
      String key,
      Kind kind,
      WhoView plugin,
      WhoView other,
      String what,
      String reason,
      String from,
      Strength strength,
      boolean own,
      boolean dropped,
      boolean reversed,
      boolean muted,
      int concerns,
      boolean broken) {}

  /**
   * @param stages of the plugins in play, in the order in which the game loads them: fixed too
   * @param bands whether any mod has a band; {@code bandsMuted} whether they do not count in this
   *     profile
   */
  record LoadRulesView(
      long revision,
      List<LoadRuleView> rules,
      List<Integer> stages,
      boolean bands,
      boolean bandsMuted) {}

  /**
   * @param reason in the user’s words; may be empty
   */
  record LoadRuleRequest(
      Kind kind, WhoView plugin, WhoView other, @MayBeAbsent Optional<String> reason) {
    LoadRuleRequest {
      Objects.requireNonNull(kind, "kind");
      Objects.requireNonNull(plugin, "plugin");
      Objects.requireNonNull(other, "other");
    }
  }

  /** What the user makes of a rule of somebody else. */
  enum Word {
    COUNTS,
    DROPPED,
    REVERSED
  }

  record WordRequest(String key, Word word) {
    WordRequest {
      Objects.requireNonNull(key, "key");
      Objects.requireNonNull(word, "word");
    }
  }

  record MuteRequest(String key, boolean muted) {
    MuteRequest {
      Objects.requireNonNull(key, "key");
    }
  }

  /**
   * What a rule changes in the proposal.
   *
   * @param without where each of these plugins would stand without it, {@code with} with it; from 1
   */
  record RuleEffect(String name, int without, int with) {}

  /**
   * @param concerns the plugins in play that the rule is about
   * @param effects plugins that would stand elsewhere, among those that do not merely make room
   * @param gaveWay whether it gives way to stronger rules, so that it changes nothing
   */
  record RuleEffectView(List<String> concerns, List<RuleEffect> effects, boolean gaveWay) {}

  /**
   * One thing that could be taken out of a contradiction: exactly one of them.
   *
   * @param rule the key of a rule, {@code what} it in words
   * @param off a plugin to switch off
   * @param free a plugin to keep no longer where it is
   */
  record ExitView(
      @MayBeAbsent String rule, String what, @MayBeAbsent String off, @MayBeAbsent String free) {}

  /**
   * @param sets the smallest sets without which all the rest holds together
   * @param whole whether all sets of that size were looked for
   */
  record WaysOutView(List<List<ExitView>> sets, boolean whole) {}

  static String words(LoadRule r) {
    return r.plugin()
        + switch (r.kind()) {
          case AFTER -> " after ";
          case BEFORE -> " before ";
          case NEEDS -> " only with ";
          case CLASHES -> " not with ";
        }
        + r.other();
  }

  static boolean broken(LoadOrder order, LoadRule r, List<Entry> these, List<Entry> those) {
    Set<String> names = new HashSet<>();
    these.forEach(e -> names.add(e.name()));
    List<Entry> others = those.stream().filter(e -> !names.contains(e.name())).toList();
    boolean on = these.stream().anyMatch(Entry::on);
    boolean otherOn = others.stream().anyMatch(Entry::on);
    return switch (r.kind()) {
      case NEEDS -> on && !otherOn;
      case CLASHES -> on && otherOn;
      case AFTER -> !others.isEmpty() && first(order, these) < last(order, others);
      case BEFORE -> !others.isEmpty() && last(order, these) > first(order, others);
    };
  }

  static int first(LoadOrder order, List<Entry> entries) {
    return entries.stream().mapToInt(e -> order.position(e.name())).min().orElse(Integer.MAX_VALUE);
  }

  static int last(LoadOrder order, List<Entry> entries) {
    return entries.stream().mapToInt(e -> order.position(e.name())).max().orElse(-1);
  }

  static Who good(WhoView asked) {
    Who who = asked.asWho();
    if (!who.text().isEmpty() && who.text().length() <= LONGEST && !who.text().contains("/"))
      return who;
    throw IroningException.of(
        "bad-rule",
        who.text().isEmpty() ? "The rule" : who.text(),
        who.text().isEmpty()
            ? "It does not say whom it is about."
            : "That is no file name, pattern or tag.",
        "Name a plugin, a pattern such as fog*.plug, or a tag.");
  }

  static IroningException notOwn(LoadRule rule) {
    return IroningException.of(
        "rule-not-yours",
        words(rule),
        "So says " + rule.from() + ".",
        rule.strength() == Strength.FIXED
            ? "It is fixed; switch one of the plugins off instead."
            : "Drop it, turn it about, or mute it in this profile.");
  }

  static Set<String> muted(Arrangement a, String key, boolean on) {
    Set<String> next = new HashSet<>(a.muted());
    if (on) next.add(key);
    else next.remove(key);
    return next;
  }

  /** The rules of the load order, with what each comes to. */
  static LoadRulesView of(OpenWorkspace open, LoadRules rules) {
    Arrangement a = open.picture().arrangement();
    PluginFacts facts = rules.facts(open, a.muted());
    List<LoadRuleView> views = new ArrayList<>();
    List<LoadRule> all = new ArrayList<>();
    for (RuleBook.Own own : a.loadRules().own())
      all.addAll(new RuleBook(List.of(own), Map.of()).applied(List.of()));
    all.addAll(rules.stated(open));
    all.addAll(rules.masters(open));
    Map<Who, List<Entry>> members = new HashMap<>();
    for (LoadRule r : all) {
      Treatment treated =
          r.strength() == Strength.FIXED ? null : a.loadRules().treated().get(r.key());
      LoadRule now = treated == Treatment.REVERSED ? r.reversed() : r;
      List<Entry> these =
          members.computeIfAbsent(now.plugin(), w -> w.among(open.picture().loadOrder(), facts));
      List<Entry> those =
          members.computeIfAbsent(now.other(), w -> w.among(open.picture().loadOrder(), facts));
      Set<String> concerned = new TreeSet<>();
      these.forEach(e -> concerned.add(e.name()));
      those.forEach(e -> concerned.add(e.name()));
      views.add(
          new LoadRuleView(
              r.key(),
              now.kind(),
              WhoView.of(now.plugin()),
              WhoView.of(now.other()),
              words(now),
              now.reason(),
              now.from(),
              now.strength(),
              now.strength() == Strength.USER,
              treated == Treatment.DROPPED,
              treated == Treatment.REVERSED,
              a.muted().contains(r.key()),
              these.isEmpty() || those.isEmpty() ? 0 : concerned.size(),
              broken(open.picture().loadOrder(), now, these, those)));
    }
    boolean bands =
        open.picture().loadOrder().entries().stream()
            .anyMatch(e -> rules.facts(open, Set.of()).band(e.plugin()).isPresent());
    List<Integer> stages =
        open.picture().loadOrder().entries().stream()
            .filter(e -> !e.own())
            .map(e -> e.plugin().stage())
            .distinct()
            .sorted()
            .toList();
    return new LoadRulesView(
        open.revision(), views, stages, bands, a.muted().contains(LoadRules.BANDS));
  }

  /** What a rule changes. */
  static RuleEffectView effect(OpenWorkspace open, LoadRules rules, LoadRule rule) {
    Arrangement now = open.picture().arrangement();
    PluginFacts facts = rules.facts(open, now.muted());
    Set<String> concerned = new TreeSet<>();
    for (Who who : List.of(rule.plugin(), rule.other()))
      who.among(open.picture().loadOrder(), facts).forEach(e -> concerned.add(e.name()));
    LoadOrderProposal with = rules.proposal(open, now.withMuted(muted(now, rule.key(), false)));
    LoadOrderProposal without = rules.proposal(open, now.withMuted(muted(now, rule.key(), true)));
    List<RuleEffect> effects =
        LoadOrderProposal.unlike(without, with).stream()
            .map(m -> new RuleEffect(m.name(), m.from() + 1, m.to() + 1))
            .toList();
    boolean gaveWay =
        with.gaveWay().stream()
            .map(GaveWay::rule)
            .flatMap(Optional::stream)
            .anyMatch(r -> r.key().equals(rule.key()));
    return new RuleEffectView(List.copyOf(concerned), effects, gaveWay);
  }

  static WaysOutView waysOut(OpenWorkspace open, LoadRules rules) {
    Arrangement a = open.picture().arrangement();
    List<LoadRule> counting = rules.counting(open);
    Map<String, String> said = new HashMap<>();
    counting.forEach(r -> said.put(r.key(), words(r)));
    WaysOut.Found<Exit> found =
        LoadOrderProposal.waysOut(
            open.picture().loadOrder(), counting, rules.facts(open, a.muted()));
    List<List<ExitView>> sets = new ArrayList<>();
    for (Set<Exit> set : found.sets()) {
      if (set.isEmpty()) continue;
      List<ExitView> exits = new ArrayList<>();
      for (Exit e : set) {
        String what =
            e.rule() != null
                ? "take back “" + said.get(e.rule()) + "”"
                : e.off() != null
                    ? "switch " + e.off() + " off"
                    : "keep " + e.free() + " no longer where it is";
        exits.add(new ExitView(e.rule(), what, e.off(), e.free()));
      }
      sets.add(exits);
    }
    return new WaysOutView(sets, found.whole());
  }
}
