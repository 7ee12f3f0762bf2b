/**
 * Drift: deployed files that were changed, lost or replaced, and strays. Takes what was laid out
 * and what lies there. Depends on deploy, game and path.
 */
package ironing.core.drift;
