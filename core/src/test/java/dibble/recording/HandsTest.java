package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Hands told apart in pieces that were made for it, whose hands are known. */
class HandsTest {
    private static final int Q = 960;

    /** A note of a known hand. */
    private record Played(long start, long end, int key, boolean right) {}

    private static final class Piece {
        private final List<Played> notes = new ArrayList<>();
        private final Random random;

        Piece(long seed) {
            random = new Random(seed);
        }

        /** Hands are never quite together. */
        private long about(long tick) {
            return Math.max(0, tick + random.nextInt(31) - 15);
        }

        Piece note(double quarter, double length, int key, boolean right) {
            long start = about((long) (quarter * Q));
            notes.add(new Played(start, Math.max(start + 20, about((long) ((quarter + length) * Q)) - 20), key, right));
            return this;
        }

        Piece left(double quarter, double length, int... keys) {
            for (int key : keys) {
                note(quarter, length, key, false);
            }
            return this;
        }

        Piece right(double quarter, double length, int... keys) {
            for (int key : keys) {
                note(quarter, length, key, true);
            }
            return this;
        }

        double accuracy() {
            List<Played> order = new ArrayList<>(notes);
            record Event(long tick, int message, Played note) {}
            List<Event> events = new ArrayList<>();
            for (Played note : order) {
                events.add(new Event(note.start, ShortMessage.noteOn(0, note.key, 80), note));
                events.add(new Event(note.end, ShortMessage.noteOff(0, note.key, 64), null));
            }
            events.sort(Comparator.comparingLong(Event::tick));
            MidiTrack.Builder track = new MidiTrack.Builder();
            events.forEach(event -> track.add(event.tick, event.message));
            boolean[] right = Hands.right(track.build(), Q);
            int correct = 0;
            for (int i = 0; i < events.size(); i++) {
                if (events.get(i).note != null && events.get(i).note.right == right[i]) {
                    correct++;
                }
            }
            return (double) correct / notes.size();
        }
    }

    private static final int[] SCALE = {0, 2, 4, 5, 7, 9, 11};

    private static int degree(int root, int degree) {
        return root + 12 * Math.floorDiv(degree, 7) + SCALE[Math.floorMod(degree, 7)];
    }

    /** A broken chord under a tune that wanders. */
    private static Piece tuneOverBrokenChords(long seed) {
        Piece piece = new Piece(seed);
        Random random = new Random(seed);
        int at = 9;
        for (int bar = 0; bar < 16; bar++) {
            int root = degree(48, new int[] {0, 3, 4, 5}[random.nextInt(4)] - 3);
            for (int eighth = 0; eighth < 8; eighth++) {
                piece.left(bar * 4 + eighth / 2.0, 0.5, root + new int[] {0, 7, 4, 7}[eighth % 4]);
            }
            for (int beat = 0; beat < 4; beat++) {
                at = Math.max(5, Math.min(16, at + random.nextInt(5) - 2));
                piece.right(bar * 4 + beat, 1, degree(60, at));
            }
        }
        return piece;
    }

    /** Both hands go down and up the keyboard together, two octaves apart, past any fixed key. */
    private static Piece bothWander(long seed) {
        Piece piece = new Piece(seed);
        for (int i = 0; i < 96; i++) {
            int shift = (int) Math.round(14 * Math.sin(i / 15.0));
            piece.left(i / 2.0, 0.5, degree(48, shift));
            piece.right(i / 2.0, 0.5, degree(48, shift + 9), degree(48, shift + 11));
        }
        return piece;
    }

    /** A bass note far below, then chords in the middle, under a tune: the left hand leaps. */
    private static Piece leapingBass(long seed) {
        Piece piece = new Piece(seed);
        Random random = new Random(seed);
        for (int bar = 0; bar < 16; bar++) {
            int root = 36 + new int[] {0, 5, 7, 9}[random.nextInt(4)];
            piece.left(bar * 3, 1, root);
            piece.left(bar * 3 + 1, 0.9, root + 16, root + 19);
            piece.left(bar * 3 + 2, 0.9, root + 16, root + 19);
            for (int eighth = 0; eighth < 6; eighth++) {
                piece.right(bar * 3 + eighth / 2.0, 0.5, degree(72, random.nextInt(9)));
            }
        }
        return piece;
    }

