package dibble.user;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.BooleanNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.disk.AtomicFile;
import dibble.files.IoWords;
import dibble.files.JsonTree;
import dibble.files.SingleLineText;
import dibble.gear.Ranges;
import dibble.midi.MiddleC;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;

/**
 * What a user has set once for all sessions.
 *
 * @param middleC how new sessions name the octaves
 * @param theme the colours of the window
 * @param large whether text and targets are made for a distance
 * @param letters where the letters are on the computer's keyboard
 * @param hiddenPorts the names of ports that are not to be listed
 * @param audioDevice the name of the audio device of the built-in sounds; empty for the system's own choice
 * @param audioMillis how much sound waits in the device, in ms ({@link #AUDIO_MILLIS}): less reacts faster, more is safer
 * @param audioRate samples a second ({@link #AUDIO_RATES})
 * @param audioBlock how many frames are mixed at a time ({@link #AUDIO_BLOCKS})
 * @param audioPairs how many stereo outputs the device is asked for ({@link #AUDIO_PAIRS})
 * @param sessionFolder where sessions are looked for at first; empty for where one was last
 * @param exportFolder where exports go at first; empty for beside the session
 * @param undoMegabytes how much the way back may keep, in MiB ({@link #UNDO_MEGABYTES})
 * @param soundFolders the folders, beside a session's own, from which sessions may open sound files, and sets sessions
 * @param backlogMinutes how long what is played and not recorded can still be kept, in minutes ({@link #BACKLOG_MINUTES})
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@RecordBuilder
public record Settings(
        MiddleC middleC,
        Theme theme,
        boolean large,
        Letters letters,
        Set<String> hiddenPorts,
        String audioDevice,
        Integer audioMillis,
        Integer audioRate,
        Integer audioBlock,
        Integer audioPairs,
        String sessionFolder,
        String exportFolder,
        Integer undoMegabytes,
        Integer backlogMinutes,
        Set<String> soundFolders)
        implements SettingsBuilder.With {
    /** Milliseconds of sound in the audio device. */
    public static final Limits AUDIO_MILLIS = new Limits(5, 200, 25);

    /** Rates of samples that can be chosen, the usual one first. */
    public static final List<Integer> AUDIO_RATES = List.of(44_100, 48_000, 88_200, 96_000);

    /** Numbers of frames that can be mixed at a time, the usual one first. */
    public static final List<Integer> AUDIO_BLOCKS = List.of(128, 64, 256, 512);

    /** Stereo outputs of the audio device. */
    public static final Limits AUDIO_PAIRS = new Limits(1, 32, 1);

    /** MiB that the way back may keep. */
    public static final Limits UNDO_MEGABYTES = new Limits(16, 2048, 128);

    /** The minutes for which unrecorded events can be kept. */
    public static final Limits BACKLOG_MINUTES = new Limits(1, 60, 10);

    /** The defaults. */
    public static final Settings PLAIN =
            new Settings(null, null, false, null, null, null, null, null, null, null, null, null, null, null, null);

    private static final String FILE = "settings.json";
    private static final String ASIDE = "settings.damaged.json";
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** Layouts of letters, by their upper row. */
    public enum Letters {
        QWERTY,
        QWERTZ,
        AZERTY
    }

    /**
     * The range of a numeric setting.
     *
     * @param low the lowest value
     * @param high the highest value, inclusive
     * @param unlessSet the default
     */
    public record Limits(int low, int high, int unlessSet) {
        /** Returns true if a number is one of them. */
        public boolean hold(int number) {
            return number >= low && number <= high;
        }
    }

    /** The colours of the window. */
    public enum Theme {
        SYSTEM,
        DAY,
        NIGHT,
        CONTRAST
    }

    public Settings {
        middleC = middleC == null ? MiddleC.C4 : middleC;
        theme = theme == null ? Theme.SYSTEM : theme;
        letters = letters == null ? Letters.QWERTY : letters;
        hiddenPorts = hiddenPorts == null ? Set.of() : Set.copyOf(hiddenPorts);
        audioDevice = audioDevice == null ? "" : audioDevice;
        audioMillis = range("number.audio-buffer", audioMillis, AUDIO_MILLIS);
        audioRate = oneOf("number.audio-rate", audioRate, AUDIO_RATES);
        audioBlock = oneOf("number.audio-block", audioBlock, AUDIO_BLOCKS);
        audioPairs = range("number.audio-pairs", audioPairs, AUDIO_PAIRS);
        soundFolders = soundFolders == null ? Set.of() : Set.copyOf(soundFolders);
        sessionFolder = sessionFolder == null ? "" : sessionFolder;
        exportFolder = exportFolder == null ? "" : exportFolder;
        undoMegabytes = range("number.undo-memory", undoMegabytes, UNDO_MEGABYTES);
        backlogMinutes = range("number.backlog", backlogMinutes, BACKLOG_MINUTES);
    }

    private static int range(String what, Integer given, Limits limits) {
        return given == null ? limits.unlessSet : Ranges.range(what, given, limits.low, limits.high);
    }

    private static int oneOf(String what, Integer given, List<Integer> all) {
        if (given != null && !all.contains(given)) {
            throw new UserException(say("settings.one-of-expected", say(what), given, all.toString()));
        }
        return given == null ? all.get(0) : given;
    }

    /** The same with a port hidden, or listed again. */
    public Settings withHidden(String port, boolean hidden) {
        Set<String> ports = new TreeSet<>(hiddenPorts);
        if (hidden) {
            ports.add(port);
        } else {
            ports.remove(port);
        }
        return withHiddenPorts(ports);
    }

    /** The same with another audio device and another amount of sound in it, in milliseconds. */
    public Settings withAudio(String device, int millis) {
        return with(it -> it.audioDevice(device).audioMillis(millis));
    }

    /** The same with another rate, in samples a second, and another number of frames that are mixed at a time. */
    public Settings withMixing(int rate, int block) {
        return with(it -> it.audioRate(rate).audioBlock(block));
    }

    /** The same with other folders for sessions and exports; empty where none is wanted. */
    public Settings withFolders(String sessions, String exports) {
        return with(it -> it.sessionFolder(sessions).exportFolder(exports));
    }

    /** The same with more folders from which sessions may open sound files. */
    public Settings withMoreSoundFolders(Collection<String> folders) {
        Set<String> all = new TreeSet<>(soundFolders);
        all.addAll(folders);
        return withSoundFolders(all);
    }

    /** The same without a folder from which sessions may open sound files: they ask again. */
    public Settings withoutSoundFolder(String folder) {
        Set<String> fewer = new TreeSet<>(soundFolders);
        fewer.remove(folder);
        return withSoundFolders(fewer);
    }

    /** Returns the settings with other limits for undo, in MiB, and for unrecorded events, in minutes. */
    public Settings withLimits(int undo, int backlog) {
        return with(it -> it.undoMegabytes(undo).backlogMinutes(backlog));
    }

    /** The settings in a folder; plain ones where there are none, and in the place of what cannot be read. */
    public static Settings read(Path folder) {
        return read(folder, said -> {});
    }

    /**
     * Reads the settings in a folder. A file that cannot be read completely is kept under another name.
     *
     * @param said receives a sentence about the problem, if there is one
     */
    public static Settings load(Path folder, Consumer<String> said) {
        List<String> damage = new ArrayList<>();
        Settings settings = read(folder, damage::add);
        if (!damage.isEmpty()) {
            Path file = folder.resolve(FILE);
            try {
                Path aside = folder.resolve(ASIDE);
                Files.move(file, aside, StandardCopyOption.REPLACE_EXISTING);
                settings.write(folder);
                said.accept(say("settings.some-settings-could-not-be", String.join(", ", damage), aside));
            } catch (IOException e) {
                said.accept(say("settings.the-settings-in-could-not", file, IoWords.of(e)));
            }
        }
        return settings;
    }

    private static Settings read(Path folder, Consumer<String> damage) {
        Path file = folder.resolve(FILE);
        if (!Files.exists(file)) {
            return PLAIN;
        }
        try {
            JsonNode node = JsonTree.read(JSON, UserFolder.bytes(file));
            if (node instanceof ObjectNode object) {
                return JSON.convertValue(readable(object, damage), Settings.class);
            }
            damage.accept(say("settings.is-not-a-json-object", FILE));
        } catch (JacksonException e) {
            damage.accept(say("settings.is-not-json", FILE));
        } catch (IOException e) {
            damage.accept(IoWords.of(e));
        }
        return PLAIN;
    }

    /** The fields that can be read. */
    private static ObjectNode readable(ObjectNode all, Consumer<String> damage) {
        ObjectNode readable = JSON.createObjectNode();
        // The names of themes in versions before 0.2.
        if (all.remove("night") instanceof BooleanNode night && !all.has("theme")) {
            all.put("theme", (night.booleanValue() ? Theme.NIGHT : Theme.DAY).name());
        }
        for (Map.Entry<String, JsonNode> field : all.properties()) {
            try {
                ObjectNode alone = JSON.createObjectNode();
                alone.set(field.getKey(), field.getValue());
                JSON.convertValue(alone, Settings.class);
                readable.set(field.getKey(), field.getValue());
            } catch (IllegalArgumentException e) {
                damage.accept("\"" + SingleLineText.of(field.getKey()) + "\"");
            }
        }
        return readable;
    }

    /** Writes them into a folder, which is made where it is not there. What another version keeps in the file stays. */
    public void write(Path folder) throws IOException {
        AtomicFile.makeFolder(folder);
        Path file = folder.resolve(FILE);
        ObjectNode all = others(file);
        all.setAll((ObjectNode) JSON.valueToTree(this));
        AtomicFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(all));
    }

    private static ObjectNode others(Path file) throws IOException {
        try {
            return Files.isRegularFile(file) && JsonTree.read(JSON, UserFolder.bytes(file)) instanceof ObjectNode object
                    ? object
                    : JSON.createObjectNode();
        } catch (JacksonException e) {
            return JSON.createObjectNode();
        }
    }
}
