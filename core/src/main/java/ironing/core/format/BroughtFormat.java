package ironing.core.format;

import ironing.core.IroningException;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginException;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A format that somebody else has made, held to what the contract says: whatever it throws is told
 * of the one plugin, what it reads is called as the file is, and it writes where it was told to.
 */
record BroughtFormat(PluginFormat inner) implements PluginFormat {
  @Override
  public String id() {
    return inner.id();
  }

  @Override
  public Plugin read(Source source) throws IOException {
    Plugin plugin;
    try {
      plugin = inner.read(source);
    } catch (IroningException told) {
      throw told;
    } catch (RuntimeException | StackOverflowError e) {
      throw PluginException.of(source.name(), "its format “" + id() + "” fails with " + e);
    }
    boolean named = plugin != null && source.name().equals(plugin.name());
    boolean folder = source.files().parts().size() > 1;
    if (plugin == null || !named && !folder)
      throw PluginException.of(
          source.name(), "its format “" + id() + "” gives another plugin than was asked for");
    return plugin;
  }

  @Override
  public RecordTable table(Source source, Shapes shapes) throws IOException {
    try {
      return PluginFormat.super.table(source, shapes);
    } catch (IllegalArgumentException e) {
      throw PluginException.of(
          source.name(), "what its format “" + id() + "” gives cannot be: " + e.getMessage());
    }
  }

  @Override
  public Map<String, byte[]> write(Plugin plugin, String path, List<Header> from) {
    Map<String, byte[]> files;
    try {
      files = inner.write(plugin, path, from);
    } catch (IroningException told) {
      throw told;
    } catch (RuntimeException | StackOverflowError e) {
      throw unwritten(plugin, "it fails with " + e);
    }
    if (files == null || !files.keySet().equals(Set.of(path)))
      throw unwritten(plugin, "it writes something else than " + path);
    return files;
  }

  private IroningException unwritten(Plugin plugin, String why) {
    return IroningException.of(
        "patch-unwritable",
        plugin.name(),
        "The format “" + id() + "” cannot write this plugin: " + why + ".",
        "Tell the maker of the format; meanwhile leave out what it cannot write.");
  }
}
