package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongUnaryOperator;

/**
 * The manual edits of a printed track: the present notes and controllers, the muted notes, and the origin of each note,
 * so that it can always be restored as played. Immutable.
 */
public final class ManualEdits {
    /** The number of {@link #whole} among the originals of {@link #recombined}. */
    static final int OF_WHOLE = 0;

    /** The number of the present print among the originals of {@link #recombined}. */
    static final int OF_PRINTED = 1;

    private static final int OF_OTHERS = 2;

    private final MidiTrack whole;
    private final NoteOrigins origins;
    private final BitSet muted;

    /** Made when they are first asked for; threads that both make them make the same. */
    private volatile MidiTrack sounding;

    private volatile MidiTrack silent;
    private volatile ClipIndex index;

    /**
     * @param whole all notes, the muted ones among them
     * @param origins of its notes, as {@link ClipIndex} numbers them
     * @param muted the numbers of notes that do not sound
     */
    public ManualEdits(MidiTrack whole, NoteOrigins origins, BitSet muted) {
        this.whole = whole;
        this.origins = origins;
        this.muted = (BitSet) muted.clone();
    }

    /** Nothing edited yet. */
    public static ManualEdits none(MidiTrack printed) {
        ClipIndex index = ClipIndex.of(printed);
        ManualEdits none = new ManualEdits(printed, NoteOrigins.same(index.noteCount()), new BitSet());
        none.index = index;
        return none;
    }

    /** All notes and controllers, the muted ones among them. */
    public MidiTrack whole() {
        return whole;
    }

    /** The notes and lanes of {@link #whole}. */
    public ClipIndex index() {
        ClipIndex known = index;
        if (known == null) {
            known = ClipIndex.of(whole);
            index = known;
        }
        return known;
    }

    /** Drops derived values; the undo history must not hold them. */
    void forgetDerived() {
        index = null;
        sounding = null;
        silent = null;
    }

    /** Returns the origins of the notes of {@link #whole}. */
    public NoteOrigins origins() {
        return origins;
    }

    /** Returns the muted notes of {@link #whole}. */
    public BitSet muted() {
        return (BitSet) muted.clone();
    }

    /**
     * The same after a change.
     *
     * @param clip all notes as they are then
     * @param from for each of its notes which of these it was, or {@link ClipIndex#NONE}
     * @param shifts by how many ticks each was taken elsewhere with the bars around it; null for nowhere
     */
    public ManualEdits after(MidiTrack clip, int[] from, long[] shifts) {
        BitSet stillMuted = new BitSet();
        for (int note = 0; note < from.length; note++) {
            stillMuted.set(note, from[note] != ClipIndex.NONE && muted.get(from[note]));
        }
        return new ManualEdits(clip.sharing(whole), origins.after(from, shifts), stillMuted);
    }

    /** Returns the notes of a clip that have a counterpart here at the same position. */
    public BitSet notesIn(MidiTrack clip) {
        ClipIndex index = ClipIndex.of(clip);
        NotePlaces places = NotePlaces.of(index());
        BitSet known = new BitSet();
        for (int note = 0; note < index.noteCount(); note++) {
            known.set(note, places.find(index, note) != ClipIndex.NONE);
        }
        return known;
    }

    /**
     * Returns the notes of another clip at the positions of some notes of this one.
     *
     * @param notes the numbers of the notes
     */
    public BitSet found(BitSet notes, MidiTrack clip) {
        NotePlaces places = NotePlaces.of(ClipIndex.of(clip));
        BitSet found = new BitSet();
        for (int note = notes.nextSetBit(0); note >= 0; note = notes.nextSetBit(note + 1)) {
            int there = note < index().noteCount() ? places.find(index(), note) : ClipIndex.NONE;
            if (there != ClipIndex.NONE) {
                found.set(there);
            }
        }
        return found;
    }

    /**
     * Returns the edits after a change of the ticks of the music.
     *
     * @param printed the previous print
     * @param numberNow for each note of {@code printed}, its number in the present print
     */
    ManualEdits retimed(MidiTrack printed, LongUnaryOperator tick, int[] numberNow) {
        ClipIndex played = ClipIndex.of(printed);
        NoteOrigins retimed = origins.retimed(played::start, tick).renumbered(numberNow);
        return new ManualEdits(Clips.retimed(whole, tick), retimed, muted);
    }

    /** Returns the sounding notes. */
    public MidiTrack sounding() {
        MidiTrack known = sounding;
        if (known == null) {
            known = muted.isEmpty() ? whole : part(false);
            sounding = known;
        }
        return known;
    }

