/**
 * Bringing archives in and making mods of them: upload, a folder on this machine, unpacking,
 * reading the card.
 */
package ironing.server.library;
