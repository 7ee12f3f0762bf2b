package ironing.server.workspace;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.library.Needs;
import ironing.core.path.GameRoots;
import ironing.core.picture.Picture;
import ironing.core.plugin.Shapes;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Stage;
import ironing.core.workspace.Workspace;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A workspace with one profile, as everything that is asked of it sees it: its value in the core,
 * with what the database calls it. Immutable: whoever holds one sees one consistent state.
 *
 * @param roots where its game lies
 * @param revision of the profile's arrangement
 * @param unreadable what is written down of it and cannot be read
 */
public record OpenWorkspace(
    long workspace,
    String title,
    GameRoots roots,
    long profile,
    String profileName,
    long revision,
    Own own,
    List<Unreadable> unreadable,
    Workspace value) {
  /** The loose files of the unmodded game. */
  public record Own(int files, long sizeBytes) {}

  public Path gameFolder() {
    return roots.folder();
  }

  /** Where a game path lies now. */
  public Path at(String path) {
    return roots.at(path);
  }

  /** A text with the folder of each place where it says {@code {@id}}. */
  public String filled(String text) {
    String filled = text;
    for (Map.Entry<String, Path> p : roots.places().entrySet())
      filled = filled.replace("{@" + p.getKey() + "}", p.getValue().toString());
    return filled;
  }

  public GameDefinition game() {
    return value.game();
  }

  public Optional<String> gameVersion() {
    return value.gameVersion();
  }

  /** Every installed mod by its number. */
  public Map<Long, Mod> mods() {
    return value.mods();
  }

  public Picture picture() {
    return value.picture();
  }

  /** What is worked out of it; see {@link ironing.core.workspace.Stages}. */
  public <V> V get(Stage<V> stage) {
    return value.get(stage);
  }

  /** How its records compare. */
  public Shapes shapes() {
    return value.shapes();
  }

  /** What to call a mod, or the game. */
  public String nameOf(long mod) {
    return value.nameOf(mod);
  }

  /**
   * A mod that a request names.
   *
   * @throws IroningException with code {@code not-found}
   */
  public Mod required(long mod) {
    Mod there = mods().get(mod);
    if (there != null) return there;
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Choose one from the list.");
  }

  /** Whether a mod has a layer: of several versions of one, one has. */
  public boolean inUse(long mod) {
    return value.inUse(mod);
  }

  /** Every mod's card with whether it is on, by its id, for what cards say of one another. */
  public Map<String, List<Needs.Installed>> installed() {
    return installed(Set.of());
  }

  /** The same without some mods. */
  public Map<String, List<Needs.Installed>> installed(Set<Long> without) {
    return value.installed(without);
  }

  /** The same workspace under another picture, to ask what that would be like. */
  public OpenWorkspace as(Picture other) {
    return with(profile, profileName, unreadable, value.as(other), revision);
  }

  /** The same workspace under another profile and picture, to try it in the game folder. */
  public OpenWorkspace as(long otherProfile, Picture other) {
    return with(otherProfile, profileName, unreadable, value.as(other), revision);
  }

  OpenWorkspace with(Picture picture, long revision) {
    return with(profile, profileName, unreadable, value.with(picture), revision);
  }

  OpenWorkspace with(
      long profile,
      String profileName,
      List<Unreadable> unreadable,
      Workspace value,
      long revision) {
    return new OpenWorkspace(
        workspace, title, roots, profile, profileName, revision, own, unreadable, value);
  }
}
