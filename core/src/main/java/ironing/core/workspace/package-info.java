/**
 * The value of all that a workspace is under one profile, and what is worked out of it. A stage of
 * the way of data is a function of this value, and of what came out of the value before; a memo
 * holds the last outcome of each.
 *
 * <p>May use every package from the definition to records and the deploy plan; what combines files
 * stands on it.
 */
package ironing.core.workspace;
