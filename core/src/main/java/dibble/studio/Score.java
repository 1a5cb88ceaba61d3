package dibble.studio;

import dibble.midi.MidiTrack;
import dibble.recording.Clips;
import dibble.recording.Track;
import dibble.time.TempoMap;
import dibble.transport.Timeline;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** What tracks have, laid out to be played. Immutable; to make one of a million events takes a fifth of a second. */
final class Score {
    /** As many events as are laid out at once on the thread that edits. */
    private static final long AT_ONCE = 50_000;

    /** A score of nothing. */
    static final Score EMPTY = new Score(List.of(), Map.of(), new Timeline(List.of(), TempoMap.of(120)));

    /**
     * A track that is played.
     *
     * @param sound messages of the sound that its part has, on channel 0
     */
    record Voice(Track track, int[] sound) {}

    /** A clip that is played on a lane; clips are the same by identity. */
    private record Music(MidiTrack events, int[] sound, boolean oneChannel) {
        boolean isSame(Music other) {
            return events == other.events && oneChannel == other.oneChannel && Arrays.equals(sound, other.sound);
        }

        Timeline.Clip clip() {
            return new Timeline.Clip(events, sound, oneChannel);
        }
    }

    private final List<Music> music;
    private final Map<MidiTrack, Map<String, MidiTrack>> byDevice;
    private final Timeline timeline;

    private Score(List<Music> music, Map<MidiTrack, Map<String, MidiTrack>> byDevice, Timeline timeline) {
        this.music = music;
        this.byDevice = byDevice;
        this.timeline = timeline;
    }

    /** Lays out voices, in their order; of what this has already nothing is laid out again. */
    Score with(List<Voice> voices, TempoMap tempo) {
        List<Music> next = new ArrayList<>();
        Map<MidiTrack, Map<String, MidiTrack>> devices = new IdentityHashMap<>();
        for (Voice voice : voices) {
            MidiTrack clip = voice.track.clip();
            if (voice.track.playsOn().isPresent()) {
                next.add(new Music(clip, voice.sound, true));
            } else {
                Map<String, MidiTrack> known = byDevice.get(clip);
                devices.put(clip, known == null ? Clips.byDevice(clip) : known);
                devices.get(clip).values().forEach(part -> next.add(new Music(part, new int[0], false)));
            }
        }
        boolean same = isSame(next) && timeline.tempo().equals(tempo);
        return new Score(
                next,
                devices,
                same ? timeline : new Timeline(next.stream().map(Music::clip).toList(), tempo));
    }

    private boolean isSame(List<Music> next) {
        boolean same = next.size() == music.size();
        for (int i = 0; same && i < next.size(); i++) {
            same = next.get(i).isSame(music.get(i));
        }
        return same;
    }

    /** Whether {@link #with} takes no longer than an edit may: what is new is short. */
    boolean isSoonWith(List<Voice> voices, TempoMap tempo) {
        boolean sameTempo = timeline.tempo().equals(tempo);
        long all = 0;
        boolean same = sameTempo;
        for (Voice voice : voices) {
            MidiTrack clip = voice.track.clip();
            all += clip.size();
            same &= byDevice.containsKey(clip) || music.stream().anyMatch(it -> it.events == clip);
        }
        return same && voices.size() == tracks() || all <= AT_ONCE;
    }

    private long tracks() {
        return byDevice.size() + music.stream().filter(Music::oneChannel).count();
    }

    /** What a clip has for each instrument, where it is for several. */
    Map<String, MidiTrack> devices(MidiTrack clip) {
        return byDevice.get(clip);
    }

    Timeline timeline() {
        return timeline;
    }
}
