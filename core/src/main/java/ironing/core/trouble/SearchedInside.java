package ironing.core.trouble;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.Suspicions.Reason;
import ironing.core.workspace.Stages;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** What is searched inside mods that are known to be behind a fault: files, records, fields. */
public final class SearchedInside {
  private SearchedInside() {}

  /**
   * What the game named when it told of the fault; each may be empty.
   *
   * @param record by key
   */
  public record Named(String path, String plugin, String record) {
    public static final Named NOTHING = new Named("", "", "");
  }

  /**
   * Whether it matters who of some mods stands below whom: each two of which neither needs the
   * other.
   *
   * @param mods that were found, in layer order
   * @param members of the search that found them
   */
  public static SearchedParts order(Workspace workspace, List<Part> mods, SearchedParts members) {
    Members needs = members.members();
    List<Part> parts = new ArrayList<>();
    for (int i = 0; i < mods.size(); i++) {
      for (int j = i + 1; j < mods.size(); j++) {
        int low = members.parts().indexOf(mods.get(i)), high = members.parts().indexOf(mods.get(j));
        boolean bound = needs.withNeeds(low).get(high) || needs.withNeeds(high).get(low);
        if (!bound) parts.add(Part.ofOrder(mods.get(i).mod(), mods.get(j).mod()));
      }
    }
    List<Set<Reason>> reasons = parts.stream().map(p -> Set.<Reason>of()).toList();
    Map<Long, List<String>> plugins = new HashMap<>();
    for (Part p : mods) plugins.put(p.mod(), workspace.mods().get(p.mod()).plugins());
    return new SearchedParts(
        Level.ORDER,
        List.copyOf(parts),
        List.of(),
        reasons,
        Map.of(),
        plugins,
        List.of(),
        List.of());
  }

  /**
   * The files of some mods that are in play.
   *
   * @param workspace in which just the set is on that was found
   */
  public static SearchedParts files(Workspace workspace, List<Long> mods, Named named) {
    Standing standing = workspace.picture().standing();
    Holdings holdings = standing.holdings();
    GameDefinition game = workspace.game();
    List<Part> parts = new ArrayList<>();
    Map<String, String> names = new HashMap<>();
    for (LoadOrder.Entry e : workspace.picture().loadOrder().entries())
      names.put(e.plugin().path(), e.name());
    Map<String, Integer> plugins = new HashMap<>();
    for (long mod : mods) {
      for (int p : standing.pathsOfMod(mod)) {
        Holdings.Source holder = holdings.holderAt(standing.inPlay(p));
        // what lies in a pack goes and comes with the pack
        if (holder.mod() != mod || holder.pack().isPresent()) continue;
        if (game.isPlugin(holdings.path(p)))
          plugins.put(
              PathCase.fold(names.getOrDefault(holdings.path(p), GamePath.name(holdings.path(p)))),
              parts.size());
        parts.add(Part.ofFile(mod, holdings.path(p)));
      }
    }
    String place = game.pathCase().key(named.path()), plugin = PathCase.fold(named.plugin());
    List<Set<Reason>> reasons = new ArrayList<>();
    for (Part p : parts) {
      boolean isNamed =
          game.pathCase().key(p.path()).equals(place)
              || PathCase.fold(GamePath.name(p.path())).equals(plugin);
      Set<Reason> of = EnumSet.noneOf(Reason.class);
      if (isNamed) of.add(Reason.NAMED);
      if (game.isHarmless(p.path())) of.add(Reason.HARMLESS);
      reasons.add(of);
    }
    return new SearchedParts(
        Level.FILES, List.copyOf(parts), masters(workspace, plugins), List.copyOf(reasons));
  }

  private static List<Need> masters(Workspace workspace, Map<String, Integer> plugins) {
    List<Need> needs = new ArrayList<>();
    for (LoadOrder.Entry e : workspace.picture().loadOrder().entries()) {
      Integer from = plugins.get(PathCase.fold(e.name()));
      if (from == null) continue;
      for (String master : e.plugin().masters()) {
        Integer to = plugins.get(PathCase.fold(master));
        if (to != null) needs.add(new Need(from, to));
      }
    }
    return needs;
  }

  /**
   * The records of plugins.
   *
   * @param plugins files that were found
   * @throws IOException when one cannot be read
   */
  public static SearchedParts records(Workspace workspace, List<Part> plugins, Named named)
      throws IOException {
    List<Part> parts = new ArrayList<>();
    List<Set<Reason>> reasons = new ArrayList<>();
    for (Part file : plugins) {
      for (Record r : read(workspace, file).records()) {
        String key = r.key().toString();
        parts.add(file.withRecord(key));
        boolean isNamed = PathCase.fold(key).equals(PathCase.fold(named.record()));
        reasons.add(isNamed ? Set.of(Reason.NAMED) : Set.of());
      }
    }
    return new SearchedParts(Level.RECORDS, List.copyOf(parts), List.of(), List.copyOf(reasons));
  }

