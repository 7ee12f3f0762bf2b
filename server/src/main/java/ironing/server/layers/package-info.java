/** The install order: looking at it, what a change would do, and changing it. */
package ironing.server.layers;
