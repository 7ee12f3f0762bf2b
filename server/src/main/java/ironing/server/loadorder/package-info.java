/** The load order: plugins in play, what is wrong with their order, a proposal, changing it. */
package ironing.server.loadorder;
