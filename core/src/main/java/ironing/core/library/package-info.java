/**
 * From an unpacked archive to a mod: where its content begins, where each file goes in the game,
 * who it is. Takes entry paths and a game definition, gives a layout. Depends on game, path,
 * version, yaml.
 */
package ironing.core.library;
