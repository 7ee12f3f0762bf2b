package ironing.server.catalogue;

import ironing.core.catalogue.Catalogue;
import ironing.core.catalogue.OfferedMod;
import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.catalogue.PartLines.Mistake;
import ironing.core.catalogue.Signature;
import ironing.core.version.ModVersion;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.CatalogueMapper.CatalogueRow;
import ironing.server.catalogue.CatalogueSearchMapper.Counted;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Catalogues and what they offer, in the words of the API. */
@Component
class CatalogueViews {
  private final CatalogueMapper db;
  private final Json json;

  CatalogueViews(CatalogueMapper db, Json json) {
    this.db = db;
    this.json = json;
  }

  /**
   * A catalogue that the workspace knows.
   *
   * @param address of its catalogue.json, or a folder
   * @param title as it calls itself; empty before the first look
   * @param daily whether it is looked at each day
   * @param mods how many it offers
   * @param sequence of the state that is here; absent before the first
   * @param signedBy the fingerprint of its key; absent where it is not signed
   * @param takenAt when its state was taken; absent before the first
   * @param isExpired whether its state says of itself that it may be out of date
   * @param lookedAt when it was last looked at; absent before the first look
   * @param look what that came to
   * @param otherKey the fingerprint of a key that was found and is not believed; absent for none
   * @param mistakes lines that were left out, the first of them
   * @param findings how many findings it brings
   */
  record CatalogueView(
      long id,
      String address,
      String title,
      boolean daily,
      int mods,
      @MayBeAbsent Long sequence,
      @MayBeAbsent String signedBy,
      @MayBeAbsent String takenAt,
      boolean isExpired,
      @MayBeAbsent String lookedAt,
      @MayBeAbsent LookView look,
      @MayBeAbsent String otherKey,
      List<MistakeView> mistakes,
      int findings) {}

  /**
   * @param part the digest of the file that the line is in
   * @param line its number in that file, from 1
   */
  record MistakeView(String part, int line, String reason) {}

  CatalogueView view(CatalogueRow row) {
    List<MistakeView> mistakes = new ArrayList<>();
    int mods = 0;
    for (CatalogueMapper.PartRow p : db.parts(row.id())) {
      mods += p.mods();
      for (Mistake m : json.read(p.mistakes(), Mistake[].class))
        if (mistakes.size() < 100) mistakes.add(new MistakeView(p.sha256(), m.line(), m.reason()));
    }
    for (Mistake m : json.read(row.findingsMistakes(), Mistake[].class))
      if (mistakes.size() < 100)
        mistakes.add(new MistakeView(row.findingsSha256(), m.line(), m.reason()));
    LookView look = row.look() == null ? null : json.read(row.look(), LookView.class);
    boolean expired =
        row.state() != null
            && Catalogue.read(row.state().getBytes(StandardCharsets.UTF_8))
                .expires()
                .filter(e -> e.isBefore(Instant.now()))
                .isPresent();
    return new CatalogueView(
        row.id(),
        row.address(),
        row.title(),
        row.daily(),
        mods,
        row.sequence(),
        row.key() == null || row.key().isEmpty() ? null : Signature.fingerprint(row.key()),
        row.takenAt() == null ? null : row.takenAt().toString(),
        expired,
        row.lookedAt() == null ? null : row.lookedAt().toString(),
        look,
        look == null || look.otherKey() == null ? null : Signature.fingerprint(look.otherKey()),
        mistakes,
        db.findings(row.id()));
  }

  /**
   * A mod that was found.
   *
   * @param catalogue the first that offers it
   * @param catalogueTitle as that calls itself
   * @param newest its newest release that stands; absent where there is none
   * @param here the version that is in the library; absent for none
   * @param on whether that is on
   * @param hasNewer whether a release is newer than what is here
   */
  record FoundMod(
      String mod,
      String name,
      String summary,
      List<String> tags,
      List<String> authors,
      long catalogue,
      String catalogueTitle,
      @MayBeAbsent ReleaseView newest,
      @MayBeAbsent String here,
      boolean on,
      boolean hasNewer) {}

