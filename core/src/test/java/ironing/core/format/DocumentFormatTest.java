package ironing.core.format;

import ironing.core.documents.DocumentFormat;
import ironing.core.documents.Foundry;
import ironing.core.documents.RandomDocuments;
import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.Shapes;
import java.util.Random;

/** Folders of open text keep the laws. */
class DocumentFormatTest extends FormatKit {
  private static final GameDefinition GAME = Foundry.game();

  @Override
  PluginFormat format() {
    return new DocumentFormat(GAME);
  }

  @Override
  Plugin plugin(long seed) {
    return RandomDocuments.patch(RandomDocuments.records(new Random(seed)));
  }

  @Override
  String path(Plugin plugin) {
    return GAME.pluginPath(plugin.name());
  }

  @Override
  Shapes shapes() {
    return Shapes.of(GAME);
  }

  @Override
  String place() {
    return "manifest";
  }
}
