package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.layers.PlacementRule;
import ironing.core.library.ModCard;
import ironing.core.path.GamePath;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Picture;
import ironing.server.platform.Json;
import ironing.server.workbench.BenchMapper.FileRow;
import ironing.server.workbench.BenchMapper.ModRow;
import ironing.server.workbench.BenchMapper.ProfileRow;
import ironing.server.workbench.BenchMapper.WorkspaceRow;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** From the database to a bench, and an arrangement back into the database. */
@Component
class BenchStore {
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
            arrangement(profile, row.rules(), mods),
            content.headers(workspace, folder, mods));
    return new Bench(
        workspace,
        row.title(),
        folder,
        game,
        Optional.ofNullable(row.gameVersion()),
        profile.id(),
        profile.name(),
        row.revision(),
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

  /**
   * A profile's arrangement with the mods of today: those that are gone are left out; a mod that
   * has no layer in it yet gets one on top, switched off.
   */
  private Arrangement arrangement(ProfileRow profile, String rules, Map<Long, Bench.Mod> mods) {
    Arrangement told =
        json.read(profile.arrangement(), Parts.class)
            .on(Arrangement.EMPTY)
            .withRules(List.of(json.read(rules, PlacementRule[].class)));
    return fitted(told, List.of(), mods);
  }

  /**
   * An arrangement of another day with the mods of today: gone ones left out; of the versions of
   * one mod, the one of that day is taken; what has no layer in it stands where it stands today,
   * above the rest, or else on top and off.
   */
  static Arrangement fitted(Arrangement told, List<Layer> today, Map<Long, Bench.Mod> mods) {
    List<Layer> layers = new ArrayList<>();
    Set<Long> placed = new HashSet<>();
    for (List<Layer> list : List.of(told.layers(), today)) {
      for (Layer l : list) {
        Bench.Mod m = mods.get(l.mod());
        if (m != null && placed.add(m.strand())) layers.add(l);
      }
    }
    Map<Long, Long> newest = new TreeMap<>();
    for (Bench.Mod m : mods.values())
      if (!placed.contains(m.strand())) newest.merge(m.strand(), m.id(), Math::max);
    newest.values().forEach(mod -> layers.add(new Layer(mod, false)));
    return told.withLayers(layers);
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

  /** A bench as it is under the profile in use now. */
  Bench profileOf(Bench before) {
    WorkspaceRow row = row(before.workspace());
    ProfileRow profile = db.profile(before.workspace());
    Arrangement next = arrangement(profile, row.rules(), before.mods());
    return before.with(
        profile.id(), profile.name(), before.picture().rearranged(next), row.revision());
  }

  /** A layer on top of all, switched on; nothing when the mod has its layer already. */
  void addTopLayer(ProfileRow profile, long mod) {
    Arrangement told = json.read(profile.arrangement(), Parts.class).on(Arrangement.EMPTY);
    if (told.layers().stream().anyMatch(l -> l.mod() == mod)) return;
    List<Layer> layers = new ArrayList<>(told.layers());
    layers.add(new Layer(mod, true));
    db.setArrangement(profile.id(), json.write(Parts.of(told.withLayers(layers))));
  }

  /** Writes what differs between two arrangements. Inside the caller's transaction. */
  void write(long workspace, long profile, Arrangement present, Arrangement next) {
    if (!next.rules().equals(present.rules())) db.setRules(workspace, json.write(next.rules()));
    if (!next.withRules(present.rules()).equals(present))
      db.setArrangement(profile, json.write(Parts.of(next)));
  }
}
