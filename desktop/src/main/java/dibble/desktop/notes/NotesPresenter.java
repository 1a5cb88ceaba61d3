package dibble.desktop.notes;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Aside;
import dibble.edits.NoteEdits;
import dibble.edits.NoteEdits.Edited;
import dibble.gear.Part;
import dibble.notes.ByHand;
import dibble.notes.Changed;
import dibble.notes.Cleaning;
import dibble.notes.Grid;
import dibble.notes.Lengths;
import dibble.notes.Note;
import dibble.notes.NoteFunction;
import dibble.notes.Times;
import dibble.notes.Velocities;
import dibble.recording.ClipIndex;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntPredicate;

/** What the notes of tracks say and do: which are shown, which are selected, and what becomes of them. Knows no nodes. */
final class NotesPresenter {
    /** As many events as are gone through within a frame. */
    private static final int AT_ONCE = 60_000;

    private static final int USUAL_VELOCITY = 90;

    /** One place of the clipboard: a note, later than the first by its start. */
    private record Copied(String track, Note note) {}

    private final Document document;
    private final List<String> shown = new ArrayList<>();
    private final Selected selected = new Selected();
    private final Aside<Of, Sheet> sheets = new Aside<>();
    private final Set<Of> asked = new HashSet<>();

    /** The whole clips that the selection is of. */
    private final Map<String, Sheet> known = new HashMap<>();

    private final List<Copied> copied = new ArrayList<>();
    private Grid.Step step = new Grid.Step(16, Grid.Kind.STRAIGHT);
    private boolean snaps = true;

    /** What is shown before it is kept, and the session that it was made of; null for nothing. */
    private Edited preview;

    private Session previewOf;

    NotesPresenter(Document document) {
        this.document = document;
    }

