/**
 * What people have found out about mods: the user's own findings, those that were brought in, and
 * those of the catalogues. Stands on the catalogues.
 */
package ironing.server.findings;
