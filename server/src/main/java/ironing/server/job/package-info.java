/**
 * Long work: runs in the background, tells how far it is, can be cancelled, survives a reload of
 * the page.
 */
package ironing.server.job;
