package ironing.server.trouble;

import com.fasterxml.jackson.core.type.TypeReference;
import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.picture.Arrangement;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Fault;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.SearchedInside;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.SearchedMods;
import ironing.core.trouble.SearchedMods.MendsOf;
import ironing.core.trouble.SearchedParts;
import ironing.server.deploy.Deployments;
import ironing.server.deploy.OwnSaves;
import ironing.server.mends.Mends;
import ironing.server.mends.Mends.MendView;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.trouble.SearchMapper.NewSearch;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.trouble.SearchMapper.TryRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Searches as they are written down. What one has tried is in the database before anything else
 * happens, so that a search goes on where a server has died.
 */
@Component
class Searches {
  private static final String TRIAL = "Sets that are tried";
  private final SearchMapper db;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;
  private final Deployments deployments;
  private final OwnSaves saves;
  private final Suspecting suspecting;
  private final Mends mends;
  private final Events events;
  private final Json json;
  private final TransactionTemplate transaction;

  Searches(
      SearchMapper db,
      OpenWorkspaces workspaces,
      Profiles profiles,
      Deployments deployments,
      OwnSaves saves,
      Suspecting suspecting,
      Mends mends,
      Events events,
      Json json,
      TransactionTemplate transaction) {
    this.db = db;
    this.workspaces = workspaces;
    this.profiles = profiles;
    this.deployments = deployments;
    this.saves = saves;
    this.suspecting = suspecting;
    this.mends = mends;
    this.events = events;
    this.json = json;
    this.transaction = transaction;
  }

  /**
   * How a search is to be made.
   *
   * @param automatic whether it goes on by itself; else the user plays and says how it went
   * @param limitSeconds how long one run may take
   * @param mends whether a mend is in play where all is that it was made from; else none is
   * @param inSteps whether the set is built up in steps, to stop at the first that fails
   */
  record Manner(boolean automatic, int limitSeconds, boolean mends, boolean inSteps) {}

  /**
   * Begins a search among the mods that are on.
   *
   * @throws IroningException with code {@code search-goes-on} where another is not over, {@code
   *     search-by-hand} where no run can tell the fault, {@code search-not-deployed} where the game
   *     folder is not as arranged, or {@code search-nothing} where no mod is on
   */
  Search begin(long workspace, Fault fault, Named named, Manner manner) {
    OpenWorkspace open = workspaces.get(workspace);
    requireNone(workspace);
    if (manner.automatic() && !fault.isTold()) throw byHand(fault);
    // a set that is built up need never have been in the folder as a whole
    if (!manner.inSteps()) requireTold(open);
    MendsOf made = mendsOf(open, manner.mends());
    SearchedParts searched =
        SearchedMods.of(
            open.value(), made, suspecting.of(open, fault, named).reasons(), manner.inSteps());
    if (searched.parts().isEmpty())
      throw IroningException.of(
          "search-nothing",
          open.title(),
          "No mod is on, so none can be behind it.",
          "Look at the game itself, or switch on the mods with which it shows.");
    String arrangement = profiles.written(open.picture().arrangement());
    long trial = trialProfile(open);
    SearchRow row =
        new SearchRow(
            0,
            workspace,
            null,
            null,
            Level.MODS,
            SearchState.SEARCHING,
            manner.automatic(),
            manner.limitSeconds(),
            json.write(fault),
            json.write(named),
            json.write(searched),
            "[]",
            "[]",
            open.profile(),
            trial,
            arrangement,
            arrangement,
            !deployments.laidOut(open).files().isEmpty(),
            null);
    return added(row);
  }

  /** The same search, where no other of its workspace goes on. */
  Search requireIdle(Search search) {
    requireNone(search.workspace());
    return search;
  }

  int tries(SearchRow row) {
    return db.tries(row.id()).size();
  }

  private void requireNone(long workspace) {
    for (SearchRow r : db.all(workspace)) {
      if (!r.state().isOver()) throw goesOn(r);
    }
  }

  static IroningException goesOn(SearchRow r) {
    return IroningException.of(
        "search-goes-on",
        "Search " + r.id(),
        "It is not over yet, and a game folder has one search at a time.",
        "Go on with it, let it rest, or leave it.");
  }

