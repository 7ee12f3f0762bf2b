package ironing.server.downloads;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.catalogue.Hrefs;
import ironing.server.catalogue.Catalogues;
import ironing.server.downloads.DownloadMapper.DownloadRow;
import ironing.server.downloads.DownloadMapper.NewDownload;
import ironing.server.fetch.Fetcher;
import ironing.server.fetch.Pace;
import ironing.server.fetch.Patience;
import ironing.server.library.Arrivals;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.net.URI;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Fetches what stands in the queue, in its order: four at once, two from one origin. What is
 * written down decides; a start goes on with what the last server had begun.
 */
@Component
public class Downloads {
  private static final Logger LOG = LoggerFactory.getLogger(Downloads.class);
  private static final int AT_ONCE = 4;
  private static final int OF_AN_ORIGIN = 2;
  private static final long SLOWEST = 1 << 10;
  // beside the file itself it is unpacked, and other things want to be written too
  private static final long ROOM_BYTES = 64L << 20;

  private final DownloadMapper db;
  private final Catalogues catalogues;
  private final Fetcher fetcher;
  private final Patience patience;
  private final Arrivals arrivals;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final Events events;
  private final Json json;
  private final ExecutorService workers = Executors.newFixedThreadPool(AT_ONCE);
  private final Map<Long, Running> running = new ConcurrentHashMap<>();
  private final Map<Long, Pace> paces = new ConcurrentHashMap<>();
  private boolean closing;

  /** One that is being fetched. */
  private static final class Running {
    private final Download download;
    private final String origin;
    private long receivedBefore;
    private volatile long bytesASecond;

    Running(Download download, String origin) {
      this.download = download;
      this.origin = origin;
    }
  }

  Downloads(
      DownloadMapper db,
      Catalogues catalogues,
      Fetcher fetcher,
      Patience patience,
      Arrivals arrivals,
      OpenWorkspaces workspaces,
      Folders folders,
      Events events,
      Json json) {
    this.db = db;
    this.catalogues = catalogues;
    this.fetcher = fetcher;
    this.patience = patience;
    this.arrivals = arrivals;
    this.workspaces = workspaces;
    this.folders = folders;
    this.events = events;
    this.json = json;
  }

  /** How far one is. */
  public enum State {
    WAITING,
    RUNNING,
    PAUSED,
    /** Nothing came of several tries. */
    RESTING,
    DONE,
    FAILED;

    String word() {
      return name().toLowerCase(Locale.ROOT);
    }

    static State of(String word) {
      return valueOf(word.toUpperCase(Locale.ROOT));
    }
  }

  /**
   * A file to be fetched.
   *
   * @param name of the archive
   */
  public record Wanted(
      long catalogue,
      String mod,
      String version,
      String name,
      String href,
      long sizeBytes,
      String sha256) {}

  /**
   * A line of the queue as it is now.
   *
   * @param received bytes that have come
   * @param bytesASecond lately; 0 where it does not run
   */
  public record Queued(
      DownloadRow row, State state, long received, long bytesASecond, Optional<Problem> problem) {
    public long id() {
      return row.id();
    }

    /** What it has become; empty before. */
    public Optional<Long> archive() {
      return Optional.ofNullable(row.archiveId());
    }
  }

  @EventListener(ApplicationReadyEvent.class)
  void goOn() {
    db.takeUpAgain();
    pump();
  }

  @PreDestroy
  void close() {
    synchronized (this) {
      closing = true;
    }
    running.values().forEach(r -> r.download.stop());
    workers.shutdownNow();
  }

  /** The queue of a workspace, in its order. */
  public List<Queued> all(long workspace) {
    workspaces.game(workspace);
    return db.all(workspace).stream().map(this::queued).toList();
  }

  private Queued queued(DownloadRow row) {
    Running r = running.get(row.id());
    long received =
        r != null
            ? r.download.received()
            : row.state().equals(State.DONE.word()) ? row.sizeBytes() : sizeOf(part(row));
    return new Queued(
        row,
        State.of(row.state()),
        received,
        r == null ? 0 : r.bytesASecond,
        Optional.ofNullable(row.problem()).map(p -> json.read(p, Problem.class)));
  }

