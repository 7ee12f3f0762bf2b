package ironing.core.documents;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import ironing.core.IroningException;
import ironing.core.game.DocumentPlugins;
import ironing.core.game.DocumentPlugins.PatchForm;
import ironing.core.game.DocumentPlugins.RecordFiles;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Value;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Writes a patch in the forms that its game reads: the manifest, and a file for each kind of
 * record.
 *
 * <p>Invariant: what is written is read back as it was given; the same plugin gives the same bytes.
 *
 * <p>Threads: immutable. Cost: linear in the records.
 */
public final class DocumentWriter {
  private static final String NAME = "{name}", TITLE = "{title}", MASTER = "{master}";

  private final GameDefinition game;
  private final DocumentPlugins form;
  private final PatchForm patch;

  /**
   * @throws IroningException when the definition does not say how a patch is written
   */
  public DocumentWriter(GameDefinition game) {
    this.game = game;
    this.form = game.plugins().flatMap(GameDefinition.Plugins::documents).orElseThrow();
    this.patch =
        form.patch()
            .orElseThrow(
                () ->
                    IroningException.of(
                        "no-plugins",
                        game.title(),
                        "The game’s definition does not say how a patch is written.",
                        "Add patch to plugins in its game.yaml, or settle files in Layers."));
  }

  /** A patch's name as a path has it: what is not a letter, digit, dot, _ or - becomes a hyphen. */
  public static String slug(String name) {
    String plain = name.strip().replaceAll("[^\\p{L}\\p{N}._-]+", "-");
    String safe = plain.replaceAll("^[.-]+|[.-]+$", "");
    return safe.isEmpty() ? "patch" : safe;
  }

  /**
   * @param plugin a patch, called as {@link #slug} gives it
   * @param from the headers of those that its records are made of
   * @return by game path
   * @throws IroningException for a record that cannot be written, and for a removal that the game
   *     has no word for
   */
  public Map<String, byte[]> files(Plugin plugin, List<Header> from) {
    Markup markup = new Markup();
    for (Header h : from)
      if (h.other().containsKey(Markup.HEADER)) markup.add(h.other().get(Markup.HEADER));
    Map<String, Map<RecordFiles, List<Plugin.Record>>> byFile = new TreeMap<>();
    for (Plugin.Record r : plugin.records()) {
      RecordFiles into = form.writes(r.type()).orElseThrow(() -> unwritable(r, "it has no into"));
      if (r.fields().isEmpty() && into.removed().isEmpty())
        throw unwritable(r, "the game has no word for a record that is removed");
      String path =
          into.into().orElseThrow().replace("{plugin}", plugin.name()).replace(NAME, plugin.name());
      byFile
          .computeIfAbsent(path, p -> new LinkedHashMap<>())
          .computeIfAbsent(into, i -> new ArrayList<>())
          .add(
              new Plugin.Record(
                  r.type(),
                  r.key(),
                  r.fields().map(f -> new Value.Fields(markup.ordered(r.type(), f.map())))));
    }
    String manifest = patch.at().replace(NAME, plugin.name());
    Map<String, byte[]> files = new TreeMap<>();
    files.put(manifest, manifest(plugin));
    String folder = GamePath.folder(manifest);
    byFile.forEach(
        (path, records) ->
            files.put(
                GamePath.join(folder, path),
                RecordText.of(records, markup).getBytes(StandardCharsets.UTF_8)));
    new WrittenCheck(game, form).check(plugin, manifest, files);
    return files;
  }

  static IroningException unwritable(Plugin.Record r, String why) {
    return IroningException.of(
        "patch-unwritable",
        r.key().toString(),
        "A patch cannot hold this record: " + why + ".",
        "Leave it out of the patch, or say in the game’s definition how it is written.");
  }

  private byte[] manifest(Plugin plugin) {
    Map<String, String> words = new LinkedHashMap<>();
    words.put(NAME, plugin.name());
    words.put(TITLE, plugin.header().title().orElse(plugin.name()));
    JsonNode filled = filled(patch.manifest(), words, plugin.header().masters());
    return (RecordText.pretty(filled) + "\n").getBytes(StandardCharsets.UTF_8);
  }

  private static JsonNode filled(JsonNode form, Map<String, String> words, List<String> masters) {
    if (form.isTextual()) {
      String text = form.textValue();
      for (Map.Entry<String, String> w : words.entrySet())
        text = text.replace(w.getKey(), w.getValue());
      return TextNode.valueOf(text);
    }
    if (form.isObject()) {
      ObjectNode out = JsonNodeFactory.instance.objectNode();
      form.properties().forEach(e -> out.set(e.getKey(), filled(e.getValue(), words, masters)));
      return out;
    }
    if (!form.isArray()) return form;
    ArrayNode out = JsonNodeFactory.instance.arrayNode();
    boolean repeated = form.size() == 1 && form.get(0).toString().contains(MASTER);
    if (!repeated) form.forEach(item -> out.add(filled(item, words, masters)));
    else
      for (String m : masters) {
        Map<String, String> with = new LinkedHashMap<>(words);
        with.put(MASTER, m);
        out.add(filled(form.get(0), with, masters));
      }
    return out;
  }
}
