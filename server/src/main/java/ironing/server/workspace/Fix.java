package ironing.server.workspace;

import ironing.core.layers.PlacementRule;
import ironing.server.platform.MayBeAbsent;

/**
 * The one act that would remedy something, for a button.
 *
 * @param mod for the switches of mods, the layer of a rule, and a mend
 * @param plugin for the switches of plugins
 * @param name what to call it
 * @param rule for MEND_RULE, of which kind it is
 * @param other for MEND_RULE the other layer, absent where it has none
 */
public record Fix(
    Kind kind,
    @MayBeAbsent Long mod,
    @MayBeAbsent String plugin,
    String name,
    @MayBeAbsent PlacementRule.Kind rule,
    @MayBeAbsent Long other) {
  /** What to do. */
  public enum Kind {
    SWITCH_MOD_ON,
    SWITCH_MOD_OFF,
    SWITCH_PLUGIN_ON,
    SWITCH_PLUGIN_OFF,
    MEND_RULE,
    TAKE_PROPOSAL,
    BUILD_PATCH,
    REBUILD_MEND,
    /** What cannot be read goes; {@code name} is its key. */
    DROP_UNREADABLE
  }

  public Fix(Kind kind, Long mod, String plugin, String name) {
    this(kind, mod, plugin, name, null, null);
  }
}
