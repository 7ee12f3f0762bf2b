/**
 * What a game is: its definition (game.yaml), whether a folder holds it, and the baseline of the
 * unmodded game. Takes a definition's text and a folder, gives immutable values. Depends on path
 * and yaml.
 */
package ironing.core.game;
