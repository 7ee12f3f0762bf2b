package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.server.platform.Json;
import ironing.server.workbench.ProfileMapper.NewRow;
import ironing.server.workbench.ProfileMapper.Row;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The profiles of a workspace: each an arrangement of its own, one of them in use. A profile that
 * is deleted can be brought back.
 *
 * <p>Threads: as {@link Workbenches}.
 */
@Component
public class Profiles {
  private static final int LONGEST_NAME = 80;
  private final ProfileMapper db;
  private final Workbenches benches;
  private final Json json;

  Profiles(ProfileMapper db, Workbenches benches, Json json) {
    this.db = db;
    this.benches = benches;
    this.json = json;
  }

  /**
   * @param arrangement with the mods of today, in no use while the profile is not
   */
  public record Profile(long id, String name, boolean inUse, Arrangement arrangement) {}

  /** What a profile is called. */
  public record Named(long id, String name, boolean deleted) {}

  /** By name, and those that were deleted too. */
  public List<Named> named(long workspace) {
    return db.all(workspace).stream().map(r -> new Named(r.id(), r.name(), r.isDeleted())).toList();
  }

  /** By name; those that were deleted are not among them. */
  public List<Profile> all(Bench bench) {
    return db.all(bench.workspace()).stream()
        .filter(r -> !r.isDeleted())
        .map(r -> profile(bench, r))
        .toList();
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Profile get(Bench bench, long id) {
    return profile(bench, row(bench.workspace(), id, false));
  }

  private Profile profile(Bench bench, Row row) {
    boolean inUse = row.id() == bench.profile();
    return new Profile(
        row.id(),
        row.name(),
        inUse,
        inUse ? bench.picture().arrangement() : read(bench, row.arrangement()));
  }

  /**
   * An arrangement from such a text as {@link #written} gives, as far as its mods are still there.
   */
  public Arrangement read(Bench bench, String arrangement) {
    Arrangement told =
        json.read(arrangement, Parts.class)
            .on(Arrangement.EMPTY)
            .withRules(bench.picture().arrangement().rules())
            .withLoadRules(bench.picture().arrangement().loadRules());
    return BenchStore.fitted(told, List.of(), bench.mods());
  }

  private Row row(long workspace, long id, boolean deleted) {
    return db.all(workspace).stream()
        .filter(r -> r.id() == id && r.isDeleted() == deleted)
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
    Bench bench = benches.get(workspace);
    Arrangement start =
        from.isPresent()
            ? get(bench, from.get()).arrangement()
            : Arrangement.EMPTY.withLayers(
                bench.picture().arrangement().layers().stream().map(l -> l.withOn(false)).toList());
    NewRow made = new NewRow();
    String copy = from.map(f -> " as a copy of “" + get(bench, f).name() + "”").orElse("");
    benches.note(
        workspace,
        "profiles",
        "Made the profile “" + free + "”" + copy,
        () -> {
          db.add(workspace, free, json.write(Parts.of(start)), made);
          // the settings files start as those of the other one, so that the game is found as it was
          db.copySettings(from.orElse(bench.profile()), made.id());
        });
    return made.id();
  }

  public void rename(long workspace, long id, String name) {
    Row row = row(workspace, id, false);
    String free = freeName(workspace, name, Optional.of(id));
    if (row.name().equals(free)) return;
    benches.changeProfile(
        workspace,
        "Renamed the profile “" + row.name() + "” to “" + free + "”",
        () -> db.rename(id, free));
  }

  /** Takes a profile into use: the order, the switches and all else are as it has them. */
  public Bench use(long workspace, long id) {
    Row row = row(workspace, id, false);
    if (benches.get(workspace).profile() == id) return benches.get(workspace);
    return benches.changeProfile(
        workspace, "Took the profile “" + row.name() + "” into use", () -> db.use(workspace, id));
  }

  /**
   * @throws IroningException with code {@code profile-in-use}
   */
  public void delete(long workspace, long id) {
    Row row = row(workspace, id, false);
    if (benches.get(workspace).profile() == id) {
      throw IroningException.of(
          "profile-in-use",
          row.name(),
          "It is the profile in use.",
          "Take another one into use first, then delete it.");
    }
    benches.note(
        workspace, "profiles", "Deleted the profile “" + row.name() + "”", () -> db.delete(id));
  }

  /** Brings a profile back that was deleted. */
  public void bringBack(long workspace, long id) {
    Row row = row(workspace, id, true);
    String free = freeName(workspace, row.name(), Optional.of(id));
    benches.note(
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
  public List<RestorePoint> points(Bench bench) {
    return db.points(bench.profile()).stream()
        .map(p -> new RestorePoint(p.id(), p.name(), p.at(), read(bench, p.arrangement())))
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
    Bench bench = benches.get(workspace);
    db.addPoint(bench.profile(), name, written(bench.picture().arrangement()));
  }

  public void deletePoint(long workspace, long point) {
    if (db.deletePoint(benches.get(workspace).profile(), point) > 0) return;
    throw IroningException.of(
        "not-found",
        "Restore point " + point,
        "This profile has no such restore point.",
        "Choose one from the list.");
  }
}
