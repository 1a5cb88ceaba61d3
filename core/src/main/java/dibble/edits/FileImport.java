package dibble.edits;

import dibble.gear.Ids;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A standard MIDI file as a source: each channel of each track is a lane with a channel of its own, and what is on them
 * is a take, as if the source had played it. Its lanes run through zones like anybody's.
 *
 * @param source who plays it
 * @param take what it plays
 * @param tempo the tempo and meter of the file
 * @param shared how many lanes share a channel with another, since there are sixteen
 */
public record FileImport(Source source, Take take, TempoMap tempo, int shared) {
    private static final double FASTEST = 999;
    private static final double SLOWEST = 5;

    /** An event with its time. */
    private record Event(long nanos, int message) {}

    /**
     * Reads a file for a session.
     *
     * @param name what the source is called
     */
    public static FileImport of(Session session, MidiFile file, String name) {
        String id = Ids.fresh(name, taken -> session.source(taken).isPresent());
        TempoMap tempo = tempo(file);
        Map<List<Integer>, Integer> channels = new LinkedHashMap<>();
        List<SequencerLane> lanes = new ArrayList<>();
        List<Event> events = new ArrayList<>();
        int shared = 0;
        long begins = 0;
        long end = 0;
        for (int t = 0; t < file.tracks().size(); t++) {
            MidiTrack track = file.tracks().get(t);
            for (int i = 0; i < track.size(); i++) {
                if (track.isChannelMessage(i)) {
                    int own = ShortMessage.channel(track.message(i)) + 1;
                    Integer channel = channels.get(List.of(t, own));
                    if (channel == null) {
                        channel = free(channels, own);
                        shared += channels.containsValue(channel) ? 1 : 0;
                        channels.put(List.of(t, own), channel);
                        lanes.add(new SequencerLane(laneName(track, t, own), channel));
                    }
                    events.add(new Event(
                            begins + nanos(file, tempo, track.tick(i)),
                            ShortMessage.onChannel(track.message(i), channel - 1)));
                }
            }
            end = Math.max(end, begins + nanos(file, tempo, track.endTick()));
            if (file.type() == 2) {
                // Its tracks are pieces of their own, one after another.
                begins = end;
            }
        }
        events.sort(Comparator.comparingLong(Event::nanos));
        EventLog log = new EventLog();
        events.forEach(event -> log.add(event.nanos, 0, event.message));
        Source source = Source.keyboard(id, name, "stand-in:" + id, Range.ALL)
                .edit()
                .kind(SourceKind.FILE)
                .lanes(lanes)
                .build();
        String takeId = TakeEdits.freshTakeId(session);
        Take take = new Take(takeId, name, List.of(id), log, List.of(), tempo, end, 0);
        return new FileImport(source, take, tempo, shared);
    }

    private static String laneName(MidiTrack track, int number, int channel) {
        return track.name().filter(text -> !text.isBlank()).orElse("Track " + (number + 1)) + ", channel " + channel;
    }

    /** The channel itself where no other lane has it, else the lowest that is free, else the channel itself. */
    private static int free(Map<List<Integer>, Integer> taken, int channel) {
        if (!taken.containsValue(channel)) {
            return channel;
        }
        for (int other = 1; other <= 16; other++) {
            if (!taken.containsValue(other)) {
                return other;
            }
        }
        return channel;
    }

    private static long nanos(MidiFile file, TempoMap tempo, long tick) {
        if (file.division() < 0) {
            int framesASecond = -(file.division() >> 8);
            int ticksAFrame = file.division() & 0xFF;
            double frames = framesASecond == 29 ? 30_000 / 1001.0 : framesASecond;
            return Math.round(tick * 1e9 / (frames * Math.max(1, ticksAFrame)));
        }
        return tempo.nanos(scaled(file, tick));
    }

    private static long scaled(MidiFile file, long tick) {
        return Math.round(tick * (double) TempoMap.PPQ / file.division());
    }

    private static TempoMap tempo(MidiFile file) {
        List<TempoMap.Tempo> tempos = new ArrayList<>(List.of(new TempoMap.Tempo(0, 120)));
        List<TempoMap.Meter> meters = new ArrayList<>(List.of(new TempoMap.Meter(0, 4, 4)));
        if (file.division() < 0 || file.type() == 2) {
            return new TempoMap(tempos, meters);
        }
        MidiTrack track = file.conductor();
        for (int i = 0; i < track.size(); i++) {
            byte[] data = track.data(i);
            long at = scaled(file, track.tick(i));
            if (track.isMeta(i, MidiTrack.META_TEMPO) && data.length == 3) {
                int micros = (data[0] & 0xFF) << 16 | (data[1] & 0xFF) << 8 | data[2] & 0xFF;
                double bpm = Math.max(SLOWEST, Math.min(FASTEST, 60e6 / Math.max(1, micros)));
                if (tempos.get(tempos.size() - 1).at() == at) {
                    tempos.remove(tempos.size() - 1);
                }
                tempos.add(new TempoMap.Tempo(at, bpm));
            } else if (track.isMeta(i, MidiTrack.META_METER) && data.length >= 2) {
                int beats = Math.max(1, Math.min(64, data[0] & 0xFF));
                int unit = 1 << Math.min(6, data[1] & 0xFF);
                if (meters.get(meters.size() - 1).at() == at) {
                    meters.remove(meters.size() - 1);
                }
                meters.add(new TempoMap.Meter(at, beats, unit));
            }
        }
        return new TempoMap(tempos, meters);
    }

    /**
     * Puts it into a session: the source, and the take printed as the zones have it. A session with no take yet gets the
     * tempo and meter of the file.
     */
    public Session into(Session session, Performance performance) {
        Session with = GearEdits.addSource(session, source);
        if (session.takes().isEmpty()) {
            with = with.withTempo(tempo);
        }
        Take marked = take.withMarks(List.of(new Take.Mark(0, 0, with.routing(performance))));
        return TakeEdits.keep(with, performance, TakeEdits.closed(marked));
    }
}
