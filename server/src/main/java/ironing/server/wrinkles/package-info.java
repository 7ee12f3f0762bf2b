/** Problems found in a workspace, each with its place, its reason and its remedy. */
package ironing.server.wrinkles;
