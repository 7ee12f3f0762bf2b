/**
 * Records across plugins: the index of their versions in load order, which of them collide and how
 * their changes combine field by field, a search, and what is wrong with single records. Takes the
 * tables of plugins in load order, gives collisions and outcomes. Depends on game and plugin.
 */
package ironing.core.records;