  FoundMod found(OpenWorkspace open, Catalogues.Offered o) {
    OfferedMod mod = o.mod();
    Optional<Mod> here = here(open, mod.mod());
    Optional<Release> newest = CatalogueTaking.newest(mod);
    boolean newer =
        here.isPresent()
            && newest.isPresent()
            && newest.get().version().compareTo(ModVersion.of(here.get().card().version())) > 0;
    return new FoundMod(
        mod.mod(),
        mod.name(),
        mod.summary(),
        mod.tags(),
        mod.authors(),
        o.catalogue(),
        o.title(),
        newest.map(CatalogueViews::release).orElse(null),
        here.map(m -> m.card().version()).orElse(null),
        here.isPresent() && open.inUse(here.get().id()),
        newer);
  }

  /** What of a mod is here: what is on, else the newest. */
  private static Optional<Mod> here(OpenWorkspace open, String id) {
    return open.mods().values().stream()
        .filter(m -> m.card().id().equals(id))
        .max(
            Comparator.comparing((Mod m) -> open.inUse(m.id()))
                .thenComparing(m -> ModVersion.of(m.card().version())));
  }

  /**
   * A page of what was found.
   *
   * @param total how many there are; the bound where there are more
   * @param isMore whether there are more than were counted
   */
  record FoundMods(List<FoundMod> mods, int total, boolean isMore) {}

  /**
   * A word that mods have, and how many.
   *
   * @param tag the word
   */
  record TagView(String tag, int mods) {
    static TagView of(Counted c) {
      return new TagView(c.word(), c.mods());
    }
  }

  /**
   * A mod as a catalogue offers it.
   *
   * @param catalogueTitle as the catalogue calls itself
   * @param releases the highest version first
   * @param page where its author tells of it; empty for none
   * @param requests what its author asks of those who hand on work made from it
   */
  record OfferedModView(
      long catalogue,
      String catalogueTitle,
      String mod,
      String name,
      String summary,
      List<String> tags,
      List<String> authors,
      String page,
      String requests,
      List<ReleaseView> releases) {
    static OfferedModView of(Catalogues.Offered o) {
      OfferedMod m = o.mod();
      return new OfferedModView(
          o.catalogue(),
          o.title(),
          m.mod(),
          m.name(),
          m.summary(),
          m.tags(),
          m.authors(),
          m.page(),
          m.requests(),
          m.releases().stream()
              .sorted(Comparator.comparing(Release::version).reversed())
              .map(CatalogueViews::release)
              .toList());
    }
  }

  /**
   * A release.
   *
   * @param at the day that it came out; empty for none
   * @param variant empty is the plain one
   * @param fileName of its archive
   * @param harmless whether its author says that no version of the game can break it
   * @param change how much it changes, as its author says
   * @param bridges it is only right where all of these are on
   * @param changes what is new in it, as Markdown
   * @param withdrawn why nobody should take it any more; empty where it stands
   */
  record ReleaseView(
      String version,
      String at,
      Kind kind,
      String variant,
      String title,
      String fileName,
      long sizeBytes,
      String sha256,
      String game,
      boolean harmless,
      List<OfferedNeedView> needs,
      List<ClashView> clashes,
      List<OfferedNeedView> bridges,
      Change change,
      String changes,
      String withdrawn) {}

  /**
   * @param variant the one that it has to be of; absent where any will do
   */
  record OfferedNeedView(String mod, String versions, @MayBeAbsent String variant) {
    static OfferedNeedView of(Need n) {
      return new OfferedNeedView(n.mod(), n.versions().toString(), n.variant().orElse(null));
    }
  }

  /** A mod that must not be on in these versions. */
  record ClashView(String mod, String versions, String why) {
    static ClashView of(Clash c) {
      return new ClashView(c.mod(), c.versions().toString(), c.why());
    }
  }

  static ReleaseView release(Release r) {
    return new ReleaseView(
        r.version().toString(),
        r.at(),
        r.kind(),
        r.variant(),
        r.title(),
        r.file().name(),
        r.file().size(),
        r.file().sha256(),
        r.game().toString(),
        r.harmless(),
        r.needs().stream().map(OfferedNeedView::of).toList(),
        r.clashes().stream().map(ClashView::of).toList(),
        r.bridges().stream().map(OfferedNeedView::of).toList(),
        r.change(),
        r.changes(),
        r.withdrawn());
  }
}
