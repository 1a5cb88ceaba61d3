package dibble.recording;

import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/** Tracks as a standard MIDI file of type 1: tempo and meter first, then a named track for each that has events. */
public final class TrackExport {
    private TrackExport() {}

    /** What an exported track says of its part: sound and channel 1-16. */
    public record Voice(Part part, int channel) {}

    /**
     * The file.
     *
     * @param sounds the sound of a part, or null where it has none
     */
    public static MidiFile type1(String name, TempoMap tempo, List<Track> tracks, Function<PartRef, Voice> sounds) {
        List<MidiTrack> out = new ArrayList<>();
        out.add(conductor(name, tempo));
        for (Track track : tracks) {
            if (track.clip().size() > 0) {
                MidiTrack.Builder to = new MidiTrack.Builder();
                to.text(0, MidiTrack.META_TRACK_NAME, track.name());
                track.playsOn().map(sounds).ifPresent(sound -> sound(to, sound));
                for (int i = 0; i < track.clip().size(); i++) {
                    to.copy(track.clip(), i);
                }
                out.add(to.build(track.clip().endTick()));
            }
        }
        return new MidiFile(1, TempoMap.PPQ, out);
    }

    /** A track with the name, tempo and meter of a session. */
    public static MidiTrack conductor(String name, TempoMap tempo) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        track.text(0, MidiTrack.META_TRACK_NAME, name);
        int t = 0;
        int m = 0;
        while (t < tempo.tempos().size() || m < tempo.meters().size()) {
            boolean meterNext = t == tempo.tempos().size()
                    || m < tempo.meters().size()
                            && tempo.meters().get(m).at()
                                    <= tempo.tempos().get(t).at();
            if (meterNext) {
                TempoMap.Meter meter = tempo.meters().get(m++);
                byte power = (byte) Integer.numberOfTrailingZeros(meter.unit());
                track.meta(meter.at(), MidiTrack.META_METER, new byte[] {(byte) meter.beats(), power, 24, 8});
            } else {
                TempoMap.Tempo at = tempo.tempos().get(t++);
                int micros = (int) Math.min(0xFFFFFF, Math.round(60e6 / at.bpm()));
                track.meta(at.at(), MidiTrack.META_TEMPO, new byte[] {
                    (byte) (micros >>> 16), (byte) (micros >>> 8), (byte) micros
                });
            }
        }
        return track.build();
    }

    private static void sound(MidiTrack.Builder to, Voice sound) {
        for (int message : sound.part().sound().messages(sound.channel() - 1)) {
            to.add(0, message);
        }
    }
}
