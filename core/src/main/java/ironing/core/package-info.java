/**
 * The rules of the job and its computation: from an archive to a plan for the game folder. Plain
 * Java, no web, no database, no framework. The packages below are cut by feature, with the same
 * names as in the server, the web and the address bar.
 */
package ironing.core;
