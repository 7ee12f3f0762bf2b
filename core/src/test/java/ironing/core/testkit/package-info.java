/** What the core's tests share: archives made by hand, small worlds of files, a disk that fails. */
package ironing.core.testkit;
