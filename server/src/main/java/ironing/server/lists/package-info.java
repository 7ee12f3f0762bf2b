/** Orders that others have published: what is missing here, and the moves that follow them. */
package ironing.server.lists;
