/**
 * Mends: generated mods that resolve collisions. A patch is a plugin with the combined records, a
 * merge is several plugins made one. Takes records and combinations, gives plugins. Depends on
 * plugin and records.
 */
package ironing.core.mends;
