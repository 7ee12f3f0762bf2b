/**
 * Arrays and texts in a file, for this program alone: what took long to work out is read back in
 * bulk.
 */
package ironing.core.arrayfile;
