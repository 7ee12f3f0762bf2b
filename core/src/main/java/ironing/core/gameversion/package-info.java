/**
 * A new version of the game: what changed in the unmodded game, and what that means for the mods.
 * Depends on drift, deploy, game and path.
 */
package ironing.core.gameversion;
