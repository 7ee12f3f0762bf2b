package ironing.server.workbench;

import ironing.core.layers.Holdings;
import ironing.core.path.PathCase;
import ironing.server.workbench.FileIndexMapper.IndexRow;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import org.springframework.stereotype.Component;

/** Gathers the files of a workspace: from what was kept of them, or else from the database. */
@Component
class FileGatherer {
  private static final int MODS_AT_ONCE = 50;
  // below the game, whose number is the lowest
  private static final long BEFORE_ALL = -1;

  private final FileIndexMapper db;
  private final KeptFiles kept;

  FileGatherer(FileIndexMapper db, KeptFiles kept) {
    this.db = db;
    this.kept = kept;
  }

  /**
   * To be called by one at a time for a workspace. Cost: all its files; a tenth when they are kept.
   */
  GatheredFiles gather(long workspace, PathCase pathCase) {
    if (db.gameWithout(workspace)) db.putGame(workspace, PackedFiles.pack(db.gameFiles(workspace)));
    for (long mod : db.modsWithout(workspace)) db.putMod(mod, PackedFiles.pack(db.modFiles(mod)));
    KeptFiles.Origin origin = new KeptFiles.Origin(workspace, pathCase, db.digest(workspace));
    return kept.read(origin)
        .orElseGet(
            () -> {
              GatheredFiles files = fromDatabase(workspace, pathCase);
              kept.keepLater(origin, files);
              return files;
            });
  }

  private GatheredFiles fromDatabase(long workspace, PathCase pathCase) {
    int expected = (int) Math.min(db.bytes(workspace) / PackedFiles.USUAL_BYTES, 1 << 24);
    Holdings.Builder builder = new Holdings.Builder(pathCase, expected);
    Sources sources = new Sources(builder);
    // the next rows come from the database while these are taken in
    CompletableFuture<List<IndexRow>> coming = indexes(workspace, BEFORE_ALL);
    while (true) {
      List<IndexRow> rows = coming.join();
      boolean more = rows.size() == MODS_AT_ONCE;
      if (more) coming = indexes(workspace, rows.get(rows.size() - 1).modId());
      for (IndexRow r : rows) {
        PackedFiles.unpack(
            r.files(),
            (pack, path, length, size, sha, offset, stored) -> {
              int source = sources.of(r.modId(), pack, size);
              builder.file(source, path, 0, length, size, sha, offset);
              if (stored != null)
                sources.edited(new String(path, 0, length, StandardCharsets.UTF_8), stored);
            });
      }
      if (!more) break;
    }
    return new GatheredFiles(builder.build(), sources.finish());
  }

  private CompletableFuture<List<IndexRow>> indexes(long workspace, long after) {
    return CompletableFuture.supplyAsync(() -> db.indexes(workspace, after, MODS_AT_ONCE));
  }

  /**
   * The sources that files belong to; each is one run of them, as they come sorted by mod and pack.
   */
  private static final class Sources {
    private final Holdings.Builder builder;
    private final Map<Long, GatheredFiles.Of> of = new HashMap<>();
    private long mod = BEFORE_ALL;
    private String pack = "";
    private int id = -1;
    // of the mod that is on
    private int files;
    private long sizeBytes;
    private Map<String, String> edited = new TreeMap<>();

    Sources(Holdings.Builder builder) {
      this.builder = builder;
    }

    int of(long nextMod, String nextPack, long size) {
      boolean nextOne = nextMod != mod;
      if (nextOne) finish();
      if (nextOne || !nextPack.equals(pack)) {
        mod = nextMod;
        pack = nextPack;
        id = builder.source(mod, pack.isEmpty() ? Optional.empty() : Optional.of(pack));
      }
      if (pack.isEmpty()) {
        files++;
        sizeBytes += size;
      }
      return id;
    }

    void edited(String path, String stored) {
      edited.put(path, stored);
    }

    Map<Long, GatheredFiles.Of> finish() {
      if (mod != BEFORE_ALL) of.put(mod, new GatheredFiles.Of(files, sizeBytes, edited));
      files = 0;
      sizeBytes = 0;
      edited = new TreeMap<>();
      return of;
    }
  }
}
