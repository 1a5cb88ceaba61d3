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
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The open sound files of a session. Immutable.
 *
 * @param banks by the ids in the session; files that could not be opened are missing
 * @param troubles the problems with others, a line each: their parts have the built-in sounds
 * @param withheld the folders of files that were not opened, since the user has not allowed these folders
 */
public record SoundLibrary(Map<String, SoundBank> banks, List<String> troubles, List<Path> withheld) {
    /** Of a session that has no such files. */
    public static final SoundLibrary NONE = new SoundLibrary(Map.of(), List.of(), List.of());

    public SoundLibrary {
        banks = Map.copyOf(banks);
        troubles = List.copyOf(troubles);
        withheld = List.copyOf(withheld);
    }

    /**
     * Opens files; open ones are not read again. Takes a while: not on the interface thread.
     *
     * @param folder the folder of the session: files in it may be opened, and missing files are looked for there
     * @param allowed the other folders from which files may be opened
     * @param before the open files
     */
    public static SoundLibrary open(List<SoundFile> files, Path folder, Set<String> allowed, SoundLibrary before) {
        Map<String, SoundBank> banks = new LinkedHashMap<>();
        List<String> troubles = new ArrayList<>();
        Set<Path> withheld = new LinkedHashSet<>();
        for (SoundFile file : files) {
            SoundBank known = before.banks.get(file.id());
            if (known != null && known.sha256().equals(file.sha256())) {
                banks.put(file.id(), known);
                continue;
            }
            try {
                Path place = place(file, folder, allowed);
                if (place == null) {
                    withheld.add(folder.resolve(file.path()).normalize().getParent());
                    continue;
                }
                SoundBank bank = SoundBank.open(place);
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
        return new SoundLibrary(banks, troubles, List.copyOf(withheld));
    }

    /** Returns the path of a file if it is allowed, or the same file next to the session; null for neither. */
    private static Path place(SoundFile file, Path folder, Set<String> allowed) {
        Path home = folder.toAbsolutePath().normalize();
        Path path = home.resolve(file.path()).normalize();
        if (path.getFileName() == null) {
            return home;
        }
        Path beside = home.resolve(path.getFileName());
        boolean isAllowed =
                path.startsWith(home) || allowed.contains(path.getParent().toString());
        if (isAllowed && (Files.exists(path) || !Files.exists(beside))) {
            return path;
        }
        return Files.exists(beside) ? beside : null;
    }
}
