package dibble.studio;

import dibble.midi.MidiTrack;
import dibble.recording.Track;
import dibble.recording.TrackVoice;
import dibble.routing.Routing;
import dibble.time.TempoMap;
import dibble.transport.Timeline;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** The content of tracks as a timeline. Immutable; building one of a million events takes a fifth of a second. */
final class PlaybackTimelineCache {
    /** As many events as are laid out at once on the thread that edits. */
    private static final long AT_ONCE = 50_000;

    /** A score of nothing. */
    static final PlaybackTimelineCache EMPTY =
            new PlaybackTimelineCache(List.of(), Map.of(), List.of(), new Timeline(List.of(), TempoMap.of(120)));

    private final List<Timeline.Clip> music;
    private final Map<MidiTrack, Map<String, TrackVoice.Events>> splits;
    private final List<TrackVoice> voices;
    private final Timeline timeline;

    private PlaybackTimelineCache(
            List<Timeline.Clip> music,
            Map<MidiTrack, Map<String, TrackVoice.Events>> splits,
            List<TrackVoice> voices,
            Timeline timeline) {
        this.music = music;
        this.splits = splits;
        this.voices = voices;
        this.timeline = timeline;
    }

    /** Lays out the voices of tracks, in their order; what this score has already is not laid out again. */
    PlaybackTimelineCache with(List<Track> tracks, Routing routing, TempoMap tempo) {
        Map<MidiTrack, Map<String, TrackVoice.Events>> next = new IdentityHashMap<>();
        List<TrackVoice> played = new ArrayList<>();
        List<Timeline.Clip> laid = new ArrayList<>();
        for (int i = 0; i < tracks.size(); i++) {
            int number = i;
            List<TrackVoice> ofTrack = TrackVoice.of(tracks.get(i), clip -> {
                Map<String, TrackVoice.Events> known = splits.get(clip);
                next.put(clip, known == null ? TrackVoice.split(clip) : known);
                return next.get(clip);
            });
            played.addAll(ofTrack);
            ofTrack.forEach(voice -> laid.add(Timeline.Clip.of(voice, voice.sound(routing), number)));
        }
        boolean same = isSame(laid) && timeline.tempo().equals(tempo);
        return new PlaybackTimelineCache(laid, next, played, same ? timeline : new Timeline(laid, tempo));
    }

    private boolean isSame(List<Timeline.Clip> next) {
        boolean same = next.size() == music.size();
        for (int i = 0; same && i < next.size(); i++) {
            same = next.get(i).isSame(music.get(i));
        }
        return same;
    }

    /** Returns true if {@link #with} is fast enough for an edit: the new content is short. */
    boolean isSoonWith(List<Track> tracks, TempoMap tempo) {
        long all = 0;
        boolean same = timeline.tempo().equals(tempo);
        for (Track track : tracks) {
            if (!track.isPlayed()) {
                continue;
            }
            all += track.sounding().size();
            same &= track.sounding().size() == 0 || splits.containsKey(track.sounding());
        }
        return same || all <= AT_ONCE;
    }

    /** Returns the voices, one for each lane of the timeline. */
    List<TrackVoice> voices() {
        return voices;
    }

    Timeline timeline() {
        return timeline;
    }
}
