package ironing.server.testkit;

import static ironing.core.testkit.Trees.write;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.testkit.Archives;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** Small games for tests. */
public final class Games {
  private Games() {}

  /** Plain files, no plugins: mods go into add-ons. */
  public static final String PLAIN =
      """
      format: ironing/game@1
      id: plain
      title: Plain Sailing
      mounts:
        - { id: addons, at: "add-ons", holds: [ "*.txt", "maps/" ] }
      """;

  /** With plugins in data, a list of them, and seven slots for them. */
  public static final String WITH_PLUGINS =
      """
      format: ironing/game@1
      id: with-plugins
      title: Under Sail
      mounts:
        - { id: data, at: "data", holds: [ "*.plug", "maps/" ] }
      plugins:
        match: "*.plug"
        mount: data
        own: [ "Base.plug" ]
        slots: { total: 8, reserved: 1 }
        list: { file: settings/list.txt, on: "use {name}", off: "skip {name}" }
      """;

  /** Its folder, with its own plugin and a list as the unmodded game has it. */
  public static Path withPlugins(Path folder) {
    write(folder.resolve("game.yaml"), WITH_PLUGINS);
    write(folder.resolve("settings/list.txt"), "");
    try {
      Files.createDirectories(folder.resolve("data"));
      Files.write(folder.resolve("data/Base.plug"), plugin("Base.plug", 5));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return folder;
  }

  /** A plugin with nothing but a stage and masters. */
  public static byte[] plugin(String name, int stage, String... masters) {
    return PluginCodec.encode(
        new Plugin(name, Plugin.Header.of(stage, List.of(masters), 1), List.of()));
  }

  /** Its folder, with a definition in it. */
  public static Path plain(Path folder) {
    write(folder.resolve("game.yaml"), PLAIN);
    write(folder.resolve("add-ons/tide.txt"), "the game’s tide\n");
    write(folder.resolve("add-ons/maps/north.map"), "north\n");
    return folder;
  }

  /** A mod for it: a zip with these files below add-ons. */
  public static byte[] mod(Map<String, String> files) {
    return Archives.zip(files);
  }
}
