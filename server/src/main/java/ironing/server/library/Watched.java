package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.archive.Unpacker;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.platform.DatabaseGone;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * A folder of the user's in which archives arrive. Nothing is taken from it by itself, and it is
 * only read: what is in it is offered.
 */
@Component
class Watched {
  private static final Logger LOG = LoggerFactory.getLogger(Watched.class);
  // a file that is still being written changes within this time
  private static final long QUIET_MILLIS = 3_000;
  private static final int MOST = 500;

  private final WatchedMapper db;
  private final Archives archives;
  private final Intake intake;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;
  private final Events events;
  private final Map<Long, List<Arrived>> lastSeen = new ConcurrentHashMap<>();

  Watched(
      WatchedMapper db,
      Archives archives,
      Intake intake,
      OpenWorkspaces workspaces,
      Jobs jobs,
      Events events) {
    this.db = db;
    this.archives = archives;
    this.intake = intake;
    this.workspaces = workspaces;
    this.jobs = jobs;
    this.events = events;
  }

  /**
   * A file of the folder that has not been brought in.
   *
   * @param arriving it is still being written
   * @param outside it is a link that leads out of the folder, and is not taken in
   */
  record Arrived(String name, long sizeBytes, boolean arriving, boolean outside) {}

  Optional<String> folder(long workspace) {
    return Optional.ofNullable(db.folder(workspace)).filter(f -> !f.isEmpty());
  }

  /**
   * Watches a folder from now on; an empty name watches none.
   *
   * @throws IroningException with code {@code folder-wrong}
   */
  void watch(long workspace, String folderName) {
    workspaces.game(workspace);
    db.setFolder(workspace, folderName.isBlank() ? null : Folders.named(folderName).toString());
    events.tell(workspace, "inbox", Map.of());
  }

  /** What lies there and is not here yet; nothing when the folder is gone. */
  List<Arrived> arrived(long workspace) {
    Optional<String> folder = folder(workspace);
    if (folder.isEmpty()) return List.of();
    List<Arrived> out = new ArrayList<>();
    try (Stream<Path> list = Files.list(Path.of(folder.get()))) {
      for (Path file : list.sorted().limit(10_000).toList()) {
        if (!Files.isRegularFile(file) || !Unpacker.isArchiveName(file.getFileName().toString()))
          continue;
        long modified = Files.getLastModifiedTime(file).toMillis(), size = Files.size(file);
        if (db.isTaken(workspace, file.toString(), size, modified)) continue;
        boolean arriving = System.currentTimeMillis() - modified < QUIET_MILLIS;
        boolean outside = Folders.leadsOutside(Path.of(folder.get()), file);
        out.add(new Arrived(file.getFileName().toString(), size, arriving, outside));
        if (out.size() == MOST) break;
      }
    } catch (IOException gone) {
      LOG.debug("{} cannot be read: {}", folder.get(), gone.getMessage());
    }
    return out;
  }

  /** Brings files of the folder in, one after another. */
  Job take(long workspace, List<String> names) {
    Path folder =
        Folders.named(
            folder(workspace)
                .orElseThrow(
                    () ->
                        IroningException.of(
                            "not-found",
                            "The watched folder",
                            "None is watched.",
                            "Name one first.")));
    List<String> there = arrived(workspace).stream().map(Arrived::name).toList();
    for (String name : names) {
      if (!there.contains(name)) {
        throw IroningException.of(
            "not-found", name, "It is not in " + folder + " any more.", "Look at the list again.");
      }
    }
    return jobs.start(
        workspace,
        Lane.LOOK,
        "take-in",
        "Bring in " + names.size() + " from " + folder.getFileName(),
        p -> {
          for (int i = 0; i < names.size(); i++) {
            p.at(i, names.size(), "archives");
            Folders.requireInside(folder, folder.resolve(names.get(i)));
            takeOne(workspace, folder.resolve(names.get(i)));
          }
          return null;
        });
  }

  private void takeOne(long workspace, Path file) throws IOException {
    long size = Files.size(file), modified = Files.getLastModifiedTime(file).toMillis();
    ArchiveRow row;
    try (InputStream in = Files.newInputStream(file)) {
      row = archives.store(workspace, file.getFileName().toString(), in);
    }
    db.setTaken(workspace, file.toString(), size, modified, row.id());
    if (row.look() == null) intake.look(workspace, row);
  }

  /** Tells every open page when something has come or gone. */
  @Scheduled(fixedDelay = 3_000, initialDelay = 10_000)
  void lookAgain() {
    try {
      for (long workspace : db.watching()) {
        List<Arrived> now = arrived(workspace);
        List<Arrived> before = lastSeen.put(workspace, now);
        if (before != null && !before.equals(now)) events.tell(workspace, "inbox", Map.of());
      }
    } catch (RuntimeException e) {
      // it is back with the next look, or told to whoever asks; every few seconds is too often
      if (DatabaseGone.told(e).isEmpty()) throw e;
    }
  }
}
