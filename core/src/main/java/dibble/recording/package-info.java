/**
 * What was played (takes) and what became of it (tracks): recording, printing, export. May import midi, time, gear and routing.
 */
package dibble.recording;
