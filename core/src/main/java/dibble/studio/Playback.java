package dibble.studio;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.ports.Devices;
import dibble.ports.Lane;
import dibble.ports.OutputPort;
import dibble.recording.Clips;
import dibble.recording.Track;
import dibble.routing.Destination;
import dibble.routing.Routing;
import dibble.routing.Slots;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.Click;
import dibble.transport.ClockSender;
import dibble.transport.Player;
import dibble.transport.Timeline;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/**
 * What sounds by itself while the transport moves: the tracks on the parts that they are for, the click, and the MIDI
 * clock that others follow. Belongs to the thread that edits.
 */
final class Playback implements AutoCloseable {
    private static final String VOICE = "track:";

    /** Room for a start before the first clock. */
    private static final long CLOCK_AHEAD = TimeUnit.MILLISECONDS.toNanos(5);

    /** Clicks go on for some four hours at most. */
    private static final long CLICK_TICKS = 4 * 3600L * 2 * TempoMap.PPQ;

    private final Clock clock;
    private final Engine engine;
    private final Inlet inlet;
    private final Slots slots;
    private final PortRack ports;
    private final Devices devices;
    private final Map<String, OutputPort> clockPorts = new HashMap<>();
    private Player player;
    private int[] playing = {};
    private Player click;
    private Lane clickLane;
    private ClockSender clockSender;
    private long movesAt;

    /** @param inlet the way in for messages of tracks */
    Playback(Clock clock, Engine engine, Inlet inlet, Slots slots, PortRack ports, Devices devices) {
        this.clock = clock;
        this.engine = engine;
        this.inlet = inlet;
        this.slots = slots;
        this.ports = ports;
        this.devices = devices;
    }

    /**
     * When the music can begin: at once, but for a moment that those need who follow.
     *
     * @param lead how long is counted in, in nanoseconds
     */
    long soonest(Session session, long lead) {
        return clock.nanos() + lead + (session.clock().to().isEmpty() ? 0 : CLOCK_AHEAD);
    }

    /** What a clip of a track is played on. */
    private record Aim(int voice, int port, int instrument, int channel) {
        /** Stands for the channel that the clip has. */
        static final int OWN = -1;

        int message(int played) {
            return channel == OWN ? played : ShortMessage.onChannel(played, channel);
        }
    }

    /** Which tracks are heard, and how. */
    record Tracks(Session session, Performance performance, Routing routing, Set<String> silent) {
        private boolean isHeard(Track track) {
            return !silent.contains(track.id())
                    && !performance.muted().contains(track.id())
                    && (performance.soloed().isEmpty() || performance.soloed().contains(track.id()));
        }
    }

    /**
     * Begins to play tracks.
     *
     * @param from a place in nanoseconds of the session
     * @param range the stretch that is repeated, or null
     * @param begins when, on the clock; it may be still to come
     * @param others the clock of somebody else, whose time is that of the session; null for one's own
     */
    void start(Tracks tracks, long from, RecordOptions.Stretch range, long begins, Clock others) {
        List<MidiTrack> clips = new ArrayList<>();
        List<Aim> aims = new ArrayList<>();
        tracks.session().tracks().stream()
                .filter(tracks::isHeard)
                .forEach(track -> aim(track, tracks.routing(), clips, aims));
        int voices = slots.sourceCount();
        engine.submit((router, stamp) -> router.openVoices(voices));
        playing = aims.stream().mapToInt(Aim::voice).toArray();
        TempoMap tempo = tracks.session().tempo();
        player = new Player(
                "dibble-player",
                others == null ? clock : others,
                Timeline.of(clips, tempo),
                clips.size(),
                range != null,
                (lane, message) -> {
                    Aim aim = aims.get(lane);
                    inlet.playBack(aim.voice(), aim.port(), aim.instrument(), aim.message(message));
                });
        if (range != null) {
            player.repeat(tempo.nanos(range.from()), tempo.nanos(range.to()));
        }
        movesAt = others == null ? begins : clock.nanos();
        player.startAt(from, others == null ? begins : from);
    }

