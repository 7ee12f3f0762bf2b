package ironing.server.updates;

import ironing.core.IroningException;
import ironing.core.catalogue.Newer;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.version.ModVersion;
import ironing.core.workspace.Mod;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Catalogues.Offered;
import ironing.server.catalogue.Identities;
import ironing.server.catalogue.Identities.Identity;
import ironing.server.updates.UpdatesMapper.LeftRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** What is newer of the mods that are in use. */
@Component
public class Updates {
  private static final int LONGEST_REASON = 400;
  private final Catalogues catalogues;
  private final Identities identities;
  private final UpdatesMapper db;
  private final OpenWorkspaces workspaces;

  Updates(
      Catalogues catalogues, Identities identities, UpdatesMapper db, OpenWorkspaces workspaces) {
    this.catalogues = catalogues;
    this.identities = identities;
    this.db = db;
    this.workspaces = workspaces;
  }

  /** What the user does not want. */
  enum LeftKind {
    /** This version; a newer one is offered again. */
    VERSION,
    /** Any, for good. */
    MOD,
    /** What is offered is another variant. */
    VARIANT;

    String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * @param version the newest that was there when it was said
   */
  record Left(LeftKind kind, String version, String reason, String at) {}

  /**
   * A mod that is in use, and what a catalogue has of it.
   *
   * @param offered as the first catalogue that has it says; empty where none has
   * @param newer empty where nothing is
   * @param same what the catalogue says of the very release that is here
   * @param left what the user does not want of it
   */
  public record OfMod(
      Mod mod,
      boolean on,
      Identity identity,
      Optional<Offered> offered,
      Optional<Newer> newer,
      Optional<Release> same,
      Optional<Left> left) {

    /** The version that is here. */
    public ModVersion version() {
      return identity.version(mod.card());
    }

    /** Whether there is something newer that the user has not said no to. */
    boolean isOffered() {
      if (newer.isEmpty()) return false;
      if (left.isEmpty()) return true;
      return left.get().kind == LeftKind.VERSION
          && newer.get().newest().version().compareTo(ModVersion.of(left.get().version)) > 0;
    }

    /** The newest release of its variant that covers a version of the game, if it is newer. */
    public Optional<ModVersion> covering(ModVersion game) {
      return newer.flatMap(
          n ->
              n.between().stream()
                  .filter(r -> r.harmless() || r.game().contains(game))
                  .map(Release::version)
                  .findFirst());
    }
  }

  /** All mods in use that came from an archive, in the order of their layers. */
  public List<OfMod> of(OpenWorkspace open) {
    Map<Long, Identity> known = identities.of(open);
    Map<Long, Left> left = new HashMap<>();
    for (LeftRow r : db.left(open.workspace())) left.put(r.strandId(), left(r));
    List<Layer> layers = open.picture().arrangement().layers();
    Set<String> ids = new TreeSet<>();
    for (Layer l : layers) if (known.containsKey(l.mod())) ids.add(known.get(l.mod()).mod());
    Map<String, List<Offered>> offered = catalogues.offered(open.workspace(), ids);
    List<OfMod> out = new ArrayList<>();
    for (Layer l : layers) {
      Identity identity = known.get(l.mod());
      if (identity == null) continue;
      Mod mod = open.mods().get(l.mod());
      List<Offered> all =
          identity.isOffered() ? offered.getOrDefault(identity.mod(), List.of()) : List.of();
      out.add(of(mod, l.on(), identity, all, Optional.ofNullable(left.get(mod.strand()))));
    }
    return out;
  }

  private static OfMod of(
      Mod mod, boolean on, Identity identity, List<Offered> offered, Optional<Left> left) {
    ModVersion here = identity.version(mod.card());
    String variant = identity.variant(mod.card());
    List<Release> releases =
        offered.stream().map(o -> o.mod().releases()).flatMap(Collection::stream).toList();
    Optional<Newer> newer = Newer.than(here, variant, releases);
    Optional<Offered> by =
        newer
            .flatMap(
                n ->
                    offered.stream()
                        .filter(o -> o.mod().releases().contains(n.newest()))
                        .findFirst())
            .or(() -> offered.stream().findFirst());
    Optional<Release> same =
        releases.stream()
            .filter(r -> r.version().equals(here) && r.variant().equals(variant))
            .findFirst();
    return new OfMod(mod, on, identity, by, newer, same, left);
  }

  private static Left left(LeftRow r) {
    return new Left(
        LeftKind.valueOf(r.kind().toUpperCase(Locale.ROOT)),
        r.version(),
        r.reason(),
        r.saidAt().toString());
  }

  /**
   * Leaves the update of a mod.
   *
   * @throws IroningException with code {@code bad-reason}, or {@code update-none} where there is
   *     none
   */
  void leave(OpenWorkspace open, long mod, LeftKind kind, String reason) {
    OfMod m = require(open, mod);
    if (reason.length() > LONGEST_REASON) {
      throw IroningException.of(
          "bad-reason",
          "The reason",
          "It is longer than " + LONGEST_REASON + " letters.",
          "Say it in a sentence; notes have room for more.");
    }
    if (m.newer().isEmpty()) {
      throw IroningException.of(
          "update-none",
          open.nameOf(mod),
          "No catalogue has anything newer of it.",
          "Look at the catalogues again.");
    }
    String version = m.newer().get().newest().version().toString();
    String said =
        switch (kind) {
          case VERSION -> "Left " + version + " of ";
          case MOD -> "Wants no updates of ";
          case VARIANT -> version + " is another variant, and no update of ";
        };
    workspaces.note(
        open.workspace(),
        "catalogues",
        said + open.nameOf(mod),
        () -> db.leave(m.mod().strand(), kind.word(), version, reason));
  }

  /** Offers the update of a mod again. */
  void offerAgain(OpenWorkspace open, long mod) {
    OfMod m = require(open, mod);
    workspaces.note(
        open.workspace(),
        "catalogues",
        "Is told of updates of " + open.nameOf(mod) + " again",
        () -> db.offerAgain(m.mod().strand()));
  }

  private OfMod require(OpenWorkspace open, long mod) {
    open.required(mod);
    return of(open).stream()
        .filter(m -> m.mod().id() == mod)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Mod " + mod,
                    "It is not a version in use that came from an archive.",
                    "Choose one of the mods that have a layer."));
  }
}
