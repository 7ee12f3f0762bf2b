package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.core.catalogue.Catalogue;
import ironing.core.catalogue.Finding;
import ironing.core.catalogue.FindingLines;
import ironing.core.catalogue.Hrefs;
import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.catalogue.PartLines;
import ironing.core.catalogue.Signature;
import ironing.server.catalogue.CatalogueLook.Outcome;
import ironing.server.catalogue.CatalogueMapper.CatalogueRow;
import ironing.server.catalogue.CatalogueMapper.Due;
import ironing.server.catalogue.CatalogueMapper.NewCatalogue;
import ironing.server.fetch.Fetcher;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** The catalogues that a workspace knows, and looking at them. */
@Component
public class Catalogues {
  private final CatalogueMapper db;
  private final CatalogueSearchMapper offers;
  private final CatalogueLook look;
  private final Fetcher fetcher;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;
  private final Events events;
  private final Json json;

  Catalogues(
      CatalogueMapper db,
      CatalogueSearchMapper offers,
      CatalogueLook look,
      Fetcher fetcher,
      OpenWorkspaces workspaces,
      Jobs jobs,
      Events events,
      Json json) {
    this.db = db;
    this.offers = offers;
    this.look = look;
    this.fetcher = fetcher;
    this.workspaces = workspaces;
    this.jobs = jobs;
    this.events = events;
    this.json = json;
  }

  /**
   * A mod as a catalogue offers it.
   *
   * @param catalogue its number
   */
  public record Offered(long catalogue, String title, OfferedMod mod) {
    /** By what a wish names one release of it. */
    public String keyOf(Release r) {
      return catalogue + ":" + r.file().sha256();
    }
  }

