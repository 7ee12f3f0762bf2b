/**
 * Safe reading of archives from strangers: knows them by content, refuses what leads outside, and
 * hashes while it unpacks. Takes a file and an empty folder. Depends on path.
 */
package ironing.core.archive;
