package ironing.server.workspace;

import ironing.core.drift.Drift.Own;
import ironing.core.game.GameFolder.Packed;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;

/** The files of the unmodded game, as they were when it was taken in last. */
@Component
public class GameFiles {
  private static final int ROWS_AT_ONCE = 2000;
  private final GameFileMapper db;

  GameFiles(GameFileMapper db) {
    this.db = db;
  }

  /** A file in a pack of the game. */
  public record PackedRow(String path, String sha256) {}

  public List<Own> loose(long workspace) {
    return db.loose(workspace);
  }

  public List<PackedRow> packed(long workspace, String pack) {
    return db.packed(workspace, pack);
  }

  /** Puts other packs with their content in the place of all. Inside the caller’s transaction. */
  public void replacePacked(long workspace, List<Packed> packed) {
    db.forgetPacked(workspace);
    for (List<Packed> some : parts(packed)) db.addPacked(workspace, some);
  }

  /** Inside the caller’s transaction. */
  public void add(long workspace, List<Own> loose, List<Packed> packed) {
    for (List<Own> some : parts(loose)) db.addLoose(workspace, some);
    for (List<Packed> some : parts(packed)) db.addPacked(workspace, some);
  }

  /** Loose files, and packs with what is in them. Inside the caller’s transaction. */
  public void forget(long workspace, List<String> paths) {
    for (List<String> some : parts(paths)) db.forget(workspace, some);
  }

  /**
   * Loose files below a place beside the game folder, and packs with what is in them. Inside the
   * caller’s transaction.
   */
  public void forgetPlace(long workspace, String top) {
    db.forgetBelow(workspace, top + "/");
  }

  /**
   * Spells the game’s own folders that begin with @ as a definition with places has them, or one
   * without. Inside the caller’s transaction.
   */
  public void respell(long workspace, boolean withPlaces) {
    if (withPlaces) db.escape(workspace);
    else db.unescape(workspace);
  }

  private static <T> List<List<T>> parts(List<T> all) {
    List<List<T>> parts = new ArrayList<>();
    for (int i = 0; i < all.size(); i += ROWS_AT_ONCE)
      parts.add(all.subList(i, Math.min(all.size(), i + ROWS_AT_ONCE)));
    return parts;
  }
}
