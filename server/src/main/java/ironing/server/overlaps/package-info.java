/** Paths that several layers bring, and the picture: who is in play where, and why. */
package ironing.server.overlaps;
