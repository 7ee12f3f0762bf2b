package ironing.core.documents;

import ironing.core.archive.ContentHash;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** A small game of open text, and its plugins in memory. */
public final class Foundry {
  static final String DEFINITION =
      """
      format: ironing/game@1
      id: foundry
      title: Foundry
      mounts: [ { id: bells, at: bells, holds: [ "*/**" ] } ]
      plugins:
        match: "bells/*/foundry.json"
        is: folder
        header: { as: json, lenient: true, name: "$.id", title: "$.title", version: "$.version",
                  masters: { at: "$.needs[*]", name: "$.id" }, after: "$.after[*]" }
        own: [ base ]
        records:
          - { files: "casts/**/*.json", as: json, each: "$.casts[*]", id: "$.id", type: cast,
              removed: { at: "$.melted" }, into: "casts/{plugin}.json" }
          - { files: "rules/*.xml", as: xml, each: "/rules/rule", id: "@name", type: rule,
              into: "rules/patch.xml" }
          - { files: "alloys.csv", as: table, id: [ copper, tin ], type: alloy, into: "alloys.csv" }
          - { files: "words/*.json", as: json, each: "$.*", id: key, type: word }
          - { files: "rooms.ini", as: ini, id: key, type: room, into: "rooms.ini" }
          - { files: "notes/*.yaml", as: yaml, each: "$.notes[*]", id: "$.id", type: note,
              into: "notes/{plugin}.yaml" }
        patch:
          at: "bells/{name}/foundry.json"
          manifest: { id: "{name}", title: "{title}", needs: [ { id: "{master}" } ] }
        list: { file: "enabled.json", as: json, at: "$.order",
                entry: { id: "{name}", on: "{on}" }, keep: true, own: list }
      records:
        cast:
          label: name
          fields: { weight: { kind: number }, tones: { kind: set } }
        alloy:
          fields: { price: { kind: number } }
      """;

  private Foundry() {}

  public static GameDefinition game() {
    return GameDefinitionReader.read("game.yaml", DEFINITION).value();
  }

  /** A plugin of files below its folder, the manifest among them. */
  static RecordTable read(GameDefinition game, String folder, Map<String, String> files)
      throws IOException {
    Map<String, byte[]> bytes = new TreeMap<>();
    files.forEach((path, text) -> bytes.put(path, text.getBytes(StandardCharsets.UTF_8)));
    return readBytes(game, folder, bytes);
  }

  static RecordTable readBytes(GameDefinition game, String folder, Map<String, byte[]> files)
      throws IOException {
    List<PluginFiles.Part> parts = new ArrayList<>();
    files.forEach(
        (path, content) -> {
          var part = new PluginFiles.Part(path, 1, folder + "/" + path, ContentHash.of(content));
          if (path.equals("foundry.json")) parts.add(0, part);
          else parts.add(part);
        });
    return new DocumentReader(game, Shapes.of(game))
        .read(new PluginFiles(folder + "/foundry.json", parts), p -> files.get(p.below()));
  }
}
