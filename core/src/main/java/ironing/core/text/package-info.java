/** Text of unknown encoding. Depends on nothing. */
package ironing.core.text;
