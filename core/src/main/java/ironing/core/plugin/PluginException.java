package ironing.core.plugin;

import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.List;

/** A plugin that cannot be read or written. The reason names the byte or the line. */
public final class PluginException extends IroningException {
  private static final long serialVersionUID = 1;

  private PluginException(Problem p) {
    super(List.of(p));
  }

  public static PluginException of(String plugin, String reason) {
    return new PluginException(
        new Problem(
            "plugin-undecodable",
            plugin,
            "This plugin cannot be read: " + reason + ".",
            "Download the mod again, or ask its author for a sound file; until then leave the plugin out."));
  }

  /** The same with the byte at which it is wrong. */
  public static PluginException at(String plugin, long offset, String reason) {
    return of(plugin, reason + ", at byte " + offset);
  }
}
