/**
 * MIDI itself: packed messages, names of notes and programs, standard MIDI files. Depends on nothing; no threads of its own.
 */
package dibble.midi;
