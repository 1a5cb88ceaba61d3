package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/**
 * A SoundFont 2 or DLS file that a user opened.
 *
 * @param path its path on this machine
 * @param sha256 the hash of its content, 64 lower-case hexadecimal digits
 */
public record SoundFile(String id, String name, String path, String sha256) {
    public SoundFile {
        Ids.check(id);
        if (!sha256.matches("[0-9a-f]{64}")) {
            throw new UserException(say("sound-file.sha256-expected", sha256));
        }
    }
}
