package ironing.server.workspace;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.server.platform.Json;
import ironing.server.workspace.ProfileMapper.NewRow;
import ironing.server.workspace.ProfileMapper.Row;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The profiles of a workspace: each an arrangement of its own, one of them in use. A profile that
 * is deleted can be brought back.
 *
 * <p>Threads: as {@link OpenWorkspaces}.
 */
@Component
public class Profiles {
  private static final int LONGEST_NAME = 80;
  private final ProfileMapper db;
  private final OpenWorkspaces workspaces;
  private final Json json;
  private final TransactionTemplate transaction;

  Profiles(
      ProfileMapper db, OpenWorkspaces workspaces, Json json, TransactionTemplate transaction) {
    this.db = db;
    this.workspaces = workspaces;
    this.json = json;
    this.transaction = transaction;
  }

  /**
   * @param arrangement with the mods of today, in no use while the profile is not
   */
  public record Profile(long id, String name, boolean inUse, Arrangement arrangement) {}

  /** What a profile is called. */
  public record Named(long id, String name, boolean deleted) {}

  /** By name, and those that were deleted too; none that sets are tried with. */
  public List<Named> named(long workspace) {
    return db.all(workspace).stream()
        .filter(r -> !r.isAside())
        .map(r -> new Named(r.id(), r.name(), r.isDeleted()))
        .toList();
  }

