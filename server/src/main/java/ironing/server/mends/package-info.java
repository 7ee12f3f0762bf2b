/**
 * Mends: patches and merges made, knowing whether each is stale and why, making them anew, and
 * which patches a set of plugins calls for.
 */
package ironing.server.mends;
