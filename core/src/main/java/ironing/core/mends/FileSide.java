package ironing.core.mends;

/**
 * A version of a file.
 *
 * @param id by which choices name it: that of the mod's card; empty for the game; see {@link
 *     Ancestors#isFormer}
 * @param mod 0 for the game
 * @param slot -1 for the game's file of an earlier version
 */
public record FileSide(String id, long mod, int slot, String sha256) {}
