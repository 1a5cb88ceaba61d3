package dibble.sound;

/** Where the mix goes: an audio device, or none. */
interface AudioOut extends AutoCloseable {
    /** Takes one block of interleaved stereo, 16 bits little-endian, and waits until it is time for the next. */
    void write(byte[] block);

    @Override
    void close();
}
