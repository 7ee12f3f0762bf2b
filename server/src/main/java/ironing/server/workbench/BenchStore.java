package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.GamePath;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.server.platform.Json;
import ironing.server.workbench.BenchMapper.DecisionRow;
import ironing.server.workbench.BenchMapper.FileRow;
import ironing.server.workbench.BenchMapper.HeldBackRow;
import ironing.server.workbench.BenchMapper.LayerRow;
import ironing.server.workbench.BenchMapper.ModRow;
import ironing.server.workbench.BenchMapper.ProfileRow;
import ironing.server.workbench.BenchMapper.WishRow;
import ironing.server.workbench.BenchMapper.WorkspaceRow;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import org.springframework.stereotype.Component;

/** From the database to a bench, and an arrangement back into the database. */
@Component
class BenchStore {
  private static final int ROWS_AT_ONCE = 1000;
  private final BenchMapper db;
  private final ContentStore content;
  private final Json json;

  BenchStore(BenchMapper db, ContentStore content, Json json) {
    this.db = db;
    this.content = content;
    this.json = json;
  }

  GameDefinition definition(long workspace) {
    return definition(row(workspace));
  }

  private static GameDefinition definition(WorkspaceRow row) {
    return GameDefinitionReader.read("game.yaml of " + row.title(), row.definition()).value();
  }

  private WorkspaceRow row(long workspace) {
    WorkspaceRow row = db.workspace(workspace);
    if (row != null) return row;
    throw IroningException.of(
        "not-found",
        "Workspace " + workspace,
        "There is no such workspace.",
        "Choose one from the list.");
  }

  Bench load(long workspace) {
    WorkspaceRow row = row(workspace);
    GameDefinition game = definition(row);
    Path folder = Path.of(row.gameFolder());
    ProfileRow profile = db.profile(workspace);
    List<FileRow> files = db.files(workspace);
    Map<Long, Bench.Mod> mods = mods(game, db.mods(workspace), files);
    Picture picture =
        Picture.of(
            game,
            holdings(game, files),
            arrangement(profile.id()),
            content.headers(workspace, folder, mods));
    return new Bench(
        workspace,
        row.title(),
        folder,
        game,
        Optional.ofNullable(row.gameVersion()),
        profile.id(),
        profile.name(),
        profile.revision(),
        own(files),
        mods,
        picture);
  }

  private static Bench.Own own(List<FileRow> files) {
    int count = 0;
    long size = 0;
    for (FileRow f : files) {
      if (f.modId() != Holdings.GAME || !f.pack().isEmpty()) continue;
      count++;
      size += f.sizeBytes();
    }
    return new Bench.Own(count, size);
  }

  private Arrangement arrangement(long profile) {
    Map<String, Map<String, String>> decisions = new TreeMap<>();
    for (DecisionRow d : db.decisions(profile)) {
      decisions.computeIfAbsent(d.recordKey(), k -> new TreeMap<>()).put(d.place(), d.choice());
    }
    Map<Long, Set<String>> held = new TreeMap<>();
    for (HeldBackRow h : db.heldBack(profile)) {
      held.computeIfAbsent(h.modId(), m -> new TreeSet<>()).add(h.path());
    }
    return new Arrangement(
        db.layers(profile).stream().map(l -> new Arrangement.Layer(l.modId(), l.isOn())).toList(),
        db.wishes(profile).stream().map(w -> new Wish(w.name(), w.isOn())).toList(),
        decisions,
        held);
  }

  private Map<Long, Bench.Mod> mods(GameDefinition game, List<ModRow> rows, List<FileRow> files) {
    Map<Long, int[]> counts = new LinkedHashMap<>();
    Map<Long, Long> sizes = new LinkedHashMap<>();
    Map<Long, List<String>> plugins = new LinkedHashMap<>();
    Map<Long, Map<String, String>> edited = new LinkedHashMap<>();
    for (FileRow f : files) {
      if (!f.pack().isEmpty()) continue;
      counts.computeIfAbsent(f.modId(), m -> new int[1])[0]++;
      sizes.merge(f.modId(), f.sizeBytes(), Long::sum);
      if (f.stored() != null) {
        edited.computeIfAbsent(f.modId(), m -> new TreeMap<>()).put(f.path(), f.stored());
      }
      if (game.isPlugin(f.path())) {
        plugins.computeIfAbsent(f.modId(), m -> new ArrayList<>()).add(GamePath.name(f.path()));
      }
    }
    Map<Long, Bench.Mod> mods = new LinkedHashMap<>();
    for (ModRow m : rows) {
      int count = counts.containsKey(m.id()) ? counts.get(m.id())[0] : 0;
      mods.put(
          m.id(),
          new Bench.Mod(
              m.id(),
              m.strandId(),
              m.kind(),
              m.folder(),
              json.read(m.card(), ModCard.class),
              m.archiveName(),
              count,
              sizes.getOrDefault(m.id(), 0L),
              plugins.getOrDefault(m.id(), List.of()),
              edited.getOrDefault(m.id(), Map.of())));
    }
    return mods;
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

  /** Writes what differs between two arrangements. Inside the caller's transaction. */
  void write(long profile, Arrangement present, Arrangement next) {
    if (!next.layers().equals(present.layers())) {
      db.clearLayers(profile);
      List<LayerRow> rows = next.layers().stream().map(l -> new LayerRow(l.mod(), l.on())).toList();
      inPieces(rows, (from, piece) -> db.addLayers(profile, from + 1, piece));
    }
    if (!next.plugins().equals(present.plugins())) {
      db.clearWishes(profile);
      List<WishRow> rows = next.plugins().stream().map(w -> new WishRow(w.name(), w.on())).toList();
      inPieces(rows, (from, piece) -> db.addWishes(profile, from + 1, piece));
    }
    if (!next.decisions().equals(present.decisions())) {
      db.clearDecisions(profile);
      List<DecisionRow> rows = new ArrayList<>();
      next.decisions()
          .forEach(
              (key, places) ->
                  places.forEach((place, c) -> rows.add(new DecisionRow(key, place, c))));
      inPieces(rows, (from, piece) -> db.addDecisions(profile, piece));
    }
    if (!next.heldBack().equals(present.heldBack())) {
      db.clearHeldBack(profile);
      List<HeldBackRow> rows = new ArrayList<>();
      next.heldBack()
          .forEach((mod, paths) -> paths.forEach(p -> rows.add(new HeldBackRow(mod, p))));
      inPieces(rows, (from, piece) -> db.addHeldBack(profile, piece));
    }
  }

  /** PostgreSQL takes 65,535 parameters in one statement, so long lists go in pieces. */
  private static <T> void inPieces(List<T> rows, BiConsumer<Integer, List<T>> write) {
    for (int i = 0; i < rows.size(); i += ROWS_AT_ONCE) {
      write.accept(i, rows.subList(i, Math.min(rows.size(), i + ROWS_AT_ONCE)));
    }
  }
}
