package dibble.sound;

import static dibble.text.CoreText.say;

import com.sun.media.sound.AudioSynthesizer;
import com.sun.media.sound.DLSSoundbank;
import com.sun.media.sound.ModelPatch;
import com.sun.media.sound.SF2Instrument;
import com.sun.media.sound.SF2InstrumentRegion;
import com.sun.media.sound.SF2LayerRegion;
import com.sun.media.sound.SF2Region;
import com.sun.media.sound.SF2Sample;
import com.sun.media.sound.SF2Soundbank;
import dibble.files.WholeFile;
import dibble.midi.GeneralMidi;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.sound.midi.Instrument;
import javax.sound.midi.Soundbank;

/** Sounds of a file: SoundFont 2 or DLS. Immutable once it is open; any number of synthesizers share it. */
public final class SoundBank {
    /** The largest file that is opened, in MiB: all of it is kept in memory. */
    public static final int MAX_MEGABYTES = 256;

    private static final String OWN = "dibble.sf2";
    private static final int LOOPS = 1;
    private static final int SHORTEST_LOOP = 4;
    private static final int LOWEST_RATE = 400;
    private static final int HIGHEST_RATE = 400_000;

    /** Opened at the first use, and kept. */
    private static final class Own {
        static final SoundBank BANK = open();

