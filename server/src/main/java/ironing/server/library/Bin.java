package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Stood;
import ironing.core.workspace.Mod;
import ironing.server.layers.DifferenceView;
import ironing.server.library.BinMapper.BinnedArchive;
import ironing.server.library.BinMapper.BinnedMod;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.Changed;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Removing mods and archives. What is removed lies in the bin and can come back until it is
 * emptied.
 */
@Component
class Bin {
  private static final Logger LOG = LoggerFactory.getLogger(Bin.class);
  private final BinMapper db;
  private final ModStore mods;
  private final Archives archives;
  private final Staging staging;
  private final Remover remover;
  private final LibraryMapper library;
  private final OpenWorkspaces workspaces;
  private final TransactionTemplate transaction;
  private final Folders folders;
  private final Events events;
  private final Json json;

  Bin(
      BinMapper db,
      ModStore mods,
      Archives archives,
      Staging staging,
      Remover remover,
      LibraryMapper library,
      OpenWorkspaces workspaces,
      TransactionTemplate transaction,
      Folders folders,
      Events events,
      Json json) {
    this.db = db;
    this.mods = mods;
    this.archives = archives;
    this.staging = staging;
    this.remover = remover;
    this.library = library;
    this.workspaces = workspaces;
    this.transaction = transaction;
    this.folders = folders;
    this.events = events;
    this.json = json;
  }

  /**
   * What removing a mod would mean.
   *
   * @param neededBy mods that are on and need it, or have a plugin that does
   * @param modBytes and {@code archiveBytes}: the space that emptying the bin would free
   * @param archiveShared other mods are made of the same archive, so that it stays
   * @param game what the game would see differently
   */
  record Removal(
      List<String> neededBy,
      long modBytes,
      long archiveBytes,
      boolean archiveShared,
      DifferenceView game) {}

  Removal removal(long workspace, long mod) {
    OpenWorkspace open = workspaces.get(workspace);
    Mod m = open.required(mod);
    ModRow row = mods.row(workspace, mod);
    Arrangement now = open.picture().arrangement();
    Arrangement without = now.withLayers(layersWithout(open, m));
    long archiveBytes = 0;
    boolean shared = false;
    if (row.archiveId() != 0) {
      LibraryMapper.ArchiveRow a = archives.get(workspace, row.archiveId());
      archiveBytes = a.sizeBytes();
      shared = a.mods() > 1;
    }
    return new Removal(
        neededBy(open, m),
        m.sizeBytes(),
        archiveBytes,
        shared,
        DifferenceView.of(Changed.as(open, without)));
  }

  private static List<Arrangement.Layer> layersWithout(OpenWorkspace open, Mod m) {
    Optional<Long> heir = heir(open, m);
    List<Arrangement.Layer> rest = new ArrayList<>();
    for (Arrangement.Layer l : open.picture().arrangement().layers()) {
      if (l.mod() != m.id()) rest.add(l);
      else heir.ifPresent(h -> rest.add(l.withMod(h)));
    }
    return rest;
  }

  /** The newest of its other versions, which gets the layer of one that goes. */
  private static Optional<Long> heir(OpenWorkspace open, Mod m) {
    return open.mods().values().stream()
        .filter(o -> o.strand() == m.strand() && o.id() != m.id())
        .map(Mod::id)
        .max(Long::compare);
  }

  private static List<String> neededBy(OpenWorkspace open, Mod m) {
    if (heir(open, m).isPresent()) return List.of();
    Set<String> plugins = new HashSet<>();
    m.plugins().forEach(p -> plugins.add(PathCase.fold(p)));
    Set<Long> on = new HashSet<>();
    open.picture()
        .arrangement()
        .layers()
        .forEach(
            l -> {
              if (l.on()) on.add(l.mod());
            });
    List<String> out = new ArrayList<>();
    for (Mod o : open.mods().values()) {
      boolean byCard = o.card().needs().stream().anyMatch(n -> n.mod().equals(m.card().id()));
      if (on.contains(o.id()) && o.strand() != m.strand() && byCard) out.add(o.card().name());
    }
    for (LoadOrder.Entry e : open.picture().loadOrder().entries()) {
      Mod o = open.mods().get(e.plugin().mod());
      if (o == null || o.id() == m.id() || out.contains(o.card().name())) continue;
      boolean byMaster =
          e.on()
              && e.plugin()
                  .header()
                  .map(h -> h.masters().stream().anyMatch(p -> plugins.contains(PathCase.fold(p))))
                  .orElse(false);
      if (byMaster) out.add(o.card().name());
    }
    return out;
  }

