package dibble.presentation;

import dibble.sound.Preset;
import dibble.sound.SoundBank;
import java.util.Map;

/** Sounds as they can be heard before a part has them. */
public interface SoundPreview {
    /** Where nothing sounds. */
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
     * Has a note of a sound heard for a moment.
     *
     * @param file the id of its file, or null for the sounds that come with Dibble
     * @param key 0-127
     */
    void listen(String file, Preset preset, int key);
}
