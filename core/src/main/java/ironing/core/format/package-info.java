/**
 * The formats of plugins that are known: our own, plugins of open text, and those that somebody
 * else has made, each in a jar.
 */
package ironing.core.format;
