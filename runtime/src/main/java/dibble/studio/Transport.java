package dibble.studio;

/** The states of the transport. */
public enum Transport {
    STOPPED,
    PLAYING,
    RECORDING
}
