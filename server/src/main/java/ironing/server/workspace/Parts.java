package ironing.server.workspace;

import com.fasterxml.jackson.annotation.JsonInclude;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.layers.PlacementRule;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.RuleBook;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Arrangement.Section;
import ironing.core.records.Decided;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Parts of an arrangement as they are written down: all of them for a profile, those that differ
 * for a change. A part that is null is not spoken of.
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
record Parts(
    List<Layer> layers,
    List<Section> sections,
    List<Wish> plugins,
    Map<String, Map<String, Decided>> decisions,
    Map<String, FileChoices> fileChoices,
    Map<Long, Set<String>> heldBack,
    List<Ruling> rulings,
    List<PlacementRule> rules,
    RuleBook loadRules,
    Set<String> muted) {

  /** All that belongs to a profile; the rules are the workspace's. */
  static Parts of(Arrangement a) {
    return new Parts(
        a.layers(),
        a.sections(),
        a.plugins(),
        a.decisions(),
        a.fileChoices(),
        a.heldBack(),
        a.rulings(),
        null,
        null,
        a.muted());
  }

  /** Those of them that belong to a profile. */
  Parts ofProfile() {
    return new Parts(
        layers, sections, plugins, decisions, fileChoices, heldBack, rulings, null, null, muted);
  }

  /** The parts of an arrangement that are not as in another. */
  static Parts differing(Arrangement a, Arrangement other) {
    boolean sections = !a.sections().equals(other.sections());
    return new Parts(
        sections || !a.layers().equals(other.layers()) ? a.layers() : null,
        sections ? a.sections() : null,
        a.plugins().equals(other.plugins()) ? null : a.plugins(),
        a.decisions().equals(other.decisions()) ? null : a.decisions(),
        a.fileChoices().equals(other.fileChoices()) ? null : a.fileChoices(),
        a.heldBack().equals(other.heldBack()) ? null : a.heldBack(),
        a.rulings().equals(other.rulings()) ? null : a.rulings(),
        a.rules().equals(other.rules()) ? null : a.rules(),
        a.loadRules().equals(other.loadRules()) ? null : a.loadRules(),
        a.muted().equals(other.muted()) ? null : a.muted());
  }

  /** An arrangement with these parts in the place of its own. */
  Arrangement on(Arrangement a) {
    return new Arrangement(
        layers == null ? a.layers() : layers,
        plugins == null ? a.plugins() : plugins,
        decisions == null ? a.decisions() : decisions,
        fileChoices == null ? a.fileChoices() : fileChoices,
        heldBack == null ? a.heldBack() : heldBack,
        sections == null ? a.sections() : sections,
        rulings == null ? a.rulings() : rulings,
        rules == null ? a.rules() : rules,
        loadRules == null ? a.loadRules() : loadRules,
        muted == null ? a.muted() : muted);
  }
}
