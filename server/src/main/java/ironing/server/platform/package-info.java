/**
 * What every feature stands on: problems as RFC 9457, the guard of Host and Origin, folders,
 * events.
 */
package ironing.server.platform;
