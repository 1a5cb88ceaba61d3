package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Tracks as standard MIDI files. Tempo and meter come first; each track has its name, the instrument and part, the port
 * (device name, RP-019), its sound, and its events on the channel that its part has now.
 */
public final class TrackExport {
    private final String name;
    private final TempoMap tempo;
    private final List<Marker> markers;
    private final Routing routing;
    private final List<MidiTrack> tracks = new ArrayList<>();

    private TrackExport(String name, TempoMap tempo, List<Marker> markers, List<Track> tracks, Routing routing) {
        this.name = name;
        this.tempo = tempo;
        this.markers = markers;
        this.routing = routing;
        tracks.forEach(this::add);
    }

    /** A file of type 1: a track for each that has events; one that is for several instruments becomes one for each. */
    public static MidiFile type1(
            String name, TempoMap tempo, List<Marker> markers, List<Track> tracks, Routing routing) {
        TrackExport export = new TrackExport(name, tempo, markers, tracks, routing);
        List<MidiTrack> all = new ArrayList<>();
        all.add(conductor(name, tempo, markers));
        all.addAll(export.tracks);
        return new MidiFile(1, TempoMap.PPQ, all);
    }

    /** Returns a file of type 0, with everything on one track. Events on one channel of two ports are merged there. */
    public static MidiFile type0(
            String name, TempoMap tempo, List<Marker> markers, List<Track> tracks, Routing routing) {
        TrackExport export = new TrackExport(name, tempo, markers, tracks, routing);
        List<MidiTrack> all = new ArrayList<>();
        all.add(conductor(name, tempo, markers));
        all.addAll(export.tracks);
        return new MidiFile(0, TempoMap.PPQ, List.of(merged(all)));
    }

    /** A file for each track that has events, by names that every system takes and tells apart. */
    public static Map<String, MidiFile> files(
            String name, TempoMap tempo, List<Marker> markers, List<Track> tracks, Routing routing) {
        Map<String, MidiFile> files = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>();
        for (MidiTrack track : new TrackExport(name, tempo, markers, tracks, routing).tracks) {
            String own = FileNames.fresh(track.name().orElse(say("track-export.track")), taken::contains);
            taken.add(own.toLowerCase(Locale.ROOT));
            files.put(own, new MidiFile(1, TempoMap.PPQ, List.of(conductor(name, tempo, markers), track)));
        }
        return files;
    }

    private void add(Track track) {
        if (track.sounding().size() == 0) {
            return;
        }
        List<TrackVoice> voices = TrackVoice.of(track);
        for (TrackVoice voice : voices) {
            Optional<PartRef> part = voice.part();
            OptionalInt channel = part.isPresent() ? routing.channels().channel(part.get()) : OptionalInt.empty();
            String instrument = part.map(PartRef::instrument).orElse(voice.destination());
            String own = voices.size() == 1 ? track.name() : track.name() + ", " + destinationName(voice);
            tracks.add(track(own, instrument, part, channel.orElse(-1), voice.clip()));
        }
    }

    private String destinationName(TrackVoice voice) {
        return voice.part()
                .flatMap(routing::part)
                .map(Part::name)
                .or(() -> routing.instrument(voice.destination()).map(Instrument::name))
                .orElse(voice.destination());
    }

    /** @param channel 1-16, or -1 for those that the clip has */
    private MidiTrack track(String own, String instrument, Optional<PartRef> ref, int channel, MidiTrack clip) {
        MidiTrack.Builder to = new MidiTrack.Builder();
        to.text(0, MidiTrack.META_TRACK_NAME, own);
        Optional<Part> part = ref.flatMap(routing::part);
        routing.instrument(instrument).ifPresent(it -> {
            to.text(
                    0,
                    MidiTrack.META_INSTRUMENT,
                    it.name()
                            + part.map(named -> " / " + named.name() + programName(it, named))
                                    .orElse(""));
            to.text(0, MidiTrack.META_DEVICE, it.port());
        });
        if (part.isPresent() && channel > 0) {
            for (int message : routing.soundOf(ref.get(), channel - 1)) {
                to.add(0, message);
            }
        }
        for (int i = 0; i < clip.size(); i++) {
            if (channel > 0 && clip.isChannelMessage(i)) {
                to.add(clip.tick(i), ShortMessage.onChannel(clip.message(i), channel - 1));
            } else {
                to.copyTo(MidiTrack.NO_DESTINATION, clip, i);
            }
        }
        return to.build(clip.endTick());
    }

    /** The name of a part's program, where the device's names are known. */
    private static String programName(Instrument instrument, Part part) {
        return instrument.programName(part.sound()).map(name -> ", " + name).orElse("");
    }

    private static MidiTrack merged(List<MidiTrack> tracks) {
        record Event(long tick, MidiTrack track, int at) {}
        List<Event> events = new ArrayList<>();
        for (MidiTrack track : tracks) {
            for (int i = 0; i < track.size(); i++) {
                // Names of tracks would follow each other: the first is that of the whole.
                boolean named = track.status(i) == MidiTrack.META
                        && track != tracks.get(0)
                        && (track.isMeta(i, MidiTrack.META_TRACK_NAME)
                                || track.isMeta(i, MidiTrack.META_INSTRUMENT)
                                || track.isMeta(i, MidiTrack.META_DEVICE));
                if (!named) {
                    events.add(new Event(track.tick(i), track, i));
                }
            }
        }
        events.sort(Comparator.comparingLong(Event::tick));
        MidiTrack.Builder one = new MidiTrack.Builder();
        events.forEach(event -> one.copy(event.track(), event.at()));
        return one.build(tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0));
    }

    /** A track with the name, tempo, meter and markers of a session. */
    public static MidiTrack conductor(String name, TempoMap tempo, List<Marker> markers) {
        record Event(long tick, Consumer<MidiTrack.Builder> write) {}
        List<Event> events = new ArrayList<>();
        for (TempoMap.Meter meter : tempo.meters()) {
            byte power = (byte) Integer.numberOfTrailingZeros(meter.unit());
            byte[] data = {(byte) meter.beats(), power, 24, 8};
            events.add(new Event(meter.at(), track -> track.meta(meter.at(), MidiTrack.META_METER, data)));
        }
        for (TempoMap.Tempo at : tempo.tempos()) {
            int micros = (int) Math.min(0xFFFFFF, Math.round(60e6 / at.bpm()));
            byte[] data = {(byte) (micros >>> 16), (byte) (micros >>> 8), (byte) micros};
            events.add(new Event(at.at(), track -> track.meta(at.at(), MidiTrack.META_TEMPO, data)));
        }
        for (Marker marker : markers) {
            events.add(new Event(marker.at(), track -> track.text(marker.at(), MidiTrack.META_MARKER, marker.name())));
        }
        // Sorting is stable: at one tick the meter comes first.
        events.sort(Comparator.comparingLong(Event::tick));
        MidiTrack.Builder track = new MidiTrack.Builder();
        track.text(0, MidiTrack.META_TRACK_NAME, name);
        events.forEach(event -> event.write().accept(track));
        return track.build();
    }
}
