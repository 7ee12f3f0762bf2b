/**
 * The state of a workspace in memory: definition, mods, picture, revision. Loaded from the database
 * once, then carried from change to change; the database is written first. Every feature reads it.
 */
package ironing.server.workspace;
