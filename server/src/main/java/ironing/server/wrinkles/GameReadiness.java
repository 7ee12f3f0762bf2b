package ironing.server.wrinkles;

import ironing.core.game.GameDefinition.Plugins;
import ironing.core.game.GameFolder;
import ironing.core.game.ReadyCheck;
import ironing.core.game.ReadyCheck.Failed;
import ironing.core.game.ReadyCheck.Lying;
import ironing.core.layers.Holdings;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.wrinkles.Wrinkles.Place;
import ironing.server.wrinkles.Wrinkles.Weight;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;

/** What is amiss with the game itself, which no mod can be blamed for. */
final class GameReadiness {
  private GameReadiness() {}

  /** The checks of the definition that do not hold. A folder that is gone is told elsewhere. */
  static List<Wrinkle> of(OpenWorkspace open) {
    List<Wrinkle> out = new ArrayList<>();
    if (open.game().ready().isEmpty() || !Files.isDirectory(open.gameFolder())) return out;
    Lying lying =
        new Lying(
            open.roots(),
            GameFolder.version(open.game(), path -> open.value().locate(Holdings.GAME, path)),
            missingPlugins(open));
    for (ReadyCheck check : open.game().ready())
      check.failed(lying).ifPresent(f -> out.add(wrinkle(check, f)));
    return out;
  }

  private static Wrinkle wrinkle(ReadyCheck check, Failed f) {
    String says = check.says().isEmpty() ? "" : ": " + check.says();
    return new Wrinkle(
        "game-not-ready",
        Weight.STOPS,
        "The game itself is not ready" + says,
        "Expected: " + f.expected() + ". Found: " + f.found() + ".",
        f.remedy(),
        Place.GAME_VERSION,
        null,
        null);
  }

  /**
   * The game's own plugins that it has not, or that lie there no more. That a mod brings one of
   * that name does not count.
   */
  private static List<String> missingPlugins(OpenWorkspace open) {
    return open.game().plugins().map(Plugins::own).orElse(List.of()).stream()
        .filter(name -> !hasOwn(open, ownPath(open, name)))
        .toList();
  }

  // a plugin of text may lie in a folder of another name
  private static String ownPath(OpenWorkspace open, String name) {
    if (!open.game().hasDocumentPlugins()) return open.game().pluginPath(name);
    return open.picture()
        .loadOrder()
        .find(name)
        .map(e -> e.plugin().path())
        .orElse(open.game().pluginPath(name));
  }

  private static boolean hasOwn(OpenWorkspace open, String gamePath) {
    Holdings holdings = open.picture().holdings();
    int path = holdings.idOf(gamePath);
    return path >= 0
        && holdings.slotOfMod(path, Holdings.GAME) >= 0
        && Files.exists(open.value().locate(Holdings.GAME, holdings.path(path)));
  }
}
