package ironing.server.workbench;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.picture.Picture;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;

/**
 * One workspace with one profile, as everything that is asked of it sees it. Immutable: whoever
 * holds one sees one consistent state.
 *
 * @param revision of the profile's arrangement
 * @param mods every installed mod by its number
 */
public record Bench(
    long workspace,
    String title,
    Path gameFolder,
    GameDefinition game,
    Optional<String> gameVersion,
    long profile,
    String profileName,
    long revision,
    Map<Long, Mod> mods,
    Picture picture) {

  /**
   * @param kind archive or patch
   */
  public record Mod(
      long id, String kind, ModCard card, String archiveName, int files, long sizeBytes) {}

  /** What to call a mod, or the game. */
  public String nameOf(long mod) {
    if (mod == Holdings.GAME) return game.title();
    Mod m = mods.get(mod);
    return m == null ? "a mod that is gone" : m.card().name();
  }

  Bench with(Picture picture, long revision) {
    return new Bench(
        workspace,
        title,
        gameFolder,
        game,
        gameVersion,
        profile,
        profileName,
        revision,
        mods,
        picture);
  }
}
