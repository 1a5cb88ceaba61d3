package dibble.midi;

import java.util.List;

/**
 * A standard MIDI file (RP-001): its type, its division and its tracks.
 *
 * @param type 0 (one track), 1 (tracks at once) or 2 (tracks one after another)
 * @param division ticks a quarter note (1-32767), or negative for SMPTE time as in the file
 */
public record MidiFile(int type, int division, List<MidiTrack> tracks) {
    public MidiFile {
        if (type < 0 || type > 2) {
            throw new IllegalArgumentException("MIDI file type " + type + " (expected 0, 1 or 2)");
        }
        if (division == 0 || division > 32767 || division < -32768) {
            throw new IllegalArgumentException("division " + division + " (expected 1 to 32767, or SMPTE)");
        }
        tracks = List.copyOf(tracks);
    }
}
