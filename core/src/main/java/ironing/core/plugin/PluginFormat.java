package ironing.core.plugin;

import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * How the plugins of one kind of game are read and written. All that is done with plugins goes
 * through it: it is the same for our own format, for plugins of open text, and for a format that
 * somebody else brings (docs/formats/plugin-formats.md).
 *
 * <p>Laws: what is written is read back as it was; the order in which the files of a plugin are
 * given does not matter; what cannot be read is told by a {@link PluginException} with its place,
 * whatever the bytes are, and in a time that is linear in them.
 *
 * <p>Threads: any at once.
 */
public interface PluginFormat {
  /** What {@code format} of a game.yaml names it by, as in {@code ironing/plugin@1}. */
  String id();

  /** A plugin’s files as the game has them. */
  interface Source {
    /** What the game has it under: the name of its file, or the path of its manifest. */
    String name();

    /** Its one file, or its manifest and the files with records. */
    PluginFiles files();

    byte[] bytes(PluginFiles.Part part) throws IOException;

    /** Where a part lies on this machine; empty where it lies in memory. */
    default Optional<Path> place(PluginFiles.Part part) {
      return Optional.empty();
    }

    /** All of a plugin that is one file. */
    default byte[] bytes() throws IOException {
      return bytes(files().parts().get(0));
    }

    /** A plugin that is one file in memory. */
    static Source of(String name, byte[] bytes) {
      PluginFiles.Part part = new PluginFiles.Part(name, 0, name, "");
      return new Source() {
        @Override
        public String name() {
          return name;
        }

        @Override
        public PluginFiles files() {
          return new PluginFiles(name, List.of(part));
        }

        @Override
        public byte[] bytes(PluginFiles.Part p) {
          return bytes;
        }
      };
    }
  }

  /**
   * The whole of a plugin.
   *
   * @throws PluginException with the place of the first thing that is wrong
   * @throws IOException when a file cannot be read
   */
  Plugin read(Source source) throws IOException;

  /**
   * The files of a plugin that is made here.
   *
   * @param path game path of its file, or of its manifest
   * @param from the headers of those that its records come from
   * @return by game path; the same plugin gives the same bytes
   * @throws ironing.core.IroningException for what the format has no word for
   */
  Map<String, byte[]> write(Plugin plugin, String path, List<Header> from);

  /**
   * The records of a plugin with a print of every field. The default makes it of {@link #read}; a
   * format that can do with less than the values overrides it.
   *
   * @throws PluginException as {@link #read}
   */
  default RecordTable table(Source source, Shapes shapes) throws IOException {
    Plugin plugin = read(source);
    List<Ref> keys = plugin.records().stream().map(Plugin.Record::key).toList();
    return keys.stream().anyMatch(Ref::isNamed)
        ? RecordTable.named(
            plugin.name(),
            plugin.header(),
            keys,
            plugin.records(),
            plugin.header().masters(),
            shapes,
            List.of())
        : RecordTable.of(plugin, shapes);
  }
}
