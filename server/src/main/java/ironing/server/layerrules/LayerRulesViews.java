package ironing.server.layerrules;

import ironing.core.IroningException;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.layers.Placements;
import ironing.core.layers.Placements.LeftOut;
import ironing.core.layers.Placements.Suggestion;
import ironing.core.order.Ordering.Constraint;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layerrules.LayerRules.Ruled;
import ironing.server.layers.DifferenceView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** What {@link LayerRulesController} gives and takes, and how it is made of what the core says. */
final class LayerRulesViews {
  private LayerRulesViews() {}

  /**
   * @param other absent for TOP and BOTTOM
   * @param own whether the user made it, and can take it back
   * @param broken whether the order as it is breaks it
   */
  record RuleView(
      Kind kind,
      long mod,
      String name,
      @MayBeAbsent Long other,
      @MayBeAbsent String otherName,
      String reason,
      String from,
      boolean own,
      boolean broken) {}

  record RulesView(long revision, List<RuleView> rules) {}

  /**
   * @param other absent for TOP and BOTTOM
   * @param reason why, in the user's words; may be empty
   */
  record RuleRequest(
      Kind kind,
      long mod,
      @MayBeAbsent Optional<Long> other,
      @MayBeAbsent Optional<String> reason) {
    RuleRequest {
      Objects.requireNonNull(kind, "kind");
    }
  }

  /** A wish about two layers: the lower one is to be below the upper one. */
  record LayerReason(
      long lower, String lowerName, long upper, String upperName, String reason, String from) {}

  /**
   * @param from its number now, {@code to} its number in the suggestion
   * @param because a chain of reasons, each one's upper layer the next one's lower; empty when it
   *     only makes room
   */
  record LayerMove(long mod, String name, int from, int to, List<LayerReason> because) {}

  /**
   * What gave way.
   *
   * @param what in words
   * @param ring the shortest ring that it closed
   */
  record GaveWay(String what, List<LayerReason> ring) {}

  /**
   * @param order the mods from the lowest; empty where there is no way out
   * @param ring where the user's own rules contradict one another: the shortest ring of them
   * @param keptNumbers layers that are kept here and whose number would change all the same
   */
  record SuggestionView(
      long revision,
      List<Long> order,
      List<LayerMove> moves,
      List<LayerReason> ring,
      List<GaveWay> leftOut,
      List<LayerMove> keptNumbers,
      @MayBeAbsent DifferenceView difference) {}

  /**
   * @param mods whose moves are taken; absent: all
   */
  record TakeRequest(@MayBeAbsent Optional<List<Long>> mods) {}

  static boolean same(PlacementRule a, PlacementRule b) {
    return a.kind() == b.kind() && a.layer() == b.layer() && a.other() == b.other();
  }

  static PlacementRule asked(OpenWorkspace open, RuleRequest body) {
    long layer = open.required(body.mod()).strand();
    Optional<Long> other =
        body.kind().hasOther()
            ? (body.other() == null ? Optional.empty() : body.other())
            : Optional.empty();
    if (body.kind().hasOther() && (other.isEmpty() || other.get() == body.mod())) {
      throw IroningException.of(
          "bad-rule",
          open.nameOf(body.mod()),
          "The rule names no other layer to stand against.",
          "Choose another layer.");
    }
    String reason = body.reason() == null ? "" : body.reason().orElse("").strip();
    return new PlacementRule(
        body.kind(),
        layer,
        other.map(o -> open.required(o).strand()).orElse(0L),
        reason.isEmpty() ? "you said so" : reason,
        "you",
        Strength.USER);
  }

  static String words(OpenWorkspace open, RuleRequest r) {
    String name = "“" + open.nameOf(r.mod()) + "”";
    String other =
        r.other() == null ? "" : r.other().map(o -> " “" + open.nameOf(o) + "”").orElse("");
    return switch (r.kind()) {
      case ABOVE -> name + " above" + other;
      case BELOW -> name + " below" + other;
      case DIRECTLY_ABOVE -> name + " directly above" + other;
      case DIRECTLY_BELOW -> name + " directly below" + other;
      case TOP -> name + " always on top";
      case BOTTOM -> name + " always lowest";
    };
  }

  static Suggestion suggest(OpenWorkspace open, Ruled ruled) {
    Set<Long> kept = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers())
      if (l.kept()) kept.add(open.mods().get(l.mod()).strand());
    return Placements.suggest(ruled.order(), ruled.rules(), ruled.bands(), kept);
  }

  static List<GaveWay> leftOut(OpenWorkspace open, Ruled ruled, Suggestion s) {
    List<GaveWay> out = new ArrayList<>();
    for (LeftOut l : s.leftOut()) {
      String name = open.nameOf(ruled.modOf().get(l.layer()));
      String what =
          l.rule()
              .map(
                  r ->
                      name
                          + (r.kind() == Kind.ABOVE ? " above " : " below ")
                          + open.nameOf(ruled.modOf().get(r.other()))
                          + ": "
                          + r.reason())
              .orElse("The band of " + name);
      out.add(new GaveWay(what, reasons(open, ruled, l.ring())));
    }
    return out;
  }

  static List<LayerReason> reasons(OpenWorkspace open, Ruled ruled, List<Constraint<Long>> chain) {
    List<LayerReason> out = new ArrayList<>();
    for (Constraint<Long> c : chain) {
      long lower = ruled.modOf().get(c.earlier()), upper = ruled.modOf().get(c.later());
      out.add(
          new LayerReason(
              lower, open.nameOf(lower), upper, open.nameOf(upper), c.reason(), c.from()));
    }
    return out;
  }
}
