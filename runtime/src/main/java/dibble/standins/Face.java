package dibble.standins;

import dibble.midi.ShortMessage;
import java.util.concurrent.atomic.AtomicIntegerArray;

/** The display of a sound module: the state of each channel. Written where messages arrive, read by any thread. */
public final class Face {
    private static final int CHANNELS = 16;
    private static final int UNKNOWN = -1;
    private static final int ALL_SOUND_OFF = 120;
    private static final int ALL_NOTES_OFF = 123;

    private final AtomicIntegerArray programs = unknown();
    private final AtomicIntegerArray volumes = unknown();
    private final AtomicIntegerArray pans = unknown();
    private final AtomicIntegerArray notes = unknown();
    private final AtomicIntegerArray held = new AtomicIntegerArray(CHANNELS);
    private final AtomicIntegerArray on = new AtomicIntegerArray(CHANNELS * 128);
    private volatile long received;

    /**
     * The state of a channel.
     *
     * @param program 0-127, or -1 if none was received
     * @param volume controller 7, or -1
     * @param pan controller 10, or -1
     * @param note the last started note, or -1
     * @param held the number of held notes
     */
    public record Channel(int program, int volume, int pan, int note, int held) {
        /** Returns true if anything was received that chooses or starts a sound. */
        public boolean isUsed() {
            return program >= 0 || note >= 0;
        }
    }

    private static AtomicIntegerArray unknown() {
        int[] values = new int[CHANNELS];
        java.util.Arrays.fill(values, UNKNOWN);
        return new AtomicIntegerArray(values);
    }

    /** Takes a packed channel message; one thread at a time. */
    void take(int message) {
        received = received + 1;
        int channel = ShortMessage.channel(message);
        int first = ShortMessage.data1(message);
        if (ShortMessage.startsNote(message)) {
            notes.set(channel, first);
            held.addAndGet(channel, 1 - on.getAndSet(channel << 7 | first, 1));
        } else if (ShortMessage.endsNote(message)) {
            held.addAndGet(channel, -on.getAndSet(channel << 7 | first, 0));
        } else if (ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE) {
            programs.set(channel, first);
        } else if (ShortMessage.kind(message) == ShortMessage.CONTROLLER) {
            takeController(channel, first, ShortMessage.data2(message));
        }
    }

    private void takeController(int channel, int number, int value) {
        switch (number) {
            case 7 -> volumes.set(channel, value);
            case 10 -> pans.set(channel, value);
            case ALL_SOUND_OFF, ALL_NOTES_OFF -> {
                for (int note = 0; note < 128; note++) {
                    on.set(channel << 7 | note, 0);
                }
                held.set(channel, 0);
            }
            default -> {
                // The others are not on its face.
            }
        }
    }

    /** Returns the state of a channel 1-16. */
    public Channel channel(int number) {
        int channel = number - 1;
        return new Channel(
                programs.get(channel), volumes.get(channel), pans.get(channel), notes.get(channel), held.get(channel));
    }

    boolean isUsed(int channel) {
        return programs.get(channel) >= 0 || notes.get(channel) >= 0;
    }

    /** Returns the number of received channel messages. */
    public long received() {
        return received;
    }
}
