/**
 * The plugin format ironing/plugin@1: values, the CBOR codec (RFC 8949, RFC 8742) and the text
 * form. Takes bytes or text, gives plugins, and back. Depends on path (names) and version.
 */
package ironing.core.plugin;