    /** What is on a track, by identity: comparing regions takes long. */
    private record Of(Regions regions) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Of of && of.regions == regions;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(regions);
        }
    }

    // Which tracks are shown.

    /** Shows the notes of a track alone, or beside those that are shown. */
    void show(String track, boolean beside) {
        if (!beside) {
            shown.clear();
            selected.clear();
        }
        if (!shown.remove(track) || shown.isEmpty()) {
            shown.add(track);
        }
    }

    void close() {
        cancel();
        shown.clear();
        selected.clear();
        known.clear();
    }

    boolean isOpen() {
        return !shown.isEmpty();
    }

    /** The tracks that are shown, as they are now. */
    List<Track> tracks() {
        return tracks(document.session());
    }

    private List<Track> tracks(Session session) {
        return shown.stream()
                .flatMap(id ->
                        session.tracks().stream().filter(track -> track.id().equals(id)))
                .toList();
    }

    /** The tracks that are not shown. */
    List<Track> others() {
        return document.session().tracks().stream()
                .filter(track -> !shown.contains(track.id()))
                .toList();
    }

    Optional<Part> part(Track track) {
        return track.playsOn().flatMap(document.session()::part);
    }

    /** What is on a track; empty while that is still to come. */
    Optional<Sheet> sheet(Track track) {
        Of of = new Of(track.regions());
        asked.add(of);
        return sheets.get(of, Sheet.cost(track.regions()) <= AT_ONCE, () -> Sheet.of(track.regions()));
    }

    boolean isWorking() {
        return sheets.isWorking();
    }

    boolean hasNews() {
        return sheets.hasNews();
    }

    /** Forgets what has not been asked for since the last call. */
    void forgetOthers() {
        sheets.retain(asked);
        asked.clear();
    }

    // Which notes are selected.

    Selected selected() {
        return selected;
    }

    /** What is selected as it is shown: in a preview, what has become of it. */
    BitSet selectedNow(String track) {
        return isPreviewing() ? preview.selected().getOrDefault(track, new BitSet()) : selected.of(track);
    }

    /** Brings the selection to what is on the tracks now; a track that is gone is shown no more. */
    void follow() {
        if (preview != null && !isPreviewing()) {
            preview = null;
        }
        Session kept = document.kept();
        shown.removeIf(
                id -> kept.tracks().stream().noneMatch(track -> track.id().equals(id)));
        for (Track track : tracks(kept)) {
            sheet(track).ifPresent(now -> {
                Sheet before = known.put(track.id(), now);
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

    /** Every shown track with what is on it, where that is there. */
    Map<Track, Sheet> sheets() {
        Map<Track, Sheet> there = new LinkedHashMap<>();
        for (Track track : tracks(document.kept())) {
            sheet(track).ifPresent(sheet -> there.put(track, sheet));
        }
        return there;
    }

    int noteCount() {
        return sheets().values().stream()
                .mapToInt(sheet -> sheet.index().noteCount())
                .sum();
    }

    void selectWhere(Function<Sheet, IntPredicate> is) {
        sheets().forEach((track, sheet) -> selected.set(track.id(), Selected.where(sheet.index(), is.apply(sheet))));
    }

    void selectAll() {
        selectWhere(sheet -> note -> true);
    }

    void invert() {
        sheets().forEach((track, sheet) -> {
            BitSet all = selected.of(track.id());
            BitSet others = (BitSet) all.clone();
            others.flip(0, sheet.index().noteCount());
            selected.set(track.id(), others);
        });
    }

    /** What of a note others can be like. */
    enum Like {
        KEY,
        VELOCITY,
        POSITION,
        TRACK
    }

    /** Selects all notes that are like one of the selected ones. */
    void selectLike(Like like) {
        Set<Long> of = new HashSet<>();
        eachSelected((track, sheet, note) -> of.add(trait(like, track, sheet, note)));
        sheets().forEach((track, sheet) -> selected.set(
                track.id(), Selected.where(sheet.index(), note -> of.contains(trait(like, track, sheet, note)))));
    }

    private long trait(Like like, Track track, Sheet sheet, int note) {
        long start = sheet.index().start(note);
        return switch (like) {
            case KEY -> sheet.index().key(note);
            case VELOCITY -> sheet.index().velocity(note);
            case POSITION ->
                grid().nearest(start)
                        - session()
                                .tempo()
                                .barStart(session()
                                        .tempo()
                                        .place(grid().nearest(start))
                                        .bar());
            case TRACK -> shown.indexOf(track.id());
        };
    }

    private interface OfNote {
        void take(Track track, Sheet sheet, int note);
    }

    private void eachSelected(OfNote take) {
        sheets().forEach((track, sheet) -> {
            BitSet of = selected.of(track.id());
            for (int note = of.nextSetBit(0); note >= 0; note = of.nextSetBit(note + 1)) {
                take.take(track, sheet, note);
            }
        });
    }

    /** Selects the notes that sound in a stretch, on some keys. @param more whether what is selected stays so */
    void selectWithin(long from, long to, int lowest, int highest, boolean more) {
        sheets().forEach((track, sheet) -> {
            ClipIndex index = sheet.index();
            BitSet within = Selected.where(
                    index,
                    note -> index.start(note) < to
                            && index.end(note) > from
                            && index.key(note) >= lowest
                            && index.key(note) <= highest);
            if (more) {
                within.or(selected.of(track.id()));
            }
            selected.set(track.id(), within);
        });
    }

    /** Selects the next note in time, or the one before. @param more whether what is selected stays so */
    void step(int by, boolean more) {
        record Place(String track, int note, long start, int key) {}
        List<Place> all = new ArrayList<>();
        sheets().forEach((track, sheet) -> {
            for (int note = 0; note < sheet.index().noteCount(); note++) {
                all.add(new Place(
                        track.id(),
                        note,
                        sheet.index().start(note),
                        sheet.index().key(note)));
            }
        });
        if (all.isEmpty()) {
            return;
        }
        all.sort(Comparator.comparingLong(Place::start).thenComparingInt(Place::key));
        int at = by > 0 ? -1 : all.size();
        for (int i = 0; i < all.size(); i++) {
            int place = by > 0 ? all.size() - 1 - i : i;
            if (selected.has(all.get(place).track, all.get(place).note)) {
                at = place;
                break;
            }
        }
        Place next = all.get(Math.max(0, Math.min(all.size() - 1, at + by)));
        if (!more) {
            selected.clear();
        }
        selected.set(next.track, next.note, true);
    }

    /** Where the selected notes begin. */
    OptionalLong selectionStart() {
        long[] first = {Long.MAX_VALUE};
        eachSelected((track, sheet, note) ->
                first[0] = Math.min(first[0], sheet.index().start(note)));
        return first[0] == Long.MAX_VALUE ? OptionalLong.empty() : OptionalLong.of(first[0]);
    }

    /** From where to where the selected notes reach; empty where none is. */
    Optional<long[]> span() {
        long[] span = {Long.MAX_VALUE, 0};
        eachSelected((track, sheet, note) -> {
            span[0] = Math.min(span[0], sheet.index().start(note));
            span[1] = Math.max(span[1], sheet.index().end(note));
        });
        return selected.isEmpty() ? Optional.empty() : Optional.of(span);
    }

    /** What a change is of: what is selected, or all where nothing is. */
    Map<String, BitSet> chosen() {
        if (!selected.isEmpty()) {
            return selected.byTrack();
        }
        Map<String, BitSet> all = new LinkedHashMap<>();
        sheets().forEach((track, sheet) -> all.put(track.id(), NoteFunction.all(sheet.index())));
        return all;
    }

    int chosenCount() {
        return selected.isEmpty() ? noteCount() : selected.count();
    }

    // The grid.

    Grid.Step step() {
        return step;
    }

    void setStep(Grid.Step next) {
        step = next;
    }

    boolean snaps() {
        return snaps;
    }

    void setSnaps(boolean on) {
        snaps = on;
    }

    Grid grid() {
        return Grid.of(step, session().tempo(), 0);
    }

    Session session() {
        return document.session();
    }

    /** A tick as the grid has it, where it snaps and is not told otherwise. */
    long snapped(long tick, boolean free) {
        return snaps && !free ? grid().nearest(tick) : tick;
    }

    // What hands do, one step each.

    /** Makes a change of the selected notes. */
    void change(String name, NoteFunction function) {
        if (!selected.isEmpty()) {
            edit(name, session -> NoteEdits.change(session, selected.byTrack(), function));
        }
    }

    private void edit(String name, Function<Session, Edited> edit) {
        cancel();
        Edited[] done = new Edited[1];
        document.edit(name, session -> {
            done[0] = edit.apply(session);
            return done[0].session();
        });
        takeOver(done[0]);
    }

    /** The selection goes on with what has become of it. */
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

    void drag(long ticks, int semitones) {
        if (ticks != 0 || semitones != 0) {
            change(say("edit.move-notes"), Times.drag(ticks, semitones));
        }
    }

    /** Copies what is selected to elsewhere; the copies are selected then. */
    void copyBy(long ticks, int semitones) {
        edit(
                say("edit.copy-notes"),
                session -> onlyAdded(NoteEdits.change(session, selected.byTrack(), ByHand.copy(ticks, semitones))));
    }

    /** What was selected before is not any more, where notes were added. */
    private Edited onlyAdded(Edited edited) {
        Map<String, BitSet> added = new LinkedHashMap<>();
        edited.selected().forEach((id, notes) -> {
            Track before = track(document.kept(), id);
            Track after = track(edited.session(), id);
            BitSet old = before.regions()
                    .editable()
                    .found(selected.of(id), after.regions().editable().whole());
            BitSet only = (BitSet) notes.clone();
            only.andNot(old);
            added.put(id, only);
        });
        return new Edited(edited.session(), added, edited.effect());
    }

    private static Track track(Session session, String id) {
        return session.tracks().stream()
                .filter(track -> track.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    void nudge(long ticks) {
        drag(ticks, 0);
    }

    void lengthen(long ticks) {
        change(say("edit.length-of-notes"), Lengths.add(ticks));
    }

    void louder(int by) {
        change(say("edit.velocities"), Velocities.add(by));
    }

    void slope(int first, int last) {
        change(say("edit.velocities"), Velocities.slope(first, last));
    }

    /** Sets velocities that were drawn. @param velocities by the numbers of notes, 0 where it stays */
    void setVelocities(Map<String, int[]> velocities) {
        Map<String, BitSet> which = new LinkedHashMap<>();
        velocities.forEach((track, of) -> {
            BitSet set = new BitSet();
            for (int note = 0; note < of.length; note++) {
                set.set(note, of[note] > 0);
            }
            which.put(track, set);
        });
        Selected before = new Selected();
        selected.byTrack().forEach(before::set);
        edit(
                say("edit.velocities"),
                session -> NoteEdits.changeEach(
                        session,
                        which,
                        track -> notes -> notes.each(
                                note -> notes.setVelocity(note, velocities.get(track.id())[note]))));
        // Velocities change no numbers of notes: what was selected stays so.
        selected.clear();
        before.byTrack().forEach(selected::set);
    }

    void delete() {
        change(say("edit.delete-notes"), Cleaning.delete());
    }

    void join() {
        change(say("edit.join-notes"), ByHand.join());
    }

    /** Cuts the selected notes that sound over a tick. */
    void cut(long tick) {
        change(say("edit.cut-notes"), ByHand.cut(tick));
    }

    /** Whether all that is selected is muted. */
    boolean isMuted() {
        boolean[] all = {!selected.isEmpty()};
        eachSelected((track, sheet, note) -> all[0] &= sheet.muted().get(note));
        return all[0];
    }

    void mute() {
        boolean on = !isMuted();
        document.edit(
                on ? say("edit.mute-notes") : say("edit.unmute-notes"),
                session -> NoteEdits.mute(session, selected.byTrack(), on));
    }

    /** Draws a note on the track that was opened first. */
    void draw(int key, long start, long end) {
        Track track = tracks(document.kept()).get(0);
        Sheet sheet = sheet(track).orElseThrow();
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
                        ByHand.draw(List.of(Note.of(channel, key, start, Math.max(start + 1, end), USUAL_VELOCITY)))));
    }

    void copy() {
        copied.clear();
        long first = selectionStart().orElse(0);
        eachSelected((track, sheet, note) -> copied.add(
                new Copied(track.id(), ByHand.note(sheet.index(), note).later(-first))));
    }

    boolean hasCopied() {
        return !copied.isEmpty();
    }

    /** Pastes at a tick: onto the tracks that notes were copied from, or, where these are not shown, onto the first. */
    void paste(long at) {
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
                session -> NoteEdits.changeEach(session, none, track -> ByHand.draw(onto.get(track.id()))));
    }

    /** As they were played: what is selected, or, where nothing is, all that is shown, with what was deleted. */
    void asPlayed() {
        if (selected.isEmpty()) {
            List<String> all = List.copyOf(shown);
            cancel();
            document.edit(say("edit.as-played"), session -> NoteEdits.allAsPlayed(session, all));
        } else {
            edit(say("edit.as-played"), session -> NoteEdits.asPlayed(session, selected.byTrack()));
        }
    }

    /** Whether anything that is shown is not as it was played. */
    boolean isEdited() {
        return tracks(document.kept()).stream()
                .anyMatch(track -> track.regions().byHand().isPresent());
    }

    // What is shown and heard before it is kept.

    boolean isPreviewing() {
        return preview != null && preview.session() == document.session() && previewOf == document.kept();
    }

    /** The session that a preview is made of. */
    Session kept() {
        return document.kept();
    }

    /** Shows what a change would make. */
    void preview(Session of, Edited edited) {
        if (of == document.kept()) {
            previewOf = of;
            preview = edited;
            document.preview(session -> edited.session());
        }
    }

    Changed.Effect effect() {
        return preview == null ? Changed.Effect.NONE : preview.effect();
    }

    /** Leaves a preview. */
    void cancel() {
        if (preview != null) {
            boolean mine = isPreviewing();
            preview = null;
            if (mine) {
                document.cancel();
            }
        }
    }

    /** Keeps what is shown, as one step. */
    void keep(String name) {
        if (isPreviewing()) {
            Edited kept = preview;
            preview = null;
            document.edit(name, session -> kept.session());
            takeOver(kept);
        }
    }
}
