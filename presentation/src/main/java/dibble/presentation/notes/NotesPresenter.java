package dibble.presentation.notes;

import static dibble.presentation.UiText.say;

import dibble.edits.NoteEdits;
import dibble.edits.NoteEdits.Edited;
import dibble.gear.Part;
import dibble.notes.ChangeResult;
import dibble.notes.CleanUp;
import dibble.notes.Grid;
import dibble.notes.Lengths;
import dibble.notes.ManualChanges;
import dibble.notes.Note;
import dibble.notes.NoteFunction;
import dibble.notes.TimeChanges;
import dibble.notes.Velocities;
import dibble.presentation.EditRuns;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Gesture;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;

/** The presenter of the note editor: the visible tracks, the selection, and the edits. */
public final class NotesPresenter {
    private static final int USUAL_VELOCITY = 90;

    /** One place of the clipboard: a note, later than the first by its start. */
    private record Copied(String track, Note note) {}

    private final Document document;
    private final List<String> shown = new ArrayList<>();
    private final NoteSelection selected = new NoteSelection();
    private final SelectionCommands selecting;
    private final TrackNotesCache sheets = new TrackNotesCache();

    /** The whole clips that the selection is of. */
    private final Map<String, TrackNotes> known = new HashMap<>();

    private final List<Copied> copied = new ArrayList<>();
    private Grid.Step step = new Grid.Step(16, Grid.Kind.STRAIGHT);
    private boolean snaps = true;

    /** The preview, with the session that it was made from; null for none. */
    private Edited preview;

    private Session previewOf;

    /** The gesture that shows the preview; null before the first. */
    private Gesture previewing;

    private final EditRuns runs;

    /** Presents a document; no track is open yet. */
    public NotesPresenter(Document document, EditRuns runs) {
        this.document = document;
        this.runs = runs;
        selecting = new SelectionCommands(
                selected, this::sheets, this::grid, () -> session().tempo());
    }

    // Which tracks are shown.

    /** Shows the notes of a track alone, or beside those that are shown. */
    public void show(String track, boolean beside) {
        if (!beside) {
            shown.clear();
            selected.clear();
        }
        if (!shown.remove(track) || shown.isEmpty()) {
            shown.add(track);
        }
    }

    /** Shows no tracks any more. */
    public void close() {
        cancel();
        shown.clear();
        selected.clear();
        known.clear();
    }

    /** Returns true if tracks are shown. */
    public boolean isOpen() {
        return !shown.isEmpty();
    }

    /** The tracks that are shown, as they are now. */
    public List<Track> tracks() {
        return tracks(document.session());
    }

    private List<Track> tracks(Session session) {
        return shown.stream().flatMap(id -> session.track(id).stream()).toList();
    }

    /** The tracks that are not shown. */
    public List<Track> others() {
        return document.session().tracks().stream()
                .filter(track -> !shown.contains(track.id()))
                .toList();
    }

    /** Returns the part that a track plays. */
    public Optional<Part> part(Track track) {
        return track.playsOn().flatMap(document.session()::part);
    }

    /** Returns the notes of a track; empty while they are being computed. */
    public Optional<TrackNotes> sheet(Track track) {
        return sheets.of(track);
    }

    /** Returns true if notes are still being read. */
    public boolean isWorking() {
        return sheets.isWorking();
    }

    /** Returns true if notes have been read since this was asked last. */
    public boolean hasNews() {
        return sheets.hasNews();
    }

    /** Drops the notes of tracks that were not requested since the last call. */
    public void forgetOthers() {
        sheets.forgetOthers();
    }

    // Which notes are selected.

    /** Returns the selected notes. */
    public NoteSelection selected() {
        return selected;
    }

    /** Returns the selection as displayed: in a preview, after the change. */
    public BitSet selectedNow(String track) {
        return isPreviewing() ? preview.selected().getOrDefault(track, new BitSet()) : selected.of(track);
    }

