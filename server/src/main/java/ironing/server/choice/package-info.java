/**
 * Choosing mods: what a choice brings with it, and getting all of that in one act. Worked out by
 * the core of what is in the library and what catalogues offer; fetched by the downloads, installed
 * by the library.
 */
package ironing.server.choice;
