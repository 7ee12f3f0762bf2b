/**
 * The order in which plugins load: which are in play, whether each comes after its masters, how
 * many slots they take, a proposal, and the list that the game reads. Takes headers, gives orders
 * and problems. Depends on game, order, plugin and version.
 */
package ironing.core.loadorder;
