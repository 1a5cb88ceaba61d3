package dibble.benchmarks;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Hands;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.Arrays;
import java.util.Random;

/** Measures the separation of hands: for a played piece, and for chords that are unplayable. */
public final class HandsMeasurement {
    private static final int RUNS = 7;
    private static final int NOTES = 5_000;

    private HandsMeasurement() {}

    public static void main(String[] args) {
        Random random = new Random(1);
        MidiTrack.Builder piece = new MidiTrack.Builder();
        for (int i = 0; i < NOTES / 4; i++) {
            long at = i * (long) TempoMap.PPQ / 2;
            int[] keys = {
                36 + random.nextInt(20), 48 + random.nextInt(12), 62 + random.nextInt(12), 70 + random.nextInt(20)
            };
            for (int key : keys) {
                piece.add(at, ShortMessage.noteOn(0, key, 80));
            }
            for (int key : keys) {
                piece.add(at + TempoMap.PPQ / 3, ShortMessage.noteOff(0, key, 64));
            }
        }
        MidiTrack.Builder chord = new MidiTrack.Builder();
        MidiTrack.Builder held = new MidiTrack.Builder();
        for (int i = 0; i < NOTES; i++) {
            chord.add(0, ShortMessage.noteOn(i % 16, i / 16 % 128, 80));
            held.add(i * 200L, ShortMessage.noteOn(i % 16, 30 + i * 7 % 60, 80));
        }
        measure("5,000 notes in chords of four", piece.build());
        measure("5,000 notes at one tick", chord.build());
        measure("5,000 notes that nothing ends", held.build());
    }

    private static void measure(String what, MidiTrack track) {
        long[] nanos = new long[RUNS];
        for (int i = 0; i < RUNS; i++) {
            long from = Clock.SYSTEM.nanos();
            Hands.right(track, TempoMap.PPQ);
            nanos[i] = Clock.SYSTEM.nanos() - from;
        }
        long first = nanos[0];
        Arrays.sort(nanos);
        System.out.printf("%s: %.0f ms the first time, %.0f in the median%n", what, first / 1e6, nanos[RUNS / 2] / 1e6);
    }
}
