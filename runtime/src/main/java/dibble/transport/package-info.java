/**
 * Where the music is, and what is played there: courses, programs, players, click, clock sent and followed. May import
 * midi, time, recording and ports.
 */
package dibble.transport;