  /**
   * Removes a mod from the library, into the bin.
   *
   * @param withArchive its archive goes too, when nothing else is made of it
   */
  void remove(long workspace, long mod, boolean withArchive) {
    OpenWorkspace open = workspaces.get(workspace);
    Mod m = open.required(mod);
    ModRow row = mods.row(workspace, mod);
    boolean archiveGoes =
        withArchive && row.archiveId() != 0 && archives.get(workspace, row.archiveId()).mods() <= 1;
    workspaces.changeLibrary(
        workspace,
        "Removed " + m.card().spoken(),
        new LibraryChange.Leaves(heir(open, m)),
        () -> {
          Optional<Stood> stood = Stood.of(workspaces.get(workspace).picture().arrangement(), mod);
          db.binMod(mod, stood.map(json::write).orElse(null));
          if (archiveGoes) db.binArchive(row.archiveId());
          return mod;
        });
  }

  /**
   * Removes several mods, one after the other, once all of them are known to be there.
   *
   * @param withArchive their archives go too, those that nothing else is made of
   */
  void removeAll(long workspace, List<Long> of, boolean withArchive) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<Long> distinct = new LinkedHashSet<>(of);
    distinct.forEach(open::required);
    for (long mod : distinct) remove(workspace, mod, withArchive);
  }

  /** Takes an archive out of the inbox, into the bin. */
  void removeArchive(long workspace, long archive) {
    LibraryMapper.ArchiveRow row = archives.get(workspace, archive);
    if (row.mods() > 0) {
      throw IroningException.of(
          "in-use",
          row.name(),
          "Mods in the library are made of it.",
          "Remove them first; the archive can go with the last of them.");
    }
    db.binArchive(archive);
    staging.drop(archive);
    events.tell(workspace, "inbox", Map.of());
  }

  List<BinnedMod> mods(long workspace) {
    return db.mods(workspace);
  }

  List<BinnedArchive> archives(long workspace) {
    return db.archives(workspace);
  }

  /** Brings a mod back, to the layer that it had, unless another version has taken that. */
  void returnMod(long workspace, long mod) {
    BinnedMod binned =
        db.mods(workspace).stream()
            .filter(m -> m.id() == mod)
            .findFirst()
            .orElseThrow(
                () ->
                    IroningException.of(
                        "not-found",
                        "Mod " + mod,
                        "It does not lie in the bin.",
                        "Choose one from the list."));
    ModCard card = json.read(binned.card(), ModCard.class);
    OpenWorkspace open = workspaces.get(workspace);
    boolean taken = open.mods().values().stream().anyMatch(m -> m.strand() == binned.strandId());
    Optional<Stood> stood =
        taken
            ? Optional.empty()
            : Optional.of(
                binned.stood() == null ? Stood.ON_TOP_OFF : json.read(binned.stood(), Stood.class));
    workspaces.changeLibrary(
        workspace,
        "Brought “" + card.name() + "” back from the bin",
        new LibraryChange.Returns(stood),
        () -> {
          db.returnMod(mod);
          library.returnArchiveOf(mod);
          return mod;
        });
  }

  void returnArchive(long workspace, long archive) {
    archives.get(workspace, archive);
    db.returnArchive(archive);
    events.tell(workspace, "inbox", Map.of());
  }

  /** Deletes for good what lies in the bin. */
  void empty(long workspace) {
    List<BinnedMod> gone = db.mods(workspace);
    transaction.executeWithoutResult(
        t -> {
          db.deleteMods(workspace);
          db.deleteArchives(workspace);
          db.deleteStrands(workspace);
        });
    // whatever of it a crash leaves, the next start clears
    for (BinnedMod m : gone) remover.remove(folders.mods(workspace).resolve(m.folder()));
    Set<String> kept = new HashSet<>(library.archiveHashes(workspace));
    Path folder = folders.archives(workspace);
    try {
      Folders.clearBut(folder, kept);
    } catch (IOException litter) {
      LOG.warn("litter stays in {}: {}", folder, litter.getMessage());
    }
    events.tell(workspace, "library", Map.of());
  }
}
