/** The profiles of a workspace: making, taking into use, comparing two, carrying things over. */
package ironing.server.profiles;
