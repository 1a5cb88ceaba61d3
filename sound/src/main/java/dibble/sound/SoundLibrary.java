package dibble.sound;

import static dibble.text.CoreText.say;

import dibble.files.IoWords;
import dibble.gear.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The files of sounds of a session, opened. Immutable.
 *
 * @param banks by the ids that the session has for them; those that could not be opened are not in it
 * @param troubles what was wrong with others, a line each: their parts have the usual sounds
 */
public record SoundLibrary(Map<String, SoundBank> banks, List<String> troubles) {
    /** Of a session that has no such files. */
    public static final SoundLibrary NONE = new SoundLibrary(Map.of(), List.of());

    public SoundLibrary {
        banks = Map.copyOf(banks);
        troubles = List.copyOf(troubles);
    }

    /**
     * Opens files; those that are open already are not read again. Takes a while: not on the interface's thread.
     *
     * @param folder where files are looked for that are not where they were; null for nowhere
     * @param before what was open
     */
    public static SoundLibrary open(List<SoundFile> files, Path folder, SoundLibrary before) {
        Map<String, SoundBank> banks = new LinkedHashMap<>();
        List<String> troubles = new ArrayList<>();
        for (SoundFile file : files) {
            SoundBank known = before.banks.get(file.id());
            if (known != null && known.sha256().equals(file.sha256())) {
                banks.put(file.id(), known);
                continue;
            }
            try {
                SoundBank bank = SoundBank.open(place(file, folder));
                banks.put(file.id(), bank);
                if (!bank.sha256().equals(file.sha256())) {
                    troubles.add(say("sound-library.another", file.path()));
                }
            } catch (SoundBankException e) {
                troubles.add(say("sound-library.unusable", file.path(), e.getMessage()));
            } catch (IOException e) {
                troubles.add(say("sound-library.unusable", file.path(), IoWords.of(e)));
            } catch (InvalidPathException e) {
                troubles.add(say("sound-library.unusable", file.path(), say("sound-library.no-path")));
            }
        }
        return new SoundLibrary(banks, troubles);
    }

    /** Where it was, or beside the session. */
    private static Path place(SoundFile file, Path folder) {
        Path path = Path.of(file.path());
        Path beside = folder == null ? null : folder.resolve(String.valueOf(path.getFileName()));
        return !Files.exists(path) && beside != null && Files.exists(beside) ? beside : path;
    }
}