    private void aim(Track track, Routing routing, List<MidiTrack> clips, List<Aim> aims) {
        int voice = slots.source(VOICE + track.id());
        Optional<Destination> to = track.playsOn().flatMap(routing::destination);
        if (to.isPresent()) {
            clips.add(track.clip());
            aims.add(new Aim(
                    voice,
                    slots.port(to.get().port()),
                    slots.instrument(track.playsOn().get().instrument()),
                    to.get().channel() - 1));
        } else if (track.takesSeveral()) {
            Clips.byDevice(track.clip())
                    .forEach((id, clip) -> routing.instrument(id).ifPresent(instrument -> {
                        clips.add(clip);
                        aims.add(new Aim(voice, slots.port(instrument.port()), slots.instrument(id), Aim.OWN));
                    }));
        }
    }

    /**
     * Has those who follow begin with the music.
     *
     * @param lead how long before it they get clocks, in nanoseconds
     */
    void sendClock(Session session, long from, long begins, long lead) {
        List<ClockSender.Out> outs = new ArrayList<>();
        for (String name : session.clock().to()) {
            clockPort(name)
                    .ifPresent(port -> outs.add(new ClockSender.Out() {
                        @Override
                        public void realTime(int status) {
                            port.sendRealTime(status);
                        }

                        @Override
                        public void songPosition(int sixteenths) {
                            port.sendSongPosition(sixteenths);
                        }
                    }));
        }
        if (!outs.isEmpty()) {
            clockSender = new ClockSender(clock, session.tempo(), outs);
            clockSender.start(from, begins, lead);
        }
    }

    /** A port that is sent notes has a way out already; others are opened for the clock alone. */
    private Optional<OutputPort> clockPort(String name) {
        Optional<OutputPort> open = ports.lane(name).map(Lane::port);
        if (open.isPresent()) {
            return open;
        }
        if (!clockPorts.containsKey(name)) {
            devices.output(name).ifPresent(port -> clockPorts.put(name, port));
        }
        return Optional.ofNullable(clockPorts.get(name));
    }

    /**
     * Clicks. They are nobody's notes, and go past the router to a port of their own.
     *
     * @param tick where the count-in ends
     * @param countIn its bars
     * @param goesOn whether the beats are heard after it
     * @param begins when the first click is, on the clock
     */
    void startClick(TempoMap tempo, long tick, int countIn, boolean goesOn, long begins) {
        if (countIn == 0 && !goesOn) {
            return;
        }
        if (clickLane == null) {
            clickLane = devices.output(Click.PORT).map(Lane::new).orElse(null);
        }
        if (clickLane != null) {
            Lane lane = clickLane;
            long until = goesOn ? tick + CLICK_TICKS : tick;
            click = new Player(
                    "dibble-click",
                    clock,
                    Click.timeline(tempo, tick, countIn, until),
                    1,
                    false,
                    (one, message) -> lane.offer(clock.nanos(), message));
            click.startAt(0, begins);
        }
    }

    boolean isPlaying() {
        return player != null && player.isPlaying();
    }

    /** Whether it has played to its end, and was not stopped yet. */
    boolean isOver() {
        return player != null && !player.isPlaying();
    }

    /** Where it is, in nanoseconds of the session. */
    long position() {
        return player.position();
    }

    /** When it began or is going to move, on the clock. */
    long movesAt() {
        return movesAt;
    }

    /** Stops all of it; what tracks hold and owe is let go. */
    void stop() {
        if (clockSender != null) {
            clockSender.close();
            clockSender = null;
        }
        if (click != null) {
            click.close();
            click = null;
        }
        if (player != null) {
            player.close();
            player = null;
            int[] voices = playing;
            engine.submit((router, stamp) -> {
                for (int voice : voices) {
                    router.letGo(voice, stamp);
                }
            });
        }
    }

    /** Stops, and closes the ports that it opened. */
    @Override
    public void close() {
        stop();
        if (clickLane != null) {
            clickLane.close();
        }
        clockPorts.values().forEach(OutputPort::close);
    }
}
