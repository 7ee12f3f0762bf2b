/**
 * What a choice of mods brings with it: which others have to be fetched, switched on, changed or
 * switched off, exactly and with one answer; where there is none, why, and what could be given up
 * (docs/formats/choice.md). Asks no network and changes nothing. Depends on what catalogues offer
 * and on the order of versions.
 */
package ironing.core.choice;