  private static long sizeOf(Path part) {
    try {
      return Files.size(part);
    } catch (IOException none) {
      return 0;
    }
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Queued get(long workspace, long id) {
    DownloadRow row = db.get(id);
    if (row != null && row.workspaceId() == workspace) return queued(row);
    throw IroningException.of(
        "not-found",
        "Download " + id,
        "There is no such download in this workspace.",
        "Choose one of the queue.");
  }

  /**
   * Puts a file at the end of the queue; one that stands there already stays where it is, and is
   * taken up again where it rests. There is never a second one of the same bytes that is not done.
   *
   * @return its number
   */
  public synchronized long add(long workspace, Wanted w) {
    workspaces.game(workspace);
    DownloadRow there = db.unfinished(workspace, w.sha256());
    long id;
    if (there != null && !there.state().equals(State.FAILED.word())) {
      id = there.id();
      if (there.state().equals(State.RESTING.word())) setState(there, State.WAITING, null);
    } else {
      // what has failed begins anew, as the catalogue says it now
      if (there != null) db.remove(there.id());
      NewDownload row = new NewDownload();
      db.add(
          new DownloadRow(
              0,
              workspace,
              w.catalogue(),
              w.mod(),
              w.version(),
              w.name(),
              w.href(),
              w.sizeBytes(),
              w.sha256(),
              State.WAITING.word(),
              null,
              null,
              0,
              null,
              null,
              null),
          row);
      id = row.getId();
    }
    tell(workspace);
    pump();
    return id;
  }

  /** Stops it for now; what has come stays. */
  public void pause(long workspace, long id) {
    Queued q = get(workspace, id);
    if (q.state() != State.WAITING && q.state() != State.RUNNING && q.state() != State.RESTING)
      throw ended(q);
    setState(q.row(), State.PAUSED, null);
    Optional.ofNullable(running.get(id)).ifPresent(r -> r.download.stop());
  }

  /** Goes on with it; what has failed begins anew. */
  public void resume(long workspace, long id) {
    Queued q = get(workspace, id);
    if (q.state() == State.DONE) throw ended(q);
    if (q.state() != State.RUNNING && q.state() != State.WAITING)
      setState(q.row(), State.WAITING, null);
    pump();
  }

  private static IroningException ended(Queued q) {
    return IroningException.of(
        "download-ended",
        q.row().name(),
        q.state() == State.DONE ? "It is here already." : "It does not run.",
        q.state() == State.DONE ? "Look for it in the inbox or the library." : "Take it up again.");
  }

  /** Takes it out of the queue, with what has come; what is whole stays in the library. */
  public void remove(long workspace, long id) {
    Queued q = get(workspace, id);
    db.remove(id);
    Running r = running.get(id);
    if (r != null) r.download.stop();
    else deleteQuietly(part(q.row()));
    tell(workspace);
  }

  /**
   * Says in which order they come.
   *
   * @param order the numbers of all that stand in the queue
   */
  public void arrange(long workspace, List<Long> order) {
    List<Long> all = db.all(workspace).stream().map(DownloadRow::id).toList();
    if (order.size() != all.size() || !new TreeSet<>(order).equals(new TreeSet<>(all))) {
      throw IroningException.of(
          "download-order",
          "The order of the downloads",
          "It does not name each of them once.",
          "Name all numbers of the queue: " + all + ".");
    }
    for (int i = 0; i < order.size(); i++) db.setPosition(order.get(i), i + 1);
    tell(workspace);
  }

  private Pace pace(long workspace) {
    return paces.computeIfAbsent(workspace, w -> new Pace(System::nanoTime, limit(w).orElse(0L)));
  }

  /** How many bytes a second all of a workspace together may take; empty for as many as come. */
  Optional<Long> limit(long workspace) {
    workspaces.game(workspace);
    return Optional.ofNullable(db.limit(workspace));
  }

  /**
   * Another limit, which those that run keep at once.
   *
   * @param bytesASecond empty for as many as come
   * @throws IroningException with code {@code speed-limit}
   */
  void setLimit(long workspace, Optional<Long> bytesASecond) {
    workspaces.game(workspace);
    if (bytesASecond.filter(b -> b < SLOWEST).isPresent()) {
      throw IroningException.of(
          "speed-limit",
          bytesASecond.get() + " bytes a second",
          "So little never comes to an end.",
          "Allow at least " + SLOWEST + ", or pause the downloads.");
    }
    db.setLimit(workspace, bytesASecond.orElse(null));
    pace(workspace).limit(bytesASecond.orElse(0L));
    tell(workspace);
  }

  private void setState(DownloadRow row, State state, Problem problem) {
    db.setState(row.id(), state.word(), problem == null ? null : json.write(problem));
    tell(row.workspaceId());
  }

  private void tell(long workspace) {
    events.tell(workspace, "downloads", Map.of());
  }

  private Path part(DownloadRow row) {
    return folders.downloads(row.workspaceId()).resolve(row.id() + ".part");
  }

  /** Begins as many as may run at once. */
  private synchronized void pump() {
    if (closing) return;
    Map<String, Integer> ofOrigin = new HashMap<>();
    running.values().forEach(r -> ofOrigin.merge(r.origin, 1, Integer::sum));
    for (DownloadRow row : new ArrayList<>(db.waiting())) {
      if (running.size() >= AT_ONCE) return;
      if (running.containsKey(row.id())) continue;
      String origin = origin(row);
      if (ofOrigin.getOrDefault(origin, 0) >= OF_AN_ORIGIN) continue;
      ofOrigin.merge(origin, 1, Integer::sum);
      Download download =
          new Download(
              row,
              part(row),
              fetcher,
              patience,
              pace(row.workspaceId()),
              etag -> db.setEtag(row.id(), etag));
      running.put(row.id(), new Running(download, origin));
      setState(row, State.RUNNING, null);
      workers.execute(() -> run(row, download));
    }
  }

  private String origin(DownloadRow row) {
    try {
      if (row.catalogueId() == null) return "";
      Optional<URI> uri = catalogues.place(row.workspaceId(), row.catalogueId(), row.href()).uri();
      return uri.map(Hrefs::origin).orElse("");
    } catch (IroningException | IOException e) {
      // it is told when it is fetched
      return "";
    }
  }

  private void run(DownloadRow row, Download download) {
    try {
      fetch(row, download);
    } catch (CancellationException e) {
      // paused, taken out, or the server ends: who stopped it has written that down
      if (db.get(row.id()) == null) deleteQuietly(part(row));
    } catch (Download.Rests e) {
      setState(row, State.RESTING, e.problem());
    } catch (IroningException e) {
      setState(row, State.FAILED, e.problems().get(0));
    } catch (FileSystemException e) {
      setState(row, State.RESTING, noRoom(row, String.valueOf(e.getReason())));
    } catch (IOException e) {
      setState(row, State.RESTING, noRoom(row, String.valueOf(e.getMessage())));
    } catch (RuntimeException e) {
      LOG.error("download {} failed", row.name(), e);
      setState(
          row,
          State.FAILED,
          new Problem(
              "internal",
              row.name(),
              "Something went wrong inside Ironing.",
              "Try again; if it remains so, report it with the server's log."));
    } finally {
      running.remove(row.id());
      pump();
    }
  }

  private void fetch(DownloadRow row, Download download) throws Download.Rests, IOException {
    Optional<Long> here = arrivals.find(row.workspaceId(), row.sha256());
    long archive;
    if (here.isPresent()) {
      archive = here.get();
    } else {
      Path part = part(row);
      requireRoom(row, part);
      download.run(catalogues);
      archive = arrivals.keep(row.workspaceId(), row.name(), part, row.sha256());
    }
    db.done(row.id(), archive);
    deleteQuietly(part(row));
    tell(row.workspaceId());
    arrivals.look(row.workspaceId(), archive);
  }

  /** Room for this one and for all others that run, before the first byte is written. */
  private void requireRoom(DownloadRow row, Path part) throws Download.Rests, IOException {
    Files.createDirectories(part.getParent());
    long wanted = ROOM_BYTES;
    for (DownloadRow other : db.all(row.workspaceId())) {
      if (other.state().equals(State.RUNNING.word()))
        wanted += other.sizeBytes() - Math.min(other.sizeBytes(), sizeOf(part(other)));
    }
    if (Files.getFileStore(part.getParent()).getUsableSpace() < wanted)
      throw new Download.Rests(noRoom(row, "the drive has too little room"));
  }

  private static Problem noRoom(DownloadRow row, String why) {
    return new Problem(
        "disk-full",
        row.name(),
        "It cannot be written: " + why + ".",
        "Make room on the drive of the library, then take it up again.");
  }

  private static void deleteQuietly(Path part) {
    try {
      Files.deleteIfExists(part);
    } catch (IOException litter) {
      // it is written over, or removed with the library
    }
  }

  /** Tells open pages how far they are, and takes their speed. */
  @Scheduled(fixedDelay = 1_000)
  void measure() {
    TreeSet<Long> of = new TreeSet<>();
    running.forEach(
        (id, r) -> {
          long now = r.download.received();
          // half of what it was: one slow second does not make the time left jump
          r.bytesASecond = (r.bytesASecond + Math.max(0, now - r.receivedBefore)) / 2;
          r.receivedBefore = now;
          Optional.ofNullable(db.get(id)).ifPresent(row -> of.add(row.workspaceId()));
        });
    of.forEach(this::tell);
  }
}
