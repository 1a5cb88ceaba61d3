package dibble.sound;

import static dibble.text.CoreText.say;

import dibble.disk.AtomicFile;
import dibble.gear.Loudness;
import dibble.gear.PartRef;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.midi.ShortMessage;
import dibble.recording.FileNames;
import dibble.text.UserException;
import dibble.work.Progress;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * Music as files of sound, faster than it is played: a stem for each strip and the mix, all with the same start and
 * length. The mixer is the one that is heard; the same music makes the same bytes.
 */
public final class Bounce {
    /** The sample formats. */
    public enum Bits {
        /** Whole numbers of 16 bits. */
        PCM_16("16", 16),
        /** Whole numbers of 24 bits. */
        PCM_24("24", 24),
        /** Floats of 32 bits, which nothing can be too loud for. */
        FLOAT("float", 32);

        private final String word;
        private final int bits;

        Bits(String word, int bits) {
            this.word = word;
            this.bits = bits;
        }

        /** Returns the bits of a sample. */
        int bits() {
            return bits;
        }

        /** Returns the word for this format on a command line. */
        public String word() {
            return word;
        }
    }

    /**
     * The options.
     *
     * @param rate samples a second
     * @param tail the time after the music, in seconds; negative until silence, 20 s at most
     * @param parts the parts to render; empty for all
     * @param mixOnly whether to render no stems
     */
    public record Wanted(int rate, Bits bits, double tail, Set<PartRef> parts, boolean mixOnly) {
        /** The lowest and the highest rate. */
        public static final int LOWEST_RATE = 8_000;

        /** The highest rate. */
        public static final int HIGHEST_RATE = 192_000;

        /** The longest tail, in seconds. */
        public static final double LONGEST_TAIL = 600;

        /** Everything, at 44,100 a second with 24 bits, until nothing is heard any more. */
        public static final Wanted USUAL = new Wanted(44_100, Bits.PCM_24, -1, Set.of(), false);

        /** @throws UserException where a number is out of its range */
        public Wanted {
            if (rate < LOWEST_RATE || rate > HIGHEST_RATE) {
                throw new UserException(say("bounce.rate-expected", rate, LOWEST_RATE, HIGHEST_RATE));
            }
            if (tail > LONGEST_TAIL || Double.isNaN(tail)) {
                throw new UserException(say("bounce.tail-expected", tail, (int) LONGEST_TAIL));
            }
            parts = Set.copyOf(parts);
        }
    }

    /**
     * The result.
     *
     * @param files the files, the mix last
     * @param leftOut names of parts on external gear, which cannot be rendered
     * @param seconds the length of each file
     * @param peak the highest sample of the mix, in dB; over 0 if integer samples were limited to full scale
     */
    public record Made(List<Path> files, List<String> leftOut, double seconds, double peak) {}

    private static final String MIX = "mix";
    private static final long LOOK_MILLIS = 500;
    private static final String TEMPORARY = ".dibble-";
    private static final double LONGEST_DECAY = 20;
    private static final double SILENT_SECONDS = 0.25;
    private static final float SILENT = 1e-5f;
    private static final long LARGEST = (1L << 32) - 1;

    private final OfflinePlayback music;
    private final SoundPlan plan;
    private final Wanted wanted;
    private final AudioSettings settings;
    private final Mixer mixer;
    private final List<SynthInstrument> sources = new ArrayList<>();
    private final Map<String, SynthInstrument> byPort = new LinkedHashMap<>();
    private final Map<ChannelStrip, Stem> stems = new IdentityHashMap<>();
    private final Set<String> names = new HashSet<>(Set.of(MIX));
    private final List<String> order = new ArrayList<>();
    private final float[] silence;
    private final Path folder;
    private int next;

    /** The sound of a single strip. */
    private static final class Stem {
        final WavFile file;
        final EffectBus effects;
        final float[] left;
        final float[] right;

        Stem(WavFile file, AudioSettings settings) {
            this.file = file;
            effects = new EffectBus(settings);
            left = new float[settings.block()];
            right = new float[settings.block()];
        }
    }

