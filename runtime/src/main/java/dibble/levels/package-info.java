/**
 * The input of a mixer: its strips, and the messages for the instruments. Functions of the session; another module
 * makes the sound.
 */
package dibble.levels;
