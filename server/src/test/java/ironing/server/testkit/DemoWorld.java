package ironing.server.testkit;

import ironing.demo.DemoPacker;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** The demo's game folder and archives in a folder of a test. */
public record DemoWorld(Path game, Path archives) {
  public static DemoWorld in(Path folder) {
    try {
      DemoPacker.pack(Path.of("../demo/world"), folder);
      return new DemoWorld(folder.resolve("game").toRealPath(), folder.resolve("archives"));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** One of the sample games whose mods are folders of open text. */
  public static DemoWorld ofText(Path folder, String game) {
    try {
      DemoPacker.packText(Path.of("../demo", game), folder);
      return new DemoWorld(folder.resolve("game").toRealPath(), folder.resolve("archives"));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public byte[] archive(String name) {
    try {
      return Files.readAllBytes(archives.resolve(name));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Every archive in its order, as mods that are switched on; gives the workspace. */
  public long bringIn(Api api) {
    return bringIn(api, DemoPacker.installOrder());
  }

  /** Some archives in their order. */
  public long bringIn(Api api, List<String> order) {
    Path user = game.resolveSibling("user");
    long workspace =
        api.workspace(game, Files.isDirectory(user) ? Map.of("user", user.toString()) : Map.of());
    for (String name : order) {
      api.install(workspace, name, archive(name)).result();
    }
    return workspace;
  }
}