  List<CatalogueRow> all(long workspace) {
    workspaces.game(workspace);
    return db.all(workspace);
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  CatalogueRow get(long workspace, long id) {
    CatalogueRow row = db.get(workspace, id);
    if (row != null) return row;
    throw IroningException.of(
        "not-found",
        "Catalogue " + id,
        "This workspace knows no such catalogue.",
        "Choose one of those that it knows.");
  }

  /** Adds a catalogue, and looks at it. */
  Job add(long workspace, String address) {
    String plain = plainAddress(address);
    NewCatalogue row = new NewCatalogue();
    workspaces.game(workspace);
    workspaces.note(
        workspace,
        "catalogues",
        "Added the catalogue " + plain,
        () -> {
          if (db.add(workspace, plain, row) == 0) throw alreadyKnown(plain);
        });
    return look(workspace, row.getId());
  }

  private static IroningException alreadyKnown(String address) {
    return IroningException.of(
        "catalogue-known",
        address,
        "This workspace knows this catalogue already.",
        "Look at it again, or name another address.");
  }

  /** The address of catalogue.json, or a folder of this machine. */
  private static String plainAddress(String text) {
    String t = text.strip();
    if (!t.matches("(?i)https?://.*")) return Folders.named(t).toString();
    try {
      URI uri = new URI(t);
      if (uri.getHost() == null || uri.getUserInfo() != null) throw noAddress(text);
      String path = uri.getPath() == null ? "" : uri.getPath();
      if (!path.endsWith("/" + Source.STATE)) path = path.replaceFirst("/*$", "/") + Source.STATE;
      return new URI(uri.getScheme(), null, uri.getHost(), uri.getPort(), path, null, null)
          .toString();
    } catch (URISyntaxException e) {
      throw noAddress(text);
    }
  }

  private static IroningException noAddress(String text) {
    return IroningException.of(
        "catalogue-address",
        "“" + text + "”",
        "This is no address of a catalogue.",
        "Write one such as https://example.org/mods, or the full path of a folder.");
  }

  /** Forgets a catalogue with all that it offers; nothing that came from it goes. */
  void remove(long workspace, long id) {
    CatalogueRow row = get(workspace, id);
    workspaces.note(
        workspace,
        "catalogues",
        "Removed the catalogue " + nameOf(row),
        () -> db.remove(workspace, id));
  }

  void setDaily(long workspace, long id, boolean daily) {
    get(workspace, id);
    db.setDaily(id, daily);
    events.tell(workspace, "catalogues", Map.of());
  }

  /**
   * In which order something is looked for in them.
   *
   * @param order all of their numbers
   */
  void arrange(long workspace, List<Long> order) {
    Set<Long> known = new TreeSet<>(all(workspace).stream().map(CatalogueRow::id).toList());
    if (order.size() != known.size() || !known.equals(new TreeSet<>(order))) {
      throw IroningException.of(
          "catalogue-order",
          "The order of the catalogues",
          "It does not name each of them once.",
          "Name all numbers of the catalogues of this workspace: " + known + ".");
    }
    for (int i = 0; i < order.size(); i++) db.setPosition(order.get(i), i + 1);
    events.tell(workspace, "catalogues", Map.of());
  }

  /**
   * Believes another key from now on, and looks again.
   *
   * @param fingerprint of the key that the last look found
   */
  Job trust(long workspace, long id, String fingerprint) {
    CatalogueRow row = get(workspace, id);
    LookView last = row.look() == null ? null : json.read(row.look(), LookView.class);
    if (last == null
        || last.otherKey() == null
        || !Signature.fingerprint(last.otherKey()).equals(fingerprint)) {
      throw IroningException.of(
          "catalogue-key-unknown",
          nameOf(row),
          "The last look found no key with this fingerprint.",
          "Look at the catalogue again, and compare the fingerprint that is shown.");
    }
    workspaces.note(
        workspace,
        "catalogues",
        "Trusts another key of the catalogue " + nameOf(row),
        () -> db.setKey(id, last.otherKey()));
    return look(workspace, id);
  }

  private static String nameOf(CatalogueRow row) {
    return row.title().isEmpty() ? row.address() : "“" + row.title() + "”";
  }

  /**
   * Looks at a catalogue. The job's result is the catalogue's number; it fails where it is refused.
   */
  Job look(long workspace, long id) {
    CatalogueRow named = get(workspace, id);
    String game = workspaces.game(workspace).id();
    return jobs.startWaiting(
        workspace,
        Lane.CATALOGUE,
        "look-at-catalogue",
        "Look at " + nameOf(named),
        progress -> {
          CatalogueRow row = get(workspace, id);
          Outcome outcome = look.look(row, source(row), game, progress);
          // what was taken has been written down with it
          if (!(outcome instanceof Outcome.Taken)) db.looked(id, json.write(LookView.of(outcome)));
          events.tell(workspace, "catalogues", Map.of("catalogue", id));
          if (outcome instanceof Outcome.Refused r) throw new IroningException(r.problems());
          return id;
        });
  }

  @Scheduled(fixedDelay = 600_000, initialDelay = 60_000)
  void lookDaily() {
    for (Due due : db.due()) look(due.workspaceId(), due.id());
  }

  private Source source(CatalogueRow row) {
    if (!row.address().startsWith("http")) return new Source.InFolder(Path.of(row.address()));
    return new Source.Served(fetcher, URI.create(row.address()), origins(row.workspaceId()));
  }

  /** The origins that the user has made catalogues. */
  public Set<String> origins(long workspace) {
    Set<String> out = new TreeSet<>();
    for (CatalogueRow c : db.all(workspace))
      if (c.address().startsWith("http")) out.add(Hrefs.origin(URI.create(c.address())));
    return out;
  }

  /**
   * Where a file lies that a catalogue names.
   *
   * @param uri over HTTP; empty where it lies in a folder
   * @param file in a folder; empty where it is fetched over HTTP
   * @param may where answers may lead on to
   */
  public record Place(Optional<URI> uri, Optional<Path> file, Fetcher.May may) {}

  /**
   * Finds the place of a file.
   *
   * @throws IroningException with code {@code not-found} where the catalogue is no longer known, or
   *     {@code href-foreign}, {@code href-invalid}
   * @throws IOException where a folder cannot be read
   */
  public Place place(long workspace, long catalogue, String href) throws IOException {
    CatalogueRow row = get(workspace, catalogue);
    List<String> hosts = row.state() == null ? List.of() : state(row).hosts();
    if (row.address().startsWith("http")) {
      Hrefs hrefs = new Hrefs(URI.create(row.address()), hosts);
      return new Place(
          Optional.of(hrefs.resolve(href)),
          Optional.empty(),
          new Fetcher.May(hrefs, origins(workspace)));
    }
    Path file = new Source.InFolder(Path.of(row.address())).inside(href);
    return new Place(
        Optional.empty(),
        Optional.of(file),
        new Fetcher.May(new Hrefs(file.toUri(), List.of()), Set.of()));
  }

  private static Catalogue state(CatalogueRow row) {
    return Catalogue.read(row.state().getBytes(StandardCharsets.UTF_8));
  }

  /**
   * By mod, the variant that is meant where nobody says one; of several catalogues the first
   * counts.
   */
  public Map<String, String> defaultVariants(long workspace) {
    Map<String, String> out = new HashMap<>();
    for (CatalogueRow c : db.all(workspace))
      if (c.state() != null) state(c).defaultVariant().forEach(out::putIfAbsent);
    return out;
  }

  /**
   * What is offered of some mods, by mod; of each the catalogues in the user's order. Other games'
   * mods are not told.
   */
  public Map<String, List<Offered>> offered(long workspace, Collection<String> mods) {
    Map<String, List<Offered>> out = new LinkedHashMap<>();
    if (mods.isEmpty()) return out;
    String game = workspaces.game(workspace).id();
    for (CatalogueSearchMapper.LineRow r : offers.lines(workspace, game, json.write(mods))) {
      OfferedMod mod = PartLines.again(r.line());
      out.computeIfAbsent(mod.mod(), m -> new ArrayList<>())
          .add(new Offered(r.catalogue(), r.title(), mod));
    }
    return out;
  }

  /** The bridges that catalogues offer and that stand between these mods, among others. */
  public List<Offered> bridges(long workspace, Collection<String> mods) {
    if (mods.isEmpty()) return List.of();
    String game = workspaces.game(workspace).id();
    return offers.bridges(workspace, game, json.write(mods)).stream()
        .map(r -> new Offered(r.catalogue(), r.title(), PartLines.again(r.line())))
        .toList();
  }

  /** The findings of catalogues about some mods, in the order of their lines. */
  public List<Finding> findings(long workspace, Collection<String> mods) {
    if (mods.isEmpty()) return List.of();
    return FindingLines.again(offers.findings(workspace, json.write(mods)));
  }
}
