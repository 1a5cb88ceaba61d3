package dibble.edits;

import dibble.midi.MidiTrack;
import dibble.notes.AsPlayed;
import dibble.notes.ChangeResult;
import dibble.notes.NoteFunction;
import dibble.recording.ClipIndex;
import dibble.recording.Clips;
import dibble.recording.ManualEdits;
import dibble.recording.Track;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Manual edits of the notes of tracks, as functions from a session to the changed one. Notes are numbered as in the
 * whole track, with muted notes ({@link ManualEdits#whole}). Takes are never changed.
 */
public final class NoteEdits {
    private NoteEdits() {}

    /**
     * The result of an edit.
     *
     * @param selected the selected notes of each changed track, after the edit
     * @param effect the effect of the edit
     */
    public record Edited(Session session, Map<String, BitSet> selected, ChangeResult.Effect effect) {}

    /** Makes a change of the selected notes of a track. */
    public interface Change {
        NoteFunction of(Track track);
    }

    /**
     * Changes notes.
     *
     * @param selected which notes, by the ids of their tracks
     */
    public static Edited change(Session session, Map<String, BitSet> selected, NoteFunction function) {
        return changeEach(session, selected, track -> function);
    }

    /** The same with a function for each track. */
    public static Edited changeEach(Session session, Map<String, BitSet> selected, Change change) {
        List<Track> tracks = new ArrayList<>();
        Map<String, BitSet> then = new LinkedHashMap<>();
        ChangeResult.Effect effect = ChangeResult.Effect.NONE;
        for (Track track : session.tracks()) {
            BitSet ofTrack = selected.get(track.id());
            if (ofTrack != null) {
                ManualEdits before = track.regions().editable();
                ChangeResult changed = change.of(track).of(before.whole(), before.index(), ofTrack);
                tracks.add(with(track, before, changed));
                then.put(track.id(), changed.selected());
                effect = effect.and(changed.effect());
            }
        }
        return new Edited(TrackEdits.replaceTracks(session, tracks), then, effect);
    }

    private static Track with(Track track, ManualEdits before, ChangeResult changed) {
        return changed.clip() == before.whole()
                ? track
                : track.withRegions(
                        track.regions().edited(before.after(changed.clip(), changed.from(), changed.shifts())));
    }

    /** The notes of tracks that were not there before. */
    public static Map<String, BitSet> added(Session before, Session now) {
        Map<String, Track> known = new HashMap<>();
        before.tracks().forEach(track -> known.put(track.id(), track));
        Map<String, BitSet> added = new LinkedHashMap<>();
        for (Track track : now.tracks()) {
            Track was = known.get(track.id());
            if (was == null || was.regions() != track.regions()) {
                ManualEdits hand = track.regions().editable();
                BitSet fresh =
                        was == null ? new BitSet() : was.regions().editable().notesIn(hand.whole());
                fresh.flip(0, hand.origins().size());
                added.put(track.id(), fresh);
            }
        }
        return added;
    }

    /** Mutes notes, or unmutes them. Muted notes remain visible. */
    public static Session mute(Session session, Map<String, BitSet> selected, boolean on) {
        List<Track> tracks = new ArrayList<>();
        for (Track track : session.tracks()) {
            BitSet ofTrack = selected.get(track.id());
            if (ofTrack != null) {
                ManualEdits before = track.regions().editable();
                BitSet muted = before.muted();
                if (on) {
                    muted.or(ofTrack);
                } else {
                    muted.andNot(ofTrack);
                }
                tracks.add(track.withRegions(
                        track.regions().edited(new ManualEdits(before.whole(), before.origins(), muted))));
            }
        }
        return TrackEdits.replaceTracks(session, tracks);
    }

    /** Restores notes as they were played. Notes that were added manually stay. */
    public static Edited asPlayed(Session session, Map<String, BitSet> selected) {
        Session heard = mute(session, selected, false);
        Edited edited = changeEach(heard, selected, track -> {
            ManualEdits hand = track.regions().editable();
            return new AsPlayed(hand.origins(), ClipIndex.of(track.regions().printed()));
        });
        List<Track> tracks = edited.session().tracks().stream()
                .map(track ->
                        isAsPlayed(track) ? track.withRegions(track.regions().asPrinted()) : track)
                .toList();
        return new Edited(edited.session().withTracks(tracks), edited.selected(), edited.effect());
    }

    /** Returns true if the content equals the print, except for the order of simultaneous events. */
    private static boolean isAsPlayed(Track track) {
        return track.regions()
                .byHand()
                .filter(hand -> hand.muted().isEmpty())
                .filter(hand -> isSame(
                        Clips.plain(hand.whole()), Clips.plain(track.regions().printed())))
                .isPresent();
    }

    private static boolean isSame(MidiTrack whole, MidiTrack printed) {
        if (whole.size() != printed.size() || whole.endTick() != printed.endTick()) {
            return false;
        }
        int first = 0;
        for (int i = 1; i <= whole.size(); i++) {
            if (i == whole.size() || whole.tick(i) != whole.tick(first)) {
                if (!Arrays.equals(messages(whole, first, i), messages(printed, first, i))
                        || printed.tick(first) != whole.tick(first)
                        || printed.tick(i - 1) != whole.tick(first)) {
                    return false;
                }
                first = i;
            }
        }
        return true;
    }

    private static int[] messages(MidiTrack clip, int from, int to) {
        int[] messages = new int[to - from];
        for (int i = from; i < to; i++) {
            messages[i - from] = clip.isChannelMessage(i) ? clip.message(i) : clip.status(i);
        }
        Arrays.sort(messages);
        return messages;
    }

    /** Restores the printed content of whole tracks: deleted notes return, added notes go. */
    public static Session allAsPlayed(Session session, List<String> tracks) {
        return session.withTracks(session.tracks().stream()
                .map(track -> tracks.contains(track.id())
                        ? track.withRegions(track.regions().asPrinted())
                        : track)
                .toList());
    }
}
