package ironing.server.testkit;

import static ironing.core.testkit.Trees.write;

import ironing.core.testkit.Archives;
import java.nio.file.Path;
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
