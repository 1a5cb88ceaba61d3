package dibble.levels;

import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.recording.FileRouter;
import dibble.recording.FileTempo;
import dibble.recording.Track;
import dibble.recording.TrackVoice;
import dibble.routing.Router;
import dibble.routing.RouterOutput;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.SlotAllocator;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.transport.PlaybackPlan;
import dibble.transport.PlaybackTimebase;
import dibble.transport.Timeline;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.LongUnaryOperator;

/**
 * The output of a session to its ports when it is played from the start, computed without a clock: in nanoseconds since
 * the start, in order. The sounds of parts come first. Sounding notes are ended at the end.
 */
public final class OfflinePlayback implements RouterOutput {
    private final SlotAllocator slots = new SlotAllocator();
    private final LongUnaryOperator nanos;
    private long[] stamps = new long[1024];
    private int[] messages = new int[1024];
    private int[] ports = new int[1024];
    private int size;
    private long length;

    /** @param nanos converts a router's stamp to nanoseconds */
    private OfflinePlayback(LongUnaryOperator nanos) {
        this.nanos = nanos;
    }

    @Override
    public boolean send(long stamp, int port, int message, int instrument) {
        if (size == stamps.length) {
            stamps = Arrays.copyOf(stamps, size * 2);
            messages = Arrays.copyOf(messages, size * 2);
            ports = Arrays.copyOf(ports, size * 2);
        }
        stamps[size] = nanos.applyAsLong(stamp);
        messages[size] = message;
        ports[size] = port;
        size++;
        return true;
    }

    /** Returns the output of the audible tracks of a session: not muted, and soloed if any is. */
    public static OfflinePlayback ofTracks(Session session, Performance performance) {
        Routing routing = session.routing(performance);
        OfflinePlayback rendition = new OfflinePlayback(LongUnaryOperator.identity());
        Router router = new Router(rendition);
        long[] now = {0};
        List<Timeline.Clip> clips = new ArrayList<>();
        List<PlaybackPlan.PlannedTrack> lanes = new ArrayList<>();
        for (Track track : session.tracks()) {
            if (!performance.plays(track.id())) {
                continue;
            }
            int number = clips.size();
            for (TrackVoice voice : TrackVoice.of(track)) {
                voice.route(routing).ifPresent(route -> {
                    int slot = rendition.slots.source("track:" + voice.name());
                    int port = rendition.slots.port(route.port());
                    int instrument = rendition.slots.instrument(route.instrument());
                    clips.add(Timeline.Clip.of(voice, voice.sound(routing), number));
                    lanes.add(new PlaybackPlan.PlannedTrack(
                            voice.name(),
                            message -> router.play(slot, port, instrument, route.onChannel(message), now[0])));
                });
            }
        }
        router.install(RoutingCompiler.compile(routing, rendition.slots), 0);
        router.openVoices(rendition.slots.sourceCount());
        FileRouter.sendSounds(routing, rendition.slots, router);
        Timeline timeline = new Timeline(clips, session.tempo());
        new PlaybackPlan(PlaybackTimebase.of(session.tempo(), 0, 0), timeline, lanes).run(at -> now[0] = at);
        router.close(now[0]);
        rendition.length = timeline.length();
        return rendition;
    }

    /**
     * Returns the output of a recorded performance.
     *
     * @param sources for each track of the file the id of its source, or null to skip the track
     */
    public static OfflinePlayback ofFile(Session session, Performance performance, MidiFile file, String[] sources) {
        TempoMap tempo = FileTempo.of(file, session.tempo()).tempo();
        OfflinePlayback rendition = new OfflinePlayback(tick -> tempo.nanos(FileTempo.scaled(file, tick)));
        FileRouter.route(file, sources, session.routing(performance), true, rendition.slots, new FileRouter.Output() {
            @Override
            public boolean send(long stamp, int port, int message, int instrument) {
                return rendition.send(stamp, port, message, instrument);
            }

            @Override
            public void exclusive(String instrument, MidiTrack track, int at) {
                // The built-in instruments have no use for it.
            }
        });
        long last = file.atOnce().tracks().stream()
                .mapToLong(MidiTrack::endTick)
                .max()
                .orElse(0);
        rendition.length = rendition.nanos.applyAsLong(last);
        return rendition;
    }

    /** Returns the number of messages. */
    public int size() {
        return size;
    }

    /** When a message is sent, in nanoseconds since the beginning. */
    public long stamp(int i) {
        return stamps[i];
    }

    /** The packed message. */
    public int message(int i) {
        return messages[i];
    }

    /** The name of the port that it is sent to. */
    public String port(int i) {
        return slots.portName(ports[i]);
    }

    /** Returns the length of the music in nanoseconds: to the end of the longest track. */
    public long length() {
        return size == 0 ? length : Math.max(length, stamps[size - 1]);
    }
}
