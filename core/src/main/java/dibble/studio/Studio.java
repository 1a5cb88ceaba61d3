package dibble.studio;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.ports.Devices;
import dibble.ports.EventRing;
import dibble.ports.Lane;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Destination;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingTable;
import dibble.routing.Slots;
import dibble.session.Document;
import dibble.session.Edits;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Clock;
import dibble.transport.Player;
import dibble.transport.Timeline;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.IntConsumer;

/**
 * The living whole of one open session: follows its document, opens ports, routes, records and plays back. Everything
 * is called on the thread that edits, which also calls {@link #pulse} regularly.
 */
public final class Studio implements AutoCloseable {
    private static final String PLAYBACK = "track:";

    private final Clock clock;
    private final Devices devices;
    private final Document document;
    private final Slots slots = new Slots();
    private final Engine engine;
    private final Recorder recorder;
    private final Inlet playback;
    private final Map<String, Inlet> inlets = new HashMap<>();
    private final Map<String, String> sourceAtPort = new HashMap<>();
    private final Map<String, Lane> lanes = new HashMap<>();
    private final Map<Destination, int[]> sounds = new HashMap<>();
    private final Runnable unlisten;
    private Routing routing;
    private Set<String> unheard;
    private Player player;
    private int[] playing = {};
    private Player performer;
    private boolean stopAsked;
    private boolean recordAsked;

    public Studio(Clock clock, Devices devices, Document document) {
        this.clock = clock;
        this.devices = devices;
        this.document = document;
        engine = new Engine(clock);
        recorder = new Recorder(engine.recorderRing());
        playback = engine.openInlet(0);
        unlisten = document.listen(this::follow);
        follow();
    }

    public Document document() {
        return document;
    }

    private Session session() {
        return document.session();
    }

    /** Numbers of sources, ports and instruments, as the monitor's events have them. */
    public Slots slots() {
        return slots;
    }

    /** What is played and sent, for one reader: each event as {@link Packed} says. */
    public EventRing monitor() {
        return engine.monitorRing();
    }

    private void follow() {
        Performance performance = document.performance();
        Routing next = session().routing(performance);
        if (next.equals(routing) && performance.unheard().equals(unheard)) {
            return;
        }
        boolean sameRouting = next.equals(routing);
        routing = next;
        unheard = performance.unheard();
        RoutingTable table = RoutingCompiler.compileLive(next, slots, unheard);
        openLanes();
        engine.submit((router, stamp) -> router.install(table, stamp));
        openInlets();
        sendSounds(false);
        if (!sameRouting) {
            recorder.routing(sourceIds(), next);
            engine.submit((router, stamp) -> engine.markForRecorder(stamp));
        }
    }

    private void openLanes() {
        Set<String> wanted = new HashSet<>();
        for (Instrument instrument : routing.instruments()) {
            String name = instrument.port();
            if (wanted.add(name) && !lanes.containsKey(name)) {
                devices.output(name).ifPresent(port -> {
                    Lane lane = new Lane(port);
                    lanes.put(name, lane);
                    int slot = slots.port(name);
                    engine.submit((router, stamp) -> engine.setLane(slot, lane));
                });
            }
        }
        Set<String> gone = new HashSet<>(lanes.keySet());
        gone.removeAll(wanted);
        gone.forEach(this::closeLane);
    }

    private void closeLane(String name) {
        Lane lane = lanes.remove(name);
        int slot = slots.port(name);
        sounds.keySet().removeIf(destination -> destination.port().equals(name));
        CompletableFuture<Void> out = new CompletableFuture<>();
        engine.submit((router, stamp) -> {
            router.closePort(slot, stamp);
            engine.setLane(slot, null);
            out.complete(null);
        });
        out.join();
        lane.close();
    }

    private void openInlets() {
        Map<String, String> wanted = new LinkedHashMap<>();
        routing.sources().forEach(source -> wanted.putIfAbsent(source.port(), source.id()));
        Set<String> gone = new HashSet<>(sourceAtPort.keySet());
        gone.removeAll(wanted.keySet());
        for (String name : gone) {
            sourceAtPort.remove(name);
            devices.input(name).ifPresent(port -> port.listen(null));
        }
        wanted.forEach((name, source) -> {
            if (!source.equals(sourceAtPort.get(name))) {
                devices.input(name).ifPresent(port -> {
                    port.listen(inlets.computeIfAbsent(source, id -> engine.openInlet(slots.source(id))));
                    sourceAtPort.put(name, source);
                });
            }
        });
    }

