package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/**
 * A file of sounds that a user opened: SoundFont 2 or DLS.
 *
 * @param path where it is on this machine
 * @param sha256 of what is in it, 64 hexadecimal digits in small letters
 */
public record SoundFile(String id, String name, String path, String sha256) {
    public SoundFile {
        Ids.check(id);
        if (!sha256.matches("[0-9a-f]{64}")) {
            throw new UserException(say("sound-file.sha256-expected", sha256));
        }
    }
}
