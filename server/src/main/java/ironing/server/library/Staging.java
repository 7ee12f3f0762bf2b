package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.archive.ArchiveLimits;
import ironing.core.archive.DecoderMemory;
import ironing.core.archive.Unpacker;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.game.GameDefinition;
import ironing.core.path.PathPattern;
import ironing.server.job.Jobs;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Archives that lie unpacked, so that their contents can be looked at and then installed by moving
 * files. Each is unpacked once; what lies here is litter after a restart.
 *
 * <p>Threads: any number; those who ask for one archive at the same time wait for one unpacking.
 */
@Component
class Staging {

  private final Archives archives;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final LibraryGate gate;
  private final Unpacker unpacker;
  private final long keepBytes;
  private final Map<Long, CompletableFuture<Staged>> staged = new ConcurrentHashMap<>();
  // by when they were asked for last, the oldest first; its monitor guards the holds too
  private final Deque<Long> order = new ArrayDeque<>();
  private final Map<Long, Integer> holds = new HashMap<>();
  private final Remover remover;

  Staging(
      Archives archives,
      OpenWorkspaces workspaces,
      Folders folders,
      LibraryGate gate,
      Remover remover,
      @Value("${ironing.archives.ratio:1000}") long ratio,
      @Value("${ironing.archives.floor-bytes:1073741824}") long floorBytes,
      @Value("${ironing.archives.entries:2000000}") int entries,
      @Value("${ironing.archives.memory-kib:204800}") int memoryKib,
      @Value("${ironing.archives.program:/usr/bin/7zz}") Path program,
      @Value("${ironing.archives.staged-bytes:21474836480}") long keepBytes) {
    this.archives = archives;
    this.workspaces = workspaces;
    this.folders = folders;
    this.gate = gate;
    this.remover = remover;
    this.keepBytes = keepBytes;
    this.unpacker =
        new Unpacker(
            new ArchiveLimits(ratio, floorBytes, entries),
            new DecoderMemory(memoryKib),
            Optional.of(program).filter(Files::isExecutable));
  }

  /**
   * @param folder of its own; {@code tree} below it holds the archive's files
   */
  record Staged(Path folder, Path tree, List<Unpacked> entries, long sizeBytes) {}

  /**
   * The contents of an archive, unpacked now if they are not there.
   *
   * @throws IroningException when the archive is refused, or the drive is full
   */
  @SuppressWarnings("try")
  Staged get(long workspace, ArchiveRow row, Jobs.Progress progress) {
    while (true) {
      CompletableFuture<Staged> mine = new CompletableFuture<>();
      CompletableFuture<Staged> known = staged.putIfAbsent(row.id(), mine);
      try {
        if (known != null) {
          Staged there = known.join();
          touch(row.id());
          return there;
        }
        Staged fresh;
        try (LibraryGate.Pass pass = gate.writing(workspace)) {
          fresh = unpack(workspace, row, progress);
        }
        mine.complete(fresh);
        touch(row.id());
        makeRoom(row.id());
        return fresh;
      } catch (CompletionException e) {
        // whoever unpacked it was cancelled: that is no answer for anybody else
        if (e.getCause() instanceof CancellationException) continue;
        if (e.getCause() instanceof RuntimeException why) throw why;
        throw e;
      } catch (RuntimeException | Error e) {
        // whoever waits for it must hear of it, whatever it is
        if (known == null) {
          staged.remove(row.id(), mine);
          mine.completeExceptionally(e);
        }
        if (known != null && e instanceof CancellationException) continue;
        throw e;
      }
    }
  }

  private Staged unpack(long workspace, ArchiveRow row, Jobs.Progress progress) {
    Path folder = folders.staged(workspace).resolve(UUID.randomUUID().toString());
    boolean whole = false;
    try {
      Path tree = Files.createDirectories(folder.resolve("tree"));
      GameDefinition game = workspaces.game(workspace);
      List<Unpacked> entries =
          unpacker.unpack(
              archives.file(workspace, row),
              row.name(),
              tree,
              path -> !isPackName(game, path),
              (done, total) -> progress.at(done, total, "bytes"));
      whole = true;
      long size = entries.stream().mapToLong(Unpacked::sizeBytes).sum();
      return new Staged(folder, tree, entries, size);
    } catch (IOException e) {
      throw ModStore.failed(row.name(), e);
    } finally {
      if (!whole) remover.remove(folder);
    }
  }

  // a pack may be an archive too, and the game reads it as it is. The pattern speaks of a path
  // below
  // the packs' mount, and where in the archive that begins is not known yet
  private static boolean isPackName(GameDefinition game, String path) {
    if (game.packs().isEmpty()) return false;
    PathPattern match = game.packs().get().match();
    for (int from = 0; from >= 0; from = path.indexOf('/', from) + 1) {
      if (match.matches(path.substring(from))) return true;
      if (path.indexOf('/', from) < 0) return false;
    }
    return false;
  }

  /** Keeps the contents of an archive from being let go for room, until it is closed. */
  interface Hold extends AutoCloseable {
    @Override
    void close();
  }

  Hold hold(long archive) {
    synchronized (order) {
      holds.merge(archive, 1, Integer::sum);
    }
    return () -> {
      synchronized (order) {
        holds.computeIfPresent(archive, (a, n) -> n == 1 ? null : n - 1);
      }
    };
  }

  /** Lets the contents of an archive go, after it was installed or turned down. */
  void drop(long archive) {
    CompletableFuture<Staged> known = staged.remove(archive);
    synchronized (order) {
      order.remove(archive);
    }
    if (known != null && known.isDone() && !known.isCompletedExceptionally()) {
      remover.remove(known.join().folder());
    }
  }

  /** Lets go of all that lies below a folder; it is gone from the disk then. */
  void dropBelow(Path folder) {
    staged.forEach(
        (archive, f) -> {
          boolean there = f.isDone() && !f.isCompletedExceptionally();
          if (there && f.join().folder().startsWith(folder)) drop(archive);
        });
    remover.finish();
  }

  private void touch(long archive) {
    synchronized (order) {
      order.remove(archive);
      order.addLast(archive);
    }
  }

  private void makeRoom(long keep) {
    while (true) {
      long oldest;
      synchronized (order) {
        long size = 0;
        for (long a : order) size += sizeOf(a);
        Optional<Long> first =
            order.stream().filter(a -> a != keep && !holds.containsKey(a)).findFirst();
        if (size <= keepBytes || first.isEmpty()) return;
        oldest = first.get();
      }
      drop(oldest);
    }
  }

  private long sizeOf(long archive) {
    CompletableFuture<Staged> f = staged.get(archive);
    return f == null || !f.isDone() || f.isCompletedExceptionally() ? 0 : f.join().sizeBytes();
  }
}
