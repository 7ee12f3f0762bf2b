package ironing.core.combinedfiles;

/**
 * A version of a file that takes part: the base, or what a mod has.
 *
 * @param id by which places and choices name it, such as the id of the mod's card
 */
public record Contender(String id, byte[] bytes) {}