    private Bounce(
            OfflinePlayback music,
            SoundPlan plan,
            Map<String, SoundBank> banks,
            Wanted wanted,
            Path folder,
            Function<AudioSettings, SynthMaker> makers) {
        this.music = music;
        this.plan = plan;
        this.wanted = wanted;
        this.folder = folder;
        settings = AudioSettings.offline(wanted.rate);
        mixer = new Mixer(settings);
        silence = new float[settings.block()];
        for (StripPlan strip : plan.strips()) {
            if (strip.builtIn() && !byPort.containsKey(strip.port())) {
                SynthInstrument source = new SynthInstrument(strip.port(), null);
                source.start(settings, makers.apply(settings));
                source.follow(plan, banks);
                byPort.put(strip.port(), source);
                sources.add(source);
            }
        }
    }

    /**
     * Makes the files in a folder, which is made where it is not there. Files of the same names are replaced once all are
     * done; where it fails or is cancelled, everything is as it was.
     *
     * @param banks the files of sounds that are open, by their ids in the session
     */
    public static Made render(
            OfflinePlayback music,
            SoundPlan plan,
            Map<String, SoundBank> banks,
            Wanted wanted,
            Path folder,
            Progress progress)
            throws IOException {
        return render(music, plan, banks, wanted, folder, progress, settings -> bank -> new JdkSynth(settings, bank));
    }

