/**
 * Catalogues of a workspace: looked at over HTTP or in a folder, kept in the database, searched
 * there. What they offer is told to other features; nothing is fetched here but the catalogues
 * themselves. Depends on asking other machines and on the open workspaces.
 */
package ironing.server.catalogue;
