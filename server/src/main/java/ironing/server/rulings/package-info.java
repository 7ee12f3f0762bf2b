/** Rulings: which mod’s file is in play whatever the order says, and an order that needs none. */
package ironing.server.rulings;
