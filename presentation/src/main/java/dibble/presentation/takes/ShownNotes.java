package dibble.presentation.takes;

import static dibble.presentation.UiText.say;

import dibble.midi.MidiTrack;
import dibble.presentation.BackgroundCache;
import dibble.recording.EventStore;
import dibble.recording.NoteSpans;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.studio.Recording;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * The notes that are to be seen, in nanoseconds of the session as it is now: of tracks, of a take, and of a recording
 * while it lasts.
 */
public final class ShownNotes {
    /** As many events as are gone through within a frame. */
    private static final int AT_ONCE = 20_000;

    private final Supplier<TempoMap> tempo;
    private final BackgroundCache<Of, NoteSpans> kept = new BackgroundCache<>();
    private final Map<String, NoteSpans> live = new HashMap<>();
    private final List<Of> asked = new ArrayList<>();
    private Recording recording;

    /** @param tempo that of the session */
    public ShownNotes(Supplier<TempoMap> tempo) {
        this.tempo = tempo;
    }

    /** Notes of something under a tempo; of the same only where it is the very same, for comparing takes long. */
    private record Of(Object what, int number, TempoMap tempo) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Of that && what == that.what && number == that.number && tempo.equals(that.tempo);
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(what) * 31 + number;
        }
    }

    /** Goes on with another recording, or with none. */
    public void follow(Recording next) {
        if (next != recording) {
            recording = next;
            live.clear();
        }
    }

    /** Drops the notes that were not requested since the last call. */
    public void forgetOthers() {
        kept.retain(asked);
        asked.clear();
    }

    private Optional<NoteSpans> of(Of of, int events, Supplier<NoteSpans> spans) {
        asked.add(of);
        return kept.get(of, events <= AT_ONCE, spans);
    }

    /** The notes of a track; empty while they are still to come. */
    public Optional<NoteSpans> of(Track track) {
        TempoMap now = tempo.get();
        return of(new Of(track.sounding(), 0, now), track.sounding().size(), () -> spans(track.sounding(), now));
    }

    /** Returns the notes of a source in a take; empty while they are being computed, and if there are none. */
    public Optional<NoteSpans> of(Take take, String source) {
        TempoMap now = tempo.get();
        int number = take.sources().indexOf(source);
        return number < 0
                ? Optional.empty()
                : of(new Of(take, number, now), take.log().size(), () -> {
                    NoteSpans spans = new NoteSpans(take.log(), number, nanos -> now.nanos(take.tick(nanos)));
                    spans.update();
                    return spans;
                });
    }

    private static NoteSpans spans(MidiTrack clip, TempoMap tempo) {
        EventStore log = new EventStore();
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i)) {
                log.add(tempo.nanos(clip.tick(i)), 0, clip.message(i));
            }
        }
        NoteSpans spans = new NoteSpans(log, -1);
        spans.update();
        return spans;
    }

    /** Returns the notes of a track in the recording so far; null if the track does not take part. */
    public NoteSpans liveOf(String track) {
        Printer printer = recording.printer();
        for (int i = 0; i < printer.tracks().size(); i++) {
            if (printer.tracks().get(i).id().equals(track)) {
                return live(say("shown-notes.track", track), printer.log(i), -1);
            }
        }
        return null;
    }

    /** Returns the notes of a source in the recording so far. */
    public NoteSpans livePlayed(String source) {
        return live(
                say("common.source", source),
                recording.log(),
                recording.sources().indexOf(source));
    }

    private NoteSpans live(String key, EventStore log, int number) {
        Recording of = recording;
        NoteSpans spans = live.computeIfAbsent(key, it -> new NoteSpans(log, number, nanos -> place(of, nanos)));
        spans.update();
        return spans;
    }

    /** Returns the start of the recording. */
    public long begins() {
        return place(recording, 0);
    }

    private long place(Recording of, long nanos) {
        return tempo.get().nanos(of.tempo().ticks(of.from() + nanos));
    }

    /** Returns true if notes are still to come. */
    public boolean isWorking() {
        return kept.isWorking();
    }

    /** Returns true if notes have come since this was asked last. */
    public boolean hasNews() {
        return kept.hasNews();
    }
}