    /** The muted notes alone. */
    public MidiTrack silent() {
        MidiTrack known = silent;
        if (known == null) {
            known = muted.isEmpty() ? Track.NOTHING : part(true);
            silent = known;
        }
        return known;
    }

    /** Returns the origins of the notes of {@link #silent}, or of {@link #sounding}. */
    public NoteOrigins originsOf(boolean ofSilent) {
        int[] from = new int[ofSilent ? muted.cardinality() : origins.size() - muted.cardinality()];
        int next = 0;
        for (int note = 0; note < origins.size(); note++) {
            if (muted.get(note) == ofSilent) {
                from[next++] = note;
            }
        }
        return origins.after(from, null);
    }

    private MidiTrack part(boolean ofSilent) {
        ClipIndex notes = index();
        MidiTrack.Builder part = new MidiTrack.Builder();
        BitSet open = new BitSet();
        for (int i = 0; i < whole.size(); i++) {
            int note = notes.noteOf(i);
            if (note == ClipIndex.NONE ? !ofSilent : muted.get(note) == ofSilent) {
                part.copy(whole, i);
            }
            if (note != ClipIndex.NONE && i == notes.on(note)) {
                closeBefore(notes, note, ofSilent, open, part);
            }
        }
        return part.build(whole.endTick());
    }

    /** Adds an off to a note that was ended by the on of another note on the other side. */
    private void closeBefore(ClipIndex notes, int note, boolean ofSilent, BitSet open, MidiTrack.Builder part) {
        int slot = notes.slot(note);
        if (muted.get(note) == ofSilent) {
            open.set(slot, notes.off(note) == ClipIndex.NONE);
        } else if (open.get(slot)) {
            open.clear(slot);
            part.add(
                    notes.start(note), OpenNotes.off(whole.message(notes.on(note))), whole.destination(notes.on(note)));
        }
    }

    /** Returns the numbers of the events of {@link #whole} that are of muted notes; a file keeps those apart. */
    public BitSet silentEvents() {
        BitSet events = new BitSet();
        ClipIndex notes = index();
        for (int i = 0; i < whole.size(); i++) {
            int note = notes.noteOf(i);
            events.set(i, note != ClipIndex.NONE && muted.get(note));
        }
        return events;
    }

    /**
     * Combines the parts that a file keeps separately.
     *
     * @param silent muted notes
     * @param silentEvents the indexes of their events in the whole; empty in files of an earlier version
     */
    public static ManualEdits of(
            MidiTrack sounding, NoteOrigins ofSounding, MidiTrack silent, NoteOrigins ofSilent, BitSet silentEvents) {
        MidiTrack whole = silentEvents.isEmpty()
                ? together(sounding, silent)
                : interleaved(sounding, silent, silentEvents).orElseGet(() -> together(sounding, silent));
        if (silent.size() == 0) {
            return new ManualEdits(whole, ofSounding, new BitSet());
        }
        ClipIndex all = ClipIndex.of(whole);
        NotePlaces places = NotePlaces.of(ClipIndex.of(silent));
        BitSet muted = new BitSet();
        int[] played = new int[all.noteCount()];
        long[] shifts = new long[all.noteCount()];
        int next = 0;
        for (int note = 0; note < all.noteCount(); note++) {
            int inSilent = places.find(all, note);
            boolean isSilent = inSilent != ClipIndex.NONE;
            muted.set(note, isSilent);
            NoteOrigins of = isSilent ? ofSilent : ofSounding;
            int number = isSilent ? inSilent : next++;
            if (number < of.size()) {
                played[note] = of.played(number);
                shifts[note] = of.shift(number);
            } else {
                played[note] = NoteOrigins.NONE;
            }
        }
        return new ManualEdits(whole, NoteOrigins.of(played, shifts), muted);
    }

    /** Puts events where they were; empty where they do not fit, as after an edit of the file in another application. */
    private static Optional<MidiTrack> interleaved(MidiTrack sounding, MidiTrack silent, BitSet silentEvents) {
        int size = sounding.size() + silent.size();
        if (silentEvents.cardinality() != silent.size() || silentEvents.length() > size) {
            return Optional.empty();
        }
        MidiTrack.Builder both = new MidiTrack.Builder();
        int next = 0;
        long tick = 0;
        for (int i = 0; i < size; i++) {
            boolean isSilent = silentEvents.get(i);
            MidiTrack from = isSilent ? silent : sounding;
            int event = isSilent ? next++ : i - next;
            if (from.tick(event) < tick) {
                return Optional.empty();
            }
            tick = from.tick(event);
            both.copy(from, event);
        }
        return Optional.of(both.build(Math.max(sounding.endTick(), silent.endTick())));
    }

