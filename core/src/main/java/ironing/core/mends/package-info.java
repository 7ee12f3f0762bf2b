/**
 * Mends: generated mods that resolve collisions. A patch is a plugin with the combined records, a
 * merge is several plugins made one; combined files are told by {@code Contests}: who contends for
 * a file, what each version was made from, and what combining them comes to. Depends on workspace,
 * records and combine.
 */
package ironing.core.mends;
