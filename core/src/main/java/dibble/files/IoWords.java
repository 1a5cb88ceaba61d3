package dibble.files;

import static dibble.text.CoreText.say;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;

/** Says in one line why a file could not be read or written: the system's own exceptions often name the file alone. */
public final class IoWords {
    private IoWords() {}

    /** Returns the reason of a failure, with the file. */
    public static String of(IOException e) {
        if (e instanceof FileSystemException system) {
            String file = SingleLineText.of(String.valueOf(system.getFile()));
            if (system.getReason() != null) {
                return file + ": " + SingleLineText.of(system.getReason());
            }
            if (e instanceof NoSuchFileException) {
                return say("io-words.no-such-file", file);
            }
            if (e instanceof AccessDeniedException) {
                return say("io-words.no-permission", file);
            }
            return e instanceof FileAlreadyExistsException
                    ? say("io-words.a-file-or-folder-is", file)
                    : say("io-words.cannot-be-used", file);
        }
        return e.getMessage() == null
                ? e.getClass().getSimpleName()
                : SingleLineText.of(e.getMessage().lines().findFirst().orElse(""));
    }
}