    /** Sends each part's bank, program, volume and pan: those that changed, or all. */
    public void sendSounds(boolean all) {
        if (all) {
            sounds.clear();
        }
        for (Instrument instrument : routing.instruments()) {
            for (Part part : instrument.parts()) {
                routing.destination(instrument.ref(part))
                        .filter(destination -> lanes.containsKey(destination.port()))
                        .ifPresent(destination -> sendSound(instrument, part, destination));
            }
        }
    }

    private void sendSound(Instrument instrument, Part part, Destination destination) {
        int[] messages = part.sound().messages(destination.channel() - 1);
        if (!Arrays.equals(messages, sounds.put(destination, messages))) {
            int port = slots.port(destination.port());
            int number = slots.instrument(instrument.id());
            engine.submit((router, stamp) -> {
                for (int message : messages) {
                    engine.send(stamp, port, message, number);
                }
            });
        }
    }

    private List<String> sourceIds() {
        List<String> ids = new ArrayList<>();
        for (int slot = 0; slot < slots.sourceCount(); slot++) {
            ids.add(slots.sourceId(slot));
        }
        return ids;
    }

    /** What the transport does now. */
    public Transport transport() {
        if (recorder.recording() != null || recordAsked) {
            return Transport.RECORDING;
        }
        return player != null && player.isPlaying() ? Transport.PLAYING : Transport.STOPPED;
    }

    /** Nanoseconds since the start of what is recorded or played back; of the performance where it alone plays. */
    public long position() {
        Recording recording = recorder.recording();
        if (recording != null) {
            return clock.nanos() - recording.startedAt();
        }
        if (player != null && player.isPlaying()) {
            return player.position();
        }
        return performer != null && performer.isPlaying() ? performer.position() : 0;
    }

    /** The recording in progress, or null. */
    public Recording recording() {
        return recorder.recording();
    }

    /**
     * Starts to record everybody. Parts that are fed and have no track get one, and one for everything else is there.
     * Does nothing while it records already.
     */
    public void record() {
        if (transport() == Transport.RECORDING) {
            return;
        }
        stopPlayer();
        Session withTracks = Edits.addMissingTracks(session());
        Set<String> fresh = new HashSet<>();
        withTracks.tracks().stream()
                .filter(track -> session().tracks().stream()
                        .noneMatch(other -> other.id().equals(track.id())))
                .forEach(track -> fresh.add(track.id()));
        document.edit("new tracks", session -> withTracks);
        document.perform(performance -> {
            Performance armed = performance;
            for (String id : fresh) {
                armed = armed.withArmed(id, true);
            }
            return armed;
        });
        List<Track> tracks = new ArrayList<>(session().tracks());
        if (tracks.stream().noneMatch(Track::takesRest)) {
            tracks.add(Edits.restTrack(session()));
        }
        recordAsked = true;
        stopAsked = false;
        recorder.start(tracks, document.performance().armed(), sourceIds(), routing);
        engine.submit((router, stamp) -> engine.markForRecorder(stamp));
    }

    /** Plays the tracks from a place, in nanoseconds, on the parts that they are for. */
    public void play(long from) {
        if (transport() != Transport.STOPPED) {
            return;
        }
        stopPlayer();
        Performance performance = document.performance();
        List<MidiTrack> clips = new ArrayList<>();
        List<int[]> aims = new ArrayList<>();
        for (Track track : session().tracks()) {
            boolean silent = performance.muted().contains(track.id())
                    || !performance.soloed().isEmpty() && !performance.soloed().contains(track.id());
            Optional<PartRef> part = track.part();
            Optional<Destination> to = part.flatMap(routing::destination);
            if (!silent && to.isPresent()) {
                clips.add(track.clip());
                int voice = slots.source(PLAYBACK + track.id());
                aims.add(new int[] {
                    voice,
                    slots.port(to.get().port()),
                    slots.instrument(part.get().instrument()),
                    to.get().channel() - 1
                });
            }
        }
        int voices = slots.sourceCount();
        engine.submit((router, stamp) -> router.openVoices(voices));
        playing = aims.stream().mapToInt(aim -> aim[0]).toArray();
        Timeline timeline = Timeline.of(clips, session().tempo());
        player = new Player("dibble-player", clock, timeline, clips.size(), false, (lane, message) -> {
            int[] aim = aims.get(lane);
            playback.playBack(aim[0], aim[1], aim[2], message & ~0xF | aim[3]);
        });
        player.start(from);
    }

