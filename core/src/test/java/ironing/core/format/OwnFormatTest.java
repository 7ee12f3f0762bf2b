package ironing.core.format;

import ironing.core.plugin.OwnFormat;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.Shapes;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.util.List;

/** Our own plugins keep the laws. */
class OwnFormatTest extends FormatKit {
  @Override
  PluginFormat format() {
    return OwnFormat.ONE;
  }

  @Override
  Plugin plugin(long seed) {
    List<Plugin> all = RandomPlugins.of(seed, 4);
    return all.get(Math.floorMod(seed, 4));
  }

  @Override
  String path(Plugin plugin) {
    return plugin.name();
  }

  @Override
  Shapes shapes() {
    return Shapes.of(TestWorld.GAME);
  }
}
