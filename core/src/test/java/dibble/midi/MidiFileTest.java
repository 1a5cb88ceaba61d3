package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
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
                .hasMessage("not a MIDI file: it does not begin with “MThd”");
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

    /** A file: its head, and what follows. */
    private static byte[] file(int type, int count, byte[]... chunks) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(new byte[] {'M', 'T', 'h', 'd', 0, 0, 0, 6, 0, (byte) type, 0, (byte) count, 0, 96});
        for (byte[] chunk : chunks) {
            out.writeBytes(chunk);
        }
        return out.toByteArray();
    }

    private static byte[] chunk(String name, int... bytes) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(name.getBytes());
        out.writeBytes(new byte[] {0, 0, 0, (byte) bytes.length});
        for (int b : bytes) {
            out.write(b);
        }
        return out.toByteArray();
    }

    private static byte[] note(int key) {
        return chunk("MTrk", 0, 0x90, key, 64, 0, 0xFF, 0x2F, 0);
    }

    @Test
    void tracksBeyondTheCountAreReadAndSaid() throws Exception {
        MidiFile more = MidiFileReader.read(file(1, 1, note(60), note(61), note(62)));
        assertThat(more.tracks()).hasSize(3);
        assertThat(more.remarks()).singleElement().asString().contains("3 tracks, not 1");
        MidiFile none = MidiFileReader.read(file(1, 0, note(60), note(61)));
        assertThat(none.tracks()).hasSize(2);
        assertThat(MidiFileReader.read(file(0, 1, note(60), note(61))).type()).isEqualTo(1);
    }

    @Test
    void whatIsNoTracksIsSaid() throws Exception {
        MidiFile alien = MidiFileReader.read(file(1, 1, chunk("XF\u0001H", 1, 2, 3), note(60)));
        assertThat(alien.remarks()).singleElement().asString().contains("\"XF?H\" of 3 bytes");
        MidiFile rest = MidiFileReader.read(file(1, 1, note(60), new byte[] {1, 2, 3}));
        assertThat(rest.tracks()).hasSize(1);
        assertThat(rest.remarks()).singleElement().asString().contains("3 bytes after the last track");
        MidiFile cut = MidiFileReader.read(file(1, 1, note(60), new byte[] {'M', 'T', 'r', 'k', 0, 0, 1, 0, 0}));
        assertThat(cut.remarks()).singleElement().asString().contains("9 bytes after the last track");
    }

    @Test
    void eventsBehindAnEarlyEndAreReadAndNonsenseIsSaid() throws Exception {
        MidiFile early = MidiFileReader.read(
                file(1, 1, chunk("MTrk", 0, 0x90, 60, 64, 5, 0xFF, 0x2F, 0, 3, 0x80, 60, 64, 0, 0xFF, 0x2F, 0)));
        MidiTrack track = early.tracks().get(0);
        assertThat(track.size()).isEqualTo(2);
        assertThat(track.tick(1)).isEqualTo(8);
        assertThat(early.remarks()).singleElement().asString().contains("continues after its end mark");
        MidiFile padded = MidiFileReader.read(file(1, 1, chunk("MTrk", 0, 0x90, 60, 64, 0, 0xFF, 0x2F, 0, 0, 0, 0)));
        assertThat(padded.tracks().get(0).size()).isEqualTo(1);
        assertThat(padded.remarks()).singleElement().asString().contains("3 bytes after the end of track 1");
    }

    @Test
    void aFileWithinARiffFileIsRead() throws Exception {
        byte[] inner = file(1, 1, note(60));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(
                new byte[] {'R', 'I', 'F', 'F', 80, 0, 0, 0, 'R', 'M', 'I', 'D', 'I', 'N', 'F', 'O', 3, 0, 0, 0});
        out.writeBytes(new byte[] {1, 2, 3, 0, 'd', 'a', 't', 'a', (byte) inner.length, 0, 0, 0});
        out.writeBytes(inner);
        out.writeBytes(new byte[] {'t', 'a', 'i', 'l'});
        MidiFile file = MidiFileReader.read(out.toByteArray());
        assertThat(file.tracks()).hasSize(1);
        assertThat(file.remarks()).isEmpty();
        assertThatThrownBy(() -> MidiFileReader.read(java.util.Arrays.copyOf(out.toByteArray(), 50)))
                .isInstanceOf(MidiFormatException.class);
        assertThatThrownBy(() -> MidiFileReader.read(java.util.Arrays.copyOf(out.toByteArray(), 24)))
                .hasMessageContaining("without MIDI data");
    }

    @Test
    void pausesOfAnyLengthAreWritten() throws Exception {
        long year = 0x0FFFFFFFL * 3 + 17;
        MidiTrack track = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(0x0FFFFFFFL, ShortMessage.noteOn(0, 61, 80))
                .add(year, ShortMessage.noteOff(0, 60, 64))
                .build(year * 2);
        MidiFile file = new MidiFile(0, 960, List.of(track));
        assertThat(MidiFileReader.read(MidiFileWriter.write(file))).isEqualTo(file);
        // Who knows nothing of this finds the events where they belong.
        var sequence = MidiSystem.getSequence(new ByteArrayInputStream(MidiFileWriter.write(file)));
        assertThat(sequence.getTracks()[0]
                        .get(sequence.getTracks()[0].size() - 1)
                        .getTick())
                .isEqualTo(year * 2);
    }

    @Test
    void tooManyEventsAndTracksAreRefused() {
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (int i = 0; i <= MidiFileReader.MAX_EVENTS; i++) {
            track.add(i, ShortMessage.noteOn(0, 60, 1));
        }
        byte[] bytes = MidiFileWriter.write(new MidiFile(0, 96, List.of(track.build())));
        assertThatThrownBy(() -> MidiFileReader.read(bytes)).hasMessageContaining("more than 3000000 events");
        List<MidiTrack> many = java.util.Collections.nCopies(65_536, new MidiTrack.Builder().build());
        assertThatThrownBy(() -> MidiFileWriter.write(new MidiFile(1, 96, many)))
                .hasMessage("65536 tracks (expected at most 65535)");
    }

    @Test
    void piecesOfAType2FileFollowEachOtherWithTheirOwnTempo() {
        MidiTrack fast = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {3, 0, 0})
                .add(5, ShortMessage.noteOn(0, 60, 80))
                .build(100);
        MidiTrack plain =
                new MidiTrack.Builder().add(7, ShortMessage.noteOn(0, 61, 80)).build(50);
        MidiFile both = new MidiFile(2, 96, List.of(fast, plain)).atOnce();
        assertThat(both.type()).isEqualTo(1);
        MidiTrack second = both.tracks().get(1);
        assertThat(second.tick(second.size() - 1)).isEqualTo(107);
        assertThat(second.endTick()).isEqualTo(150);
        MidiTrack conductor = both.conductor();
        assertThat(conductor.tick(1)).isEqualTo(100);
        assertThat(conductor.data(1)).containsExactly(7, 0xA1, 0x20);
    }
}
