/** How much of what a game can take is used, and by whom. */
package ironing.core.limits;
