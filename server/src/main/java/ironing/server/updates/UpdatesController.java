package ironing.server.updates;

import ironing.core.catalogue.Newer;
import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.version.ModVersion;
import ironing.server.catalogue.Catalogues.Offered;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.How;
import ironing.server.platform.MayBeAbsent;
import ironing.server.updates.Updates.Left;
import ironing.server.updates.Updates.LeftKind;
import ironing.server.updates.Updates.OfMod;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What is newer than what is here. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/updates")
class UpdatesController {
  private final Updates updates;
  private final Identities identities;
  private final OpenWorkspaces workspaces;

  UpdatesController(Updates updates, Identities identities, OpenWorkspaces workspaces) {
    this.updates = updates;
    this.identities = identities;
    this.workspaces = workspaces;
  }

  /**
   * A mod in use, and what the catalogues have of it.
   *
   * @param name as its card says
   * @param version that is here
   * @param variant that is here; empty is the plain one
   * @param catalogueMod the id that the catalogues know it by
   * @param how by what it is known there
   * @param catalogue the title of the one that offers it; absent where none does
   * @param newest absent where nothing is newer
   * @param since all that came since, the newest first
   * @param change the most that any of them changes
   * @param withdrawn why nobody should have what is here; empty where it stands
   * @param left what you do not want; absent for nothing
   * @param offered whether something is newer that you have not said no to
   * @param otherVariants the variants that are offered besides
   */
  record UpdateView(
      long mod,
      String name,
      String version,
      String variant,
      boolean on,
      String catalogueMod,
      How how,
      @MayBeAbsent String catalogue,
      @MayBeAbsent NewestView newest,
      List<SinceView> since,
      @MayBeAbsent Change change,
      String withdrawn,
      @MayBeAbsent LeftView left,
      boolean offered,
      List<String> otherVariants) {}

  /**
   * The release that an update would bring.
   *
   * @param release the key by which a choice wishes for it
   * @param at the day that it came out; empty for none
   * @param coversGame whether it is for the game’s version; absent where the game tells none
   */
  record NewestView(
      String version,
      String release,
      String at,
      long sizeBytes,
      String game,
      @MayBeAbsent Boolean coversGame) {}

  /**
   * A release between what is here and the newest.
   *
   * @param change how much it changes, as its author says
   * @param changes what is new in it, as Markdown
   */
  record SinceView(String version, String at, Change change, String changes) {}

  /**
   * @param version the newest that was there when it was said
   * @param at when it was said, RFC 3339
   */
  record LeftView(LeftKind kind, String version, String reason, String at) {
    static LeftView of(Left l) {
      return new LeftView(l.kind(), l.version(), l.reason(), l.at());
    }
  }

  /**
   * @param kind what is not wanted
   * @param reason why, in a sentence; may be empty
   */
  record LeaveRequest(LeftKind kind, String reason) {
    LeaveRequest {
      Objects.requireNonNull(kind, "kind");
      Objects.requireNonNull(reason, "reason");
    }
  }

  /**
   * @param catalogueMod the id in the catalogues; empty where it is none of them
   */
  record IdentityRequest(String catalogueMod) {
    IdentityRequest {
      Objects.requireNonNull(catalogueMod, "catalogueMod");
    }
  }

  /** Every mod in use that came from an archive, with what is newer of it. */
  @GetMapping
  List<UpdateView> updates(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return updates.of(open).stream().map(m -> view(open, m)).toList();
  }

  private static UpdateView view(OpenWorkspace open, OfMod m) {
    String variant = m.identity().variant(m.mod().card());
    Optional<ModVersion> game = open.gameVersion().map(ModVersion::of);
    return new UpdateView(
        m.mod().id(),
        m.mod().card().name(),
        m.version().toString(),
        variant,
        m.on(),
        m.identity().mod(),
        m.identity().how(),
        m.offered().map(Offered::title).orElse(null),
        m.newer().map(n -> newest(m.offered().orElseThrow(), n.newest(), game)).orElse(null),
        m.newer().map(Newer::between).orElse(List.of()).stream()
            .map(r -> new SinceView(r.version().toString(), r.at(), r.change(), r.changes()))
            .toList(),
        m.newer().map(Newer::change).orElse(null),
        m.same().map(Release::withdrawn).orElse(""),
        m.left().map(LeftView::of).orElse(null),
        m.isOffered(),
        m.offered().map(o -> o.mod().releases()).orElse(List.of()).stream()
            .map(Release::variant)
            .filter(v -> !v.equals(variant))
            .distinct()
            .sorted()
            .toList());
  }

  private static NewestView newest(Offered by, Release r, Optional<ModVersion> game) {
    return new NewestView(
        r.version().toString(),
        by.keyOf(r),
        r.at(),
        r.file().size(),
        r.game().toString(),
        game.map(g -> r.harmless() || r.game().contains(g)).orElse(null));
  }

  /** Leaves the update of a mod, with the reason. */
  @PutMapping("/{mod}/left")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void leaveUpdate(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody LeaveRequest body) {
    updates.leave(workspaces.get(workspace), mod, body.kind(), body.reason());
  }

  /** Offers the update of a mod again. */
  @DeleteMapping("/{mod}/left")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void offerUpdateAgain(@PathVariable long workspace, @PathVariable long mod) {
    updates.offerAgain(workspaces.get(workspace), mod);
  }

  /** Says which mod of the catalogues a mod is. */
  @PutMapping("/{mod}/identity")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void sayIdentity(
      @PathVariable long workspace, @PathVariable long mod, @RequestBody IdentityRequest body) {
    identities.say(workspaces.get(workspace), mod, body.catalogueMod());
  }

  /** Lets a mod be known by its card or its archive again. */
  @DeleteMapping("/{mod}/identity")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unsayIdentity(@PathVariable long workspace, @PathVariable long mod) {
    identities.unsay(workspaces.get(workspace), mod);
  }
}