  static IroningException byHand(Fault fault) {
    return IroningException.of(
        "search-by-hand",
        fault.name(),
        "No run can tell whether it is so.",
        "Search by hand, or name the fault by what the game says.");
  }

  // what shows the fault has to be known: what lies in the folder has to be what is arranged
  private void requireTold(OpenWorkspace open) {
    boolean nothing = deployments.laidOut(open).files().isEmpty();
    if (nothing || deployments.distance(open).total() == 0) return;
    throw IroningException.of(
        "search-not-deployed",
        open.title(),
        "Its folder is not as you have arranged it, so it is not known with what the fault shows.",
        "Deploy, see that the fault still shows, then search.");
  }

  private MendsOf mendsOf(OpenWorkspace open, boolean kept) {
    Map<Long, List<String>> merged = new HashMap<>();
    for (MendView m : mends.of(open))
      if (m.on() && !m.sources().isEmpty()) merged.put(m.mod(), m.sources());
    return new MendsOf(mends.patched(open), merged, kept);
  }

  /** The profile that sets are tried with: it begins with the settings and saves of the user’s. */
  private long trialProfile(OpenWorkspace open) {
    Optional<Long> known =
        db.all(open.workspace()).stream().map(SearchRow::trialProfileId).findFirst();
    known.ifPresent(p -> profiles.renewAside(open, p));
    long trial = known.orElseGet(() -> profiles.createAside(open, TRIAL));
    if (saves.has(open)) saves.copy(open.as(trial, open.picture()), open.profile());
    return trial;
  }

  private Search added(SearchRow row) {
    NewSearch made = new NewSearch();
    db.add(row, made);
    tell(row.workspaceId(), made.getId());
    return get(row.workspaceId(), made.getId());
  }

