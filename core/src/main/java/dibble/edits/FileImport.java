package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.midi.Status;
import dibble.midi.TrackMerge;
import dibble.recording.Clips;
import dibble.recording.EventStore;
import dibble.recording.FileTempo;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A standard MIDI file as a source. Each channel of each track is a lane with its own channel, and the events are a
 * take, as if the source had played it. The lanes go through zones like those of any source. Notes keep their position
 * in bars, whatever the tempo of the session.
 *
 * @param source the new source
 * @param take the events, with the tempo and meter of the file, or those of the session if the file has none
 * @param hasTempo whether the file has a tempo or a meter
 * @param markers the markers of the file, if its division is in ticks per quarter note
 * @param shared the number of lanes that share a channel with another, since there are sixteen channels
 */
public record FileImport(Source source, Take take, boolean hasTempo, List<Marker> markers, int shared) {
    private static final int MAX_MARKERS = 10_000;

    /** The choice of tempo for a session into which a file is imported. */
    public enum Tempo {
        /** The tempo of the file; the present content follows it. */
        OF_THE_FILE,

        /** The session's: of the file only the bars count. */
        OF_THE_SESSION
    }

    /** The channels that the lanes have, by the track and the channel of the file. */
    private static final class Lanes {
        private final Map<List<Integer>, Integer> channels = new LinkedHashMap<>();
        private final List<SequencerLane> lanes = new ArrayList<>();
        private int shared;

        int channel(MidiTrack track, int number, int own) {
            return channels.computeIfAbsent(List.of(number, own), key -> {
                int channel = free(own);
                shared += channels.containsValue(channel) ? 1 : 0;
                lanes.add(new SequencerLane(laneName(track, number, own), channel));
                return channel;
            });
        }

        /** The channel itself where no other lane has it, else the lowest that is free, else the channel itself. */
        private int free(int channel) {
            if (!channels.containsValue(channel)) {
                return channel;
            }
            for (int other = 1; other <= 16; other++) {
                if (!channels.containsValue(other)) {
                    return other;
                }
            }
            return channel;
        }
    }

    /**
     * Reads a file for a session.
     *
     * @param name the name of the new source
     */
    public static FileImport of(Session session, MidiFile given, String name) {
        MidiFile file = given.atOnce();
        String id = Ids.fresh(name, taken -> session.source(taken).isPresent());
        FileTempo said = FileTempo.of(file, session.tempo());
        Lanes lanes = new Lanes();
        EventStore log = new EventStore();
        List<MidiTrack> tracks = file.tracks().stream().map(Clips::closed).toList();
        for (TrackMerge events = new TrackMerge(tracks); events.next(); ) {
            MidiTrack track = tracks.get(events.track());
            long at = nanos(file, said.tempo(), events.tick());
            if (track.isChannelMessage(events.at())) {
                log.add(at, 0, onLane(lanes, track, events.track(), track.message(events.at())));
            } else if (track.status(events.at()) == Status.EXCLUSIVE) {
                addExclusive(log, at, track.data(events.at()));
            }
        }
        long end = tracks.stream()
                .mapToLong(track -> nanos(file, said.tempo(), track.endTick()))
                .max()
                .orElse(0);
        Source source = Source.keyboard(id, name, PortId.standIn(id), Range.ALL)
                .with()
                .kind(SourceKind.FILE)
                .lanes(lanes.lanes)
                .build();
        String takeId = TakeEdits.freshTakeId(session);
        Take take = new Take(takeId, name, List.of(id), log, List.of(), said.tempo(), end, 0);
        return new FileImport(source, take, said.own(), markers(file), lanes.shared);
    }

    private static int onLane(Lanes lanes, MidiTrack track, int number, int message) {
        int channel = lanes.channel(track, number, ShortMessage.channel(message) + 1);
        return ShortMessage.onChannel(message, channel - 1);
    }

    /** Adds a message that is complete in one event. Messages in several pieces are only for players of files. */
    private static void addExclusive(EventStore log, long at, byte[] data) {
        if (Status.endsExclusive(data)) {
            byte[] message = new byte[data.length + 1];
            message[0] = (byte) Status.EXCLUSIVE;
            System.arraycopy(data, 0, message, 1, data.length);
            log.addExclusive(at, 0, message);
        }
    }

    private static String laneName(MidiTrack track, int number, int channel) {
        return say(
                "file-import.channel",
                track.name().filter(text -> !text.isBlank()).orElse(say("sorting.track", number + 1)),
                channel);
    }

    private static long nanos(MidiFile file, TempoMap tempo, long tick) {
        if (file.division() < 0) {
            int framesASecond = -(file.division() >> 8);
            int ticksAFrame = file.division() & 0xFF;
            double frames = framesASecond == 29 ? 30_000 / 1001.0 : framesASecond;
            return Math.round(tick * 1e9 / (frames * Math.max(1, ticksAFrame)));
        }
        return tempo.nanos(FileTempo.scaled(file, tick));
    }

    private static List<Marker> markers(MidiFile file) {
        List<Marker> markers = new ArrayList<>();
        MidiTrack track = file.conductor();
        for (int i = 0; i < track.size() && file.division() > 0; i++) {
            if (track.isMeta(i, MidiTrack.META_MARKER) && !track.text(i).isBlank() && markers.size() < MAX_MARKERS) {
                markers.add(new Marker(
                        FileTempo.scaled(file, track.tick(i)), track.text(i).strip()));
            }
        }
        return markers;
    }

    /**
     * Puts it into a session: the source, and the take printed as the zones have it.
     *
     * @param whose the tempo that the session has then; a file that says none changes nothing
     */
    public Session into(Session session, Performance performance, Tempo whose) {
        Session with = GearEdits.addSource(session, source);
        if (whose == Tempo.OF_THE_FILE && hasTempo) {
            with = with.withTempo(take.tempo());
        }
        List<Marker> all = new ArrayList<>(with.markers());
        markers.stream().filter(marker -> !all.contains(marker)).forEach(all::add);
        with = with.withMarkers(all);
        Take marked = take.withMarks(List.of(new Take.Mark(0, 0, with.routing(performance))));
        return TakeEdits.keep(with, performance, TakeEdits.closed(marked));
    }
}
