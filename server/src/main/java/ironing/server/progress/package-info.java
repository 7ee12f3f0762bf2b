/** How far each mod and plugin has come, from the folder's note and the last run. */
package ironing.server.progress;
