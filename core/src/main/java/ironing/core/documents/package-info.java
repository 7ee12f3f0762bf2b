/**
 * Plugins that are open text: their manifests and records are read out of JSON, YAML, XML, tables
 * and INI, and patches are written in the same forms.
 */
package ironing.core.documents;
