package dibble.studio;

/** What the transport does. */
public enum Transport {
    STOPPED,
    PLAYING,
    RECORDING
}
