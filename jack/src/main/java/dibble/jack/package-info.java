/**
 * Ports of our own among other programs, through a JACK server, where there is one: {@link dibble.jack.JackDevices} for
 * notes, {@link dibble.jack.SoundOut} for sound. What runs in the server's callback neither allocates nor locks.
 */
package dibble.jack;
