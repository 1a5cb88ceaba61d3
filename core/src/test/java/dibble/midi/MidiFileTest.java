package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.util.List;
import java.util.Random;
import javax.sound.midi.MidiSystem;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class MidiFileTest {
    private static MidiFile random(long seed, int type) {
        Random random = new Random(seed);
        List<MidiTrack> tracks = new java.util.ArrayList<>();
        for (int t = 0; t < (type == 0 ? 1 : 1 + random.nextInt(4)); t++) {
            MidiTrack.Builder track = new MidiTrack.Builder();
            long tick = 0;
            for (int i = random.nextInt(60); i > 0; i--) {
                tick += random.nextInt(4) == 0 ? random.nextInt(1 << 27) : random.nextInt(200);
                switch (random.nextInt(6)) {
                    case 0 -> track.meta(tick, random.nextInt(0x2F), bytes(random));
                    case 1 -> track.exclusive(tick, random.nextBoolean() ? 0xF0 : 0xF7, bytes(random));
                    default -> {
                        int status = 0x80 + random.nextInt(0x70);
                        int two = ShortMessage.length(status) == 3 ? random.nextInt(128) : 0;
                        track.add(tick, ShortMessage.of(status & 0xF0, status & 0xF, random.nextInt(128), two));
                    }
                }
            }
            tracks.add(track.build(tick + random.nextInt(100)));
        }
        return new MidiFile(type, random.nextBoolean() ? 960 : -25 << 8 | 40, tracks);
    }

    private static byte[] bytes(Random random) {
        byte[] bytes = new byte[random.nextInt(300)];
        random.nextBytes(bytes);
        return bytes;
    }

    @Property(tries = 500)
    void whatIsWrittenIsReadBack(@ForAll long seed) throws Exception {
        for (int type = 0; type <= 2; type++) {
            MidiFile file = random(seed, type);
            assertThat(MidiFileReader.read(MidiFileWriter.write(file))).isEqualTo(file);
        }
    }

    @Property(tries = 100)
    void theJdkReadsAsManyTracksAndTicks(@ForAll long seed) throws Exception {
        MidiTrack.Builder track = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, "Bass");
        Random random = new Random(seed);
        for (int tick = 0; tick < 50_000; tick += 1 + random.nextInt(900)) {
            track.add(tick, ShortMessage.noteOn(random.nextInt(16), random.nextInt(128), 1 + random.nextInt(127)));
        }
        MidiTrack whole = track.build();
        var sequence = MidiSystem.getSequence(
                new ByteArrayInputStream(MidiFileWriter.write(new MidiFile(1, 480, List.of(whole, whole)))));
        assertThat(sequence.getTracks()).hasSize(2);
        assertThat(sequence.getTracks()[1].size()).isEqualTo(whole.size() + 1);
        assertThat(sequence.getTickLength()).isEqualTo(whole.endTick());
    }

    @Property(tries = 3000)
    void damagedFilesAreRefusedOrReadNeverWorse(@ForAll long seed) {
        Random random = new Random(seed);
        byte[] bytes = MidiFileWriter.write(random(seed, random.nextInt(3)));
        for (int i = 1 + random.nextInt(6); i > 0; i--) {
            bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
        }
        byte[] cut = java.util.Arrays.copyOf(bytes, random.nextBoolean() ? bytes.length : random.nextInt(bytes.length));
        try {
            assertThat(MidiFileReader.read(cut).tracks()).isNotNull();
        } catch (MidiFormatException e) {
            assertThat(e.getMessage().lines().count()).isEqualTo(1);
        }
    }

    @Test
    void aLengthOutOfAllProportionIsRefusedBeforeAnythingIsAllocated() {
        byte[] bytes = {
            'M',
            'T',
            'h',
            'd',
            0,
            0,
            0,
            6,
            0,
            0,
            0,
            1,
            0,
            96,
            'M',
            'T',
            'r',
            'k',
            0,
            0,
            0,
            7,
            0,
            (byte) 0xFF,
            1,
            (byte) 0xFF,
            (byte) 0xFF,
            (byte) 0xFF,
            127
        };
        assertThatThrownBy(() -> MidiFileReader.read(bytes))
                .isInstanceOf(MidiFormatException.class)
                .hasMessage("byte 29: event of 268435455 bytes (expected at most the 0 left in its track)");
    }

    @Test
    void somethingElseIsNamedAsSuch() {
        assertThatThrownBy(() -> MidiFileReader.read("a text, and a rather longer one".getBytes()))
                .hasMessage("no MIDI file: it begins with something else than \"MThd\"");
    }

    @Test
    void runningStatusAndUnknownChunksAreUnderstood() throws Exception {
        byte[] bytes = {
            'M',
            'T',
            'h',
            'd',
            0,
            0,
            0,
            6,
            0,
            0,
            0,
            1,
            0,
            96,
            'X',
            'Y',
            'Z',
            'W',
            0,
            0,
            0,
            2,
            1,
            2,
            'M',
            'T',
            'r',
            'k',
            0,
            0,
            0,
            11,
            0,
            (byte) 0x90,
            60,
            64,
            5,
            60,
            0,
            0,
            (byte) 0xFF,
            0x2F,
            0
        };
        MidiTrack track = MidiFileReader.read(bytes).tracks().get(0);
        assertThat(track.size()).isEqualTo(2);
        assertThat(track.message(1)).isEqualTo(ShortMessage.noteOn(0, 60, 0));
        assertThat(track.tick(1)).isEqualTo(5);
    }
}
