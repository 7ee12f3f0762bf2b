package ironing.server.workbench;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.server.platform.Events;
import ironing.server.workbench.BenchMapper.FileRow;
import ironing.server.workbench.BenchMapper.LayerRow;
import ironing.server.workbench.BenchMapper.ModRow;
import ironing.server.workbench.BenchMapper.WishRow;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Gives out benches and changes them: first in the database, then in memory, then every open page
 * is told.
 *
 * <p>Threads: reads never wait for writes; writes of one workspace come one after another.
 */
@Component
public class Workbenches {
  private static final int ROWS_AT_ONCE = 1000;
  private final BenchMapper db;
  private final TransactionTemplate transaction;
  private final ContentStore content;
  private final ObjectMapper json;
  private final Events events;
  private final Map<Long, Bench> benches = new ConcurrentHashMap<>();
  private final Map<Long, Object> locks = new ConcurrentHashMap<>();

  Workbenches(
      BenchMapper db,
      TransactionTemplate transaction,
      ContentStore content,
      ObjectMapper json,
      Events events) {
    this.db = db;
    this.transaction = transaction;
    this.content = content;
    this.json = json;
    this.events = events;
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Bench get(long workspace) {
    Bench known = benches.get(workspace);
    if (known != null) return known;
    synchronized (lock(workspace)) {
      return benches.computeIfAbsent(workspace, this::load);
    }
  }

  /**
   * Changes the arrangement.
   *
   * @param expected the revision that the caller saw; empty to change whatever there is
   * @param said what was done, in words for the timeline
   * @throws IroningException with code {@code changed-meanwhile} when it is no longer that one
   */
  public Bench rearrange(
      long workspace, Optional<Long> expected, String said, Function<Bench, Arrangement> change) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      if (expected.isPresent() && expected.get() != before.revision()) throw changedMeanwhile();
      Arrangement next = change.apply(before);
      if (next.equals(before.picture().arrangement())) return before;
      Bench after = before.with(before.picture().rearranged(next), before.revision() + 1);
      transaction.executeWithoutResult(t -> write(before, next, said));
      benches.put(workspace, after);
      events.tell(workspace, "arrangement", Map.of("revision", after.revision()));
      return after;
    }
  }

  /**
   * Takes a change of the library in: mods that are new are put on top and switched on.
   *
   * @param work done inside the transaction, before the arrangement is written
   */
  public Bench changeLibrary(long workspace, String said, Runnable work) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      transaction.executeWithoutResult(
          t -> {
            work.run();
            List<Arrangement.Layer> layers =
                new ArrayList<>(before.picture().arrangement().layers());
            List<Long> present = db.mods(workspace).stream().map(ModRow::id).toList();
            layers.removeIf(l -> !present.contains(l.mod()));
            present.stream()
                .filter(m -> layers.stream().noneMatch(l -> l.mod() == m))
                .forEach(m -> layers.add(new Arrangement.Layer(m, true)));
            write(before, before.picture().arrangement().withLayers(layers), said);
          });
      Bench after = load(workspace);
      benches.put(workspace, after);
      events.tell(workspace, "library", Map.of("revision", after.revision()));
      return after;
    }
  }

  /** Runs something that must not cross a change of this workspace, such as a deployment. */
  public <T> T exclusively(long workspace, Function<Bench, T> work) {
    synchronized (lock(workspace)) {
      return work.apply(get(workspace));
    }
  }

  public String toJson(Object o) {
    try {
      return json.writeValueAsString(o);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("our own records are writable", e);
    }
  }

  public <T> T fromJson(String text, Class<T> type) {
    try {
      return json.readValue(text, type);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("our own records are readable: " + type, e);
    }
  }

  private void write(Bench before, Arrangement next, String said) {
    if (db.advance(before.profile(), before.revision()) == 0) throw changedMeanwhile();
    Arrangement present = before.picture().arrangement();
    if (!next.layers().equals(present.layers())) {
      db.clearLayers(before.profile());
      List<LayerRow> rows = next.layers().stream().map(l -> new LayerRow(l.mod(), l.on())).toList();
      for (int i = 0; i < rows.size(); i += ROWS_AT_ONCE)
        db.addLayers(
            before.profile(), i + 1, rows.subList(i, Math.min(rows.size(), i + ROWS_AT_ONCE)));
    }
    if (!next.plugins().equals(present.plugins())) {
      db.clearWishes(before.profile());
      if (!next.plugins().isEmpty())
        db.addWishes(
            before.profile(),
            next.plugins().stream().map(w -> new WishRow(w.name(), w.on())).toList());
    }
    db.addChange(before.profile(), said, toJson(present), toJson(next));
  }

  private static IroningException changedMeanwhile() {
    return IroningException.of(
        "changed-meanwhile",
        "The order",
        "It was changed meanwhile, in another tab or by a script.",
        "Look at it as it is now, and do it again.");
  }

  private Object lock(long workspace) {
    return locks.computeIfAbsent(workspace, w -> new Object());
  }

  private Bench load(long workspace) {
    BenchMapper.WorkspaceRow row = db.workspace(workspace);
    if (row == null)
      throw IroningException.of(
          "not-found",
          "Workspace " + workspace,
          "There is no such workspace.",
          "Choose one from the list.");
    GameDefinition game =
        GameDefinitionReader.read("game.yaml of " + row.title(), row.definition()).value();
    Path folder = Path.of(row.gameFolder());
    BenchMapper.ProfileRow profile = db.profile(workspace);
    List<FileRow> files = db.files(workspace);
    Map<Long, int[]> counts = new LinkedHashMap<>();
    Map<Long, Long> sizes = new LinkedHashMap<>();
    for (FileRow f : files) {
      if (!f.pack().isEmpty()) continue;
      counts.computeIfAbsent(f.modId(), m -> new int[1])[0]++;
      sizes.merge(f.modId(), f.sizeBytes(), Long::sum);
    }
    Map<Long, Bench.Mod> mods = new LinkedHashMap<>();
    for (ModRow m : db.mods(workspace)) {
      int count = counts.containsKey(m.id()) ? counts.get(m.id())[0] : 0;
      mods.put(
          m.id(),
          new Bench.Mod(
              m.id(),
              m.kind(),
              fromJson(m.card(), ModCard.class),
              m.archiveName(),
              count,
              sizes.getOrDefault(m.id(), 0L)));
    }
    Arrangement arrangement =
        new Arrangement(
            db.layers(profile.id()).stream()
                .map(l -> new Arrangement.Layer(l.modId(), l.isOn()))
                .toList(),
            db.wishes(profile.id()).stream().map(w -> new Wish(w.name(), w.isOn())).toList());
    Picture picture =
        Picture.of(game, holdings(game, files), arrangement, content.headers(workspace, folder));
    return new Bench(
        workspace,
        row.title(),
        folder,
        game,
        Optional.ofNullable(row.gameVersion()),
        profile.id(),
        profile.name(),
        profile.revision(),
        mods,
        picture);
  }

  // rows come sorted by mod and pack, so each source is one run of them
  private static Holdings holdings(GameDefinition game, List<FileRow> files) {
    Holdings.Builder builder = new Holdings.Builder(game.pathCase());
    FileRow previous = null;
    int source = -1;
    for (FileRow f : files) {
      if (previous == null || previous.modId() != f.modId() || !previous.pack().equals(f.pack())) {
        source =
            builder.source(
                f.modId(), f.pack().isEmpty() ? Optional.empty() : Optional.of(f.pack()));
      }
      builder.file(source, f.path(), f.sizeBytes(), f.sha256());
      previous = f;
    }
    return builder.build();
  }
}
