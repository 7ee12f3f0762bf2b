package ironing.server.loadorder;

import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrderCheck.Code;
import ironing.core.loadorder.LoadRule;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.PluginFacts;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.loadorder.Troubles.TroubleView;
import ironing.server.workspace.Fix;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What is wrong with plugins beside what would stop the game: rules, switches, needs of mods. */
@Component
public class LoadHealth {
  private final LoadRules rules;

  LoadHealth(LoadRules rules) {
    this.rules = rules;
  }

  /** Rules of “only with” and “not with” that what is on breaks. */
  public List<TroubleView> ofRules(OpenWorkspace open) {
    List<TroubleView> out = new ArrayList<>();
    PluginFacts facts = null;
    for (LoadRule r : rules.counting(open)) {
      if (r.kind().isOfOrder()) continue;
      if (facts == null) facts = rules.facts(open, open.picture().arrangement().muted());
      List<Entry> these = r.plugin().among(open.picture().loadOrder(), facts);
      List<Entry> those = r.other().among(open.picture().loadOrder(), facts);
      for (Entry e : these) {
        if (!e.on()) continue;
        List<Entry> others = those.stream().filter(o -> !o.name().equals(e.name())).toList();
        Optional<Entry> on = others.stream().filter(Entry::on).findFirst();
        if (r.kind() == Kind.NEEDS && on.isEmpty()) out.add(needs(open, r, e, others));
        if (r.kind() == Kind.CLASHES && on.isPresent()) out.add(clashes(r, e, on.get()));
      }
    }
    return out;
  }

  private static TroubleView needs(OpenWorkspace open, LoadRule r, Entry e, List<Entry> others) {
    Who other = r.other();
    String says = e.name() + " goes only with " + other + ": " + r.reason() + ".";
    if (!others.isEmpty()) {
      String name = others.get(0).name();
      return new TroubleView(
          Code.NEEDS_OTHER,
          e.name(),
          name,
          says,
          "Switch " + name + " on, or " + e.name() + " off.",
          false,
          new Fix(Fix.Kind.SWITCH_PLUGIN_ON, null, name, name));
    }
    Optional<Fix> brings = other.isGroup() ? Optional.empty() : Troubles.whoHas(open, other.text());
    return new TroubleView(
        Code.NEEDS_OTHER,
        e.name(),
        other.text(),
        says,
        brings
            .map(f -> f.name() + " in your library has it. Switch it on.")
            .orElse("Bring in a mod with it, or switch " + e.name() + " off."),
        false,
        brings.orElse(new Fix(Fix.Kind.SWITCH_PLUGIN_OFF, null, e.name(), e.name())));
  }

  private static TroubleView clashes(LoadRule r, Entry e, Entry other) {
    return new TroubleView(
        Code.CLASHES,
        e.name(),
        other.name(),
        e.name() + " does not go with " + other.name() + ": " + r.reason() + ".",
        "Switch one of the two off.",
        false,
        new Fix(Fix.Kind.SWITCH_PLUGIN_OFF, null, e.name(), e.name()));
  }

  /** Good to know: what is off though its mod is on, and mods whose needs are not met. */
  List<TroubleView> hints(OpenWorkspace open) {
    List<TroubleView> out = new ArrayList<>();
    Map<String, List<Needs.Installed>> installed = open.installed();
    for (Entry e : open.picture().loadOrder().entries()) {
      if (e.own() || e.plugin().mod() == Holdings.GAME) continue;
      String mod = open.nameOf(e.plugin().mod());
      if (!e.on()) {
        out.add(
            new TroubleView(
                Code.PLUGIN_OFF,
                e.name(),
                mod,
                e.name() + " is switched off, though its mod " + mod + " is on.",
                "Switch it on, unless you mean it so.",
                false,
                new Fix(Fix.Kind.SWITCH_PLUGIN_ON, null, e.name(), e.name())));
        continue;
      }
      ModCard card = open.mods().get(e.plugin().mod()).card();
      for (Needs.Checked c : Needs.of(card, installed))
        if (c.state() != Needs.State.MET) out.add(need(open, e, card, c));
    }
    return out;
  }

  private static TroubleView need(OpenWorkspace open, Entry e, ModCard card, Needs.Checked c) {
    String what = c.found().map(ModCard::name).orElse(c.need().mod());
    String range = c.need().versions().equals("*") ? "" : " " + c.need().versions();
    String is =
        switch (c.state()) {
          case OFF -> "which is switched off";
          case WRONG_VERSION -> "which is here in version " + c.found().get().version();
          default -> "which is not in your library";
        };
    return new TroubleView(
        Code.MOD_NEED,
        e.name(),
        what,
        e.name() + " comes with " + card.name() + ", which needs " + what + range + ", " + is + ".",
        c.state() == Needs.State.OFF
            ? "Switch " + what + " on."
            : "Bring in a version that fits, or switch " + e.name() + " off.",
        false,
        c.state() == Needs.State.OFF
            ? layerOf(open, c.need().mod())
                .map(mod -> new Fix(Fix.Kind.SWITCH_MOD_ON, mod, null, what))
                .orElse(null)
            : new Fix(Fix.Kind.SWITCH_PLUGIN_OFF, null, e.name(), e.name()));
  }

  private static Optional<Long> layerOf(OpenWorkspace open, String cardId) {
    return open.picture().arrangement().layers().stream()
        .map(Layer::mod)
        .filter(mod -> open.mods().get(mod).card().id().equals(cardId))
        .findFirst();
  }
}
