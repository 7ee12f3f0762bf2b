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
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.WaysOut;
import ironing.core.picture.Arrangement;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rules of the load order: whose they are, what the user makes of them, what each changes. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order")
class LoadRulesController {
  private static final int LONGEST = 200;
  private final LoadOrders orders;
  private final LoadRules rules;
  private final Workbenches benches;

  LoadRulesController(LoadOrders orders, LoadRules rules, Workbenches benches) {
    this.orders = orders;
    this.rules = rules;
    this.benches = benches;
  }

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

  /** The rules of the load order, with what each comes to. */
  @GetMapping("/rules")
  LoadRulesView loadRules(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Arrangement a = bench.picture().arrangement();
    PluginFacts facts = rules.facts(bench, a.muted());
    List<LoadRuleView> views = new ArrayList<>();
    List<LoadRule> all = new ArrayList<>();
    for (RuleBook.Own own : a.loadRules().own())
      all.addAll(new RuleBook(List.of(own), Map.of()).applied(List.of()));
    all.addAll(rules.stated(bench));
    all.addAll(rules.masters(bench));
    Map<Who, List<Entry>> members = new HashMap<>();
    for (LoadRule r : all) {
      Treatment treated =
          r.strength() == Strength.FIXED ? null : a.loadRules().treated().get(r.key());
      LoadRule now = treated == Treatment.REVERSED ? r.reversed() : r;
      List<Entry> these =
          members.computeIfAbsent(now.plugin(), w -> w.among(bench.picture().loadOrder(), facts));
      List<Entry> those =
          members.computeIfAbsent(now.other(), w -> w.among(bench.picture().loadOrder(), facts));
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
              broken(bench.picture().loadOrder(), now, these, those)));
    }
    boolean bands =
        bench.picture().loadOrder().entries().stream()
            .anyMatch(e -> rules.facts(bench, Set.of()).band(e.plugin()).isPresent());
    List<Integer> stages =
        bench.picture().loadOrder().entries().stream()
            .filter(e -> !e.own())
            .map(e -> e.plugin().stage())
            .distinct()
            .sorted()
            .toList();
    return new LoadRulesView(
        bench.revision(), views, stages, bands, a.muted().contains(LoadRules.BANDS));
  }

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

  private static boolean broken(LoadOrder order, LoadRule r, List<Entry> these, List<Entry> those) {
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

  private static int first(LoadOrder order, List<Entry> entries) {
    return entries.stream().mapToInt(e -> order.position(e.name())).min().orElse(Integer.MAX_VALUE);
  }

  private static int last(LoadOrder order, List<Entry> entries) {
    return entries.stream().mapToInt(e -> order.position(e.name())).max().orElse(-1);
  }

  /** Adds a rule of the load order. */
  @PostMapping("/rules")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void addLoadRule(
      @PathVariable long workspace,
      @RequestBody LoadRuleRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Who plugin = good(body.plugin()), other = good(body.other());
    if (plugin.equals(other)) {
      throw IroningException.of(
          "bad-rule",
          plugin.toString(),
          "The rule names the same on both sides.",
          "Name another plugin, or another group.");
    }
    String reason = body.reason() == null ? "" : body.reason().orElse("").strip();
    RuleBook made = RuleBook.EMPTY.with(body.kind(), plugin, other, reason);
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        "Made a rule of the load order: " + words(made.applied(List.of()).get(0)),
        a -> a.withLoadRules(a.loadRules().with(body.kind(), plugin, other, reason)));
  }

  private static Who good(WhoView asked) {
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

  /** Takes a rule of the user’s own back. */
  @DeleteMapping("/rules")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void dropLoadRule(
      @PathVariable long workspace,
      @RequestParam String key,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    LoadRule rule = require(benches.get(workspace), key);
    if (rule.strength() != Strength.USER) throw notOwn(rule);
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        "Took a rule of the load order back: " + words(rule),
        a -> a.withLoadRules(a.loadRules().without(key)));
  }

  private static IroningException notOwn(LoadRule rule) {
    return IroningException.of(
        "rule-not-yours",
        words(rule),
        "So says " + rule.from() + ".",
        rule.strength() == Strength.FIXED
            ? "It is fixed; switch one of the plugins off instead."
            : "Drop it, turn it about, or mute it in this profile.");
  }

  /** Drops somebody else’s rule for this workspace, turns it about, or lets it count again. */
  @PostMapping("/rules/word")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void sayOfRule(
      @PathVariable long workspace,
      @RequestBody WordRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    LoadRule rule = require(benches.get(workspace), body.key());
    if (rule.strength() == Strength.FIXED) throw notOwn(rule);
    Treatment treatment =
        switch (body.word()) {
          case COUNTS -> null;
          case DROPPED -> Treatment.DROPPED;
          case REVERSED -> Treatment.REVERSED;
        };
    String did =
        switch (body.word()) {
          case COUNTS -> "Lets a rule count again: ";
          case DROPPED -> "Dropped a rule: ";
          case REVERSED -> "Turned a rule about: ";
        };
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        did + words(rule),
        a -> a.withLoadRules(a.loadRules().treating(body.key(), treatment)));
  }

  /** Mutes a rule, or what the bands say, in the profile in use. */
  @PostMapping("/rules/mute")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void mute(
      @PathVariable long workspace,
      @RequestBody MuteRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    boolean bands = body.key().equals(LoadRules.BANDS);
    String what = "what the bands say of the load order";
    if (!bands) {
      LoadRule rule = require(benches.get(workspace), body.key());
      if (rule.strength() == Strength.FIXED) throw notOwn(rule);
      what = words(rule);
    }
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        (body.muted() ? "Muted: " : "No longer muted: ") + what,
        a -> a.withMuted(muted(a, body.key(), body.muted())));
  }

  private static Set<String> muted(Arrangement a, String key, boolean on) {
    Set<String> next = new HashSet<>(a.muted());
    if (on) next.add(key);
    else next.remove(key);
    return next;
  }

  private LoadRule require(Bench bench, String key) {
    List<LoadRule> all = new ArrayList<>();
    all.addAll(bench.picture().arrangement().loadRules().applied(List.of()));
    all.addAll(rules.stated(bench));
    all.addAll(rules.masters(bench));
    return all.stream()
        .filter(r -> r.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "The rule",
                    "There is no such rule now.",
                    "Choose one from the list of rules."));
  }

  /** What a rule changes: the proposal with it beside the one without. */
  @GetMapping("/rules/effect")
  RuleEffectView ruleEffect(@PathVariable long workspace, @RequestParam String key) {
    Bench bench = benches.get(workspace);
    LoadRule rule = require(bench, key);
    Arrangement now = bench.picture().arrangement();
    PluginFacts facts = rules.facts(bench, now.muted());
    Set<String> concerned = new TreeSet<>();
    for (Who who : List.of(rule.plugin(), rule.other()))
      who.among(bench.picture().loadOrder(), facts).forEach(e -> concerned.add(e.name()));
    LoadOrderProposal with = rules.proposal(bench, now.withMuted(muted(now, key, false)));
    LoadOrderProposal without = rules.proposal(bench, now.withMuted(muted(now, key, true)));
    List<RuleEffect> effects = new ArrayList<>();
    if (with.outcome() instanceof Outcome.Sorted<String> a
        && without.outcome() instanceof Outcome.Sorted<String> b) {
      Map<String, Integer> at = new LinkedHashMap<>();
      for (String name : b.order()) at.put(name, at.size());
      Set<String> moved = new HashSet<>();
      a.moves().forEach(m -> moved.add(m.item()));
      b.moves().forEach(m -> moved.add(m.item()));
      for (int i = 0; i < a.order().size(); i++) {
        String name = a.order().get(i);
        if (moved.contains(name) && at.get(name) != i)
          effects.add(new RuleEffect(name, at.get(name) + 1, i + 1));
      }
    }
    boolean gaveWay =
        with.gaveWay().stream()
            .map(GaveWay::rule)
            .flatMap(Optional::stream)
            .anyMatch(r -> r.key().equals(key));
    return new RuleEffectView(List.copyOf(concerned), effects, gaveWay);
  }

  /** The smallest sets of rules, places and plugins without which all the rest holds together. */
  @GetMapping("/proposal/ways-out")
  WaysOutView waysOut(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Arrangement a = bench.picture().arrangement();
    List<LoadRule> counting = rules.counting(bench);
    Map<String, String> said = new HashMap<>();
    counting.forEach(r -> said.put(r.key(), words(r)));
    WaysOut.Found<Exit> found =
        LoadOrderProposal.waysOut(
            bench.picture().loadOrder(), counting, rules.facts(bench, a.muted()));
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
