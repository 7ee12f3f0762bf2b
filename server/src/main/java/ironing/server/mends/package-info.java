/** Mends: building the patch of a profile, and knowing whether it is stale and why. */
package ironing.server.mends;
