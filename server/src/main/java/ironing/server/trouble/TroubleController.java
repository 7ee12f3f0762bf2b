package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.trouble.Fault;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.testrun.Runs;
import ironing.server.testrun.Signs;
import ironing.server.trouble.MeasuredViews.MeasureRequest;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.trouble.TroubleViews.AnswerRequest;
import ironing.server.trouble.TroubleViews.FaultRequest;
import ironing.server.trouble.TroubleViews.SearchLine;
import ironing.server.trouble.TroubleViews.SearchRequest;
import ironing.server.trouble.TroubleViews.SearchView;
import ironing.server.trouble.TroubleViews.SuspectsView;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Searches for what causes a fault. */
@RestController
@RequestMapping("/api/workspaces/{workspace}")
class TroubleController {
  private final Searches searches;
  private final Beginnings beginnings;
  private final SearchRunner runner;
  private final Suspecting suspecting;
  private final OpenWorkspaces workspaces;
  private final Runs runs;
  private final Signs signs;
  private final Jobs jobs;
  private final FindingOfSearch finding;

  TroubleController(
      Searches searches,
      Beginnings beginnings,
      SearchRunner runner,
      Suspecting suspecting,
      OpenWorkspaces workspaces,
      Runs runs,
      Signs signs,
      Jobs jobs,
      FindingOfSearch finding) {
    this.searches = searches;
    this.beginnings = beginnings;
    this.runner = runner;
    this.suspecting = suspecting;
    this.workspaces = workspaces;
    this.runs = runs;
    this.signs = signs;
    this.jobs = jobs;
    this.finding = finding;
  }

  /** Who is suspected of a fault, before anything is tried. */
  @PostMapping("/suspects")
  SuspectsView suspects(@PathVariable long workspace, @RequestBody FaultRequest body) {
    OpenWorkspace open = workspaces.get(workspace);
    Fault fault = body.fault();
    Set<Long> about = Beginnings.about(open, fault, Optional.ofNullable(body.about()));
    return TroubleViews.suspects(
        open,
        fault,
        about,
        suspecting.of(open, fault, body.named()),
        suspecting.earlier(open, fault));
  }

  /** The searches of the workspace, the newest first. */
  @GetMapping("/searches")
  List<SearchLine> searches(@PathVariable long workspace) {
    workspaces.site(workspace);
    return searches.all(workspace).stream()
        .map(r -> TroubleViews.line(r, searches.fault(r), searches.tries(r)))
        .toList();
  }

  /** Begins a search among the mods that are on. */
  @PostMapping("/searches")
  @ResponseStatus(HttpStatus.CREATED)
  SearchView begin(@PathVariable long workspace, @RequestBody SearchRequest body) {
    Search search =
        beginnings.begin(
            workspace,
            body.fault().fault(),
            body.fault().named(),
            Optional.ofNullable(body.fault().about()),
            body.manner());
    if (search.row().isAutomatic()) runner.start(search);
    return view(searches.get(workspace, search.id()));
  }

  /** Begins to measure what a mod costs: it goes on, rests and is given up as a search. */
  @PostMapping("/measurements")
  @ResponseStatus(HttpStatus.CREATED)
  SearchView measure(@PathVariable long workspace, @RequestBody MeasureRequest body) {
    Search search =
        beginnings.measure(
            workspace, body.mod(), body.often(), TroubleViews.limitOf(body.limitSeconds()));
    runner.start(search);
    return view(searches.get(workspace, search.id()));
  }

  /** One search with all that it knows. */
  @GetMapping("/searches/{search}")
  SearchView search(@PathVariable long workspace, @PathVariable long search) {
    return view(searches.get(workspace, search));
  }

  private SearchView view(Search search) {
    return TroubleViews.view(
        workspaces.get(search.workspace()),
        search,
        searches.child(search),
        searches.orderOf(search),
        runs.goingTrial(search.workspace()));
  }

