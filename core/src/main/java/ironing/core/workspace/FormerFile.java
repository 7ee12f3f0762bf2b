package ironing.core.workspace;

/**
 * A file of the game as it was before an update.
 *
 * @param version of the game; empty where it tells none
 */
public record FormerFile(String version, String sha256) {}