    /** Updates the selection after a change of the tracks; a deleted track is hidden. */
    public void follow() {
        if (preview != null && !isPreviewing()) {
            preview = null;
        }
        Session kept = document.kept().session();
        shown.removeIf(id -> kept.track(id).isEmpty());
        for (Track track : tracks(kept)) {
            sheet(track).ifPresent(now -> {
                TrackNotes before = known.put(track.id(), now);
                boolean another =
                        before != null && before.hand().whole() != now.hand().whole();
                if (another && !selected.of(track.id()).isEmpty()) {
                    selected.set(
                            track.id(),
                            before.hand()
                                    .found(selected.of(track.id()), now.hand().whole()));
                }
            });
        }
        known.keySet().retainAll(shown);
        selected.byTrack().keySet().stream()
                .filter(id -> !shown.contains(id))
                .forEach(id -> selected.set(id, new BitSet()));
    }

    /** Returns the visible tracks with their notes, as far as computed. */
    public Map<Track, TrackNotes> sheets() {
        Map<Track, TrackNotes> there = new LinkedHashMap<>();
        for (Track track : tracks(document.kept().session())) {
            sheet(track).ifPresent(sheet -> there.put(track, sheet));
        }
        return there;
    }

    /** Returns the number of notes that are shown. */
    public int noteCount() {
        return sheets().values().stream()
                .mapToInt(sheet -> sheet.index().noteCount())
                .sum();
    }

    /** The ways to select. */
    public SelectionCommands select() {
        return selecting;
    }

    /** The key of the first selected note. */
    public OptionalInt selectedKey() {
        return sheets().entrySet().stream()
                .filter(entry -> !selected.of(entry.getKey().id()).isEmpty())
                .mapToInt(entry -> entry.getValue()
                        .index()
                        .key(selected.of(entry.getKey().id()).nextSetBit(0)))
                .findFirst();
    }

    /** Returns the notes for a change: the selection, or all notes if it is empty. */
    public Map<String, BitSet> chosen() {
        if (!selected.isEmpty()) {
            return selected.byTrack();
        }
        Map<String, BitSet> all = new LinkedHashMap<>();
        sheets().forEach((track, sheet) -> all.put(track.id(), NoteFunction.all(sheet.index())));
        return all;
    }

    /** Returns the number of notes that a change applies to. */
    public int chosenCount() {
        return selected.isEmpty() ? noteCount() : selected.count();
    }

    // The grid.

    /** Returns the step of the grid. */
    public Grid.Step step() {
        return step;
    }

    /** Sets the step of the grid. */
    public void setStep(Grid.Step next) {
        step = next;
    }

    /** Returns true if dragged notes snap to the grid. */
    public boolean snaps() {
        return snaps;
    }

    /** Chooses whether dragged notes snap to the grid. */
    public void setSnaps(boolean on) {
        snaps = on;
    }

    /** Returns the grid. */
    public Grid grid() {
        return Grid.of(step, session().tempo(), 0);
    }

    /** Returns the session as it is shown. */
    public Session session() {
        return document.session();
    }

    /** A tick as the grid has it, where it snaps and is not told otherwise. */
    public long snapped(long tick, boolean free) {
        return snaps && !free ? grid().nearest(tick) : tick;
    }

    // What hands do, one step each.

    /** Makes a change of the selected notes. */
    void change(String name, NoteFunction function) {
        if (!selected.isEmpty()) {
            edit(name, session -> NoteEdits.change(session, selected.byTrack(), function));
        }
    }

    /** Identifies the subject of a run of nudges. */
    private record Nudged(String name, Map<String, BitSet> notes) {}

    /** Makes a change of the selected notes that belongs to a run: as many nudges in a row are one step. */
    private void nudge(String name, NoteFunction function) {
        if (!selected.isEmpty()) {
            Object run = runs.of(new Nudged(name, selected.byTrack()));
            edit(name, session -> NoteEdits.change(session, selected.byTrack(), function), run);
            runs.renameSubject(new Nudged(name, selected.byTrack()));
        }
    }

    private void edit(String name, Function<Session, Edited> edit) {
        edit(name, edit, null);
    }

    private void edit(String name, Function<Session, Edited> edit, Object run) {
        cancel();
        Edited[] done = new Edited[1];
        document.edit(
                new Edit(name, session -> {
                    done[0] = edit.apply(session);
                    return done[0].session();
                }),
                run);
        takeOver(done[0]);
    }

