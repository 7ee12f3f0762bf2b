/**
 * Where game folders are not as they were deployed to: told by cause, put back, taken in or left.
 */
package ironing.server.drift;
