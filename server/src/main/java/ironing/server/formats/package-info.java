/** Formats of plugins that users bring, each in a jar, and that they have confirmed. */
package ironing.server.formats;
