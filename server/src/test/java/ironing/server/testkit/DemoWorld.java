package ironing.server.testkit;

import ironing.demo.DemoPacker;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;

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

  public byte[] archive(String name) {
    try {
      return Files.readAllBytes(archives.resolve(name));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Every archive in its order, as mods that are switched on; gives the workspace. */
  public long bringIn(Api api) {
    long workspace = api.workspace(game);
    for (String name : DemoPacker.installOrder()) {
      api.install(workspace, name, archive(name)).result();
    }
    return workspace;
  }
}