  /** By name; those that were deleted are not among them. */
  public List<Profile> all(OpenWorkspace open) {
    return db.all(open.workspace()).stream()
        .filter(r -> !r.isDeleted())
        .map(r -> profile(open, r))
        .toList();
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Profile get(OpenWorkspace open, long id) {
    return profile(open, row(open.workspace(), id, false));
  }

  private Profile profile(OpenWorkspace open, Row row) {
    boolean inUse = row.id() == open.profile();
    return new Profile(
        row.id(),
        row.name(),
        inUse,
        inUse ? open.picture().arrangement() : read(open, row.arrangement()));
  }

  /**
   * An arrangement from such a text as {@link #written} gives, as far as its mods are still there.
   */
  public Arrangement read(OpenWorkspace open, String arrangement) {
    Arrangement told =
        json.read(arrangement, Parts.class)
            .on(Arrangement.EMPTY)
            .withRules(open.picture().arrangement().rules())
            .withLoadRules(open.picture().arrangement().loadRules());
    return OpenWorkspaceStore.fitted(told, List.of(), open.mods());
  }

  private Row row(long workspace, long id, boolean deleted) {
    return db.all(workspace).stream()
        .filter(r -> r.id() == id && r.isDeleted() == deleted && !r.isAside())
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Profile " + id,
                    "There is no such profile in this workspace.",
                    "Choose one from the list."));
  }

  /**
   * A new profile, not in use yet.
   *
   * @param from the one that it is a copy of; empty for one in which every mod is off
   */
  public long create(long workspace, String name, Optional<Long> from) {
    String free = freeName(workspace, name, Optional.empty());
    OpenWorkspace open = workspaces.get(workspace);
    Arrangement start =
        from.isPresent()
            ? get(open, from.get()).arrangement()
            : Arrangement.EMPTY.withLayers(
                open.picture().arrangement().layers().stream().map(l -> l.withOn(false)).toList());
    NewRow made = new NewRow();
    String copy = from.map(f -> " as a copy of “" + get(open, f).name() + "”").orElse("");
    workspaces.note(
        workspace,
        "profiles",
        "Made the profile “" + free + "”" + copy,
        () -> {
          db.add(workspace, free, json.write(Parts.of(start)), made);
          // the settings files start as those of the other one, so that the game is found as it was
          db.copySettings(from.orElse(open.profile()), made.id());
        });
    return made.id();
  }

  /**
   * A profile to try sets with, beside those of the user: it lies with those that were deleted, and
   * has the settings of another.
   */
  public long createAside(OpenWorkspace open, String name) {
    NewRow made = new NewRow();
    db.addAside(open.workspace(), name, written(open.picture().arrangement()), made);
    db.copySettings(open.profile(), made.id());
    return made.id();
  }

  /** Gives such a profile the settings of the one in use, for the next sets. */
  public void renewAside(OpenWorkspace open, long aside) {
    transaction.executeWithoutResult(
        t -> {
          db.dropSettings(aside);
          db.copySettings(open.profile(), aside);
        });
  }

  public void rename(long workspace, long id, String name) {
    Row row = row(workspace, id, false);
    String free = freeName(workspace, name, Optional.of(id));
    if (row.name().equals(free)) return;
    workspaces.changeProfile(
        workspace,
        "Renamed the profile “" + row.name() + "” to “" + free + "”",
        () -> db.rename(id, free));
  }

  /** Takes a profile into use: the order, the switches and all else are as it has them. */
  public OpenWorkspace use(long workspace, long id) {
    Row row = row(workspace, id, false);
    if (workspaces.get(workspace).profile() == id) return workspaces.get(workspace);
    return workspaces.changeProfile(
        workspace, "Took the profile “" + row.name() + "” into use", () -> db.use(workspace, id));
  }

  /**
   * @throws IroningException with code {@code profile-in-use}
   */
  public void delete(long workspace, long id) {
    Row row = row(workspace, id, false);
    if (workspaces.get(workspace).profile() == id) {
      throw IroningException.of(
          "profile-in-use",
          row.name(),
          "It is the profile in use.",
          "Use another profile first, then delete it.");
    }
    workspaces.note(
        workspace, "profiles", "Deleted the profile “" + row.name() + "”", () -> db.delete(id));
  }

  /** Brings a profile back that was deleted. */
  public void bringBack(long workspace, long id) {
    Row row = row(workspace, id, true);
    String free = freeName(workspace, row.name(), Optional.of(id));
    workspaces.note(
        workspace, "profiles", "Brought the profile “" + free + "” back", () -> db.bringBack(id));
  }

  private String freeName(long workspace, String asked, Optional<Long> own) {
    String name = asked.strip();
    if (name.isEmpty() || name.length() > LONGEST_NAME) {
      throw IroningException.of(
          "bad-name",
          name.isEmpty() ? "The name" : name.substring(0, 20) + "…",
          name.isEmpty() ? "It is empty." : "It is longer than " + LONGEST_NAME + " letters.",
          "Give the profile a name of one to " + LONGEST_NAME + " letters.");
    }
    for (Row r : db.all(workspace)) {
      boolean same = r.name().toLowerCase(Locale.ROOT).equals(name.toLowerCase(Locale.ROOT));
      if (r.isDeleted() || own.filter(o -> o == r.id()).isPresent() || !same) continue;
      throw IroningException.of(
          "name-taken", name, "Another profile has this name.", "Choose another name.");
    }
    return name;
  }

  /** A named place of the profile in use to which it can go back. */
  public record RestorePoint(long id, String name, String at, Arrangement arrangement) {}

  /** Of the profile in use, the newest first. */
  public List<RestorePoint> points(OpenWorkspace open) {
    return db.points(open.profile()).stream()
        .map(p -> new RestorePoint(p.id(), p.name(), p.at(), read(open, p.arrangement())))
        .toList();
  }

  /** An arrangement as a text that {@link #read} takes. */
  public String written(Arrangement arrangement) {
    return json.write(Parts.of(arrangement));
  }

  public void addPoint(long workspace, String asked) {
    String name = asked.strip();
    if (name.isEmpty() || name.length() > LONGEST_NAME) {
      throw IroningException.of(
          "bad-name",
          "The name of the restore point",
          "It is empty, or longer than " + LONGEST_NAME + " letters.",
          "Give it a name by which you will know it again.");
    }
    OpenWorkspace open = workspaces.get(workspace);
    db.addPoint(open.profile(), name, written(open.picture().arrangement()));
  }

  public void deletePoint(long workspace, long point) {
    if (db.deletePoint(workspaces.get(workspace).profile(), point) > 0) return;
    throw IroningException.of(
        "not-found",
        "Restore point " + point,
        "This profile has no such restore point.",
        "Choose one from the list.");
  }
}
