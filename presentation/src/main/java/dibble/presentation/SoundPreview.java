package dibble.presentation;

import dibble.sound.Preset;
import dibble.sound.SoundBank;
import java.util.Map;

/** Sounds as they can be heard before a part has them. */
public interface SoundPreview {
    /** No sound. */
    SoundPreview NONE = new SoundPreview() {
        @Override
        public Map<String, SoundBank> banks() {
            return Map.of();
        }

        @Override
        public void listen(String file, Preset preset, int key) {}
    };

    /** The files of sounds of the session that are open, by their ids. */
    Map<String, SoundBank> banks();

    /**
     * Plays a note of a sound for a moment.
     *
     * @param file the id of its sound file, or null for the built-in sounds
     * @param key 0-127
     */
    void listen(String file, Preset preset, int key);
}
