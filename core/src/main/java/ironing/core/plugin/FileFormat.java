package ironing.core.plugin;

import ironing.core.plugin.Plugin.Header;
import java.io.IOException;
import java.util.List;
import java.util.Map;

/**
 * A format in which a plugin is one file: what is left to say is how its bytes are read and
 * written.
 */
public abstract class FileFormat implements PluginFormat {
  /**
   * @param name the file’s name, which is the plugin’s and the owner of its own records
   * @throws PluginException with the place of the first thing that is wrong
   */
  protected abstract Plugin decode(String name, byte[] file);

  /**
   * @throws ironing.core.IroningException for what the format has no word for
   */
  protected abstract byte[] encode(Plugin plugin);

  @Override
  public final Plugin read(Source source) throws IOException {
    return decode(source.name(), source.bytes());
  }

  @Override
  public final Map<String, byte[]> write(Plugin plugin, String path, List<Header> from) {
    return Map.of(path, encode(plugin));
  }
}
