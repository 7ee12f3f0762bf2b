package ironing.core.plugin;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;

/**
 * Our own plugins, in CBOR: their tables are scanned from the file, and no value is made of them.
 */
public final class OwnFormat extends FileFormat {
  public static final OwnFormat ONE = new OwnFormat();

  private OwnFormat() {}

  @Override
  public String id() {
    return Plugin.FORMAT;
  }

  @Override
  protected Plugin decode(String name, byte[] file) {
    return PluginCodec.decode(name, file).plugin();
  }

  @Override
  protected byte[] encode(Plugin plugin) {
    return PluginCodec.encode(plugin);
  }

  @Override
  public RecordTable table(Source source, Shapes shapes) throws IOException {
    Optional<Path> file = source.place(source.files().parts().get(0));
    return file.isPresent()
        ? RecordTable.read(source.name(), file.get(), shapes)
        : RecordTable.read(source.name(), source.bytes(), shapes);
  }
}
