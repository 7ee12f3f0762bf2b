/** Expressions that find places in documents: JSONPath (RFC 9535) and XPath 1.0. */
package ironing.core.query;
