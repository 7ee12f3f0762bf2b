package ironing.server.loadorder;

import ironing.core.documents.DocumentReader;
import ironing.core.library.ModCard;
import ironing.core.lists.PublishedList;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.LoadRule;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.PluginFacts;
import ironing.core.loadorder.PluginFacts.Band;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.plugin.Plugin;
import ironing.core.workspace.Mod;
import ironing.server.library.ModTags;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The rules of a workspace’s load order, of whoever said them, and what counts of them. */
@Component
class LoadRules {
  /** Stands for all that the bands of the mods say. */
  static final String BANDS = "bands";

  private final ModTags tags;
  private final FollowedOrders lists;

  LoadRules(ModTags tags, FollowedOrders lists) {
    this.tags = tags;
    this.lists = lists;
  }

  /** What masters ask for: fixed, and kept by every proposal without being named to it. */
  List<LoadRule> masters(OpenWorkspace open) {
    List<LoadRule> rules = new ArrayList<>();
    for (Entry e : open.picture().loadOrder().entries()) {
      for (String master : e.plugin().masters())
        rules.add(
            new LoadRule(
                key("master", e.name(), master),
                Kind.AFTER,
                Who.named(e.name()),
                Who.named(master),
                "it lists it as a master",
                "the file",
                Strength.FIXED));
    }
    return rules;
  }

  /**
   * What others than the user say and the user can treat: the cards of mods that are on, and the
   * load orders that are followed.
   */
  List<LoadRule> stated(OpenWorkspace open) {
    List<LoadRule> rules = new ArrayList<>();
    for (Layer l : open.picture().arrangement().layers()) {
      if (!l.on()) continue;
      ModCard card = open.mods().get(l.mod()).card();
      String from = "the card of " + card.name();
      card.plugins()
          .forEach(
              (plugin, w) -> {
                for (String other : w.after())
                  rules.add(card(plugin, Kind.AFTER, other, "it asks to load after that", from));
                for (String other : w.before())
                  rules.add(card(plugin, Kind.BEFORE, other, "it asks to load before that", from));
              });
    }
    for (Entry e : open.picture().loadOrder().entries()) ofManifest(e, rules);
    for (FollowedOrders.FollowedOrder list : lists.ordersOf(open.workspace()))
      chain(open, list, rules);
    return rules;
  }

  /** What a plugin of text says of others beside its masters. */
  private static void ofManifest(Entry e, List<LoadRule> rules) {
    if (e.plugin().files().isEmpty() || e.plugin().header().isEmpty()) return;
    Plugin.Header header = e.plugin().header().get();
    String from = "the manifest of " + e.name();
    for (String other : DocumentReader.names(header, DocumentReader.AFTER))
      rules.add(card(e.name(), Kind.AFTER, other, "it asks to load after that", from));
    for (String other : DocumentReader.names(header, DocumentReader.BEFORE))
      rules.add(card(e.name(), Kind.BEFORE, other, "it asks to load before that", from));
    for (String other : DocumentReader.names(header, DocumentReader.CLASHES))
      rules.add(card(e.name(), Kind.CLASHES, other, "it does not go with that", from));
  }

  /** Each plugin of a list that is in play after the one before it. */
  private static void chain(
      OpenWorkspace open, FollowedOrders.FollowedOrder list, List<LoadRule> rules) {
    String before = null;
    for (PublishedList.Entry e : list.list().entries()) {
      Optional<Entry> here = open.picture().loadOrder().find(e.name()).filter(p -> !p.own());
      if (here.isEmpty()) continue;
      String name = here.get().name();
      if (before != null)
        rules.add(
            new LoadRule(
                key("list " + list.id(), name, before),
                Kind.AFTER,
                Who.named(name),
                Who.named(before),
                "it has it after that",
                "the list “" + list.title() + "”",
                Strength.LIST));
      before = name;
    }
  }

  private static LoadRule card(String plugin, Kind kind, String other, String reason, String from) {
    String key = key("card " + kind, plugin, other);
    return new LoadRule(
        key, kind, Who.named(plugin), Who.named(other), reason, from, Strength.CARD);
  }

  private static String key(String kind, String plugin, String other) {
    return kind + " " + PathCase.fold(plugin) + " " + PathCase.fold(other);
  }

  /** All that count, as the user treats them, without those that are muted in the profile. */
  List<LoadRule> counting(OpenWorkspace open) {
    return counting(open, open.picture().arrangement());
  }

  List<LoadRule> counting(OpenWorkspace open, Arrangement arrangement) {
    return arrangement.loadRules().applied(stated(open)).stream()
        .filter(r -> !arrangement.muted().contains(r.key()))
        .toList();
  }

  /** What rules ask of the mods: their tags, and their bands where those are not muted. */
  PluginFacts facts(OpenWorkspace open, Set<String> muted) {
    Map<Long, List<String>> tagsOf = tags.of(open.workspace());
    boolean bands = !muted.contains(BANDS);
    return new PluginFacts() {
      @Override
      public Collection<String> tags(Found plugin) {
        return tagsOf.getOrDefault(plugin.mod(), List.of());
      }

      @Override
      public Optional<Band> band(Found plugin) {
        Mod mod = open.mods().get(plugin.mod());
        if (!bands || mod == null) return Optional.empty();
        return mod.card().band().map(b -> new Band(ModCard.BANDS.indexOf(b), b));
      }
    };
  }

  LoadOrderProposal proposal(OpenWorkspace open) {
    return proposal(open, open.picture().arrangement());
  }

  /** The proposal for the plugins in play if the user had other words on rules. */
  LoadOrderProposal proposal(OpenWorkspace open, Arrangement arrangement) {
    return LoadOrderProposal.propose(
        open.picture().loadOrder(), counting(open, arrangement), facts(open, arrangement.muted()));
  }
}
