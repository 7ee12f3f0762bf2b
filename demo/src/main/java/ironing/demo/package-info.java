/** Packs the sample world from its readable sources: the game folder, and the mods' archives. */
package ironing.demo;
