/** Records that more than one plugin changes, field by field, and the user's decisions on them. */
package ironing.server.records;
