/**
 * The one total order of versions and the ranges over it, as in docs/formats. Depends on nothing.
 */
package ironing.core.version;