        private static SoundBank open() {
            try (InputStream in = SoundBank.class.getResourceAsStream(OWN)) {
                return of(in.readAllBytes());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (SoundBankException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private final Soundbank sounds;
    private final String sha256;
    private volatile boolean unusable;
    private final List<Preset> presets;

    private SoundBank(Soundbank sounds, String sha256) {
        this.sounds = SafeSounds.of(sounds);
        this.sha256 = sha256;
        List<Preset> all = new ArrayList<>();
        for (Instrument instrument : sounds.getInstruments()) {
            all.add(preset(instrument));
        }
        all.sort(Comparator.comparing(Preset::drums)
                .thenComparing(preset -> preset.bank().get(0))
                .thenComparing(preset -> preset.bank().get(1))
                .thenComparing(Preset::program));
        presets = List.copyOf(all);
    }

    /** The sounds that come with Dibble. */
    static SoundBank own() {
        return Own.BANK;
    }

    /** Returns the built-in presets: the programs of General MIDI, by its names, and Dibble's kits. */
    public static List<Preset> usual() {
        List<Preset> all = new ArrayList<>();
        for (int program = 0; program < 128; program++) {
            all.add(new Preset(GeneralMidi.name(program), List.of(0, 0), program, false, Map.of()));
        }
        for (Preset kit : own().presets) {
            if (kit.drums()) {
                String name = say(kit.program() == 0 ? "sound-bank.standard-kit" : "sound-bank.hand-drums");
                all.add(new Preset(name, kit.bank(), kit.program(), true, kit.keyNames()));
            }
        }
        return all;
    }

    /** Returns true if a sound of {@link #usual} is Dibble's own; the others are Java's. */
    public static boolean isOwn(Preset usual) {
        return own().presets.stream()
                .anyMatch(preset -> preset.drums() == usual.drums() && preset.program() == usual.program());
    }

    /**
     * Opens a file. Takes a while: not on the interface's thread.
     *
     * @throws IOException where it cannot be read
     * @throws SoundBankException where it is too large, damaged, or no file of sounds
     */
    public static SoundBank open(Path file) throws IOException, SoundBankException {
        byte[] bytes = WholeFile.read(
                file,
                MAX_MEGABYTES << 20,
                size -> new IOException(say("sound-bank.too-large", file, size >> 20, MAX_MEGABYTES)));
        return of(bytes);
    }

    /** Opens the content of a file. */
    static SoundBank of(byte[] bytes) throws SoundBankException {
        String type = RiffCheck.type(bytes);
        try {
            Soundbank sounds = switch (type) {
                case "sfbk" -> mended(new SF2Soundbank(new ByteArrayInputStream(bytes)));
                case "DLS " -> new DLSSoundbank(new ByteArrayInputStream(bytes));
                default -> throw new SoundBankException(say("sound-bank.no-sounds"));
            };
            if (sounds.getInstruments().length == 0) {
                throw new SoundBankException(say("sound-bank.empty"));
            }
            return new SoundBank(sounds, sha256(bytes));
        } catch (IOException | RuntimeException e) {
            // The JDK's readers trust the values in a file, and fail in many ways on invalid ones.
            throw new SoundBankException(say("sound-bank.damaged"));
        }
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Removes zones without a sample, and loops that are impossible: a synthesizer would never return. */
    private static SF2Soundbank mended(SF2Soundbank bank) {
        for (SF2Instrument instrument : bank.getInstruments()) {
            instrument.getRegions().removeIf(region -> region.getLayer() == null);
            for (SF2InstrumentRegion region : instrument.getRegions()) {
                SF2Region global = region.getLayer().getGlobalRegion();
                region.getLayer().getRegions().removeIf(it -> !isPlayable(it.getSample()));
                region.getLayer().getRegions().forEach(it -> mendLoop(it, global));
            }
        }
        return bank;
    }

    private static boolean isPlayable(SF2Sample sample) {
        return sample != null
                && sample.getDataBuffer() != null
                && frames(sample) > SHORTEST_LOOP
                && sample.getSampleRate() >= LOWEST_RATE
                && sample.getSampleRate() <= HIGHEST_RATE;
    }

    private static long frames(SF2Sample sample) {
        return sample.getDataBuffer().capacity() / 2;
    }

    private static int value(SF2LayerRegion region, SF2Region global, int generator) {
        return region.contains(generator) || global == null ? region.getShort(generator) : global.getShort(generator);
    }

    private static void mendLoop(SF2LayerRegion region, SF2Region global) {
        SF2Sample sample = region.getSample();
        if ((value(region, global, SF2Region.GENERATOR_SAMPLEMODES) & LOOPS) == 0) {
            return;
        }
        long from = sample.getStartLoop()
                + value(region, global, SF2Region.GENERATOR_STARTLOOPADDRSOFFSET)
                + 32768L * value(region, global, SF2Region.GENERATOR_STARTLOOPADDRSCOARSEOFFSET);
        long to = sample.getEndLoop()
                + value(region, global, SF2Region.GENERATOR_ENDLOOPADDRSOFFSET)
                + 32768L * value(region, global, SF2Region.GENERATOR_ENDLOOPADDRSCOARSEOFFSET);
        long start = value(region, global, SF2Region.GENERATOR_STARTADDRSOFFSET)
                + 32768L * value(region, global, SF2Region.GENERATOR_STARTADDRSCOARSEOFFSET);
        long end = frames(sample)
                + value(region, global, SF2Region.GENERATOR_ENDADDRSOFFSET)
                + 32768L * value(region, global, SF2Region.GENERATOR_ENDADDRSCOARSEOFFSET);
        boolean possible =
                start >= 0 && start <= from && from + SHORTEST_LOOP <= to && to <= end && end <= frames(sample);
        if (!possible) {
            region.putShort(SF2Region.GENERATOR_SAMPLEMODES, (short) 0);
            for (int offset : new int[] {
                SF2Region.GENERATOR_STARTADDRSOFFSET,
                SF2Region.GENERATOR_STARTADDRSCOARSEOFFSET,
                SF2Region.GENERATOR_ENDADDRSOFFSET,
                SF2Region.GENERATOR_ENDADDRSCOARSEOFFSET
            }) {
                region.putShort(offset, (short) 0);
            }
        }
    }

    private static Preset preset(Instrument instrument) {
        boolean drums = instrument.getPatch() instanceof ModelPatch patch && patch.isPercussion();
        int bank = instrument.getPatch().getBank();
        return new Preset(
                SafeName.of(instrument.getName()),
                List.of(bank >> 7 & 0x7F, bank & 0x7F),
                instrument.getPatch().getProgram() & 0x7F,
                drums,
                drums && instrument instanceof SF2Instrument kit ? keyNames(kit) : Map.of());
    }

    /** Regions of a single key are named by their sample. */
    private static Map<Integer, String> keyNames(SF2Instrument kit) {
        Map<Integer, String> names = new TreeMap<>();
        for (SF2InstrumentRegion region : kit.getRegions()) {
            for (SF2LayerRegion within : region.getLayer().getRegions()) {
                SF2Region ranged = within.contains(SF2Region.GENERATOR_KEYRANGE) ? within : region;
                byte[] keys = ranged.getBytes(SF2Region.GENERATOR_KEYRANGE);
                if (ranged.contains(SF2Region.GENERATOR_KEYRANGE) && keys[0] == keys[1] && keys[0] >= 0) {
                    names.putIfAbsent(
                            (int) keys[0], SafeName.of(within.getSample().getName()));
                }
            }
        }
        return names;
    }

    /** Returns the hash of the file: 64 hexadecimal digits. */
    public String sha256() {
        return sha256;
    }

    /** All its sounds: first those with keys of one sound, then drums; by bank and program. */
    public List<Preset> presets() {
        return presets;
    }

    /** Marks the bank after a synthesizer did not return from a block: it is not played any more. Any thread. */
    void setUnusable() {
        unusable = true;
    }

    boolean isUnusable() {
        return unusable;
    }

    /** Loads the bank into a synthesizer, with precedence over its present content. */
    void loadInto(AudioSynthesizer synthesizer) {
        synthesizer.loadAllInstruments(sounds);
    }
}
