/**
 * The records of the plugins that are on: counts, lists and a search, the board of one record, the
 * user's decisions, what is wrong with single records, and plugins compared as wholes.
 */
package ironing.server.records;
