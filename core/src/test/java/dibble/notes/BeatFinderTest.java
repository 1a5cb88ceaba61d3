package dibble.notes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Pieces made for it, of which every beat is known, played as hands play: unsteadily, and not quite together. */
@Tag("slow")
class BeatFinderTest {
    private static final TempoMap CLOCK = TempoMap.of(120);
    private static final long NEAR = 35_000_000;

    /** The tempo changes of a player. */
    enum Player {
        STEADY {
            @Override
            double bpm(int beat, int beats, double bpm, Random random) {
                return bpm;
            }
        },
        DRIFTS {
            @Override
            double bpm(int beat, int beats, double bpm, Random random) {
                return bpm * (1 + 0.08 * Math.sin(beat * 2 * Math.PI / 40));
            }
        },
        SLOWS_DOWN {
            @Override
            double bpm(int beat, int beats, double bpm, Random random) {
                int left = beats - beat;
                return left > 12 ? bpm : bpm * (0.6 + 0.4 * left / 12.0);
            }
        },
        MISSES_BEATS {
            @Override
            double bpm(int beat, int beats, double bpm, Random random) {
                return bpm * (1 + 0.03 * Math.sin(beat / 5.0));
            }
        },

        /** Four of ten beats are silent, and notes between beats are louder. */
        SYNCOPATES {
            @Override
            double bpm(int beat, int beats, double bpm, Random random) {
                return bpm * (1 + 0.03 * Math.sin(beat / 5.0));
            }
        };

        abstract double bpm(int beat, int beats, double bpm, Random random);
    }

    private record Piece(ClipIndex clip, long[] beats) {}

    private static Piece piece(Player player, long seed, double bpm, int beats) {
        Random random = new Random(seed);
        long[] known = new long[beats];
        double at = 0.4 + random.nextDouble();
        for (int beat = 0; beat < beats; beat++) {
            known[beat] = Math.round(at * 1e9);
            at += 60 / player.bpm(beat, beats, bpm, random);
        }
        record Hit(long tick, int key, int velocity, long length) {}
        List<Hit> hits = new ArrayList<>();
        for (int beat = 0; beat + 1 < beats; beat++) {
            long from = known[beat];
            long length = known[beat + 1] - from;
            boolean missed = player == Player.MISSES_BEATS && beat % 9 == 5
                    || player == Player.SYNCOPATES && beat > 3 && random.nextInt(10) < 4;
            int louder = player == Player.SYNCOPATES ? 25 : 0;
            double[] places = switch (random.nextInt(5)) {
                case 0 -> new double[] {0, 0.5};
                case 1 -> new double[] {0, 0.25, 0.5, 0.75};
                case 2 -> new double[] {0, 0.75};
                case 3 -> new double[] {0, 1 / 3.0, 2 / 3.0};
                default -> new double[] {0};
            };
            for (double place : places) {
                if (place > 0 || !missed) {
                    long nanos = from + Math.round(place * length + random.nextGaussian() * 9e6);
                    hits.add(new Hit(
                            CLOCK.ticks(Math.max(0, nanos)),
                            64 + random.nextInt(12),
                            place == 0 ? 75 + random.nextInt(30) : 55 + louder + random.nextInt(40),
                            CLOCK.ticks(length / places.length) * 8 / 10));
                }
            }
            if (beat % 4 == 0 && !missed) {
                hits.add(new Hit(
                        CLOCK.ticks(Math.max(0, from + Math.round(random.nextGaussian() * 9e6))),
                        40,
                        95,
                        CLOCK.ticks(length)));
            }
        }
        hits.sort(Comparator.comparingLong(Hit::tick));
        record Event(long tick, int message) {}
        List<Event> events = new ArrayList<>();
        for (Hit hit : hits) {
            events.add(new Event(hit.tick, ShortMessage.noteOn(0, hit.key, hit.velocity)));
            events.add(new Event(hit.tick + hit.length, ShortMessage.noteOff(0, hit.key, 64)));
        }
        events.sort(Comparator.comparingLong(Event::tick));
        MidiTrack.Builder clip = new MidiTrack.Builder();
        events.forEach(event -> clip.add(event.tick, event.message));
        return new Piece(ClipIndex.of(clip.build()), known);
    }

    /** The share of known beats that are found within 35 ms. */
    private static double found(Piece piece, long[] beats) {
        int last = piece.beats.length - 1;
        long hits = Arrays.stream(piece.beats, 0, last)
                .filter(known -> Arrays.stream(beats).anyMatch(beat -> Math.abs(beat - known) <= NEAR))
                .count();
        return (double) hits / last;
    }

    @ParameterizedTest
    @EnumSource
    void findsTheBeatsOfPiecesOfWhichTheyAreKnown(Player player) {
        double sum = 0;
        int pieces = 0;
        double extra = 0;
        for (int seed = 0; seed < 12; seed++) {
            double bpm = 72 + seed * 6;
            Piece piece = piece(player, seed, bpm, 96);
            long[] beats = BeatFinder.find(List.of(piece.clip), CLOCK, 0);
            double share = found(piece, beats);
            sum += share;
            extra += (double) beats.length / (piece.beats.length - 1);
            pieces++;
        }
        System.out.printf(
                "beats found within 35 ms, %s: %.1f %%, %.2f beats for each%n",
                player, sum / pieces * 100, extra / pieces);
        assertThat(sum / pieces)
                .as("share of beats, " + player)
                .isGreaterThan(player == Player.SYNCOPATES ? 0.55 : 0.95);
        assertThat(extra / pieces).as("beats for each, " + player).isBetween(0.9, 1.15);
    }

    @Test
    void barsLieWhereTheBeatsWerePlayedAndEachSoundsWhenItDid() {
        Piece piece = piece(Player.DRIFTS, 3, 96, 64);
        TempoMap map = BeatFinder.map(piece.beats, 4, 2);
        for (int i = 0; i < piece.beats.length; i++) {
            long tick = map.ticks(piece.beats[i]);
            assertThat(tick % TempoMap.PPQ).isZero();
            assertThat(map.place(tick).beat()).isEqualTo(Math.floorMod(i - 2, 4) + 1);
            assertThat(map.nanos(tick)).isCloseTo(piece.beats[i], org.assertj.core.data.Offset.offset(1000L));
        }
    }

    @Test
    void tapsAreMadeExactByWhatWasPlayed() {
        Piece piece = piece(Player.STEADY, 1, 90, 32);
        Random random = new Random(2);
        long[] taps = Arrays.stream(piece.beats, 0, 31)
                .map(beat -> Math.max(0, beat + Math.round(random.nextGaussian() * 15e6)))
                .toArray();
        long[] beats = BeatFinder.taps(taps, List.of(piece.clip), CLOCK);
        double before = IntStream.range(0, 31)
                .mapToLong(i -> Math.abs(taps[i] - piece.beats[i]))
                .average()
                .orElseThrow();
        double after = IntStream.range(0, 31)
                .mapToLong(i -> Math.abs(beats[i] - piece.beats[i]))
                .average()
                .orElseThrow();
        assertThat(after).isLessThan(before);
    }

    @Test
    void tooFewNotesAreSaidToBeSo() {
        MidiTrack two = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 90))
                .add(960, ShortMessage.noteOn(0, 60, 90))
                .build();
        assertThatThrownBy(() -> BeatFinder.find(List.of(ClipIndex.of(two)), CLOCK, 0))
                .hasMessage("notes at 2 places (expected notes at 4 places at least, to find a beat)");
    }
}