    /** Selects the changed notes. */
    private void takeOver(Edited done) {
        done.selected().forEach((track, notes) -> {
            if (!shown.contains(track)) {
                return;
            }
            selected.set(track, notes);
            known.remove(track);
        });
        follow();
    }

    /** Moves the selected notes in time and pitch. */
    public void drag(long ticks, int semitones) {
        if (ticks != 0 || semitones != 0) {
            change(say("edit.move-notes"), TimeChanges.drag(ticks, semitones));
        }
    }

    /** Moves the selected notes by a step of a key that may be held: a run of such steps is one step of undo. */
    public void step(long ticks, int semitones) {
        nudge(say("edit.move-notes"), TimeChanges.drag(ticks, semitones));
    }

    /** Copies the selection to another position; the copies are selected then. */
    public void copyBy(long ticks, int semitones) {
        edit(
                say("edit.copy-notes"),
                session ->
                        onlyAdded(NoteEdits.change(session, selected.byTrack(), ManualChanges.copy(ticks, semitones))));
    }

    /** After an addition, only the added notes are selected. */
    private Edited onlyAdded(Edited edited) {
        Map<String, BitSet> added = new LinkedHashMap<>();
        edited.selected().forEach((id, notes) -> {
            Track before = document.kept().session().track(id).orElseThrow();
            Track after = edited.session().track(id).orElseThrow();
            BitSet old = before.regions()
                    .editable()
                    .found(selected.of(id), after.regions().editable().whole());
            BitSet only = (BitSet) notes.clone();
            only.andNot(old);
            added.put(id, only);
        });
        return new Edited(edited.session(), added, edited.effect());
    }

    /** Lengthens the selected notes, or shortens them by a negative number. */
    public void lengthen(long ticks) {
        change(say("edit.length-of-notes"), Lengths.add(ticks));
    }

    /** Lengthens the selected notes by a step of a key that may be held. */
    public void stepLength(long ticks) {
        nudge(say("edit.length-of-notes"), Lengths.add(ticks));
    }

    /** Raises the velocities of the selected notes, or lowers them by a negative number, by a step of a key. */
    public void louder(int by) {
        nudge(say("edit.velocities"), Velocities.add(by));
    }

    /** Sets velocities that were drawn. @param velocities by the numbers of notes, 0 where it stays */
    public void setVelocities(Map<String, int[]> velocities) {
        Map<String, BitSet> which = new LinkedHashMap<>();
        velocities.forEach((track, of) -> {
            BitSet set = new BitSet();
            for (int note = 0; note < of.length; note++) {
                set.set(note, of[note] > 0);
            }
            which.put(track, set);
        });
        NoteSelection before = new NoteSelection();
        selected.byTrack().forEach(before::set);
        edit(
                say("edit.velocities"),
                session -> NoteEdits.changeEach(
                        session,
                        which,
                        track -> notes -> notes.each(
                                note -> notes.setVelocity(note, velocities.get(track.id())[note]))));
        // Velocities do not renumber notes, so the selection stays.
        selected.clear();
        before.byTrack().forEach(selected::set);
    }

    /** Deletes the selected notes. */
    public void delete() {
        change(say("edit.delete-notes"), CleanUp.delete());
    }

    /** Joins selected notes of one key that follow each other. */
    public void join() {
        change(say("edit.join-notes"), ManualChanges.join());
    }

    /** Cuts the selected notes that sound over a tick. */
    public void cut(long tick) {
        change(say("edit.cut-notes"), ManualChanges.cut(tick));
    }

    /** Returns true if all that is selected is muted. */
    boolean isMuted() {
        boolean[] all = {!selected.isEmpty()};
        selecting.eachSelected((track, sheet, note) -> all[0] &= sheet.muted().get(note));
        return all[0];
    }

    /** Mutes the selected notes, or unmutes them. */
    public void mute() {
        boolean on = !isMuted();
        document.edit(
                on ? say("edit.mute-notes") : say("edit.unmute-notes"),
                session -> NoteEdits.mute(session, selected.byTrack(), on));
    }

