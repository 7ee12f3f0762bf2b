package ironing.server.loadorder;

import ironing.core.IroningException;
import ironing.core.loadorder.LoadRule;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.RuleBook;
import ironing.core.loadorder.RuleBook.Treatment;
import ironing.server.loadorder.LoadRulesViews.LoadRuleRequest;
import ironing.server.loadorder.LoadRulesViews.LoadRulesView;
import ironing.server.loadorder.LoadRulesViews.MuteRequest;
import ironing.server.loadorder.LoadRulesViews.RuleEffectView;
import ironing.server.loadorder.LoadRulesViews.WaysOutView;
import ironing.server.loadorder.LoadRulesViews.WordRequest;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.List;
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
  private final LoadOrders orders;
  private final LoadRules rules;
  private final OpenWorkspaces workspaces;

  LoadRulesController(LoadOrders orders, LoadRules rules, OpenWorkspaces workspaces) {
    this.orders = orders;
    this.rules = rules;
    this.workspaces = workspaces;
  }

  /** The rules of the load order, with what each comes to. */
  @GetMapping("/rules")
  LoadRulesView loadRules(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return LoadRulesViews.of(open, rules);
  }

  /** Adds a rule of the load order. */
  @PostMapping("/rules")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void addLoadRule(
      @PathVariable long workspace,
      @RequestBody LoadRuleRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Who plugin = LoadRulesViews.good(body.plugin()), other = LoadRulesViews.good(body.other());
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
        "Made a rule of the load order: " + LoadRulesViews.words(made.applied(List.of()).get(0)),
        a -> a.withLoadRules(a.loadRules().with(body.kind(), plugin, other, reason)));
  }

  /** Takes a rule of the user’s own back. */
  @DeleteMapping("/rules")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void dropLoadRule(
      @PathVariable long workspace,
      @RequestParam String key,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    LoadRule rule = require(workspaces.get(workspace), key);
    if (rule.strength() != Strength.USER) throw LoadRulesViews.notOwn(rule);
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        "Took a rule of the load order back: " + LoadRulesViews.words(rule),
        a -> a.withLoadRules(a.loadRules().without(key)));
  }

  /** Drops somebody else’s rule for this workspace, turns it about, or lets it count again. */
  @PostMapping("/rules/word")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void sayOfRule(
      @PathVariable long workspace,
      @RequestBody WordRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    LoadRule rule = require(workspaces.get(workspace), body.key());
    if (rule.strength() == Strength.FIXED) throw LoadRulesViews.notOwn(rule);
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
        did + LoadRulesViews.words(rule),
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
      LoadRule rule = require(workspaces.get(workspace), body.key());
      if (rule.strength() == Strength.FIXED) throw LoadRulesViews.notOwn(rule);
      what = LoadRulesViews.words(rule);
    }
    orders.changeRules(
        workspace,
        Expected.of(ifMatch),
        (body.muted() ? "Muted: " : "No longer muted: ") + what,
        a -> a.withMuted(LoadRulesViews.muted(a, body.key(), body.muted())));
  }

  private LoadRule require(OpenWorkspace open, String key) {
    List<LoadRule> all = new ArrayList<>();
    all.addAll(open.picture().arrangement().loadRules().applied(List.of()));
    all.addAll(rules.stated(open));
    all.addAll(rules.masters(open));
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
    OpenWorkspace open = workspaces.get(workspace);
    return LoadRulesViews.effect(open, rules, require(open, key));
  }

  /** The smallest sets of rules, places and plugins without which all the rest holds together. */
  @GetMapping("/proposal/ways-out")
  WaysOutView waysOut(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return LoadRulesViews.waysOut(open, rules);
  }
}
