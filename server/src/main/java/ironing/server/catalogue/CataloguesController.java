package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.server.catalogue.CatalogueSearch.Page;
import ironing.server.catalogue.CatalogueSearch.Query;
import ironing.server.catalogue.CatalogueViews.CatalogueView;
import ironing.server.catalogue.CatalogueViews.FoundMods;
import ironing.server.catalogue.CatalogueViews.OfferedModView;
import ironing.server.catalogue.CatalogueViews.TagView;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The catalogues of a workspace, and what they offer. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/catalogues")
class CataloguesController {
  private static final int MOST_ROWS = 200;
  private final Catalogues catalogues;
  private final CatalogueSearch search;
  private final CatalogueViews views;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  CataloguesController(
      Catalogues catalogues,
      CatalogueSearch search,
      CatalogueViews views,
      OpenWorkspaces workspaces,
      Jobs jobs) {
    this.catalogues = catalogues;
    this.search = search;
    this.views = views;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * @param address https://… or http://…, or the full path of a folder
   */
  record AddCatalogueRequest(String address) {
    AddCatalogueRequest {
      Objects.requireNonNull(address, "address");
    }
  }

  /**
   * @param daily whether it is looked at each day
   */
  record DailyRequest(boolean daily) {}

  /**
   * @param order the numbers of all catalogues; what is needed is looked for in this order
   */
  record CatalogueOrderRequest(List<Long> order) {
    CatalogueOrderRequest {
      Objects.requireNonNull(order, "order");
    }
  }

  /**
   * @param fingerprint of the key that the last look found
   */
  record TrustRequest(String fingerprint) {
    TrustRequest {
      Objects.requireNonNull(fingerprint, "fingerprint");
    }
  }

  /** The catalogues that the workspace knows, in the order in which something is looked for. */
  @GetMapping
  List<CatalogueView> catalogues(@PathVariable long workspace) {
    return catalogues.all(workspace).stream().map(views::view).toList();
  }

  /** Adds a catalogue and looks at it. The job's result is its number. */
  @PostMapping
  ResponseEntity<Job> addCatalogue(
      @PathVariable long workspace,
      @RequestBody AddCatalogueRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, catalogues.add(workspace, body.address()), prefer);
  }

  /** Says in which order something is looked for. */
  @PutMapping("/order")
  List<CatalogueView> orderCatalogues(
      @PathVariable long workspace, @RequestBody CatalogueOrderRequest body) {
    catalogues.arrange(workspace, body.order());
    return catalogues(workspace);
  }

  /** Forgets a catalogue; what came from it stays. */
  @DeleteMapping("/{catalogue}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeCatalogue(@PathVariable long workspace, @PathVariable long catalogue) {
    catalogues.remove(workspace, catalogue);
  }

  /** Looks whether a catalogue offers something new. */
  @PostMapping("/{catalogue}/look")
  ResponseEntity<Job> lookAtCatalogue(
      @PathVariable long workspace,
      @PathVariable long catalogue,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, catalogues.look(workspace, catalogue), prefer);
  }

  /** Says whether a catalogue is looked at each day. */
  @PutMapping("/{catalogue}/daily")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void setDaily(
      @PathVariable long workspace, @PathVariable long catalogue, @RequestBody DailyRequest body) {
    catalogues.setDaily(workspace, catalogue, body.daily());
  }

  /** Trusts the key that the last look found, and looks again. */
  @PostMapping("/{catalogue}/trust")
  ResponseEntity<Job> trustKey(
      @PathVariable long workspace,
      @PathVariable long catalogue,
      @RequestBody TrustRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs, catalogues.trust(workspace, catalogue, body.fingerprint()), prefer);
  }

  /**
   * Mods that catalogues offer, the best match first, else the newest.
   *
   * @param search words that a mod's words begin with
   * @param tag a word that the mod has; empty for any
   * @param author who has made it; empty for anybody
   * @param fits only those that go with the game's version
   * @param nothingMore only those that need nothing that is not on
   */
  @GetMapping("/mods")
  FoundMods offeredMods(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String search,
      @RequestParam(defaultValue = "") String tag,
      @RequestParam(defaultValue = "") String author,
      @RequestParam(defaultValue = "false") boolean fits,
      @RequestParam(defaultValue = "false") boolean nothingMore,
      @RequestParam(defaultValue = "0") int offset,
      @RequestParam(defaultValue = "50") int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    int from = Math.max(0, offset), count = Math.min(MOST_ROWS, Math.max(0, limit));
    Page page =
        this.search.find(open, new Query(search, tag, author, fits, nothingMore, from, count));
    return new FoundMods(
        page.mods().stream().map(o -> views.found(open, o)).toList(), page.total(), page.isMore());
  }

  /** The tags that most mods have. */
  @GetMapping("/tags")
  List<TagView> offeredTags(@PathVariable long workspace) {
    return search.tags(workspaces.get(workspace)).stream().map(TagView::of).toList();
  }

  /** One mod, as each catalogue that offers it says. */
  @GetMapping("/mods/{mod}")
  List<OfferedModView> offeredMod(@PathVariable long workspace, @PathVariable String mod) {
    List<Catalogues.Offered> offered =
        catalogues.offered(workspace, List.of(mod)).getOrDefault(mod, List.of());
    if (offered.isEmpty()) {
      throw IroningException.of(
          "not-found",
          "“" + mod + "”",
          "No catalogue of this workspace offers such a mod.",
          "Look at the catalogues again, or search for another.");
    }
    return offered.stream().map(OfferedModView::of).toList();
  }
}
