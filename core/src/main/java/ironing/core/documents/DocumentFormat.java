package ironing.core.documents;

import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Plugins of open text, as a game’s definition describes them. */
public final class DocumentFormat implements PluginFormat {
  public static final String ID = "text";
  private final GameDefinition game;

  /**
   * @param game one whose plugins are open text
   */
  public DocumentFormat(GameDefinition game) {
    this.game = game;
  }

  @Override
  public String id() {
    return ID;
  }

  @Override
  public Plugin read(Source source) throws IOException {
    RecordTable table = table(source, Shapes.of(game));
    List<Plugin.Record> records = new ArrayList<>();
    // its values are kept with the table
    for (int row = 0; row < table.size(); row++)
      records.add(table.record(row, (offset, length) -> new byte[0]));
    return new Plugin(table.name(), table.header(), records);
  }

  @Override
  public RecordTable table(Source source, Shapes shapes) throws IOException {
    return new DocumentReader(game, shapes).read(source.files(), source::bytes);
  }

  @Override
  public Map<String, byte[]> write(Plugin plugin, String path, List<Header> from) {
    return new DocumentWriter(game).files(plugin, from);
  }
}
