package ironing.server.workbench;

import ironing.server.platform.MayBeAbsent;

/**
 * The one act that would remedy something, for a button.
 *
 * @param mod for SWITCH_MOD_ON
 * @param plugin for the switches of plugins
 * @param name what to call it
 */
public record Fix(Kind kind, @MayBeAbsent Long mod, @MayBeAbsent String plugin, String name) {
  /** What to do. */
  public enum Kind {
    SWITCH_MOD_ON,
    SWITCH_PLUGIN_ON,
    SWITCH_PLUGIN_OFF,
    TAKE_PROPOSAL,
    BUILD_PATCH
  }
}
