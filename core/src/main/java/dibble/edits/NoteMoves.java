package dibble.edits;

import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.ChangeResult;
import dibble.notes.CleanUp;
import dibble.recording.BarRanges;
import dibble.recording.Clips;
import dibble.recording.EventDestination;
import dibble.recording.ManualEdits;
import dibble.recording.Regions;
import dibble.recording.Sorting;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Session;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Moves of recorded notes to another sound, with the effect that a zone would have had. Pedals, wheels and controllers
 * that apply to the notes move with them, and remain for the notes that stay. Functions from a session to the changed
 * one.
 */
public final class NoteMoves {
    private NoteMoves() {}

    /**
     * Moves notes to a part: to the track that takes the part, which is added if there is none.
     *
     * @param routing the routing that gives the channel of the part
     * @param selected the selected notes, by the ids of their tracks
     */
    public static NoteEdits.Edited toPart(
            Session session, Routing routing, Map<String, BitSet> selected, PartRef part) {
        Session ready = session;
        if (session.trackOf(part).isEmpty()) {
            String name = session.part(part).orElseThrow().name();
            ready = TrackEdits.addTrack(session, TrackEdits.freshId(session, name), name, new Track.OfPart(part));
        }
        return toTrack(
                ready, routing, selected, ready.trackOf(part).orElseThrow().id());
    }

    /** Puts notes onto another track, where they sound as that does. */
    public static NoteEdits.Edited toTrack(
            Session session, Routing routing, Map<String, BitSet> selected, String target) {
        Track to = session.track(target).orElseThrow();
        MidiTrack added = Track.NOTHING;
        for (Map.Entry<String, BitSet> notes : selected.entrySet()) {
            if (!notes.getKey().equals(target)) {
                Track from = session.track(notes.getKey()).orElseThrow();
                MidiTrack taken = BarRanges.taken(from.regions().editable().whole(), notes.getValue());
                added = Clips.over(added, soundingOn(taken, from, to, routing));
            }
        }
        ManualEdits.Added after = to.regions().editable().with(added);
        Session moved = TrackEdits.replaceTracks(
                session, List.of(to.withRegions(to.regions().edited(after.edits()))));
        Map<String, BitSet> gone = new LinkedHashMap<>(selected);
        gone.remove(target);
        Session left = NoteEdits.change(moved, gone, CleanUp.delete()).session();
        return new NoteEdits.Edited(left, Map.of(target, after.added()), ChangeResult.Effect.NONE);
    }

    /** Returns the notes for another track: on a part's track they name no destination; elsewhere they keep theirs. */
    private static MidiTrack soundingOn(MidiTrack taken, Track from, Track to, Routing routing) {
        Optional<PartRef> part = to.playsOn();
        if (part.isEmpty()) {
            return from.playsOn()
                    .map(own -> Clips.withDestination(
                            taken, EventDestination.of(own).text()))
                    .orElse(taken);
        }
        int channel = routing.channels().channel(part.get()).orElse(1) - 1;
        // Notes of one key may come from several sounds: each voice is merged like a separate track.
        Map<Voice, MidiTrack.Builder> voices = new LinkedHashMap<>();
        for (int i = 0; i < taken.size(); i++) {
            boolean isMessage = taken.isChannelMessage(i);
            MidiTrack.Builder on = voices.computeIfAbsent(
                    new Voice(taken.destination(i), isMessage ? ShortMessage.channel(taken.message(i)) : 0),
                    it -> new MidiTrack.Builder());
            if (isMessage) {
                on.add(taken.tick(i), ShortMessage.onChannel(taken.message(i), channel));
            } else {
                on.copyTo(MidiTrack.NO_DESTINATION, taken, i);
            }
        }
        MidiTrack merged = Track.NOTHING;
        for (MidiTrack.Builder voice : voices.values()) {
            merged = Clips.over(merged, voice.build(taken.endTick()));
        }
        return merged;
    }

    /** The scope in which note-ons and note-offs alternate: a channel of a destination. */
    private record Voice(String destination, int channel) {}

    /**
     * Moves the selected notes of a track to new tracks behind it, one for each key or other sort value. The new tracks
     * have the same destination.
     */
    public static Session apart(Session session, String id, BitSet selected, Sorting.How how) {
        Track track = session.track(id).orElseThrow();
        MidiTrack taken = BarRanges.taken(track.regions().editable().whole(), selected);
        Track alone = track.withRegions(Regions.own(taken));
        Session sorted = TrackSorting.sort(session, alone, TrackSorting.by(session, alone, how));
        return NoteEdits.change(sorted, Map.of(id, selected), CleanUp.delete()).session();
    }
}
