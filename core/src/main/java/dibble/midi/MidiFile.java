package dibble.midi;

import java.util.ArrayList;
import java.util.Comparator;
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

    /** An event that belongs on the first track. */
    private record Kept(MidiTrack track, int at) {
        long tick() {
            return track.tick(at);
        }
    }

    /** A track with the tempo, the meter and the markers of all tracks, in the order of their ticks. */
    public MidiTrack conductor() {
        List<Kept> kept = new ArrayList<>();
        for (MidiTrack track : tracks) {
            for (int i = 0; i < track.size(); i++) {
                if (track.isMeta(i, MidiTrack.META_TEMPO)
                        || track.isMeta(i, MidiTrack.META_METER)
                        || track.isMeta(i, MidiTrack.META_MARKER)) {
                    kept.add(new Kept(track, i));
                }
            }
        }
        kept.sort(Comparator.comparingLong(Kept::tick));
        MidiTrack.Builder conductor = new MidiTrack.Builder();
        kept.forEach(event -> conductor.copy(event.track(), event.at()));
        return conductor.build();
    }
}