  private void tell(long workspace, long search) {
    events.tell(workspace, "search", Map.of("search", search));
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  Search get(long workspace, long id) {
    SearchRow row = db.search(workspace, id);
    if (row == null)
      throw IroningException.of(
          "not-found",
          "Search " + id,
          "There is no such search here.",
          "Choose one from the list.");
    return Search.of(
        row,
        json.read(row.fault(), Fault.class),
        json.read(row.named(), Named.class),
        json.read(row.parts(), SearchedParts.class),
        parts(row.known()),
        db.tries(id));
  }

  List<Part> parts(String text) {
    return json.read(text, new TypeReference<List<Part>>() {});
  }

  List<SearchRow> all(long workspace) {
    return db.all(workspace);
  }

  List<SearchRow> inFolder() {
    return db.inFolder();
  }

  /** Written down before a set of it is put into the game folder. */
  void comesIntoFolder(Search search) {
    db.setInFolder(root(search).id(), deployments.lastByUser(search.workspace()));
  }

  /** Written down after the last set of it was taken out. */
  void leftFolder(Search search) {
    db.setInFolder(root(search).id(), null);
  }

  /** Whether a set of it may lie in the game folder: none does once the user has deployed since. */
  boolean isInFolder(Search search) {
    Long after = root(search).row().inFolderAfter();
    return after != null && deployments.lastByUser(search.workspace()) <= after;
  }

  /** The search among mods inside of which another one goes on; itself where it is one. */
  Search root(Search search) {
    Search at = search;
    while (at.row().parentId() != null) at = get(at.workspace(), at.row().parentId());
    return at;
  }

  Fault fault(SearchRow row) {
    return json.read(row.fault(), Fault.class);
  }

  void setState(Search search, SearchState state) {
    db.setState(search.id(), state);
    tell(search.workspace(), search.id());
  }

  void setAutomatic(Search search, boolean automatic) {
    db.setAutomatic(search.id(), automatic);
    tell(search.workspace(), search.id());
  }

  /** What lies in the game folder while a set is tried. */
  record TrialSet(OpenWorkspace open, Map<String, byte[]> contents) {}

  /**
   * @throws IroningException with code {@code search-mod-gone} for each mod that is no longer in
   *     the library
   */
  TrialSet trial(Search search, BitSet set) {
    OpenWorkspace open = workspaces.get(search.workspace());
    requireThere(open, search);
    Arrangement base = profiles.read(open, search.row().base());
    OpenWorkspace all = open.as(search.row().trialProfileId(), open.picture().rearranged(base));
    Arrangement arranged = search.searched().arranged(base, set);
    try {
      return new TrialSet(
          all.as(open.picture().rearranged(arranged)),
          SearchedInside.contents(all.value(), search.searched(), search.known(), set));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void requireThere(OpenWorkspace open, Search search) {
    List<Problem> gone = new ArrayList<>();
    for (Part p : search.searched().parts()) {
      if (open.mods().containsKey(p.mod())) continue;
      gone.add(
          new Problem(
              "search-mod-gone",
              "Mod " + p.mod(),
              "It was removed since the search began, so no set with it can be tried.",
              "Bring it back from the bin, or leave the search and begin another."));
    }
    if (!gone.isEmpty()) throw new IroningException(gone);
  }

  /** What was arranged when the search began, with the user’s profile. */
  OpenWorkspace before(Search search) {
    OpenWorkspace open = workspaces.get(search.workspace());
    return arranged(open, search.row().profileId(), search.row().arrangement());
  }

  private OpenWorkspace arranged(OpenWorkspace open, long profile, String arrangement) {
    return open.as(profile, open.picture().rearranged(profiles.read(open, arrangement)));
  }

  /**
   * What lay in the game folder before the last set came into it.
   *
   * @param deployed whether anything did
   */
  record Before(OpenWorkspace open, boolean deployed) {}

  /** As it was when the search began, or as the user has deployed it between two tries. */
  Before inFolderBefore(Search search) {
    OpenWorkspace open = workspaces.get(search.workspace());
    return deployments
        .byUserSince(open, root(search).row().begunAt())
        .map(u -> new Before(arranged(open, u.profile(), u.arrangement()), u.deployed()))
        .orElseGet(() -> new Before(before(search), search.row().wasDeployed()));
  }

  /**
   * Writes down how trying a set went.
   *
   * @param asked what the search asked for
   */
  void tried(
      Search search,
      Next.Try asked,
      Optional<Long> run,
      Answer answer,
      boolean byUser,
      String note) {
    db.addTry(
        new TryRow(
            0,
            search.id(),
            Search.written(asked.set()),
            asked.why().name(),
            run.orElse(null),
            answer,
            byUser,
            note,
            null,
            ""));
    tell(search.workspace(), search.id());
  }

  /** The run of the set that is asked for; empty where it was not started from here. */
  Optional<Long> lastRun(Search search) {
    return Optional.ofNullable(db.lastTrial(search.workspace(), search.row().trialProfileId()));
  }

  /**
   * Takes an answer back; the search goes on from what is left, and what went on inside of it is
   * gone.
   *
   * @throws IroningException with code {@code not-found}, or {@code search-goes-on} while it, or
   *     one inside of it, tries sets by itself
   */
  void takeBack(Search search, long tryId) {
    for (Search s : chain(search)) {
      boolean inside = s.id() == search.id() || s.row().parentId() != null;
      if (inside && s.row().state() == SearchState.SEARCHING && s.row().isAutomatic())
        throw goesOn(s.row());
    }
    transaction.executeWithoutResult(
        t -> {
          if (db.removeTry(search.id(), tryId) == 0)
            throw IroningException.of(
                "not-found",
                "Answer " + tryId,
                "There is no such answer in this search.",
                "Look at it as it is now.");
          db.removeInside(search.id());
          if (search.row().state().isOver()) db.end(search.id(), SearchState.RESTING, "[]");
        });
    tell(search.workspace(), search.id());
  }

  /** Writes down what has come of a search; nothing where it is not over. */
  void settle(Search search) {
    if (search.next() instanceof Next.Try) return;
    SearchState state = SearchState.UNTOLD;
    if (search.next() instanceof Next.Found) state = SearchState.FOUND;
    if (search.next() instanceof Next.NotShown) state = SearchState.NOT_SHOWN;
    if (search.next() instanceof Next.GoesWithNone) state = SearchState.NONE;
    List<Part> found = search.next() instanceof Next.Found f ? search.parts(f.set()) : List.of();
    db.end(search.id(), state, json.write(found));
    tell(search.workspace(), search.id());
  }

  /**
   * The search that goes on inside of what another has found; empty where nothing is in there that
   * could be left out by itself.
   */
  Optional<Search> inside(Search search) {
    return begunInside(search, false);
  }

  /** The search whether it is the order of what another one has found; empty where it cannot be. */
  Optional<Search> order(Search search) {
    return search.row().level() == Level.MODS ? begunInside(search, true) : Optional.empty();
  }

  private Optional<Search> begunInside(Search search, boolean order) {
    if (!(search.next() instanceof Next.Found found)) return Optional.empty();
    OpenWorkspace open = workspaces.get(search.workspace());
    Arrangement base =
        search.searched().arranged(profiles.read(open, search.row().base()), found.set());
    OpenWorkspace all = open.as(open.picture().rearranged(base));
    List<Part> parts = search.parts(found.set());
    List<Part> known = new ArrayList<>(search.known());
    if (!order) known.addAll(parts);
    Optional<SearchedParts> inside =
        order
            ? Optional.of(SearchedInside.order(all.value(), parts, search.searched()))
            : inside(all, search, parts);
    if (inside.isEmpty() || inside.get().parts().isEmpty()) return Optional.empty();
    SearchRow r = search.row();
    SearchRow row =
        new SearchRow(
            0,
            r.workspaceId(),
            r.id(),
            null,
            inside.get().level(),
            SearchState.SEARCHING,
            r.isAutomatic(),
            r.limitSeconds(),
            r.fault(),
            r.named(),
            json.write(inside.get()),
            json.write(known),
            "[]",
            r.profileId(),
            r.trialProfileId(),
            r.arrangement(),
            profiles.written(base),
            r.wasDeployed(),
            null);
    return transaction.execute(
        t -> Optional.of(begunWith(row, inside.get(), shown(search, found))));
  }

  /** The try that showed the fault with what was found. */
  private static TryRow shown(Search search, Next.Found found) {
    String set = Search.written(found.set());
    return search.tries().stream()
        .filter(t -> t.answer() == Answer.FAILS && t.members().equals(set))
        .findFirst()
        .orElseThrow();
  }

  /** A search whose first answer is known already: with everything the fault shows. */
  private Search begunWith(SearchRow row, SearchedParts inside, TryRow shown) {
    Search made = added(row);
    db.addTry(
        new TryRow(
            0,
            made.id(),
            Search.written(inside.members().all()),
            Next.Why.EVERYTHING.name(),
            shown.runId(),
            Answer.FAILS,
            shown.isByUser(),
            "",
            null,
            ""));
    return get(row.workspaceId(), made.id());
  }

  private Optional<SearchedParts> inside(OpenWorkspace all, Search search, List<Part> parts) {
    Level level = search.row().level();
    try {
      return switch (level) {
        case MODS ->
            Optional.of(
                SearchedInside.files(
                    all.value(), parts.stream().map(Part::mod).toList(), search.named()));
        case FILES -> {
          List<Part> plugins = parts.stream().filter(p -> all.game().isPlugin(p.path())).toList();
          yield plugins.isEmpty()
              ? Optional.empty()
              : Optional.of(SearchedInside.records(all.value(), plugins, search.named()));
        }
        case RECORDS -> Optional.of(SearchedInside.fields(all.value(), parts));
        case FIELDS, ORDER -> Optional.empty();
      };
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The search that goes on inside of another one; empty where none does. */
  Optional<SearchRow> child(Search search) {
    return children(search).filter(r -> r.level() != Level.ORDER).findFirst();
  }

  /** The search whether it is the order of what another one has found; empty where none is. */
  Optional<SearchRow> orderOf(Search search) {
    return children(search).filter(r -> r.level() == Level.ORDER).findFirst();
  }

  private Stream<SearchRow> children(Search search) {
    return db.all(search.workspace()).stream()
        .filter(r -> r.parentId() != null && r.parentId() == search.id());
  }

  /**
   * The search among mods from which one goes on inside, and all that do so, from the outermost.
   */
  List<Search> chain(Search search) {
    Search at = root(search);
    List<Search> out = new ArrayList<>(List.of(at));
    for (Optional<SearchRow> c = child(at); c.isPresent(); c = child(at)) {
      at = get(search.workspace(), c.get().id());
      out.add(at);
    }
    return out;
  }

  /** A search and all that go on inside of it, whichever way. */
  List<Search> within(Search search) {
    List<Search> out = new ArrayList<>(List.of(search));
    children(search).forEach(r -> out.addAll(within(get(r.workspaceId(), r.id()))));
    return out;
  }
}
