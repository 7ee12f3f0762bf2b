/**
 * A new version of the game: noticed, told what it means for the mods, and taken in as what the
 * unmodded game is from then on.
 */
package ironing.server.gameversion;
