/**
 * Game paths: what a legal one is, how two compare, patterns over them, and the table that turns a
 * million of them into ints. Takes text, gives keys and ids. Depends on nothing else of the core
 * but keep and its problems.
 */
package ironing.core.path;
