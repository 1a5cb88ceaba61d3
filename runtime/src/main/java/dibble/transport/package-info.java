/**
 * Musical position and playback: timebases, plans, players, click, clock sent and followed. May import midi, time,
 * recording and ports.
 */
package dibble.transport;
