/**
 * A place that serves the files of a catalogue, as any web server would, and goes wrong where it is
 * told to. Shares no code with Ironing.
 */
package ironing.standins.catalogue;