    /** Wide chords in both hands, the left held while the right moves, both around the middle of the keyboard. */
    private static Piece closeChords(long seed) {
        Piece piece = new Piece(seed);
        Random random = new Random(seed);
        for (int bar = 0; bar < 16; bar++) {
            int root = degree(50, random.nextInt(4));
            piece.left(bar * 4, 3.8, root, root + 7, root + 12);
            for (int beat = 0; beat < 4; beat++) {
                int top = degree(67, random.nextInt(5) + 1);
                piece.right(bar * 4 + beat, 0.9, top, top + 4);
            }
        }
        return piece;
    }

    /** The left hand alone, high, and the right alone, low, in turns; then a run that one hand hands to the other. */
    private static Piece turns(long seed) {
        Piece piece = new Piece(seed);
        for (int bar = 0; bar < 8; bar++) {
            for (int i = 0; i < 8; i++) {
                piece.left(bar * 8 + i / 2.0, 0.5, degree(43, i));
            }
            for (int i = 0; i < 8; i++) {
                piece.right(bar * 8 + 4 + i / 2.0, 0.5, degree(57, 8 + i));
            }
        }
        return piece;
    }

    /** The left hand leaps over the right, which goes on in the middle: what no parting from low to high can say. */
    private static Piece crossing(long seed) {
        Piece piece = new Piece(seed);
        for (int bar = 0; bar < 16; bar++) {
            for (int i = 0; i < 8; i++) {
                piece.right(bar * 4 + i / 2.0, 0.5, degree(60, new int[] {0, 2, 4, 2}[i % 4]));
            }
            piece.left(bar * 4, 0.9, 40).left(bar * 4 + 1, 0.9, 47);
            piece.left(bar * 4 + 2, 0.9, 76).left(bar * 4 + 3, 0.9, 79);
        }
        return piece;
    }

    /** Both hands play among each other within an octave, in quick turns. */
    private static Piece interlocked(long seed) {
        Piece piece = new Piece(seed);
        Random random = new Random(seed);
        for (int i = 0; i < 128; i++) {
            boolean right = i % 2 == 1;
            piece.note(i / 4.0, 0.25, degree(57, random.nextInt(3) + (right ? 4 : 1)), right);
        }
        return piece;
    }

    static Stream<Arguments> pieces() {
        return Stream.of(
                Arguments.of("tune over broken chords", 0.99, (java.util.function.LongFunction<Piece>)
                        HandsTest::tuneOverBrokenChords),
                Arguments.of("both hands wander", 0.97, (java.util.function.LongFunction<Piece>) HandsTest::bothWander),
                Arguments.of("leaping bass", 0.97, (java.util.function.LongFunction<Piece>) HandsTest::leapingBass),
                Arguments.of("close chords", 0.97, (java.util.function.LongFunction<Piece>) HandsTest::closeChords),
                Arguments.of("left over right", 0.5, (java.util.function.LongFunction<Piece>) HandsTest::crossing),
                Arguments.of("interlocked", 0.6, (java.util.function.LongFunction<Piece>) HandsTest::interlocked),
                Arguments.of("turns", 0.9, (java.util.function.LongFunction<Piece>) HandsTest::turns));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("pieces")
    void handsAreToldApart(String name, double least, java.util.function.LongFunction<Piece> piece) {
        double sum = 0;
        double worst = 1;
        for (long seed = 1; seed <= 10; seed++) {
            double accuracy = piece.apply(seed).accuracy();
            sum += accuracy;
            worst = Math.min(worst, accuracy);
        }
        System.out.printf("hands, %s: %.1f %% of the notes, %.1f %% at worst%n", name, sum * 10, worst * 100);
        assertThat(sum / 10).isGreaterThanOrEqualTo(least);
    }

    /** Unplayable music is separated too, in a limited time. */
    @Test
    void fiveThousandNotesAtOnceAndNotesThatNobodyEndsAreTakenAsTheyAre() {
        MidiTrack.Builder chord = new MidiTrack.Builder();
        for (int i = 0; i < 5_000; i++) {
            chord.add(0, ShortMessage.noteOn(i % 16, i / 16 % 128, 80));
        }
        boolean[] right = Hands.right(chord.build(), Q);
        for (int i = 0; i < 5_000; i++) {
            // One key is one hand's, whatever its channel.
            assertThat(right[i]).isEqualTo(right[i / 16 % 128 * 16]);
        }
        MidiTrack.Builder held = new MidiTrack.Builder();
        for (int i = 0; i < 4_096; i++) {
            held.add(i * 200L, ShortMessage.noteOn(i % 16, 30 + i * 7 % 60, 80));
        }
        assertThat(Hands.right(held.build(), Q)).hasSize(4_096).contains(true, false);
    }
}
