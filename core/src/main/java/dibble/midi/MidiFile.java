package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * A standard MIDI file (RP-001): its type, its division and its tracks.
 *
 * @param type 0 (one track), 1 (simultaneous tracks) or 2 (consecutive tracks)
 * @param division ticks per quarter note (1-32767), or negative for SMPTE time as in the file
 * @param remarks violations of the standard and their treatment, a sentence each
 */
public record MidiFile(int type, int division, List<MidiTrack> tracks, List<String> remarks) {
    /** The most tracks that the head of a file can count. */
    public static final int MAX_TRACKS = 0xFFFF;

    /** The meta events that apply to the whole file, on any track. */
    private static final Set<Integer> CONDUCTED = Set.of(
            MidiTrack.META_TEMPO,
            MidiTrack.META_METER,
            MidiTrack.META_KEY,
            MidiTrack.META_MARKER,
            MidiTrack.META_CUE,
            MidiTrack.META_SMPTE_OFFSET,
            MidiTrack.META_COPYRIGHT);

    private static final byte[] PLAIN_TEMPO = {0x07, (byte) 0xA1, 0x20};
    private static final byte[] PLAIN_METER = {4, 2, 24, 8};

    public MidiFile {
        if (type < 0 || type > 2) {
            throw new UserException(say("common.midi-file-type-expected-0", type));
        }
        if (division == 0 || division > 32767 || division < -32768) {
            throw new UserException(say("midi-file.division-expected-1-to-32767", division));
        }
        tracks = List.copyOf(tracks);
        remarks = List.copyOf(remarks);
    }

    /** A file that is as it should be. */
    public MidiFile(int type, int division, List<MidiTrack> tracks) {
        this(type, division, tracks, List.of());
    }

    /**
     * Returns true if a meta event applies to the whole file: tempo, meter, key, markers, cues, SMPTE offset,
     * copyright.
     */
    public static boolean isConducted(MidiTrack track, int i) {
        return track.status(i) == MidiTrack.META && CONDUCTED.contains(track.metaType(i));
    }

    /** A track with what concerns the whole file of all tracks, in the order of its ticks. */
    public MidiTrack conductor() {
        MidiTrack.Builder conductor = new MidiTrack.Builder();
        for (TrackMerge events = new TrackMerge(tracks); events.next(); ) {
            MidiTrack track = tracks.get(events.track());
            if (isConducted(track, events.at())) {
                conductor.copy(track, events.at());
            }
        }
        return conductor.build();
    }

    /**
     * Returns the file with simultaneous tracks. The tracks of a type 2 file are separate pieces: each is placed behind
     * the one before it, and begins at 120 and in 4/4 by default.
     */
    public MidiFile atOnce() {
        if (type != 2) {
            return this;
        }
        List<MidiTrack> shifted = new ArrayList<>();
        long begins = 0;
        for (MidiTrack track : tracks) {
            MidiTrack.Builder to = new MidiTrack.Builder();
            if (begins > 0) {
                to.meta(begins, MidiTrack.META_TEMPO, PLAIN_TEMPO);
                to.meta(begins, MidiTrack.META_METER, PLAIN_METER);
            }
            for (int i = 0; i < track.size(); i++) {
                to.copyAt(begins + track.tick(i), track, i);
            }
            shifted.add(to.build(begins + track.endTick()));
            begins += track.endTick();
        }
        return new MidiFile(1, division, shifted, remarks);
    }
}
