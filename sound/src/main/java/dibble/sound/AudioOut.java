package dibble.sound;

/** Where the mix goes: an audio device, or none. */
interface AudioOut extends AutoCloseable {
    /**
     * Takes one block of interleaved stereo, 16 bits little-endian, and waits until it is time for the next.
     *
     * @return false where it has gone away, and takes no more
     */
    boolean write(byte[] block);

    /** Whether nobody hears it: then it need not be given anything. */
    default boolean isSilent() {
        return false;
    }

    @Override
    void close();
}
