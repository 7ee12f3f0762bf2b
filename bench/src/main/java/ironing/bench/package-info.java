/**
 * Measuring. A world of any size made of nothing ({@link ironing.bench.ScaleWorld}), the product
 * measured on it over HTTP ({@link ironing.bench.ProductBench}), and the core's own arithmetic
 * beside the obvious way to do the same ({@link ironing.bench.MoveBench}). No figure here is a
 * test: {@code ./ironing bench} prints them beside their targets.
 */
package ironing.bench;
