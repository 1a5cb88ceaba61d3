package dibble.recording;

import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;

/**
 * The tempo and meter that a standard MIDI file says, in ticks of a session.
 *
 * @param own whether the file says any of it
 */
public record FileTempo(TempoMap tempo, boolean own) {
    private static final double FASTEST = 999;
    private static final double SLOWEST = 5;

    /** A tick of a file that counts in notes, as a session has it. */
    public static long scaled(MidiFile file, long tick) {
        return Math.round(tick * (double) TempoMap.PPQ / file.division());
    }

    /** The tempo and meter of a file; those of the session where it says none, or counts in frames. */
    public static FileTempo of(MidiFile file, TempoMap otherwise) {
        List<TempoMap.Tempo> tempos = new ArrayList<>();
        List<TempoMap.Meter> meters = new ArrayList<>();
        MidiTrack track = file.conductor();
        for (int i = 0; i < track.size() && file.division() > 0; i++) {
            byte[] data = track.data(i);
            long at = scaled(file, track.tick(i));
            if (track.isMeta(i, MidiTrack.META_TEMPO) && data.length == 3) {
                int micros = (data[0] & 0xFF) << 16 | (data[1] & 0xFF) << 8 | data[2] & 0xFF;
                double bpm = Math.max(SLOWEST, Math.min(FASTEST, 60e6 / Math.max(1, micros)));
                tempos.removeIf(before -> before.at() == at);
                tempos.add(new TempoMap.Tempo(at, bpm));
            } else if (track.isMeta(i, MidiTrack.META_METER) && data.length >= 2) {
                int beats = Math.max(1, Math.min(64, data[0] & 0xFF));
                int unit = 1 << Math.min(6, data[1] & 0xFF);
                meters.removeIf(before -> before.at() == at);
                meters.add(new TempoMap.Meter(at, beats, unit));
            }
        }
        boolean own = !tempos.isEmpty() || !meters.isEmpty();
        // The default of the standard.
        if (!tempos.isEmpty() && tempos.get(0).at() > 0) {
            tempos.add(0, new TempoMap.Tempo(0, 120));
        }
        if (!meters.isEmpty() && meters.get(0).at() > 0) {
            meters.add(0, new TempoMap.Meter(0, 4, 4));
        }
        return new FileTempo(
                new TempoMap(
                        tempos.isEmpty() ? otherwise.tempos() : tempos, meters.isEmpty() ? otherwise.meters() : meters),
                own);
    }
}
