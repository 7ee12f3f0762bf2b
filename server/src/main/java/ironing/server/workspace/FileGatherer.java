package ironing.server.workspace;

import ironing.core.archive.ContentHash;
import ironing.core.layers.Holdings;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.path.PathCase;
import ironing.server.workspace.FileIndexMapper.IndexRow;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import org.springframework.stereotype.Component;

/**
 * Gathers the files of a workspace: from what is known of it and the rows that have changed, from
 * what was kept, or else from the database.
 */
@Component
class FileGatherer {
  private static final int MODS_AT_ONCE = 50;
  // below the game, whose number is the lowest
  private static final long BEFORE_ALL = -1;

  private final FileIndexMapper db;
  private final StartFiles kept;

  FileGatherer(FileIndexMapper db, StartFiles kept) {
    this.db = db;
    this.kept = kept;
  }

  /** Files with what they were gathered from. */
  record Gathered(StartFiles.Origin origin, GatheredFiles files) {}

  /**
   * To be called by one at a time for a workspace. Cost: all its files; a tenth when they are kept;
   * where others are known from before, the files of the mods that have changed since.
   *
   * @param before what is known of the workspace; null for nothing
   */
  Gathered gather(long workspace, PathCase pathCase, Gathered before) {
    FileIndexMapper.Digests rows = db.digests(workspace);
    Map<Long, String> digests = new TreeMap<>();
    for (int i = 0; i < rows.mods().length; i++) {
      long mod = rows.mods()[i];
      String digest = rows.digests()[i];
      digests.put(mod, digest == null ? packed(workspace, mod) : digest);
    }
    StartFiles.Origin origin = new StartFiles.Origin(workspace, pathCase, digests);
    if (before != null && before.origin().pathCase() == pathCase) {
      Set<Long> gone = new HashSet<>(before.origin().digests().keySet()), come = new TreeSet<>();
      gone.removeAll(digests.keySet());
      digests.forEach(
          (mod, digest) -> {
            if (!digest.equals(before.origin().digests().get(mod))) come.add(mod);
          });
      if (gone.isEmpty() && come.isEmpty()) return before;
      if (gone.size() + come.size() <= Math.max(MODS_AT_ONCE, digests.size() / 4)) {
        GatheredFiles files = changed(origin, before.files(), gone, come);
        kept.keepLater(origin, files);
        return new Gathered(origin, files);
      }
    }
    Optional<GatheredFiles> asKept = kept.read(origin);
    if (asKept.isPresent()) return new Gathered(origin, asKept.get());
    GatheredFiles files = fromDatabase(workspace, pathCase);
    kept.keepLater(origin, files);
    return new Gathered(origin, files);
  }

  /** Packs the files of a mod, or of the game, anew; gives their digest. */
  private String packed(long workspace, long mod) {
    boolean ofGame = mod == Holdings.GAME;
    byte[] files = PackedFiles.pack(ofGame ? db.gameFiles(workspace) : db.modFiles(mod));
    if (ofGame) db.putGame(workspace, files);
    else db.putMod(mod, files);
    return ContentHash.of(files);
  }

  private GatheredFiles changed(
      StartFiles.Origin now, GatheredFiles before, Set<Long> gone, Set<Long> come) {
    HoldingsBuilder builder = new HoldingsBuilder(now.pathCase());
    Sources sources = new Sources(builder);
    if (!come.isEmpty())
      db.indexesOf(now.workspace(), come).forEach(r -> take(r, builder, sources));
    Map<Long, GatheredFiles.Of> of = new HashMap<>(before.of());
    of.keySet().removeAll(gone);
    of.keySet().removeAll(come);
    of.putAll(sources.finish());
    Set<Long> without = new HashSet<>(gone);
    without.addAll(come);
    Holdings holdings = before.holdings().with(without, builder.build());
    return new GatheredFiles(
        holdings.isScattered() ? holdings.gathered(now.pathCase()) : holdings, of);
  }

  private GatheredFiles fromDatabase(long workspace, PathCase pathCase) {
    int expected = (int) Math.min(db.bytes(workspace) / PackedFiles.USUAL_BYTES, 1 << 24);
    HoldingsBuilder builder = new HoldingsBuilder(pathCase, expected);
    Sources sources = new Sources(builder);
    // the next rows come from the database while these are taken in
    CompletableFuture<List<IndexRow>> coming = indexes(workspace, BEFORE_ALL);
    while (true) {
      List<IndexRow> rows = coming.join();
      boolean more = rows.size() == MODS_AT_ONCE;
      if (more) coming = indexes(workspace, rows.get(rows.size() - 1).modId());
      for (IndexRow r : rows) take(r, builder, sources);
      if (!more) break;
    }
    return new GatheredFiles(builder.build(), sources.finish());
  }

  private static void take(IndexRow row, HoldingsBuilder builder, Sources sources) {
    PackedFiles.unpack(
        row.files(),
        (pack, path, length, size, sha, offset, stored) -> {
          int source = sources.of(row.modId(), pack, size);
          builder.file(source, path, 0, length, size, sha, offset);
          if (stored != null)
            sources.edited(new String(path, 0, length, StandardCharsets.UTF_8), stored);
        });
  }

  private CompletableFuture<List<IndexRow>> indexes(long workspace, long after) {
    return CompletableFuture.supplyAsync(() -> db.indexes(workspace, after, MODS_AT_ONCE));
  }

  /**
   * The sources that files belong to; each is one run of them, as they come sorted by mod and pack.
   */
  private static final class Sources {
    private final HoldingsBuilder builder;
    private final Map<Long, GatheredFiles.Of> of = new HashMap<>();
    private long mod = BEFORE_ALL;
    private String pack = "";
    private int id = -1;
    // of the mod that is on
    private int files;
    private long sizeBytes;
    private Map<String, String> edited = new TreeMap<>();

    Sources(HoldingsBuilder builder) {
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