    /** Both over each other. They never sound into each other; at one tick, muted notes end before others begin. */
    private static MidiTrack together(MidiTrack sounding, MidiTrack silent) {
        MidiTrack.Builder both = new MidiTrack.Builder();
        int next = 0;
        for (int i = 0; i <= sounding.size(); i++) {
            long until = i < sounding.size() ? sounding.tick(i) : Long.MAX_VALUE;
            while (next < silent.size()
                    && (silent.tick(next) < until
                            || silent.tick(next) == until && ShortMessage.endsNote(silent.message(next)))) {
                both.copy(silent, next++);
            }
            if (i < sounding.size()) {
                both.copy(sounding, i);
            }
        }
        return both.build(Math.max(sounding.endTick(), silent.endTick()));
    }

    /**
     * Returns the edits after their content was recombined. Each note keeps its mute and its origin.
     *
     * @param together copies of events of {@link #whole} (original {@link #OF_WHOLE}), of the present print
     *     (original {@link #OF_PRINTED}) and of others, which are added notes
     * @param printed the present print
     * @param numberNow for each note of the previous print its number in {@code printed}, or {@link ClipIndex#NONE}
     */
    ManualEdits recombined(Traced together, MidiTrack printed, int[] numberNow) {
        ClipIndex now = ClipIndex.of(together.clip());
        ClipIndex ofPrinted = ClipIndex.of(printed);
        int[] played = new int[now.noteCount()];
        long[] shifts = new long[now.noteCount()];
        BitSet stillMuted = new BitSet();
        for (int note = 0; note < played.length; note++) {
            int on = now.on(note);
            played[note] = NoteOrigins.NONE;
            if (together.original(on) == OF_PRINTED) {
                played[note] = ofPrinted.noteOf(together.number(on));
            } else if (together.original(on) == OF_WHOLE) {
                int before = index().noteOf(together.number(on));
                int playedBefore = origins.played(before);
                played[note] = playedBefore == NoteOrigins.NONE ? NoteOrigins.NONE : numberNow[playedBefore];
                shifts[note] = played[note] == NoteOrigins.NONE ? 0 : origins.shift(before);
                stillMuted.set(note, muted.get(before));
            }
        }
        return new ManualEdits(together.clip(), NoteOrigins.of(played, shifts), stillMuted);
    }

    /**
     * Edits to which notes were added.
     *
     * @param added the numbers of these notes
     */
    public record Added(ManualEdits edits, BitSet added) {}

    /** Merges other notes into the content. */
    public Added with(MidiTrack others) {
        Traced together = Clips.over(Traced.of(whole, OF_WHOLE), Traced.of(others, OF_OTHERS));
        ClipIndex now = ClipIndex.of(together.clip());
        int[] from = new int[now.noteCount()];
        BitSet added = new BitSet();
        for (int note = 0; note < from.length; note++) {
            boolean isOwn = together.original(now.on(note)) == OF_WHOLE;
            from[note] = isOwn ? index().noteOf(together.number(now.on(note))) : ClipIndex.NONE;
            added.set(note, !isOwn);
        }
        return new Added(after(together.clip(), from, null), added);
    }

    /**
     * Returns the edits of a clip that another application has written. Notes are recognized by their positions.
     *
     * @param clip the present content of the track
     */
    public static ManualEdits recognized(MidiTrack clip, MidiTrack printed) {
        ClipIndex now = ClipIndex.of(clip);
        NotePlaces places = NotePlaces.of(ClipIndex.of(printed));
        int[] played = new int[now.noteCount()];
        Arrays.setAll(played, note -> places.find(now, note));
        return new ManualEdits(clip, NoteOrigins.of(played, null), new BitSet());
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ManualEdits that
                && muted.equals(that.muted)
                && origins.equals(that.origins)
                && whole.equals(that.whole);
    }

    @Override
    public int hashCode() {
        return whole.hashCode();
    }

    /** The notes of a clip by where they begin: one place has one note. */
    static final class NotePlaces {
        private record Place(String destination, int channel, int key, long start) {}

        private final Map<Place, Integer> notes = new HashMap<>();

        static NotePlaces of(ClipIndex index) {
            NotePlaces places = new NotePlaces();
            for (int note = 0; note < index.noteCount(); note++) {
                places.notes.put(place(index, note), note);
            }
            return places;
        }

        private static Place place(ClipIndex index, int note) {
            return new Place(
                    index.destinationName(index.destination(index.on(note))),
                    index.channel(note),
                    index.key(note),
                    index.start(note));
        }

        /** The note at the place of a note of another clip; {@link ClipIndex#NONE} for none. */
        int find(ClipIndex index, int note) {
            return notes.getOrDefault(place(index, note), ClipIndex.NONE);
        }
    }
}
