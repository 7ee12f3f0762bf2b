/**
 * What is to stand where: rules of placement, the order that would keep them, and rulings with the
 * order that would make them needless.
 */
package ironing.server.placement;
