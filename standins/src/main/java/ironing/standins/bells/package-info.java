/**
 * The sample games whose mods are folders of open text. They read them by themselves: nothing here
 * is shared with what Ironing reads them by.
 */
package ironing.standins.bells;
