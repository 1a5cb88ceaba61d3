package dibble.sound;

/** Where the mix goes: an audio device, or none. */
interface AudioOut extends AutoCloseable {
    /**
     * Takes one block of interleaved stereo, 16 bits little-endian, and waits until it is time for the next.
     *
     * @return false where it has gone away, and takes no more
     */
    boolean write(byte[] block);

    @Override
    void close();
}
