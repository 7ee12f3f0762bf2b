/**
 * Catalogues: what is offered, in which releases, and whether what a place says of itself can be
 * believed (docs/formats/catalogue.md). Reads bytes, gives values; asks no network and writes
 * nothing. Depends on the order of versions alone.
 */
package ironing.core.catalogue;
