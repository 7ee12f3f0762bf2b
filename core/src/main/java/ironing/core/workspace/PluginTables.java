package ironing.core.workspace;

import ironing.core.IroningException;
import ironing.core.documents.DocumentReader;
import ironing.core.format.PluginFormats;
import ironing.core.game.GameDefinition;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The tables of plugins by their content, in whatever workspace: a change of order, or of one
 * plugin, has none of the others looked through again.
 *
 * <p>Threads: any; two that ask for the same new file at once both read it. Room: {@link
 * #REMEMBERED} tables.
 */
public final class PluginTables {
  static final int REMEMBERED = 5_000;

  private final Map<Object, TableOrFlaw> tables = Recent.map(REMEMBERED);
  private final PluginFormats formats;

  public PluginTables(PluginFormats formats) {
    this.formats = formats;
  }

  private record Key(PluginFormat format, String sha256, String name, Shapes shapes) {}

  // what is said of plugins of text in the definition decides how they are read
  private record DocumentKey(
      String sha256, String manifest, GameDefinition.Plugins form, Shapes shapes) {}

  /** The records of a plugin, or why it cannot be read. */
  public record TableOrFlaw(Optional<RecordTable> table, Optional<String> flaw) {
    public Optional<Header> header() {
      return table.map(RecordTable::header);
    }
  }

  /**
   * How the plugins of a game are read and written.
   *
   * @throws IroningException with code {@code format-unknown}
   */
  public PluginFormat format(GameDefinition game) {
    return formats.require(game);
  }

  /**
   * @param name under which the game has it
   * @param file wherever it lies
   */
  public TableOrFlaw of(GameDefinition game, String sha256, String name, Shapes shapes, Path file) {
    Optional<PluginFormat> format = formats.of(game);
    if (format.isEmpty())
      return new TableOrFlaw(
          Optional.empty(), Optional.of("Nobody here can read plugins of its format."));
    Key key = new Key(format.get(), sha256, name, shapes);
    TableOrFlaw known = tables.get(key);
    if (known != null) return known;
    return remembered(key, () -> format.get().table(new OneFile(name, file, sha256), shapes));
  }

  /** A plugin that is one file on this machine. */
  private record OneFile(String name, Path file, String sha256) implements PluginFormat.Source {
    @Override
    public PluginFiles files() {
      return new PluginFiles(name, List.of(new PluginFiles.Part(name, 0, name, sha256)));
    }

    @Override
    public byte[] bytes(PluginFiles.Part part) throws IOException {
      return Files.readAllBytes(file);
    }

    @Override
    public Optional<Path> place(PluginFiles.Part part) {
      return Optional.of(file);
    }
  }

  /** The same of a plugin that is open text. */
  public TableOrFlaw of(
      PluginFiles files, GameDefinition game, Shapes shapes, DocumentReader.Bytes bytes) {
    Object key =
        new DocumentKey(files.sha256(), files.manifest(), game.plugins().orElseThrow(), shapes);
    TableOrFlaw known = tables.get(key);
    if (known != null) return known;
    return remembered(key, () -> formats.require(game).table(new Documents(files, bytes), shapes));
  }

  static PluginFormat.Source source(PluginFiles files, DocumentReader.Bytes bytes) {
    return new Documents(files, bytes);
  }

  /** A plugin that is a folder, or one document. */
  private record Documents(PluginFiles files, DocumentReader.Bytes from)
      implements PluginFormat.Source {
    @Override
    public String name() {
      return files.manifest();
    }

    @Override
    public byte[] bytes(PluginFiles.Part part) throws IOException {
      return from.of(part);
    }
  }

  private interface Reading {
    RecordTable table() throws IOException;
  }

  private TableOrFlaw remembered(Object key, Reading reading) {
    TableOrFlaw fresh;
    try {
      fresh = look(reading);
    } catch (IOException e) {
      // not remembered: the drive may be connected again at the next look
      return new TableOrFlaw(
          Optional.empty(), Optional.of("The file cannot be read: " + e.getMessage() + "."));
    }
    tables.put(key, fresh);
    return fresh;
  }

  private static TableOrFlaw look(Reading reading) throws IOException {
    try {
      RecordTable table = reading.table();
      return new TableOrFlaw(Optional.of(table), Optional.empty());
    } catch (IroningException e) {
      return new TableOrFlaw(Optional.empty(), Optional.of(e.problems().get(0).reason()));
    }
  }
}
