package dibble.presentation.notes;

import dibble.notes.Grid;
import dibble.recording.ClipIndex;
import dibble.recording.Track;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.function.Supplier;

/** The ways in which notes are selected among those that are shown. */
public final class SelectionCommands {
    private final NoteSelection selected;
    private final Supplier<Map<Track, TrackNotes>> sheets;
    private final Supplier<Grid> grid;
    private final Supplier<TempoMap> tempo;

    /**
     * @param sheets the visible tracks with their notes
     * @param grid distinguishes positions in a bar
     */
    SelectionCommands(
            NoteSelection selected,
            Supplier<Map<Track, TrackNotes>> sheets,
            Supplier<Grid> grid,
            Supplier<TempoMap> tempo) {
        this.selected = selected;
        this.sheets = sheets;
        this.grid = grid;
        this.tempo = tempo;
    }

    private void where(Function<TrackNotes, IntPredicate> is) {
        sheets.get()
                .forEach((track, sheet) ->
                        selected.set(track.id(), NoteSelection.where(sheet.index(), is.apply(sheet))));
    }

    /** Selects all notes. */
    public void all() {
        where(sheet -> note -> true);
    }

    /** Selects the notes that are not selected. */
    public void invert() {
        sheets.get().forEach((track, sheet) -> {
            BitSet all = selected.of(track.id());
            BitSet others = (BitSet) all.clone();
            others.flip(0, sheet.index().noteCount());
            selected.set(track.id(), others);
        });
    }

    /** The property by which similar notes are selected. */
    public enum Like {
        KEY,
        VELOCITY,
        POSITION,
        TRACK
    }

    /** Selects all notes that are like one of the selected ones. */
    public void like(Like like) {
        Set<Long> of = new HashSet<>();
        eachSelected((track, sheet, note) -> of.add(trait(like, track, sheet, note)));
        sheets.get()
                .forEach((track, sheet) -> selected.set(
                        track.id(),
                        NoteSelection.where(sheet.index(), note -> of.contains(trait(like, track, sheet, note)))));
    }

    private long trait(Like like, Track track, TrackNotes sheet, int note) {
        long start = sheet.index().start(note);
        return switch (like) {
            case KEY -> sheet.index().key(note);
            case VELOCITY -> sheet.index().velocity(note);
            case POSITION -> {
                long place = grid.get().nearest(start);
                yield place - tempo.get().barStart(tempo.get().place(place).bar());
            }
            case TRACK -> track.id().hashCode();
        };
    }

    /** Takes a selected note. */
    interface OfNote {
        void take(Track track, TrackNotes sheet, int note);
    }

    void eachSelected(OfNote take) {
        sheets.get().forEach((track, sheet) -> {
            BitSet of = selected.of(track.id());
            for (int note = of.nextSetBit(0); note >= 0; note = of.nextSetBit(note + 1)) {
                take.take(track, sheet, note);
            }
        });
    }

    /**
     * Selects the notes that sound in a time range, on some keys.
     *
     * @param more whether to extend the selection
     */
    public void within(long from, long to, int lowest, int highest, boolean more) {
        sheets.get().forEach((track, sheet) -> {
            ClipIndex index = sheet.index();
            BitSet within = NoteSelection.where(
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

    /**
     * Selects the next note in time, or the previous one.
     *
     * @param more whether to extend the selection
     */
    public void step(int by, boolean more) {
        record Place(String track, int note, long start, int key) {}
        List<Place> all = new ArrayList<>();
        sheets.get().forEach((track, sheet) -> {
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

    /** Returns the start of the selected notes. */
    public OptionalLong start() {
        long[] first = {Long.MAX_VALUE};
        eachSelected((track, sheet, note) ->
                first[0] = Math.min(first[0], sheet.index().start(note)));
        return first[0] == Long.MAX_VALUE ? OptionalLong.empty() : OptionalLong.of(first[0]);
    }

    /** Returns the time range of the selected notes; empty if there are none. */
    public Optional<long[]> span() {
        long[] span = {Long.MAX_VALUE, 0};
        eachSelected((track, sheet, note) -> {
            span[0] = Math.min(span[0], sheet.index().start(note));
            span[1] = Math.max(span[1], sheet.index().end(note));
        });
        return selected.isEmpty() ? Optional.empty() : Optional.of(span);
    }
}