  /** Goes on by itself, from what it knows. */
  @PostMapping("/searches/{search}/go-on")
  ResponseEntity<Job> goOn(
      @PathVariable long workspace,
      @PathVariable long search,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Search s = searches.get(workspace, search);
    if (!s.fault().isTold()) throw Searches.byHand(s.fault());
    SearchRunner.requireAsked(s);
    searches.setAutomatic(s, true);
    return JobController.accepted(jobs, runner.start(s), prefer);
  }

  /** Puts the set to try next into the game folder and starts the game, for you to play. */
  @PostMapping("/searches/{search}/play")
  ResponseEntity<Job> play(
      @PathVariable long workspace,
      @PathVariable long search,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, runner.play(searches.get(workspace, search)), prefer);
  }

  /** Says how the set that was to be tried did. */
  @PostMapping("/searches/{search}/answers")
  SearchView answer(
      @PathVariable long workspace, @PathVariable long search, @RequestBody AnswerRequest body) {
    return view(runner.answered(searches.get(workspace, search), body.answer()));
  }

  /** Takes an answer back; the search goes on from what is left. */
  @DeleteMapping("/searches/{search}/answers/{answer}")
  SearchView takeBack(
      @PathVariable long workspace, @PathVariable long search, @PathVariable long answer) {
    searches.takeBack(searches.get(workspace, search), answer);
    return view(searches.get(workspace, search));
  }

  /** Stops for now: the game folder is made as it was before the search. */
  @PostMapping("/searches/{search}/rest")
  ResponseEntity<Job> rest(
      @PathVariable long workspace,
      @PathVariable long search,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Search s = searches.get(workspace, search);
    SearchRunner.requireAsked(s);
    return JobController.accepted(jobs, runner.stop(s, SearchState.RESTING), prefer);
  }

  /** Gives a search up: the game folder is made as it was before it. */
  @DeleteMapping("/searches/{search}")
  ResponseEntity<Job> leave(
      @PathVariable long workspace,
      @PathVariable long search,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Search s = searches.get(workspace, search);
    SearchRunner.requireAsked(s);
    return JobController.accepted(jobs, runner.stop(s, SearchState.LEFT), prefer);
  }

  /** Goes on inside of what was found: which file, which record, which field. */
  @PostMapping("/searches/{search}/inside")
  @ResponseStatus(HttpStatus.CREATED)
  SearchView inside(@PathVariable long workspace, @PathVariable long search) {
    Search inside =
        beginnings
            .inside(searches.requireIdle(searches.get(workspace, search)))
            .orElseThrow(
                () ->
                    IroningException.of(
                        "search-nothing",
                        "Search " + search,
                        "Nothing in what it found can be left out by itself.",
                        "What it found is all that can be told."));
    if (inside.row().isAutomatic()) runner.start(inside);
    return view(searches.get(workspace, inside.id()));
  }

  /**
   * A question with facts, for the author of a mod.
   *
   * @param markdown for people
   * @param facts the same for programs
   */
  record FactsView(String markdown, FaultFacts facts) {}

  /**
   * The facts of what was found, to ask a mod’s author with: no folder of yours, and of mods only
   * those behind it.
   */
  @GetMapping("/searches/{search}/question")
  FactsView question(@PathVariable long workspace, @PathVariable long search) {
    FaultFacts facts = facts(searches.get(workspace, search));
    return new FactsView(facts.markdown(), facts);
  }

  private FaultFacts facts(Search search) {
    List<Search> chain = searches.chain(search);
    List<Signs.Told> told =
        signs.told(workspaces.get(search.workspace()), FaultFacts.concerned(chain.get(0)));
    return FaultFacts.of(searches.before(search), chain, told);
  }

  /** Writes what was found down as a finding of yours, with its proof. */
  @PostMapping("/searches/{search}/finding")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void writeFinding(@PathVariable long workspace, @PathVariable long search) {
    List<Search> chain = searches.chain(searches.get(workspace, search));
    finding.write(workspaces.get(workspace), chain.get(0), facts(chain.get(0)));
  }
}