  /**
   * The fields of records that are not as the version before has them.
   *
   * @param records that were found
   */
  public static SearchedParts fields(Workspace workspace, List<Part> records) throws IOException {
    List<Part> parts = new ArrayList<>();
    for (Part p : records) {
      Map<String, Value> before = before(workspace, p);
      Optional<Map<String, Value>> fields =
          read(workspace, p).records().stream()
              .filter(r -> r.key().toString().equals(p.record()))
              .flatMap(r -> r.fields().stream())
              .findFirst()
              .map(Value.Fields::map);
      // a record that is removed goes or stays as a whole
      if (fields.isEmpty()) continue;
      Map<String, Value> now = fields.get();
      Set<String> names = new HashSet<>(now.keySet());
      names.addAll(before.keySet());
      names.stream()
          .filter(n -> !Optional.ofNullable(now.get(n)).equals(Optional.ofNullable(before.get(n))))
          .sorted()
          .forEach(n -> parts.add(p.withField(n)));
    }
    List<Set<Reason>> reasons = parts.stream().map(p -> Set.<Reason>of()).toList();
    return new SearchedParts(Level.FIELDS, List.copyOf(parts), List.of(), reasons);
  }

  /**
   * The plugins as they are for one set, by the path at which each lies: without the records that
   * are left out, or with fields as the version before has them.
   *
   * @param known what was found on the levels before: the records of a level of fields stay
   * @throws IOException when one cannot be read
   */
  public static Map<String, byte[]> contents(
      Workspace workspace, SearchedParts searched, List<Part> known, BitSet set)
      throws IOException {
    Map<String, byte[]> out = new LinkedHashMap<>();
    if (searched.level() != Level.RECORDS && searched.level() != Level.FIELDS) return out;
    Set<Part> kept = new HashSet<>(known);
    set.stream().forEach(i -> kept.add(searched.parts().get(i)));
    Set<Part> files = new HashSet<>();
    for (Part p : searched.parts()) files.add(Part.ofFile(p.mod(), p.path()));
    for (Part file : files) {
      Plugin plugin = read(workspace, file);
      List<Record> records = new ArrayList<>();
      for (Record r : plugin.records()) {
        Part record = file.withRecord(r.key().toString());
        if (searched.level() == Level.RECORDS) {
          if (kept.contains(record)) records.add(r);
        } else if (known.contains(record)) {
          records.add(withFields(r, record, before(workspace, record), searched, kept));
        }
      }
      Plugin tried = new Plugin(plugin.name(), plugin.header(), records);
      out.putAll(workspace.files().format(workspace.game()).write(tried, file.path(), List.of()));
    }
    return out;
  }

  private static Record withFields(
      Record record, Part part, Map<String, Value> before, SearchedParts searched, Set<Part> kept) {
    if (record.fields().isEmpty()) return record;
    Map<String, Value> fields = new LinkedHashMap<>(record.fields().get().map());
    for (Part p : searched.parts()) {
      if (!part.equals(p.withField("")) || kept.contains(p)) continue;
      Value was = before.get(p.field());
      if (was == null) fields.remove(p.field());
      else fields.put(p.field(), was);
    }
    return new Record(record.type(), record.key(), Optional.of(new Value.Fields(fields)));
  }

  private static Plugin read(Workspace workspace, Part file) throws IOException {
    byte[] bytes = Files.readAllBytes(workspace.locateInPlay(file.path()));
    return workspace
        .files()
        .format(workspace.game())
        .read(PluginFormat.Source.of(GamePath.name(file.path()), bytes));
  }

  /** The fields of the version that stands right before a plugin's; none where there is none. */
  private static Map<String, Value> before(Workspace workspace, Part part) {
    RecordIndex index = workspace.get(Stages.RECORDS).index();
    int record = Ref.parse(part.record()).map(index::find).orElse(-1);
    int position = index.position(GamePath.name(part.path()));
    Map<String, Value> before = Map.of();
    if (record < 0) return before;
    for (int v = 0; v < index.versionCount(record); v++)
      if (index.positionOf(record, v) < position)
        before = index.version(record, v).fields().map(Value.Fields::map).orElse(Map.of());
    return before;
  }
}
