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
import ironing.core.trouble.SearchedParts;
import ironing.server.deploy.Deployments;
import ironing.server.mends.Mends;
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
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Searches as they are written down. What one has tried is in the database before anything else
 * happens, so that a search goes on where a server has died.
 */
@Component
class Searches {
  private final SearchMapper db;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;
  private final Deployments deployments;
  private final Mends mends;
  private final Events events;
  private final Json json;
  private final TransactionTemplate transaction;

  Searches(
      SearchMapper db,
      OpenWorkspaces workspaces,
      Profiles profiles,
      Deployments deployments,
      Mends mends,
      Events events,
      Json json,
      TransactionTemplate transaction) {
    this.db = db;
    this.workspaces = workspaces;
    this.profiles = profiles;
    this.deployments = deployments;
    this.mends = mends;
    this.events = events;
    this.json = json;
    this.transaction = transaction;
  }

  /** The same search, where no other of its workspace goes on. */
  Search requireIdle(Search search) {
    requireNone(search.workspace());
    return search;
  }

  int tries(SearchRow row) {
    return db.tries(row.id()).size();
  }

  void requireNone(long workspace) {
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

  /** Writes a search down that begins. */
  Search added(SearchRow row) {
    NewSearch made = new NewSearch();
    db.add(row, made);
    tell(row.workspaceId(), made.getId());
    return get(row.workspaceId(), made.getId());
  }

  /** Writes down how a try went. */
  void addTry(TryRow row) {
    db.addTry(row);
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
    OpenWorkspace arranged =
        all.as(open.picture().rearranged(search.searched().arranged(base, set)));
    Map<String, byte[]> contents = new HashMap<>();
    arranged = withMends(search, arranged, contents);
    try {
      contents.putAll(SearchedInside.contents(all.value(), search.searched(), search.known(), set));
      return new TrialSet(arranged, contents);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** With the mends that are made anew for each set as they are for this one. */
  private OpenWorkspace withMends(Search search, OpenWorkspace set, Map<String, byte[]> contents) {
    Set<Long> which = new HashSet<>();
    for (long m : root(search).searched().always())
      if (set.mods().containsKey(m) && set.mods().get(m).isMend()) which.add(m);
    if (which.isEmpty()) return set;
    // whose decisions are the user's
    Mends.MadeAnew made = mends.anew(set.as(search.row().profileId(), set.picture()), which);
    contents.putAll(made.contents());
    if (made.off().isEmpty() && made.held().isEmpty()) return set;
    Arrangement was = set.picture().arrangement();
    Map<Long, Set<String>> held = new HashMap<>(was.heldBack());
    made.held()
        .forEach(
            (mod, paths) ->
                held.merge(
                    mod,
                    paths,
                    (a, b) -> {
                      Set<String> both = new TreeSet<>(a);
                      both.addAll(b);
                      return both;
                    }));
    return set.as(
        set.picture()
            .rearranged(
                was.withHeldBack(held)
                    .withLayers(
                        was.layers().stream()
                            .map(l -> made.off().contains(l.mod()) ? l.withOn(false) : l)
                            .toList())));
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
        TryRow.told(
            search.id(), Search.written(asked.set()), asked.why(), run, answer, byUser, note));
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
    if (search.next() instanceof Next.Measured) state = SearchState.MEASURED;
    if (search.next() instanceof Next.NotShown) state = SearchState.NOT_SHOWN;
    if (search.next() instanceof Next.GoesWithNone) state = SearchState.NONE;
    List<Part> found = search.next() instanceof Next.Found f ? search.parts(f.set()) : List.of();
    db.end(search.id(), state, json.write(found));
    tell(search.workspace(), search.id());
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
