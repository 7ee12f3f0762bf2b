package ironing.server.mends;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.library.Needs;
import ironing.core.loadorder.LoadOrder;
import ironing.core.mends.Contests;
import ironing.core.mends.MendDifference;
import ironing.core.mends.PatchScope;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import ironing.core.version.VersionRange;
import ironing.core.workspace.Mod;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.layers.Contributions;
import ironing.server.library.Fittings;
import ironing.server.mends.MendStore.Kept;
import ironing.server.mends.Patches.Shares;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** The mends of a profile: how each stands, and making them anew. */
@Component
public class Mends implements Contributions {
  private static final int MOST_SHOWN = 500;
  private final MendStore store;
  private final Patches patches;
  private final Merges merges;
  private final CombinedFiles files;
  private final ToolOutput outputs;
  private final Contests contests;
  private final Fittings fittings;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  Mends(
      MendStore store,
      Patches patches,
      Merges merges,
      CombinedFiles files,
      ToolOutput outputs,
      Contests contests,
      Fittings fittings,
      OpenWorkspaces workspaces,
      Jobs jobs) {
    this.store = store;
    this.patches = patches;
    this.merges = merges;
    this.files = files;
    this.outputs = outputs;
    this.contests = contests;
    this.fittings = fittings;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /** What became of something that a mend was made from. */
  public enum IngredientState {
    SAME,
    CHANGED,
    /** Off, or gone. */
    GONE
  }

  /**
   * @param modVersion of the mod that has it now; empty where none has
   * @param made the SHA-256 that it had when the mend was made
   */
  public record Ingredient(
      String plugin, String modName, String modVersion, IngredientState state, String made) {}

  /** What kind of mend it is. */
  public enum MendKind {
    PATCH,
    MERGE,
    COMBINED,
    /** What a tool wrote. */
    TOOL;

    static MendKind of(Kept k) {
      if (k.isPatch()) return PATCH;
      if (k.isMerge()) return MERGE;
      return k.isOfTool() ? TOOL : COMBINED;
    }
  }

  /**
   * A condition of a patch, and whether it is met.
   *
   * @param text in words, such as “only with Lamplight &gt;=1.2”
   */
  public record MendCondition(String text, boolean met) {}

  /**
   * A mod that a patch is only right with.
   *
   * @param mod the id of its card
   * @param answer of its fitting, absent for any variant
   */
  public record MendNeed(String mod, String versions, @MayBeAbsent String answer) {}

  /**
   * A mend as it stands.
   *
   * @param scope which records a patch is for; absent for a merge
   * @param names record keys or plugins of that scope
   * @param records that it holds
   * @param stale whether making it anew would give another plugin
   * @param reasons why, in words; empty when it is fresh
   * @param wrong where it would be wrong to use it as it is, in words
   * @param needed whether anything here calls for it
   * @param needs mods that a patch is only right with; {@code clashes} those that it never is, by
   *     id
   * @param decisions how many records in it you have decided on
   * @param sources of a merge, in load order
   * @param carried of combined files, those into which one mod's change is carried: by path, its id
   * @param tool whose output it is; absent for others
   */
  public record MendView(
      long mod,
      MendKind kind,
      String name,
      String version,
      String plugin,
      String builtAt,
      boolean on,
      @MayBeAbsent PatchScope.Kind scope,
      List<String> names,
      int records,
      boolean stale,
      List<String> reasons,
      List<String> wrong,
      boolean needed,
      List<Ingredient> ingredients,
      List<MendCondition> conditions,
      List<MendNeed> needs,
      List<String> clashes,
      List<String> credits,
      int decisions,
      List<String> sources,
      Map<String, String> carried,
      @MayBeAbsent Long tool) {}

  @Override
  public Map<Long, Integer> contributed(OpenWorkspace open) {
    return files.contributed(open);
  }

  public List<MendView> of(OpenWorkspace open) {
    List<Kept> all = store.of(open);
    if (all.isEmpty()) return List.of();
    Shares shares = patches.shares(open);
    return all.stream().map(k -> view(open, k, shares)).toList();
  }

  /** By mend the mods whose plugins it was made from, as far as they are in play. */
  public Map<Long, Set<Long>> patched(OpenWorkspace open) {
    Map<Long, Set<Long>> patched = new TreeMap<>();
    for (Kept k : store.of(open)) {
      Set<Long> mods = new TreeSet<>();
      for (String plugin : k.ingredients().plugins().keySet())
        open.picture().loadOrder().find(plugin).ifPresent(e -> mods.add(e.plugin().mod()));
      mods.addAll(files.contenders(open, k));
      mods.remove(k.mod());
      patched.put(k.mod(), mods);
    }
    return patched;
  }

  /** The mends that can be made anew without anybody: patches and combined files. */
  public Set<Long> selfMade(OpenWorkspace open) {
    Set<Long> mends = new TreeSet<>();
    for (Kept k : store.of(open)) if (k.isPatch() || k.isCombined()) mends.add(k.mod());
    return mends;
  }

  /**
   * What mends would hold if they were made anew. Nothing of it is written down.
   *
   * @param contents by game path
   * @param off the mends that would hold nothing
   * @param held by mend, its files that would not be in it
   */
  public record MadeAnew(
      Map<String, byte[]> contents, Set<Long> off, Map<Long, Set<String>> held) {}

  /** Makes mends anew of what is in play, for a set that is tried. */
  public MadeAnew anew(OpenWorkspace open, Set<Long> which) {
    Map<String, byte[]> contents = new TreeMap<>();
    Set<Long> off = new TreeSet<>();
    Map<Long, Set<String>> held = new TreeMap<>();
    Shares shares = null;
    for (Kept k : store.of(open)) {
      if (!which.contains(k.mod())) continue;
      if (k.isPatch()) {
        if (shares == null) shares = patches.shares(open);
        if (shares.of(k.mod()).isEmpty()) off.add(k.mod());
        else madeAnew(open, k, contents, held);
      } else {
        Map<String, byte[]> made = files.anew(open, k);
        contents.putAll(made);
        Set<String> gone = new TreeSet<>();
        for (MadeOf.MadeFile f : k.made().files())
          if (!made.containsKey(f.path())) gone.add(f.path());
        if (!gone.isEmpty()) held.put(k.mod(), gone);
      }
    }
    return new MadeAnew(contents, off, held);
  }

  // a patch of text is several files, and the set may need fewer of them
  private void madeAnew(
      OpenWorkspace open, Kept k, Map<String, byte[]> contents, Map<Long, Set<String>> held) {
    Map<String, byte[]> made = patches.files(open, patches.fresh(open, k));
    contents.putAll(made);
    if (!open.game().hasDocumentPlugins()) return;
    Set<String> gone = new TreeSet<>(MendStore.paths(open, k));
    gone.removeAll(made.keySet());
    if (!gone.isEmpty()) held.put(k.mod(), gone);
  }

  private MendView view(OpenWorkspace open, Kept k, Shares shares) {
    Mod mod = open.mods().get(k.mod());
    boolean on = MendStore.isOn(open, k.mod());
    List<String> reasons = List.of();
    if (on) reasons = reasons(open, k, shares);
    List<MendCondition> conditions = conditions(open, k);
    return new MendView(
        k.mod(),
        MendKind.of(k),
        mod.card().name(),
        mod.card().shownVersion(),
        k.plugin(),
        k.builtAt(),
        on,
        k.isPatch() ? k.recipe().scope().kind() : null,
        spelled(open, k.recipe().scope()),
        k.records(),
        !reasons.isEmpty(),
        reasons,
        on ? wrong(open, k, conditions) : List.of(),
        !k.isPatch() || !on || !shares.of(k.mod()).isEmpty(),
        ingredients(open, k),
        conditions,
        k.recipe().needs().stream()
            .map(c -> new MendNeed(c.mod(), c.versions(), c.answer()))
            .toList(),
        k.recipe().clashes(),
        mod.card().authors(),
        (int)
            k.made().records().keySet().stream()
                .filter(key -> !open.picture().arrangement().decisionsOn(key).isEmpty())
                .count(),
        k.recipe().merge() == null ? List.of() : k.recipe().merge().sources(),
        k.recipe().carried(),
        k.recipe().tool() == null ? null : k.recipe().tool().tool());
  }

  private List<String> reasons(OpenWorkspace open, Kept k, Shares shares) {
    if (k.isPatch()) return patches.reasons(open, k, shares);
    if (k.isOfTool()) return outputs.reasons(open, k);
    return k.isMerge() ? merges.reasons(open, k) : files.reasons(open, k);
  }

  // a scope keeps names as they compare; people know them as they are written
  private List<String> spelled(OpenWorkspace open, PatchScope scope) {
    return scope.names().stream()
        .map(
            name ->
                scope.kind() == PatchScope.Kind.PLUGINS
                    ? open.picture().loadOrder().find(name).map(LoadOrder.Entry::name).orElse(name)
                    : label(open, name))
        .toList();
  }

  private List<Ingredient> ingredients(OpenWorkspace open, Kept k) {
    if (k.isCombined()) return files.ingredients(open, k);
    if (k.isOfTool()) return outputs.ingredients(open, k);
    List<Ingredient> out = new ArrayList<>();
    k.ingredients()
        .plugins()
        .forEach(
            (name, sha256) -> {
              Optional<LoadOrder.Entry> e = open.picture().loadOrder().find(name);
              String now =
                  k.isPatch()
                      ? e.filter(LoadOrder.Entry::on).map(x -> x.plugin().sha256()).orElse("")
                      : merges.contentOf(open, k, name);
              IngredientState state = IngredientState.CHANGED;
              if (now.isEmpty()) state = IngredientState.GONE;
              else if (now.equals(sha256)) state = IngredientState.SAME;
              String modName = e.map(x -> open.nameOf(x.plugin().mod())).orElse("");
              String version =
                  e.map(x -> open.mods().get(x.plugin().mod()))
                      .map(m -> m == null ? "" : m.card().shownVersion())
                      .orElse("");
              out.add(new Ingredient(name, modName, version, state, sha256));
            });
    return out;
  }

  private List<MendCondition> conditions(OpenWorkspace open, Kept k) {
    List<MendCondition> out = new ArrayList<>();
    Map<String, List<Needs.Installed>> installed = open.installed();
    for (Needs.Checked c : Needs.of(open.mods().get(k.mod()).card(), installed)) {
      String range = c.need().versions().equals("*") ? "" : " " + c.need().versions();
      out.add(
          new MendCondition(
              "only with " + nameOf(installed, c.need().mod()) + range,
              c.state() == Needs.State.MET));
    }
    for (Recipe.Condition c : k.recipe().needs()) {
      if (c.answer() == null) continue;
      out.add(
          new MendCondition(
              "only with the variant “" + c.answer() + "” of " + nameOf(installed, c.mod()),
              open.mods().values().stream()
                  .filter(m -> m.card().id().equals(c.mod()) && open.inUse(m.id()))
                  .anyMatch(m -> fittings.answers(open, m.id()).contains(c.answer()))));
    }
    for (String c : k.recipe().clashes()) {
      boolean there = installed.getOrDefault(c, List.of()).stream().anyMatch(Needs.Installed::on);
      out.add(new MendCondition("never with " + nameOf(installed, c), !there));
    }
    return out;
  }

  /** Sets when a patch is right, and makes it anew, so that its card says so. */
  Job setConditions(long workspace, long mod, List<Recipe.Condition> needs, List<String> clashes) {
    Kept k = store.require(workspaces.get(workspace), mod);
    if (!k.isPatch())
      throw IroningException.of(
          "not-a-patch",
          k.plugin(),
          "It is no patch, and right wherever what it is made of is.",
          "Choose a patch.");
    for (Recipe.Condition c : needs) VersionRange.of(c.versions());
    Recipe recipe = Recipe.patch(k.recipe().name(), k.recipe().scope(), needs, clashes);
    return build(workspace, Optional.of(mod), recipe);
  }

  private static String nameOf(Map<String, List<Needs.Installed>> installed, String id) {
    return installed.getOrDefault(id, List.of()).stream()
        .findFirst()
        .map(i -> i.card().name())
        .orElse(id);
  }

  private List<String> wrong(OpenWorkspace open, Kept k, List<MendCondition> conditions) {
    List<String> wrong = new ArrayList<>();
    for (MendCondition c : conditions)
      if (!c.met()) wrong.add("It is right " + c.text() + ", and that is not so.");
    if (k.isCombined())
      for (String path : files.unsettled(open, k))
        wrong.add(path + " waits for you; until then the layers decide it.");
    LoadOrder order = open.picture().loadOrder();
    if (!k.isPatch()) return wrong;
    for (String name : k.ingredients().plugins().keySet()) {
      Optional<LoadOrder.Entry> e = order.find(name);
      if (e.isEmpty() || !e.get().on())
        wrong.add(name + " is not loaded, and the patch holds records of it.");
    }
    return wrong;
  }

  /**
   * Makes a patch anew, or a new one.
   *
   * @param mod the patch; empty for a new one
   * @param recipe what it is for, and when it is right, from now on
   */
  Job build(long workspace, Optional<Long> mod, Recipe recipe) {
    OpenWorkspace open = workspaces.get(workspace);
    MendStore.requirePlugins(open);
    Optional<Kept> before = mod.map(m -> store.require(open, m));
    boolean any =
        before.isPresent()
            ? !patches.shares(open).of(mod.get()).isEmpty()
            : !patches.wantedBy(open, recipe.scope()).isEmpty();
    if (!any)
      throw IroningException.of(
          "nothing-to-patch",
          open.profileName(),
          "No record combines into something that the game does not read already.",
          "Decide what needs a decision first; where none does, no patch is needed.");
    return jobs.start(
        workspace,
        Lane.GAME,
        "patch",
        "Build the patch",
        p -> {
          OpenWorkspace now = workspaces.get(workspace);
          Optional<Kept> kept = mod.map(m -> store.require(now, m));
          return patches.build(now, kept, recipe);
        });
  }

  /** The patch of the whole profile, made if there is none yet. */
  Job buildForProfile(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Optional<Kept> patch =
        store.of(open).stream()
            .filter(k -> k.isPatch() && k.recipe().scope().kind() == PatchScope.Kind.PROFILE)
            .findFirst();
    Recipe recipe =
        patch
            .map(Kept::recipe)
            .orElse(Recipe.patch(null, PatchScope.PROFILE, List.of(), List.of()));
    return build(workspace, patch.map(Kept::mod), recipe);
  }

  /** Makes one mend anew. */
  Job rebuild(long workspace, long mod) {
    Kept k = store.require(workspaces.get(workspace), mod);
    if (k.isOfTool()) throw needsTool(k);
    if (k.isPatch()) return build(workspace, Optional.of(mod), k.recipe());
    if (k.isCombined()) return combine(workspace, Set.of(), Optional.empty());
    return jobs.start(
        workspace,
        Lane.GAME,
        "merge",
        "Rebuild the merge",
        p -> {
          OpenWorkspace now = workspaces.get(workspace);
          merges.rebuild(now, store.require(now, mod));
          return mod;
        });
  }

  private static IroningException needsTool(Kept k) {
    return IroningException.of(
        "needs-tool",
        k.recipe().name(),
        "A tool made it, and it has to be run again.",
        "Run the tool, in Tools.");
  }

  /**
   * Makes all stale mends anew, but for what tools wrote: merges first, since patches are made of
   * what they hold.
   */
  Job rebuildStale(long workspace) {
    return jobs.start(
        workspace,
        Lane.GAME,
        "mends",
        "Rebuild all stale mends",
        p -> {
          long done = 0;
          List<Long> order = inOrder(workspaces.get(workspace));
          for (long mod : order) {
            p.at(done++, order.size(), "mends");
            rebuildIfStale(workspace, mod);
          }
          return null;
        });
  }

  private void rebuildIfStale(long workspace, long mod) throws IOException {
    // what was made just now changes what the next one is made of
    OpenWorkspace now = workspaces.get(workspace);
    Kept k = store.require(now, mod);
    MendView view = view(now, k, patches.shares(now));
    if (!view.stale()) return;
    if (k.isCombined()) files.build(now, Set.of(), Optional.empty());
    else if (k.isMerge()) merges.rebuild(now, k);
    else if (!patches.shares(now).of(mod).isEmpty()) patches.build(now, Optional.of(k), k.recipe());
  }

  private List<Long> inOrder(OpenWorkspace open) {
    return store.of(open).stream()
        .filter(k -> MendStore.isOn(open, k.mod()) && !k.isOfTool())
        .sorted((a, b) -> Boolean.compare(a.isPatch(), b.isPatch()))
        .map(Kept::mod)
        .toList();
  }

  /** Puts more files into the profile's mend of combined files, and makes it anew. */
  Job combine(long workspace, Set<String> paths, Optional<String> carrying) {
    return jobs.start(
        workspace,
        Lane.GAME,
        "combined",
        "Combine files",
        p -> files.build(workspaces.get(workspace), paths, carrying));
  }

  /** Files that several mods change and that wait for the user, and in no mend that says so. */
  public List<String> filesAsked(OpenWorkspace open) {
    List<String> asked = contests.asked(open.value());
    if (asked.isEmpty()) return asked;
    Set<String> told = new TreeSet<>();
    files.mend(open).ifPresent(k -> told.addAll(k.recipe().files()));
    return asked.stream().filter(p -> !told.contains(p)).toList();
  }

  /** Makes a merge, and the patches anew that named its sources. */
  Job merge(long workspace, String name, List<String> sources, String target, boolean combining) {
    OpenWorkspace open = workspaces.get(workspace);
    String file = merges.target(open, target, sources);
    Merges.refuse(merges.plan(open, sources, file, combining));
    return jobs.start(
        workspace,
        Lane.GAME,
        "merge",
        "Merge " + sources.size() + " plugins",
        p -> {
          long mod = merges.make(workspace, name, sources, file, combining);
          for (long other : inOrder(workspaces.get(workspace)))
            if (other != mod) rebuildIfStale(workspace, other);
          return mod;
        });
  }

  /** Switches a merge off and its sources on again, and makes the patches anew that named it. */
  Job takeBack(long workspace, long mod) {
    Merges.requireMerge(store.require(workspaces.get(workspace), mod));
    return jobs.start(
        workspace,
        Lane.GAME,
        "merge",
        "Take the merge back",
        p -> {
          merges.takeBack(workspace, mod);
          for (long other : inOrder(workspaces.get(workspace)))
            if (other != mod) rebuildIfStale(workspace, other);
          return mod;
        });
  }

  /**
   * A record, or a file, that a mend would hold differently if it were made anew.
   *
   * @param before absent where it would come in; {@code after} where it would go
   */
  public record MendRecordChange(
      String key, String label, @MayBeAbsent String before, @MayBeAbsent String after) {}

  /**
   * What making a mend anew would change in its plugin.
   *
   * @param records the first of them, by key
   */
  public record MendDifferenceView(int inAll, List<MendRecordChange> records) {}

  /** What making a mend anew would change in its plugin. */
  MendDifferenceView difference(long workspace, long mod) {
    OpenWorkspace open = workspaces.get(workspace);
    Kept k = store.require(open, mod);
    if (k.isOfTool()) throw needsTool(k);
    if (k.isCombined()) {
      List<MendRecordChange> changes =
          files.difference(open, k).stream()
              .map(
                  c ->
                      new MendRecordChange(
                          c.path(), c.path(), c.before().orElse(null), c.after().orElse(null)))
              .toList();
      return new MendDifferenceView(changes.size(), changes);
    }
    MendDifference d = open.game().hasDocumentPlugins() ? ofText(open, k) : ofPlugin(open, k);
    return new MendDifferenceView(
        d.inAll(),
        d.changes().stream()
            .map(
                c ->
                    new MendRecordChange(
                        c.key().toString(),
                        label(open, c.key().toString()),
                        c.before().map(Mends::said).orElse(null),
                        c.after().map(Mends::said).orElse(null)))
            .toList());
  }

  private MendDifference ofPlugin(OpenWorkspace open, Kept k) {
    byte[] was = store.plugin(open, k);
    byte[] is =
        k.isPatch()
            ? patches.files(open, patches.fresh(open, k)).values().iterator().next()
            : merges.fresh(open, k);
    try {
      return MendDifference.between(
          open.value().files().format(open.game()),
          k.plugin(),
          was,
          is,
          Shapes.of(open.game()),
          MOST_SHOWN);
    } catch (IOException e) {
      throw RecordIndex.unreadable(k.plugin(), e);
    }
  }

  private MendDifference ofText(OpenWorkspace open, Kept k) {
    RecordTable was = store.ofText(open, k);
    RecordTable is = MendStore.read(open, k.plugin(), patches.files(open, patches.fresh(open, k)));
    // the values are in memory
    RecordTable.Bytes none = (offset, length) -> new byte[0];
    return MendDifference.between(was, none, is, none, MOST_SHOWN);
  }

  private String label(OpenWorkspace open, String key) {
    int record = Ref.parse(key).map(open.get(RECORDS).index()::find).orElse(-1);
    return record < 0 ? key : open.get(RECORDS).index().label(record);
  }

  private static String said(Plugin.Record record) {
    return record.fields().map(f -> PluginText.node(f).toString()).orElse("removed");
  }
}
