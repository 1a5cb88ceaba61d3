/**
 * MIDI basics: packed messages, names of notes and programs, standard MIDI files. Has no dependencies and no threads.
 */
package dibble.midi;
