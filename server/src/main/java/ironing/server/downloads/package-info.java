/**
 * The queue of downloads: files that catalogues name, fetched whole and checked, gone on with after
 * a broken line or a restart. What has come is kept by the library.
 */
package ironing.server.downloads;
