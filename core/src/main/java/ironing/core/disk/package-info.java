/** Folders of this machine, whatever lies in them. Depends on nothing but Java. */
package ironing.core.disk;
