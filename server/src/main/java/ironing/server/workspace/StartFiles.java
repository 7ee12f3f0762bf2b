package ironing.server.workspace;

import ironing.core.archive.ContentHash;
import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileReader.DamagedException;
import ironing.core.arrayfile.ArrayFileWriter;
import ironing.core.path.PathCase;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Keeps what was gathered of the files of large workspaces in a file each, so that the next start
 * reads it back in bulk.
 *
 * <p>The database alone says what holds: a file is taken only when it was made from the very rows
 * that are there now, by their digest, and by the same program. One that is missing, of another day
 * or damaged costs time and nothing else.
 */
@Component
class StartFiles {
  private static final Logger LOG = LoggerFactory.getLogger(StartFiles.class);

  /** To be raised when what is written, or how a path is folded or hashed, changes. */
  static final int FORM = 1;

  private final Folders folders;
  private final FileIndexMapper db;
  private final int fromFiles;
  private final Duration after;
  private final Map<Long, Waiting> waiting = new ConcurrentHashMap<>();

  /**
   * What files were made from.
   *
   * @param digests of the row of each mod, and of the game’s; in order of their numbers
   */
  record Origin(long workspace, PathCase pathCase, Map<Long, String> digests) {
    /** Of all rows, as {@link FileIndexMapper#digest} has it. */
    String digest() {
      MessageDigest all = ContentHash.digest();
      digests.forEach(
          (mod, digest) -> {
            all.update(ByteBuffer.allocate(Long.BYTES).putLong(0, mod));
            all.update(HexFormat.of().parseHex(digest));
          });
      return HexFormat.of().formatHex(all.digest());
    }

    private String text() {
      // how letters fold changes with the Java that runs this
      return String.join(
          " ",
          "files",
          Integer.toString(FORM),
          System.getProperty("java.version"),
          pathCase.name(),
          digest());
    }
  }

  private record Waiting(Origin origin, GatheredFiles files, Instant since) {}

  /**
   * @param fromFiles a workspace with fewer is read from the database in no time
   * @param after how long a workspace stays as it is before it is kept: while mods come one after
   *     another it is not worth it, and right after a start there is other work
   */
  StartFiles(
      Folders folders,
      FileIndexMapper db,
      @Value("${ironing.keep.from-files}") int fromFiles,
      @Value("${ironing.keep.after}") Duration after) {
    this.folders = folders;
    this.db = db;
    this.fromFiles = fromFiles;
    this.after = after;
  }

  /** What was kept, if it is what would be gathered now. */
  Optional<GatheredFiles> read(Origin now) {
    waiting.remove(now.workspace());
    Path file = file(now.workspace());
    try (ArrayFileReader in = new ArrayFileReader(file)) {
      if (!in.text().equals(now.text())) return Optional.empty();
      return Optional.of(GatheredFiles.read(now.pathCase(), in));
    } catch (NoSuchFileException none) {
      return Optional.empty();
    } catch (DamagedException damaged) {
      LOG.warn("{} is not used, the database is read instead: {}", file, damaged.getMessage());
      return Optional.empty();
    } catch (IOException | RuntimeException unreadable) {
      // whatever is wrong with it must not stand between a user and the workspace
      LOG.warn("{} is not used, the database is read instead: {}", file, unreadable.toString());
      return Optional.empty();
    }
  }

  void keepLater(Origin origin, GatheredFiles files) {
    if (files.holdings().fileCount() >= fromFiles) {
      waiting.put(origin.workspace(), new Waiting(origin, files, Instant.now()));
    } else {
      remove(file(origin.workspace()));
    }
  }

  @Scheduled(fixedDelay = 5_000)
  synchronized void keepDue() {
    Instant since = Instant.now().minus(after);
    waiting.forEach(
        (workspace, w) -> {
          if (!w.since().isAfter(since) && waiting.remove(workspace, w))
            keep(w.origin(), w.files());
        });
  }

  private void keep(Origin origin, GatheredFiles files) {
    // when rows changed while they were read, nobody knows of which state this is
    if (!db.digest(origin.workspace()).equals(origin.digest())) return;
    Path file = file(origin.workspace()), part = file.resolveSibling(file.getFileName() + ".part");
    try {
      Files.createDirectories(file.getParent());
      try (ArrayFileWriter out = new ArrayFileWriter(part)) {
        out.text(origin.text());
        // what came late has its place as if it had not
        files.gathered(origin.pathCase()).write(out);
        out.finish();
      }
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException full) {
      LOG.warn("{} is not kept, the next start reads the database: {}", file, full.toString());
      remove(part);
    }
  }

  private static void remove(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException there) {
      LOG.warn("{} is not removed: {}", file, there.toString());
    }
  }

  private Path file(long workspace) {
    return folders.kept().resolve(workspace + ".files");
  }
}
