/** From a fault in the game to what causes it: who is suspected, sets tried one after another. */
package ironing.server.trouble;
