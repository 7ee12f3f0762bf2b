package ironing.core.library;

import java.util.Map;

/** What the conditions of a fitting are asked of: one workspace as it is now, without the mod. */
public interface Facts {
  /**
   * Whether a mod of this id is installed, on, and in range.
   *
   * @param versions a valid range
   */
  boolean modOn(String id, String versions);

  /** Whether the game's version is in range; false when it is not known. */
  boolean gameIn(String versions);

  /** Whether a file at this game path is in the picture. */
  boolean inPicture(String gamePath);

  /**
   * Facts of another day.
   *
   * @param truths conditions by their {@link Condition#words} to whether they held
   */
  static Facts remembered(Map<String, Boolean> truths) {
    return new Facts() {
      @Override
      public boolean modOn(String id, String versions) {
        return held(new Condition.ModOn(id, versions));
      }

      @Override
      public boolean gameIn(String versions) {
        return held(new Condition.GameIn(versions));
      }

      @Override
      public boolean inPicture(String gamePath) {
        return held(new Condition.FileThere(gamePath));
      }

      private boolean held(Condition c) {
        return truths.getOrDefault(c.words(), false);
      }
    };
  }
}
