package dibble.studio;

import dibble.midi.MidiTrack;
import dibble.midi.Status;
import dibble.ports.Devices;
import dibble.ports.OutputQueue;
import dibble.ports.SysexQueue;
import dibble.recording.Track;
import dibble.recording.TrackVoice;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.system.AsyncValue;
import dibble.system.Workers;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.Click;
import dibble.transport.Follower;
import dibble.transport.PlaybackPlan;
import dibble.transport.PlaybackTimebase;
import dibble.transport.Player;
import dibble.transport.ServerTransport;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Playback of the tracks and the click while the transport runs. Follows the session: each edit makes a new plan, with
 * which the player continues. Confined to the editing thread.
 */
final class Playback implements AutoCloseable {
    private static final String VOICE = "track:";

    private final Clock clock;
    private final Engine engine;
    private final InputStage inlet;
    private final SlotAllocator slots;
    private final PortRack ports;
    private final Devices devices;
    private final ClockPorts clockPorts;
    private Player player;
    private PlaybackPlan program;
    private Set<Integer> voices = Set.of();
    private Click click;
    private OutputQueue clickLane;

    /** The content of the tracks, and their present destinations. */
    private Tracks tracks;

    private Set<String> silent = Set.of();

    /** The present timeline; and the next, if it takes long. */
    private PlaybackTimelineCache score = PlaybackTimelineCache.EMPTY;

    private AsyncValue<PlaybackTimelineCache> coming;

    /** @param inlet the way in for messages of tracks */
    Playback(
            Clock clock,
            Engine engine,
            InputStage inlet,
            SlotAllocator slots,
            PortRack ports,
            Devices devices,
            ServerTransport transport) {
        this.clock = clock;
        this.engine = engine;
        this.inlet = inlet;
        this.slots = slots;
        this.ports = ports;
        this.devices = devices;
        clockPorts = new ClockPorts(clock, ports, devices, transport);
    }

    /** The tracks, and the state that decides their destinations and mutes. */
    record Tracks(Session session, Performance performance, Routing routing) {}

    /** The destination of a lane's messages. */
    private record Aim(
            InputStage inlet, SysexQueue exclusives, int voice, int port, int instrument, TrackVoice.Route route)
            implements PlaybackPlan.Out {
        @Override
        public void play(int message) {
            inlet.playBack(voice, port, instrument, route.onChannel(message));
        }

        @Override
        public void exclusive(byte[] message) {
            if (exclusives != null) {
                exclusives.offer(message);
            }
        }
    }

    /** Returns the nanoseconds of notice that followers need before the music. */
    long readiness() {
        return clockPorts.readiness(tracks.session());
    }

    /**
     * Updates playback from the session and the mutes. After a large change, a later {@link #pulse} completes the
     * update.
     */
    void follow(Tracks now) {
        tracks = now;
        clockPorts.follow(now.session());
        TempoMap tempo =
                player == null ? now.session().tempo() : program.course().tempo();
        List<Track> played = now.session().tracks();
        if (!score.isSoonWith(played, tempo)) {
            PlaybackTimelineCache before = score;
            coming = AsyncValue.compute(Workers.shared().computing(), () -> before.with(played, now.routing(), tempo));
        } else if (player != null) {
            goOn();
        }
    }

    /** Applies a timeline that was computed in the background. */
    void pulse() {
        if (coming != null && coming.isDone()) {
            // After a failure, playback continues with the previous layout.
            boolean isNew = coming.value().isPresent();
            score = coming.value().orElse(score);
            coming = null;
            if (isNew && player != null) {
                goOn();
            }
        }
    }

    /** Returns true if something is being laid out. */
    boolean isWorking() {
        return coming != null;
    }

    private void goOn() {
        program = program(program.course());
        player.change(program);
    }

    void setSilent(Set<String> ids) {
        silent = ids;
        if (player != null) {
            follow(tracks);
        }
    }

    void play(PlaybackTimebase course, Set<String> unheard, int countIn, boolean clicks) {
        stop();
        silent = unheard;
        program = program(course);
        player = new Player("dibble-player", clock, program);
        player.start();
        clockPorts.start(course, Click.countIn(course.tempo(), course.tempo().ticks(course.place()), countIn));
        startClick(course, countIn, clicks);
    }

