/**
 * Mends: generated mods that resolve collisions. Here the patch: a plugin with the combined
 * records. Takes combinations, gives a plugin and its ingredients. Depends on plugin and records.
 */
package ironing.core.mends;
