package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Fault;
import ironing.core.trouble.Fault.Kind;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.SearchedInside;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.SearchedMods;
import ironing.core.trouble.SearchedMods.InSets;
import ironing.core.trouble.SearchedMods.MendsOf;
import ironing.core.trouble.SearchedParts;
import ironing.core.trouble.Suspects;
import ironing.server.deploy.Deployments;
import ironing.server.deploy.OwnSaves;
import ironing.server.mends.Mends;
import ironing.server.mends.Mends.MendView;
import ironing.server.platform.Json;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.trouble.SearchMapper.TryRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** How searches begin: among mods, inside of what another one has found, or to measure. */
@Component
class Beginnings {
  private static final String TRIAL = "Sets that are tried";
  private final Searches searches;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;
  private final Deployments deployments;
  private final OwnSaves saves;
  private final Suspecting suspecting;
  private final Mends mends;
  private final Json json;
  private final TransactionTemplate transaction;

  Beginnings(
      Searches searches,
      OpenWorkspaces workspaces,
      Profiles profiles,
      Deployments deployments,
      OwnSaves saves,
      Suspecting suspecting,
      Mends mends,
      Json json,
      TransactionTemplate transaction) {
    this.searches = searches;
    this.workspaces = workspaces;
    this.profiles = profiles;
    this.deployments = deployments;
    this.saves = saves;
    this.suspecting = suspecting;
    this.mends = mends;
    this.json = json;
    this.transaction = transaction;
  }

  /**
   * How a search is to be made.
   *
   * @param automatic whether it goes on by itself; else the user plays and says how it went
   * @param limitSeconds how long one run may take
   * @param mends what becomes of them in a set
   * @param inSteps whether the set is built up in steps, to stop at the first that fails
   * @param wholeFirst how often the whole set is tried first, to see whether the fault comes every
   *     time
   */
  record Manner(
      boolean automatic, int limitSeconds, InSets mends, boolean inSteps, int wholeFirst) {}

  /**
   * Begins a search among the mods that are on.
   *
   * @param about the mod without which the fault has no meaning, such as one whose sign is missing:
   *     it and what it needs are in play in every set
   * @throws IroningException with code {@code search-goes-on} where another is not over, {@code
   *     search-by-hand} where no run can tell the fault, {@code search-not-deployed} where the game
   *     folder is not as arranged, or {@code search-nothing} where no mod is on
   */
  Search begin(long workspace, Fault fault, Named named, Optional<Long> about, Manner manner) {
    OpenWorkspace open = workspaces.get(workspace);
    searches.requireNone(workspace);
    if (manner.automatic() && !fault.isTold()) throw Searches.byHand(fault);
    // a set that is built up need never have been in the folder as a whole
    if (!manner.inSteps()) requireTold(open);
    MendsOf made = mendsOf(open, manner.mends());
    SearchedParts searched =
        SearchedMods.of(
            open.value(),
            made,
            suspecting.of(open, fault, named).reasons(),
            about(open, fault, about),
            manner.inSteps());
    if (searched.parts().isEmpty())
      throw IroningException.of(
          "search-nothing",
          open.title(),
          "No mod is on that could be left out, so none can be behind it.",
          "Look at the game itself, or switch on the mods with which it shows.");
    return begun(open, fault, named, manner, searched, null);
  }

  /** The mods that a fault is about; of a file that is not read, whoever brings it. */
  static Set<Long> about(OpenWorkspace open, Fault fault, Optional<Long> named) {
    named.ifPresent(open::required);
    return named
        .or(
            () ->
                fault.kind() == Kind.NOT_READ
                    ? Suspects.bringerOf(open.value(), fault.name())
                    : Optional.empty())
        .map(Set::of)
        .orElse(Set.of());
  }

  /**
   * Begins to measure what a mod costs: the set that is deployed is run with it and without it.
   *
   * @param times how often each
   * @throws IroningException as {@link #begin}, or with code {@code search-nothing} where the mod
   *     is off
   */
  Search measure(long workspace, long mod, int times, int limitSeconds) {
    OpenWorkspace open = workspaces.get(workspace);
    searches.requireNone(workspace);
    requireTold(open);
    Manner manner = new Manner(true, limitSeconds, InSets.KEPT, false, 1);
    SearchedParts searched =
        SearchedMods.of(open.value(), mendsOf(open, InSets.KEPT), Map.of(), Set.of(), false);
    int part = searched.parts().indexOf(Part.ofMod(mod));
    if (part < 0)
      throw IroningException.of(
          "search-nothing",
          open.mods().containsKey(mod) ? open.nameOf(mod) : "Mod " + mod,
          "It is not on, so the set without it is the same.",
          "Switch it on and deploy, then measure it.");
    Fault cost = new Fault(Kind.COSTS, open.nameOf(mod), "", Integer.toString(times));
    return begun(open, cost, new Named("", "", ""), manner, searched, part);
  }

  private Search begun(
      OpenWorkspace open,
      Fault fault,
      Named named,
      Manner manner,
      SearchedParts searched,
      Integer measured) {
    String arrangement = profiles.written(open.picture().arrangement());
    return searches.added(
        new SearchRow(
            0,
            open.workspace(),
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
            trialProfile(open),
            arrangement,
            arrangement,
            !deployments.laidOut(open).files().isEmpty(),
            null,
            measured,
            manner.wholeFirst()));
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

  private MendsOf mendsOf(OpenWorkspace open, InSets how) {
    Map<Long, List<String>> merged = new HashMap<>();
    for (MendView m : mends.of(open))
      if (m.on() && !m.sources().isEmpty()) merged.put(m.mod(), m.sources());
    return new MendsOf(mends.patched(open), merged, how, mends.selfMade(open));
  }

  /** The profile that sets are tried with: it begins with the settings and saves of the user’s. */
  private long trialProfile(OpenWorkspace open) {
    Optional<Long> known =
        searches.all(open.workspace()).stream().map(SearchRow::trialProfileId).findFirst();
    known.ifPresent(p -> profiles.renewAside(open, p));
    long trial = known.orElseGet(() -> profiles.createAside(open, TRIAL));
    if (saves.has(open)) saves.copy(open.as(trial, open.picture()), open.profile());
    return trial;
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
            null,
            null,
            1);
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
    Search made = searches.added(row);
    searches.addTry(
        TryRow.told(
            made.id(),
            Search.written(inside.members().all()),
            Next.Why.EVERYTHING,
            Optional.ofNullable(shown.runId()),
            Answer.FAILS,
            shown.isByUser(),
            ""));
    return searches.get(row.workspaceId(), made.id());
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
          // records of text are not left out one by one
          yield plugins.isEmpty() || all.game().hasDocumentPlugins()
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
}
