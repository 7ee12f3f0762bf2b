/**
 * How far each mod and plugin has come: in the library, on, in the game folder, read by the game.
 * Takes a picture, what is laid out and what the last run read; gives counts. Depends on picture,
 * deploy and run.
 */
package ironing.core.progress;
