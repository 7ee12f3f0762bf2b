/**
 * The game Skerry Line, as far as mods can tell: a program of its own that loads its folder, plays
 * one day of a ferry company and says what it saw. Shares no code with Ironing.
 */
package ironing.standins.game;
