/**
 * The plugin format ironing/plugin@1: values, the CBOR codec (RFC 8949, RFC 8742), the text form,
 * and tables of a file's records that keep no values. Takes bytes or text, gives plugins and
 * tables, and back. Depends on path (names), version, and game (how values compare).
 */
package ironing.core.plugin;
