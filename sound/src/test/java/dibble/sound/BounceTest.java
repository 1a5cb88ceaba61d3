package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dibble.demo.LamplightersRound;
import dibble.edits.StripEdits;
import dibble.edits.TrackEdits;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.recording.Clips;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.testing.PatientAwaiting;
import dibble.testing.disk.FailingDisk;
import dibble.testing.disk.WatchedProvider;
import dibble.time.Clock;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BounceTest {
    private static final PartRef HANDS = new PartRef("sorrel", "hands");
    private static final int HEAD = 44;

    @TempDir
    Path folder;

    /** Three drums, each on its own strip and output, with some of each in the room; two hits of each. */
    private static Session drums() {
        Session session = TrackEdits.addKeyTracks(LamplightersRound.session(), HANDS, List.of(41, 45, 50));
        int output = 2;
        for (int key : new int[] {41, 45, 50}) {
            int number = output++;
            session = StripEdits.change(
                    session,
                    new StripRef(HANDS, key),
                    strip -> strip.withLevel(0.0)
                            .withOutput(number)
                            .withReverb(60)
                            .withChorus(number == 3 ? 80 : 0));
        }
        return session;
    }

    private static MidiFile beats(int... keys) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        track.text(0, MidiTrack.META_TRACK_NAME, "Sedge pads");
        for (int i = 0; i < keys.length; i++) {
            track.add(i * 480L, ShortMessage.noteOn(9, keys[i], 100));
            track.add(i * 480L + 120, ShortMessage.noteOff(9, keys[i], 64));
        }
        return new MidiFile(1, 960, List.of(track.build()));
    }

    private static OfflinePlayback played(Session session, MidiFile file) {
        return OfflinePlayback.ofFile(session, LamplightersRound.performance(), file, new String[] {"sedge"});
    }

    /** Whichever change is the first that fails, alone or with all after it: files are as they were, or as they should be. */
    @Test
    void aDiskThatFailsLeavesWhatWasThere() throws IOException {
        String full = "No space left on device";
        FailingDisk disk = new FailingDisk(full);
        Path to = WatchedProvider.watched(folder, disk).resolve("mix");
        Session session = LamplightersRound.session();
        Bounce.Wanted wanted = new Bounce.Wanted(8_000, Bounce.Bits.PCM_16, 0, Set.of(), true);
        Files.createDirectories(folder.resolve("mix"));
        byte[] old = {1, 2, 3};
        int failures = 0;
        for (int howMany : new int[] {1, Integer.MAX_VALUE}) {
            boolean failed = true;
            for (int after = 0; failed; after++) {
                Path mix = Files.write(folder.resolve("mix").resolve("mix.wav"), old);
                disk.fail(after, howMany);
                failed = false;
                try {
                    Bounce.render(played(session, beats(41)), plan(session), Map.of(), wanted, to, Progress.NONE);
                } catch (IOException e) {
                    failed = true;
                    failures++;
                    assertThat(e).hasMessage(full);
                    assertThat(mix).hasBinaryContent(old);
                }
                disk.fail(Integer.MAX_VALUE, 0);
                try (Stream<Path> files = Files.list(mix.getParent())) {
                    assertThat(files).containsExactly(mix);
                }
            }
        }
        assertThat(failures).isGreaterThan(8);
        assertThat(Files.size(folder.resolve("mix").resolve("mix.wav"))).isGreaterThan(HEAD);
    }

    private static SoundPlan plan(Session session) {
        return SoundPlan.of(session, LamplightersRound.performance());
    }

    private Bounce.Made render(Session session, OfflinePlayback music, Bounce.Wanted wanted, String to)
            throws IOException {
        return Bounce.render(music, plan(session), Map.of(), wanted, folder.resolve(to), Progress.NONE);
    }

    /** Interleaved samples of a float file. */
    private static float[] samples(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        float[] samples = new float[(bytes.length - HEAD) / 4];
        ByteBuffer.wrap(bytes, HEAD, bytes.length - HEAD)
                .order(ByteOrder.LITTLE_ENDIAN)
                .asFloatBuffer()
                .get(samples);
        return samples;
    }

    private static double peak(float[] samples) {
        double peak = 0;
        for (float sample : samples) {
            peak = Math.max(peak, Math.abs(sample));
        }
        return peak;
    }

    private static final Bounce.Wanted FLOATS = new Bounce.Wanted(44_100, Bounce.Bits.FLOAT, -1, Set.of(HANDS), false);

    /** Pads 53, 57, 62 play drums 41, 45 and 50. */
    @Test
    void eachDrumIsAStemOfItsOwnAndTheySumToTheMix() throws IOException {
        Session session = drums();
        Bounce.Made made = render(session, played(session, beats(53, 57, 53, 62, 53)), FLOATS, "stems");
        assertThat(made.files().stream().map(file -> file.getFileName().toString()))
                .containsExactly(
                        "Hand drums.wav", "Frame drum low.wav", "Goblet drum.wav", "Finger drum.wav", "mix.wav");
        List<float[]> stems = new ArrayList<>();
        for (Path file : made.files()) {
            stems.add(samples(file));
        }
        float[] mix = stems.remove(stems.size() - 1);
        assertThat(mix.length / 2 / 44_100.0).isCloseTo(made.seconds(), within(1e-9));
        assertThat(peak(stems.get(0))).isZero();
        double off = 0;
        for (int i = 0; i < mix.length; i++) {
            double sum = 0;
            for (float[] stem : stems) {
                sum += stem[i];
            }
            off = Math.max(off, Math.abs(sum - mix[i]));
        }
        assertThat(20 * Math.log10(off)).isLessThan(-90);
        assertThat(20 * Math.log10(peak(mix))).isCloseTo(made.peak(), within(1e-3));
        // Each alone: a drum that was not hit is silent, and nothing sounds before its first hit.
        Bounce.Made lows = render(session, played(session, beats(53, 53)), FLOATS, "lows");
        assertThat(peak(samples(lows.files().get(1)))).isGreaterThan(0.05);
        assertThat(peak(samples(lows.files().get(2)))).isZero();
        int second = 2 * 44_100 * 480 / 960 * 60 / 96;
        assertThat(peak(Arrays.copyOf(stems.get(2), second - 2 * 128))).isZero();
        assertThat(peak(stems.get(2))).isGreaterThan(0.05);
    }

    @Test
    void theSameSessionMakesTheSameBytesAndTheSameAsPlayed() throws Exception {
        Session session = drums();
        OfflinePlayback music = OfflinePlayback.ofFile(
                session,
                LamplightersRound.performance(),
                opening(LamplightersRound.played()),
                LamplightersRound.PLAYERS.stream()
                        .map(name -> session.sources().stream()
                                .filter(source -> source.name().equals(name))
                                .findFirst()
                                .orElseThrow()
                                .id())
                        .collect(java.util.stream.Collectors.collectingAndThen(
                                java.util.stream.Collectors.toList(), BounceTest::behindConductor)));
        Bounce.Wanted wanted = new Bounce.Wanted(44_100, Bounce.Bits.FLOAT, 2, Set.of(), true);
        Path once = render(session, music, wanted, "once").files().get(0);
        Path twice = render(session, music, wanted, "twice").files().get(0);
        assertThat(Files.mismatch(once, twice)).isEqualTo(-1);

        float[] rendered = samples(once);
        float[] heard = heard(session, music, rendered.length);
        int first = firstSound(heard) - firstSound(rendered);
        assertThat(first).isGreaterThanOrEqualTo(0);
        assertThat(peak(rendered)).isGreaterThan(0.1);
        assertThat(Arrays.mismatch(heard, first, heard.length, rendered, 0, heard.length - first))
                .isEqualTo(-1);
    }

    /** The first bar and a half, notes that go on behind it included. */
    private static MidiFile opening(MidiFile file) {
        List<Clips.Stretch> opening = List.of(new Clips.Stretch(0, file.division() * 6L));
        return new MidiFile(
                1,
                file.division(),
                file.tracks().stream()
                        .map(track -> Clips.closed(Clips.within(track, opening)))
                        .toList());
    }

    private static String[] behindConductor(List<String> sources) {
        List<String> all = new ArrayList<>(sources);
        all.add(0, null);
        return all.toArray(String[]::new);
    }

    private static int firstSound(float[] samples) {
        int at = 0;
        while (samples[at] == 0) {
            at++;
        }
        return at;
    }

    /** Sends the music with its stamps, and takes what an audio device is given; the clock runs by what it was given. */
    private static float[] heard(Session session, OfflinePlayback music, int wanted) throws InterruptedException {
        AtomicLong frames = new AtomicLong();
        Clock clock = () -> AudioSettings.USUAL.nanos(frames.get());
        float[] heard = new float[wanted];
        CountDownLatch full = new CountDownLatch(1);
        CountDownLatch sent = new CountDownLatch(1);
        AudioOut device = new AudioOut() {
            private int at;

            @Override
            public boolean write(float[] block) {
                if (sent.getCount() > 0) {
                    // Time stands until the music is on its way.
                    await(sent);
                }
                int count = Math.min(block.length, heard.length - at);
                System.arraycopy(block, 0, heard, at, count);
                at += count;
                frames.addAndGet(AudioSettings.USUAL.block());
                if (at == heard.length) {
                    full.countDown();
                }
                return true;
            }

            @Override
            public void close() {}
        };
        SoundPlan plan = plan(session);
        try (AudioEngine engine = new AudioEngine(clock, settings -> Optional.of(device));
                OutputPort port = engine.open("stand-in:sorrel")) {
            engine.follow(plan, Map.of());
            // A whole number of blocks from the first on, as time is cut: else notes begin up to a block earlier or
            // later.
            long start = AudioSettings.USUAL.nanos(128 * 20L) - AudioEngine.LATENCY_NANOS;
            for (int i = 0; i < music.size(); i++) {
                if (music.port(i).equals("stand-in:sorrel")) {
                    port.send(music.message(i), start + music.stamp(i));
                }
            }
            sent.countDown();
            assertThat(full.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                    .isTrue();
        }
        return heard;
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void wholeNumbersAndRatesAreWrittenAsTheHeadSays() throws Exception {
        Session session = drums();
        OfflinePlayback music = played(session, beats(53));
        for (Bounce.Bits bits : List.of(Bounce.Bits.PCM_16, Bounce.Bits.PCM_24)) {
            Bounce.Made made = render(session, music, new Bounce.Wanted(48_000, bits, 1, Set.of(), true), bits.word());
            try (var in = javax.sound.sampled.AudioSystem.getAudioInputStream(
                    made.files().get(0).toFile())) {
                assertThat(in.getFormat().getSampleRate()).isEqualTo(48_000f);
                assertThat(in.getFormat().getSampleSizeInBits()).isEqualTo(Integer.parseInt(bits.word()));
                assertThat(in.getFrameLength() / 48_000.0).isCloseTo(made.seconds(), within(1e-9));
            }
        }
    }

    @Test
    void whatIsCancelledOrImpossibleLeavesNothing() throws IOException {
        Session session = drums();
        OfflinePlayback music = played(session, beats(53, 53, 53));
        int[] asked = {0};
        assertThatThrownBy(() -> Bounce.render(music, plan(session), Map.of(), FLOATS, folder.resolve("new"), share -> {
                    if (asked[0]++ == 20) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(folder.resolve("new")).doesNotExist();
        Path there = Files.createDirectory(folder.resolve("there"));
        Files.writeString(there.resolve("mix.wav"), "before");
        asked[0] = 0;
        assertThatThrownBy(() -> Bounce.render(music, plan(session), Map.of(), FLOATS, there, share -> {
                    if (asked[0]++ == 20) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        try (Stream<Path> left = Files.list(there)) {
            assertThat(left.map(Path::getFileName).map(Path::toString)).containsExactly("mix.wav");
        }
        assertThat(there.resolve("mix.wav")).hasContent("before");
        assertThatThrownBy(() -> new Bounce.Wanted(10, Bounce.Bits.PCM_16, 0, Set.of(), false))
                .hasMessageContaining("rate 10 (expected 8000 to 192000)");
    }

    @Test
    void mutedTracksAreNotPlayedAndPartsOnOutsideGearAreNamed() throws IOException {
        Session session = TrackEdits.readyToRecord(LamplightersRound.session());
        assertThat(OfflinePlayback.ofTracks(session, Performance.NEW).length()).isZero();
        MidiTrack.Builder pedals = new MidiTrack.Builder();
        pedals.add(0, ShortMessage.noteOn(2, 40, 100));
        pedals.add(960, ShortMessage.noteOff(2, 40, 64));
        OfflinePlayback winds = OfflinePlayback.ofFile(
                session, LamplightersRound.performance(), new MidiFile(1, 960, List.of(pedals.build())), new String[] {
                    "fern"
                });
        Bounce.Made made =
                render(session, winds, new Bounce.Wanted(44_100, Bounce.Bits.PCM_16, 0, Set.of(), true), "winds");
        assertThat(made.leftOut()).containsExactly("Low winds");
    }
}
