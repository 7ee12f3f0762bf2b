/**
 * Asking other machines over HTTP: who may be asked, for how long, and what is done where an answer
 * leads on. Knows nothing of what is fetched.
 */
package ironing.server.fetch;
