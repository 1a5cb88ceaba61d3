package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.recording.EventDestination;
import java.util.Arrays;
import java.util.BitSet;
import java.util.function.IntConsumer;

/**
 * The notes of a clip in columns, while a function changes them. Only selected notes can change; all others stay byte
 * for byte. A changed note that would overlap an unselected one of the same key begins at the end of that one, or ends
 * at its start, or keeps its previous position if no space is left. Added notes have priority: an overlapped note ends
 * where they begin. So no note is lost, and none hangs. Used once, by one function; confined to one thread.
 */
public final class Rewrite {
    private static final int NONE = ClipIndex.NONE;

    private final MidiTrack clip;
    private final ClipIndex index;
    private final BitSet selected;
    private final NoteColumns notes;
    private final BitSet goneEvents = new BitSet();
    private final Messages messages = new Messages();

    Rewrite(MidiTrack clip, ClipIndex index, BitSet selected) {
        this.clip = clip;
        this.index = index;
        this.selected = selected;
        notes = new NoteColumns(clip, index);
    }

    /** The clip as it was. */
    public MidiTrack clip() {
        return clip;
    }

    /** Returns the previous content of the clip. */
    public ClipIndex index() {
        return index;
    }

    /** Returns the notes that can change. */
    public BitSet selected() {
        return selected;
    }

    /** Goes through the selected notes in the order in which they began. */
    public void each(IntConsumer note) {
        for (int n = selected.nextSetBit(0); n >= 0; n = selected.nextSetBit(n + 1)) {
            note.accept(n);
        }
    }

    /** The tick at which a note begins now. */
    public long start(int note) {
        return notes.start[note];
    }

    /** The tick at which a note ends now. */
    public long end(int note) {
        return notes.end[note];
    }

    /** The key of a note now, 0-127. */
    public int key(int note) {
        return notes.key(note);
    }

    /** The velocity of a note now, 1-127. */
    public int velocity(int note) {
        return notes.velocity[note];
    }

    /** Moves the start and the end of a note; not before tick 0, with a length of at least a tick. */
    public void place(int note, long start, long end) {
        check(note);
        notes.start[note] = Math.max(0, start);
        notes.end[note] = Math.max(notes.start[note] + 1, end);
    }

    /** Moves a note, and keeps its length. */
    public void move(int note, long start) {
        long to = Math.max(0, start);
        if (to != notes.start[note]) {
            place(note, to, to + index.end(note) - index.start(note));
        }
    }

    /** Moves a note to another key, limited to the range of keys. */
    public void setKey(int note, int key) {
        check(note);
        notes.setKey(note, Math.max(0, Math.min(127, key)));
    }

    /** Moves a note to another channel (0-15) of its instrument, and so away from a part that it was for. */
    public void setChannel(int note, int channel) {
        check(note);
        if (channel != notes.channel(note)) {
            EventDestination before = EventDestination.parse(notes.destinationName(note));
            notes.setDestination(note, before.instrument());
            notes.setChannel(note, channel);
        }
    }

    /** Moves a note to another destination and channel (0-15). */
    public void setDestination(int note, String destination, int channel) {
        check(note);
        notes.setDestination(note, destination);
        notes.setChannel(note, channel);
    }

    /** Gives a note another velocity; one beyond 1-127 is the nearest of these. */
    public void setVelocity(int note, long velocity) {
        check(note);
        notes.velocity[note] = (int) Math.max(1, Math.min(127, velocity));
    }

    /** Sets the release velocity of a note, 0-127. */
    public void setRelease(int note, int velocity) {
        check(note);
        notes.release[note] = velocity;
    }

    /** Takes a note away. */
    public void delete(int note) {
        check(note);
        notes.gone.set(note);
    }

    private void check(int note) {
        if (!selected.get(note)) {
            throw new IllegalStateException("note " + note + " (expected a selected one)");
        }
    }

    /**
     * Adds a note.
     *
     * @param like the note whose instrument and channel it has, or {@link ClipIndex#NONE} for the first of each
     * @param from the note that it is when it is asked for as it was played, or {@link ClipIndex#NONE}
     * @param shift by how many ticks it was taken elsewhere from there
     */
    public void add(Note note, int like, int from, long shift) {
        notes.add(note, like == NONE ? 0 : index.destination(index.on(like)), from, shift);
    }

    /** Takes away an event that is no note. */
    public void remove(int event) {
        goneEvents.set(event);
    }

    /**
     * Adds a message other than a note, behind the events of its tick.
     *
     * @param destination as {@link ClipIndex#destination} counts it
     */
    public void add(long tick, int message, int destination) {
        messages.add(tick, message, destination);
    }

    /** Returns the changed clip. */
    ChangeResult changed() {
        BitSet stayed = new OverlapResolver(notes, selected).make();
        if (notes.isUnchanged() && goneEvents.isEmpty() && messages.size() == 0) {
            int[] same = new int[index.noteCount()];
            Arrays.setAll(same, note -> note);
            return new ChangeResult(clip, same, null, (BitSet) selected.clone(), effect(stayed.cardinality()));
        }
        return new ClipWriter(clip, index, notes, selected, goneEvents, messages).write(effect(stayed.cardinality()));
    }

    private ChangeResult.Effect effect(int stayed) {
        int changed = 0;
        int moved = 0;
        int gone = 0;
        long most = 0;
        double sum = 0;
        for (int n = selected.nextSetBit(0); n >= 0; n = selected.nextSetBit(n + 1)) {
            long by = Math.abs(notes.start[n] - index.start(n));
            gone += notes.gone.get(n) ? 1 : 0;
            changed += notes.gone.get(n) || notes.isUnchanged(n) ? 0 : 1;
            if (by > 0 && !notes.gone.get(n)) {
                moved++;
                most = Math.max(most, by);
                sum += by;
            }
        }
        return new ChangeResult.Effect(
                selected.cardinality(), changed, moved, most, moved == 0 ? 0 : sum / moved, stayed, gone);
    }

    /** Messages that are added, in columns. */
    static final class Messages {
        private long[] ticks = new long[8];
        private int[] packed = new int[8];
        private int[] destinations = new int[8];
        private int size;

        private void add(long tick, int message, int destination) {
            if (ShortMessage.isNote(message)) {
                throw new IllegalStateException("note " + message + " (expected another message)");
            }
            if (size == ticks.length) {
                ticks = Arrays.copyOf(ticks, size * 2);
                packed = Arrays.copyOf(packed, size * 2);
                destinations = Arrays.copyOf(destinations, size * 2);
            }
            ticks[size] = Math.max(0, tick);
            packed[size] = message;
            destinations[size++] = destination;
        }

        int size() {
            return size;
        }

        long tick(int i) {
            return ticks[i];
        }

        int message(int i) {
            return packed[i];
        }

        int destination(int i) {
            return destinations[i];
        }
    }
}
