/**
 * Takes (played events) and tracks (printed events): recording, printing, export. May import midi, time, gear and
 * routing.
 */
package dibble.recording;
