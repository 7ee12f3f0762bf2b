/**
 * The install order and what follows from it: who holds a path, which file is in play, how a mod's
 * files stand, and what one change of order changes. Works on ints; takes file lists, gives
 * standings and deltas. Depends on path, order and keep.
 */
package ironing.core.layers;
