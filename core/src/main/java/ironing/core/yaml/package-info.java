/**
 * Reading the YAML 1.2 files of docs/formats with every problem named by line and column. Gives
 * plain trees; depends on nothing else of the core but its problems.
 */
package ironing.core.yaml;
