/**
 * Programs of the user's that work on the deployed game: registered, run, and what they wrote taken
 * in.
 */
package ironing.server.tools;
