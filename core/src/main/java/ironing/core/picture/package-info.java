/**
 * The picture: the whole of what the game will see, made from holdings, the install order and the
 * load order. Takes an arrangement, gives the standing of every file and the plugins in play.
 * Depends on game, layers, loadorder and plugin.
 */
package ironing.core.picture;
