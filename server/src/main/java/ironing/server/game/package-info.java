/** Workspaces: making one from a game's folder, listing them, and how far one is on its way. */
package ironing.server.game;
