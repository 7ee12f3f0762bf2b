/**
 * Putting things in order and saying why: constraints, a sort that moves as little as it can, and
 * the shortest ring when there is no order. Shared by layers and load order. Depends on nothing.
 */
package ironing.core.order;
