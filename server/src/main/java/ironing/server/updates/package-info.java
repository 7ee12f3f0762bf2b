/**
 * What catalogues have that is newer than what is here, and what the user does not want of it.
 * Stands on the catalogues.
 */
package ironing.server.updates;