    /** Draws a note on the track that was opened first. */
    public void draw(int key, long start, long end) {
        Track track = tracks(document.kept().session()).get(0);
        TrackNotes sheet = sheet(track).orElseThrow();
        int channel = sheet.index().noteCount() > 0
                ? sheet.index().channel(0)
                : track.playsOn()
                                .map(part -> document.routing()
                                        .channels()
                                        .channel(part)
                                        .orElse(1))
                                .orElse(1)
                        - 1;
        selected.clear();
        edit(
                say("edit.draw-note"),
                session -> NoteEdits.change(
                        session,
                        Map.of(track.id(), new BitSet()),
                        ManualChanges.draw(
                                List.of(Note.of(channel, key, start, Math.max(start + 1, end), USUAL_VELOCITY)))));
    }

    /** Copies the selected notes. */
    public void copy() {
        copied.clear();
        long first = selecting.start().orElse(0);
        selecting.eachSelected((track, sheet, note) -> copied.add(
                new Copied(track.id(), ManualChanges.note(sheet.index(), note).later(-first))));
    }

    /** Returns true if notes were copied. */
    public boolean hasCopied() {
        return !copied.isEmpty();
    }

    /** Pastes at a tick: onto the tracks that notes were copied from, or, where these are not shown, onto the first. */
    public void paste(long at) {
        Map<String, List<Note>> onto = new LinkedHashMap<>();
        for (Copied one : copied) {
            String track = shown.contains(one.track) ? one.track : shown.get(0);
            onto.computeIfAbsent(track, id -> new ArrayList<>()).add(one.note.later(at));
        }
        selected.clear();
        Map<String, BitSet> none = new LinkedHashMap<>();
        onto.keySet().forEach(id -> none.put(id, new BitSet()));
        edit(
                say("edit.paste-notes"),
                session -> NoteEdits.changeEach(session, none, track -> ManualChanges.draw(onto.get(track.id()))));
    }

    /** Restores notes as they were played: the selection, or all visible notes with the deleted ones if it is empty. */
    public void asPlayed() {
        if (selected.isEmpty()) {
            List<String> all = List.copyOf(shown);
            cancel();
            document.edit(say("edit.as-played"), session -> NoteEdits.allAsPlayed(session, all));
        } else {
            edit(say("edit.as-played"), session -> NoteEdits.asPlayed(session, selected.byTrack()));
        }
    }

    /** Returns true if anything that is shown is not as it was played. */
    public boolean isEdited() {
        return tracks(document.kept().session()).stream()
                .anyMatch(track -> track.regions().byHand().isPresent());
    }

    // Returns the previewed session.

    /** Returns whether a change is shown that is not yet a step. */
    public boolean isPreviewing() {
        return previewLasts()
                && preview != null
                && preview.session() == document.session()
                && previewOf == document.kept().session();
    }

    private boolean previewLasts() {
        return previewing != null && previewing.isOpen();
    }

    /** Returns whether another gesture lasts, which a preview has to wait for. */
    public boolean hasToWait() {
        return document.gesture() != null && !previewLasts();
    }

    /** The session that a preview is made of. */
    public Session kept() {
        return document.kept().session();
    }

    /**
     * Previews a change.
     *
     * @param cancelled runs if the user, an undo or another session cancels the preview
     */
    public void preview(Session of, Edited edited, Runnable cancelled) {
        if (of == document.kept().session() && !hasToWait()) {
            if (!previewLasts()) {
                previewing = document.begin(end -> {
                    preview = null;
                    if (end == Gesture.End.CANCELLED) {
                        cancelled.run();
                    }
                });
            }
            previewOf = of;
            preview = edited;
            previewing.preview(of, edited.session());
        }
    }

    ChangeResult.Effect effect() {
        return preview == null ? ChangeResult.Effect.NONE : preview.effect();
    }

    /** Leaves a preview. */
    public void cancel() {
        preview = null;
        if (previewing != null) {
            previewing.leave();
        }
    }

    /** Applies the preview, as one undo step. */
    public void keep(String name) {
        if (isPreviewing()) {
            Edited kept = preview;
            preview = null;
            previewing.finish(new Edit(name, session -> kept.session()));
            takeOver(kept);
        }
    }
}