    /** @param makers makes what makes synthesizers, for some settings */
    static Made render(
            OfflinePlayback music,
            SoundPlan plan,
            Map<String, SoundBank> banks,
            Wanted wanted,
            Path folder,
            Progress progress,
            Function<AudioSettings, SynthMaker> makers)
            throws IOException {
        long frames = (long) ((music.length() / 1e9 + Math.max(wanted.tail, LONGEST_DECAY)) * wanted.rate);
        if (WavFile.size(frames, wanted.bits) > LARGEST) {
            throw new IOException(say("bounce.too-long"));
        }
        boolean isNew = !Files.exists(folder);
        Files.createDirectories(folder);
        Path temporary = Files.createTempDirectory(folder, TEMPORARY);
        boolean done = false;
        Bounce bounce = new Bounce(music, plan, banks, wanted, temporary, makers);
        try {
            Made made = bounce.runWatched(progress);
            List<Path> files = new ArrayList<>();
            for (Path file : made.files) {
                Path to = folder.resolve(file.getFileName());
                Files.move(file, to, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
                files.add(to);
            }
            AtomicFile.flush(folder);
            done = true;
            return new Made(files, made.leftOut, made.seconds, made.peak);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } finally {
            bounce.close();
            delete(temporary);
            if (!done && isNew) {
                Files.deleteIfExists(folder);
            }
        }
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }

    /** Renders on a separate thread, which is abandoned if a synthesizer does not return. */
    private Made runWatched(Progress progress) throws IOException {
        FutureTask<Made> task = new FutureTask<>(() -> run(progress));
        Thread thread = new Thread(task, "dibble-render");
        thread.setDaemon(true);
        thread.start();
        while (true) {
            try {
                return task.get(LOOK_MILLIS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException e) {
                for (SynthInstrument source : sources) {
                    ChannelStrip stuck = source.watch().look();
                    if (stuck != null) {
                        stuck.giveUp();
                        thread.setPriority(Thread.MIN_PRIORITY);
                        throw new IOException(
                                say("bounce.does-not-return", stuck.plan().name()));
                    }
                }
            } catch (InterruptedException e) {
                // The waiting thread was interrupted: the work ends at its next step.
                thread.interrupt();
            } catch (ExecutionException e) {
                if (e.getCause() instanceof IOException failed) {
                    throw failed;
                }
                if (e.getCause() instanceof RuntimeException failed) {
                    throw failed;
                }
                if (e.getCause() instanceof Error failed) {
                    throw failed;
                }
                throw new IllegalStateException(e.getCause());
            }
        }
    }

    private Made run(Progress progress) throws IOException {
        try (WavFile mix = new WavFile(path(MIX), wanted.rate, wanted.bits)) {
            if (!wanted.mixOnly) {
                prepareStems();
            }
            Mixer.Tap tap = wanted.mixOnly ? null : new Stems();
            float peak = 0;
            float[] frames = new float[settings.block() * 2];
            float[] left = new float[settings.block()];
            float[] right = new float[settings.block()];
            double end = music.length() / 1e9;
            int quiet = 0;
            for (double at = 0; at < end || goesOn(at - end, quiet); at = (double) mixer.frames() / wanted.rate) {
                progress.at(Math.min(1, at / (end + Math.max(0, wanted.tail))));
                feed();
                mixer.mix(sources, mixer.blockEnd(), tap);
                mixer.interleave(1, frames);
                float loudest = 0;
                for (int i = 0; i < left.length; i++) {
                    left[i] = frames[2 * i];
                    right[i] = frames[2 * i + 1];
                    loudest = Math.max(loudest, Math.max(Math.abs(left[i]), Math.abs(right[i])));
                }
                peak = Math.max(peak, loudest);
                quiet = loudest < SILENT ? quiet + 1 : 0;
                mix.write(left, right);
            }
            List<Path> files = new ArrayList<>(order.stream().map(this::path).toList());
            files.add(path(MIX));
            return new Made(files, leftOut(), (double) mix.frames() / wanted.rate, Loudness.ofGain(peak));
        } finally {
            for (Stem stem : stems.values()) {
                stem.file.close();
            }
        }
    }

    private boolean goesOn(double over, int quiet) {
        return wanted.tail >= 0
                ? over < wanted.tail
                : over < LONGEST_DECAY && quiet * settings.block() < SILENT_SECONDS * wanted.rate;
    }

    private Path path(String name) {
        return folder.resolve(name + ".wav");
    }

    /** A stem for each strip that the session has, whether or not anything sounds on it. */
    private void prepareStems() throws IOException {
        for (SynthInstrument source : sources) {
            source.obey();
            for (ChannelStrip strip : source.strips()) {
                if (plan.strips().contains(strip.plan()) && isWanted(strip.plan())) {
                    stems.put(strip, stem(strip.plan().name()));
                } else if (wanted.parts.isEmpty() && isPlayed(source.name(), strip.channel + 1)) {
                    // A channel that no part has, and that something is sent to.
                    stems.put(strip, stem(say("bounce.channel", strip.channel + 1)));
                }
            }
        }
    }

    private Stem stem(String name) throws IOException {
        String free = FileNames.fresh(name, names::contains);
        names.add(free.toLowerCase(Locale.ROOT));
        order.add(free);
        return new Stem(new WavFile(path(free), wanted.rate, wanted.bits), settings);
    }

    private boolean isWanted(StripPlan strip) {
        return wanted.parts.isEmpty() || wanted.parts.contains(strip.ref().part());
    }

    private boolean isWanted(String port, int channel) {
        return wanted.parts.isEmpty()
                || plan.strips().stream()
                        .anyMatch(strip -> strip.port().equals(port) && strip.channel() == channel && isWanted(strip));
    }

    /** Sends the messages that are due in the next block, each at its frame. */
    private void feed() {
        while (next < music.size()) {
            long frame = settings.frames(music.stamp(next)) - mixer.frames();
            if (frame >= settings.block()) {
                return;
            }
            SynthInstrument source = byPort.get(music.port(next));
            int message = music.message(next);
            if (source != null && isWanted(source.name(), ShortMessage.channel(message) + 1)) {
                source.playNow(message, (int) Math.max(0, frame));
            }
            next++;
        }
    }

    /** Writes each strip with the effects that it has alone. */
    private final class Stems implements Mixer.Tap {
        @Override
        public EffectBus effects(AudioSource source, ChannelStrip strip) {
            Stem stem = stems.get(strip);
            if (stem == null) {
                return null;
            }
            stem.effects.alongside(source.effects());
            return stem.effects;
        }

        @Override
        public void take(AudioSource source, ChannelStrip strip) {
            Stem stem = stems.get(strip);
            if (stem == null) {
                return;
            }
            System.arraycopy(silence, 0, stem.left, 0, silence.length);
            System.arraycopy(silence, 0, stem.right, 0, silence.length);
            strip.addTo(stem.left, stem.right);
            stem.effects.process(stem.left, stem.right);
            try {
                stem.file.write(stem.left, stem.right);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private boolean isPlayed(String port, int channel) {
        for (int i = 0; i < music.size(); i++) {
            int message = music.message(i);
            if (ShortMessage.startsNote(message)
                    && ShortMessage.channel(message) == channel - 1
                    && music.port(i).equals(port)) {
                return true;
            }
        }
        return false;
    }

    /** The parts on outside gear that play something. */
    private List<String> leftOut() {
        Set<String> left = new LinkedHashSet<>();
        for (StripPlan strip : plan.strips()) {
            if (!strip.builtIn() && isWanted(strip) && isPlayed(strip.port(), strip.channel())) {
                left.add(strip.name());
            }
        }
        return List.copyOf(left);
    }

    private void close() {
        sources.forEach(SynthInstrument::end);
    }
}