    /** Stops recording or playback. What was recorded is in the document after a later {@link #pulse}. */
    public void stop() {
        stopPlayer();
        if (transport() == Transport.RECORDING && !stopAsked) {
            stopAsked = true;
            recorder.stop();
            engine.submit((router, stamp) -> engine.markForRecorder(stamp));
        }
    }

    private void stopPlayer() {
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

    /**
     * Has stand-ins play a performance over and over, until {@link #stopPerformance}.
     *
     * @param lanes for each lane of the timeline, what plays a message
     */
    public void perform(Timeline timeline, List<IntConsumer> lanes) {
        stopPerformance();
        performer = new Player(
                "dibble-performer",
                clock,
                timeline,
                lanes.size(),
                true,
                (lane, message) -> lanes.get(lane).accept(message));
        performer.start(0);
    }

    public void stopPerformance() {
        if (performer != null) {
            performer.close();
            performer = null;
        }
    }

    public boolean isPerforming() {
        return performer != null && performer.isPlaying();
    }

    /** Stops playback and performance, and has everything fall silent. Recording goes on. */
    public void silence() {
        stopPlayer();
        stopPerformance();
        engine.submit((router, stamp) -> router.silence(stamp));
    }

    /** Takes in what other threads have finished: a complete take becomes part of the document, as one step. */
    public void pulse() {
        if (recorder.recording() != null) {
            recordAsked = false;
        }
        if (player != null && !player.isPlaying()) {
            // Wheels that the tracks left away from their rest go back.
            stopPlayer();
        }
        for (Recorder.Finished done = recorder.pollFinished(); done != null; done = recorder.pollFinished()) {
            recordAsked = false;
            keep(done);
        }
    }

    /** Named only now: between stop and this, undo and redo may have brought other takes. */
    private void keep(Recorder.Finished done) {
        String id = Edits.freshTakeId(session());
        Take take = done.take().named(id, "Take " + id.substring(id.indexOf('-') + 1));
        List<Track> printed = new ArrayList<>();
        for (int i = 0; i < done.printer().tracks().size(); i++) {
            Track track = done.printer().tracks().get(i);
            MidiTrack clip = done.printer().clip(i, session().tempo());
            if (done.printer().takesSomething(i)
                    && (clip.size() > 0 || session().tracks().contains(track))) {
                printed.add(track.withClip(clip, id));
            }
        }
        document.edit("recording of " + take.name(), session -> Edits.keepTake(session, take, printed));
    }

    /** How many (port, channel, note) sound at this point of the order of events. */
    public int soundingCount() {
        CompletableFuture<Integer> count = new CompletableFuture<>();
        engine.submit((router, stamp) -> count.complete(router.soundingCount()));
        return count.join();
    }

    /** Events that were lost on the way in or by the recorder. */
    public long lost() {
        return engine.lost();
    }

    /** Events that the reader of {@link #monitor} was too slow for. */
    public long monitorSkipped() {
        return engine.monitorSkipped();
    }

    /** The way out to a port that is open. */
    public Optional<Lane> lane(String port) {
        return Optional.ofNullable(lanes.get(port));
    }

    /** Lets all keys go and closes all ports. A recording in progress is given up. */
    @Override
    public void close() {
        unlisten.run();
        stopPlayer();
        stopPerformance();
        sourceAtPort.keySet().forEach(name -> devices.input(name).ifPresent(port -> port.listen(null)));
        CompletableFuture<Void> silent = new CompletableFuture<>();
        engine.submit((router, stamp) -> {
            router.silence(stamp);
            silent.complete(null);
        });
        silent.join();
        lanes.values().forEach(Lane::close);
        recorder.close();
    }
}
