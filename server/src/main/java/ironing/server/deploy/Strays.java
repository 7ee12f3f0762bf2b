package ironing.server.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.LaidOut;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Glance;
import ironing.core.path.GamePath;
import ironing.server.deploy.DeployMapper.BaselineRow;
import ironing.server.workbench.Bench;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What is in a game folder beside the unmodded game and what was deployed. */
@Component
class Strays {
  private final DeployMapper db;
  private final Deployments deployments;

  Strays(DeployMapper db, Deployments deployments) {
    this.db = db;
    this.deployments = deployments;
  }

  /** Why a file is named. */
  enum Kind {
    /** Neither the game nor Ironing put it there. */
    NEW,
    /** It is the game's own, and no longer what it was. */
    CHANGED,
    /** It is the game's own, and gone. */
    GONE,
    /** Somebody changed it while it was deployed; Ironing set it aside. */
    SET_ASIDE
  }

  record Stray(String path, Kind kind, long sizeBytes) {}

  /** Cost: one stat a file, and a read of those of the game's own whose time has changed. */
  List<Stray> in(Bench bench) {
    GameFolder.requireFolder(bench.gameFolder());
    LaidOut laidOut = deployments.laidOut(bench);
    Map<String, BaselineRow> own = new HashMap<>();
    for (BaselineRow row : db.baseline(bench.workspace())) own.put(row.path(), row);
    List<Stray> strays = new ArrayList<>();
    try {
      Map<String, Glance> there = GameFolder.glance(bench.gameFolder());
      there.forEach(
          (path, glance) -> {
            BaselineRow was = own.remove(path);
            if (laidOut.files().containsKey(path)) return;
            if (was == null) strays.add(new Stray(path, Kind.NEW, glance.sizeBytes()));
            else if (!same(bench, was, glance)) {
              strays.add(new Stray(path, Kind.CHANGED, glance.sizeBytes()));
            }
          });
      own.keySet().stream()
          .filter(path -> !laidOut.files().containsKey(path))
          .sorted()
          .forEach(path -> strays.add(new Stray(path, Kind.GONE, 0)));
      strays.addAll(setAside(bench.gameFolder()));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return strays;
  }

  private static boolean same(Bench bench, BaselineRow was, Glance glance) {
    if (was.sizeBytes() != glance.sizeBytes()) return false;
    if (was.modifiedMs() == glance.modifiedMillis()) return true;
    try {
      Path file = GamePath.resolve(bench.gameFolder(), was.path());
      return ContentHash.of(file).equals(was.sha256());
    } catch (IOException unreadable) {
      return false;
    }
  }

  private static List<Stray> setAside(Path gameFolder) throws IOException {
    Path changed = gameFolder.resolve(Deployer.CHANGED);
    List<Stray> strays = new ArrayList<>();
    if (!Files.isDirectory(changed)) return strays;
    try (Stream<Path> all = Files.walk(changed)) {
      for (Path p : all.filter(Files::isRegularFile).sorted().toList()) {
        String path = gameFolder.relativize(p).toString();
        strays.add(new Stray(path, Kind.SET_ASIDE, Files.size(p)));
      }
    }
    return strays;
  }
}
