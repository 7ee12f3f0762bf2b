/**
 * Making the game folder agree with the picture, and taking it back: a plan as a value, a journal,
 * and the small part that moves files. Takes what is wanted and what lies there. Depends on game
 * and path.
 */
package ironing.core.deploy;
