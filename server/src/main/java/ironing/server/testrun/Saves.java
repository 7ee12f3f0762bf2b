package ironing.server.testrun;

import ironing.core.deploy.ProfileSaves;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.testrun.RunLog;
import ironing.server.deploy.OwnSaves;
import ironing.server.testrun.RunMapper.RunRow;
import ironing.server.testrun.RunMapper.Span;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * Which saves were made with which plugins, as far as the runs that were recorded tell: a save
 * belongs to the run during which it was written.
 */
@Component
class Saves {
  private static final int MOST = 500;
  private final RunMapper db;
  private final OwnSaves own;

  Saves(RunMapper db, OwnSaves own) {
    this.db = db;
    this.own = own;
  }

  /**
   * @param path in the game folder
   * @param run during which it was written; 0 when no run that was recorded tells
   * @param plugins that the game read in that run
   * @param lost those of them that it would not read as the profile is arranged now: what came of
   *     them is taken away from the save
   * @param fresh plugins that it would read now and did not then
   */
  record Save(
      String path,
      OffsetDateTime at,
      long run,
      List<String> plugins,
      List<LostPlugin> lost,
      List<String> fresh) {}

  /** Why a plugin would not be read. */
  enum Loss {
    OFF,
    /** No mod that is on brings it. */
    GONE
  }

  record LostPlugin(String plugin, Loss loss) {}

  private static List<LostPlugin> lost(LoadOrder order, List<String> plugins) {
    List<LostPlugin> lost = new ArrayList<>();
    for (String plugin : plugins) {
      Optional<LoadOrder.Entry> e = order.find(plugin);
      if (e.isEmpty()) lost.add(new LostPlugin(plugin, Loss.GONE));
      else if (!e.get().on()) lost.add(new LostPlugin(plugin, Loss.OFF));
    }
    return lost;
  }

  private static List<String> fresh(LoadOrder order, List<String> plugins) {
    Set<String> then = new HashSet<>();
    plugins.forEach(p -> then.add(PathCase.fold(p)));
    return order.active().stream()
        .map(LoadOrder.Entry::name)
        .filter(name -> !then.contains(PathCase.fold(name)))
        .toList();
  }

  /**
   * The newest first. What the game's definition protects are its saves; of those that each profile
   * has for itself, the ones of the profile in use.
   */
  List<Save> of(OpenWorkspace open) throws IOException {
    List<Save> found = new ArrayList<>();
    Map<Long, List<String>> plugins = new HashMap<>(Map.of(0L, List.of()));
    List<Span> spans = db.spans(open.workspace());
    for (Map.Entry<String, OffsetDateTime> e : protectedFiles(open).entrySet()) {
      long id = during(spans, e.getValue()).filter(Span::logged).map(Span::id).orElse(0L);
      if (!plugins.containsKey(id)) plugins.put(id, pluginsOf(db.run(open.workspace(), id)));
      List<String> read = plugins.get(id);
      LoadOrder order = open.picture().loadOrder();
      found.add(
          new Save(
              e.getKey(),
              e.getValue(),
              id,
              read,
              lost(order, read),
              id == 0 ? List.of() : fresh(order, read)));
    }
    found.sort(Comparator.comparing(Save::at).reversed());
    return found.subList(0, Math.min(MOST, found.size()));
  }

  /** The run that went on at a moment; one that had started by then before one that had not yet. */
  private static Optional<Span> during(List<Span> newestFirst, OffsetDateTime at) {
    Optional<Span> soon = Optional.empty();
    for (Span s : newestFirst) {
      if (!s.has(at)) continue;
      if (!s.startedAt().isAfter(at)) return Optional.of(s);
      if (soon.isEmpty()) soon = Optional.of(s);
    }
    return soon;
  }

  private static List<String> pluginsOf(RunRow run) {
    return List.copyOf(RunLog.summarise(run.log().lines().toList()).plugins().keySet());
  }

  /** Those that were made with one of some plugins. */
  List<Save> madeWith(OpenWorkspace open, List<String> plugins) throws IOException {
    Set<String> wanted = new HashSet<>();
    plugins.forEach(p -> wanted.add(PathCase.fold(p)));
    return of(open).stream()
        .filter(s -> s.plugins().stream().anyMatch(p -> wanted.contains(PathCase.fold(p))))
        .toList();
  }

  private Map<String, OffsetDateTime> protectedFiles(OpenWorkspace open) throws IOException {
    Map<String, OffsetDateTime> files = new HashMap<>();
    for (ProfileSaves.Save s : own.of(open))
      files.put(s.path(), when(Files.getLastModifiedTime(s.lies())));
    if (open.game().protect().isEmpty()) return files;
    for (String top : open.roots().tops())
      if (Files.isDirectory(open.at(top))) protectedFiles(open, top, files);
    return files;
  }

  private static void protectedFiles(
      OpenWorkspace open, String top, Map<String, OffsetDateTime> files) throws IOException {
    Path root = open.at(top);
    Files.walkFileTree(
        root,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult preVisitDirectory(Path dir, BasicFileAttributes a) {
            return dir.endsWith(".ironing")
                ? FileVisitResult.SKIP_SUBTREE
                : FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes a) {
            String path = open.roots().path(top, GamePath.of(root.relativize(file)));
            if (open.game().isProtected(path) && !open.game().isOwnSave(path))
              files.put(path, when(a.lastModifiedTime()));
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFileFailed(Path file, IOException e) {
            // what cannot be looked at tells nothing
            return FileVisitResult.CONTINUE;
          }
        });
  }

  private static OffsetDateTime when(FileTime time) {
    return time.toInstant().atOffset(ZoneOffset.UTC);
  }
}
