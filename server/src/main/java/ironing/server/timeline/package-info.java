/** Every change of a workspace, undo and redo. */
package ironing.server.timeline;
