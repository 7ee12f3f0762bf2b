/**
 * Files that several mods have at one path, made one: by lines, or cell by cell where the game's
 * definition says how such a file is built. Takes a base, the contenders in layer order and the
 * user's choices, gives the outcome, every place that was changed with whose change it is, and what
 * still has to be asked. Depends on game and text.
 */
package ironing.core.combinedfiles;
