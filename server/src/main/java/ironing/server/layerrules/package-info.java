/** Rules of placement: what is to stand above or below what, and an order that keeps them. */
package ironing.server.layerrules;
