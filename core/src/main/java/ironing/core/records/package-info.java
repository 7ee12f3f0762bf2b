/**
 * Records across plugins: their versions in load order, which are changed by several, and how those
 * changes combine field by field. Takes decoded plugins in load order, gives collisions and
 * outcomes. Depends on game and plugin.
 */
package ironing.core.records;
