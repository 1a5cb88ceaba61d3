package dibble.presentation.gear;

import dibble.gear.SoundNames;

/** Names of sounds in files, which others ask for. */
public interface NamesActions {
    /** Asks for a file of names, and gives them to an instrument. */
    void bringIn(String instrument);

    /** Asks where, and writes names there for other programs. */
    void export(SoundNames names);
}
