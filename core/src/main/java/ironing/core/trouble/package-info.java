/**
 * From a fault in the game to what causes it: what the fault is and whether a run shows it, who is
 * under suspicion and why, and the search for a smallest set that still shows it. Starts no game
 * and changes nothing: it says what to try next, and is told how that went.
 */
package ironing.core.trouble;
