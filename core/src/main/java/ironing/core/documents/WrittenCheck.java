package ironing.core.documents;

import ironing.core.IroningException;
import ironing.core.game.DocumentPlugins;
import ironing.core.game.DocumentPlugins.Form;
import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.GamePath;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Reads a patch that was just written, and refuses it where it would not say what it is to say: a
 * list in a cell of a table, the end of a line in INI, a character that XML has not.
 *
 * <p>Threads: immutable. Cost: linear in the records.
 */
final class WrittenCheck {
  private final GameDefinition game;
  private final DocumentPlugins form;

  WrittenCheck(GameDefinition game, DocumentPlugins form) {
    this.game = game;
    this.form = form;
  }

  /**
   * @param files by game path
   * @throws IroningException with code {@code patch-unwritable}, naming the first such record
   */
  void check(Plugin plugin, String manifest, Map<String, byte[]> files) {
    Shapes shapes = Shapes.of(game);
    List<Ref> keys = new ArrayList<>();
    List<Plugin.Record> records = new ArrayList<>();
    for (Plugin.Record r : plugin.records()) {
      keys.add(r.key());
      records.add(new Plugin.Record(r.type(), r.key(), r.fields().map(f -> asRead(r.type(), f))));
    }
    RecordTable wanted =
        RecordTable.named(
            plugin.name(), plugin.header(), keys, records, List.of(), shapes, List.of());
    RecordTable got = read(manifest, files, shapes);
    Map<String, Integer> rows = new HashMap<>();
    for (int row = 0; row < got.size(); row++) rows.put(got.keyText(row), row);
    for (int row = 0; row < wanted.size(); row++) {
      Integer there = rows.get(wanted.keyText(row));
      if (there == null || !says(wanted, row, got, there))
        throw DocumentWriter.unwritable(
            records.get(row), "the game would read something else than what it is to say");
    }
  }

  private RecordTable read(String manifest, Map<String, byte[]> files, Shapes shapes) {
    String folder = GamePath.folder(manifest);
    List<PluginFiles.Part> parts = new ArrayList<>();
    files.forEach(
        (path, bytes) -> {
          String below = folder.isEmpty() ? path : path.substring(folder.length() + 1);
          PluginFiles.Part part = new PluginFiles.Part(below, 0, path, "");
          if (path.equals(manifest)) parts.add(0, part);
          else parts.add(part);
        });
    try {
      return new DocumentReader(game, shapes)
          .read(new PluginFiles(manifest, parts), p -> files.get(p.spelled()));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Whether all that a record is to say stands in it. A table may have more columns. */
  private static boolean says(RecordTable wanted, int row, RecordTable got, int there) {
    if (wanted.removed(row) || got.removed(there)) return wanted.removed(row) && got.removed(there);
    Map<String, Long> prints = new HashMap<>();
    for (int f = got.fieldFrom(there); f < got.fieldFrom(there + 1); f++)
      prints.put(got.fieldName(f), got.fieldPrint(f));
    for (int f = wanted.fieldFrom(row); f < wanted.fieldFrom(row + 1); f++) {
      Long print = prints.get(wanted.fieldName(f));
      if (print == null || print != wanted.fieldPrint(f)) return false;
    }
    return true;
  }

  private Value.Fields asRead(String type, Value.Fields fields) {
    Form as = form.writes(type).map(r -> r.reading().as()).orElse(Form.JSON);
    if (as == Form.JSON || as == Form.YAML) return fields;
    Field field = game.records().getOrDefault(type, RecordType.undescribed(type)).asField();
    return (Value.Fields) asText(fields, field);
  }

  /** What a value is where everything is text: a number only where the field is one. */
  private static Value asText(Value v, Field field) {
    if (v instanceof Value.Fields f) {
      Map<String, Value> map = new LinkedHashMap<>();
      f.map().forEach((k, i) -> map.put(k, asText(i, field.fields().getOrDefault(k, Field.WHOLE))));
      return new Value.Fields(map);
    }
    if (v instanceof Value.Array a) {
      Field of = field.kind() == Kind.ROWS ? field.row() : field.of().orElse(Field.WHOLE);
      return new Value.Array(a.items().stream().map(i -> asText(i, of)).toList());
    }
    return Values.text(Values.spelled(v), field);
  }
}
