/**
 * Lists: an order of mods as a file that people and other programs read. Takes rows, gives text.
 * Depends on nothing else of the core.
 */
package ironing.core.lists;
