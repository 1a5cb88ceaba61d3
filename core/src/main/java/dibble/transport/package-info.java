/**
 * Playing timed events: the player and its position. May import time, recording and ports.
 */
package dibble.transport;
