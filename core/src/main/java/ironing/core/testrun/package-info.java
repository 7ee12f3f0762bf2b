/**
 * What a game says of a run: its log (docs/formats/run-log.md) and the mod behind a fault. Takes
 * lines, gives events and a summary. Depends on nothing of the core.
 */
package ironing.core.testrun;