    void playAlong(Follower other, long entry, PlaybackTimebase.Loop loop, Set<String> unheard) {
        stop();
        silent = unheard;
        // Its time is that of the session already.
        program = program(new PlaybackTimebase(other.tempo(), 0, 0, loop));
        player = new Player("dibble-player", other, program, entry);
        player.start();
    }

    /** Goes on along another course. */
    void change(PlaybackTimebase course) {
        if (player != null) {
            program = program(course);
            player.change(program);
        }
        clockPorts.change(course);
        if (click != null) {
            click.change(course);
        }
    }

    private PlaybackPlan program(PlaybackTimebase course) {
        if (coming != null) {
            // It is needed now. A pending layout is computed here instead of waiting for the other thread.
            score = coming.value().orElse(score);
            coming = null;
        }
        score = score.with(tracks.session().tracks(), tracks.routing(), course.tempo());
        List<PlaybackPlan.PlannedTrack> lanes = new ArrayList<>();
        for (TrackVoice voice : score.voices()) {
            String track = voice.track().id();
            boolean heard = tracks.performance().plays(track) && !silent.contains(track);
            lanes.add(new PlaybackPlan.PlannedTrack(voice.name(), heard ? aim(voice) : null));
        }
        openVoices(lanes);
        return new PlaybackPlan(course, score.timeline(), lanes);
    }

    /** Returns the output for a voice; null where its part has no channel. */
    private PlaybackPlan.Out aim(TrackVoice voice) {
        return voice.route(tracks.routing())
                .map(route -> new Aim(
                        inlet,
                        exclusives(voice.clip(), route.port()),
                        slots.source(VOICE + voice.name()),
                        slots.port(route.port()),
                        slots.instrument(route.instrument()),
                        route))
                .orElse(null);
    }

    /** The way for system exclusive messages, where a clip has any. */
    private SysexQueue exclusives(MidiTrack clip, String port) {
        for (int i = 0; i < clip.size(); i++) {
            if (clip.status(i) == Status.EXCLUSIVE) {
                return ports.exclusives(port).orElse(null);
            }
        }
        return null;
    }

    private void openVoices(List<PlaybackPlan.PlannedTrack> lanes) {
        Set<Integer> needed = new HashSet<>(voices);
        lanes.stream()
                .map(PlaybackPlan.PlannedTrack::out)
                .filter(Aim.class::isInstance)
                .forEach(out -> needed.add(((Aim) out).voice()));
        if (!needed.equals(voices)) {
            voices = needed;
            int count = slots.sourceCount();
            engine.submit((router, stamp) -> router.openVoices(count));
        }
    }

    /** Clicks belong to no source, and bypass the router to a separate port. */
    private void startClick(PlaybackTimebase course, int countIn, boolean goesOn) {
        if (countIn == 0 && !goesOn) {
            return;
        }
        if (clickLane == null) {
            clickLane = devices.output(Click.PORT).map(OutputQueue::new).orElse(null);
        }
        if (clickLane != null) {
            OutputQueue lane = clickLane;
            click = new Click(clock, course, countIn, goesOn, message -> lane.offer(clock.nanos(), message));
            click.start();
        }
    }

    /** Takes in that ports have come or gone. */
    void portsChanged() {
        clockPorts.portsChanged();
    }

    boolean isPlaying() {
        return player != null && player.isPlaying();
    }

    /** Stops all of it; what tracks hold and owe is let go. */
    void stop() {
        clockPorts.stop();
        if (click != null) {
            click.close();
            click = null;
        }
        if (player != null) {
            player.close();
            player = null;
            Set<Integer> played = voices;
            voices = Set.of();
            engine.submit((router, stamp) -> played.forEach(voice -> router.letGo(voice, stamp)));
        }
        silent = Set.of();
    }

    /** Stops, and closes the ports that it opened. */
    @Override
    public void close() {
        stop();
        if (clickLane != null) {
            clickLane.close();
        }
        clockPorts.close();
    }
}
