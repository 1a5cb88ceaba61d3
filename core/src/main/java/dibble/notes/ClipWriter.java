package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import java.util.Arrays;
import java.util.BitSet;

/**
 * Writes a clip with changed notes. What did not change keeps its place among the others; at one tick, offs that moved
 * come before it, and ons that moved behind it, so that a note is over before the next of its key begins.
 */
final class ClipWriter {
    private static final int NONE = ClipIndex.NONE;

    /** Bits of an event's number beside its tick, while events are put in order. */
    private static final int NUMBER_BITS = 24;

    private final MidiTrack clip;
    private final ClipIndex index;
    private final NoteColumns notes;
    private final BitSet selected;
    private final BitSet goneEvents;
    private final Rewrite.Messages messages;

    /** Notes whose ons, and whose offs, are written elsewhere than they were. */
    private final BitSet movedOns = new BitSet();

    private final BitSet movedOffs = new BitSet();

    /** Key pressure that goes with its note. */
    private final BitSet movedPressure = new BitSet();

    private final MidiTrack.Builder out = new MidiTrack.Builder();
    private final int[] from;
    private final long[] shifts;
    private final BitSet selectedThen = new BitSet();
    private boolean shifted;
    private int written;

    ClipWriter(
            MidiTrack clip,
            ClipIndex index,
            NoteColumns notes,
            BitSet selected,
            BitSet goneEvents,
            Rewrite.Messages messages) {
        this.clip = clip;
        this.index = index;
        this.notes = notes;
        this.selected = selected;
        this.goneEvents = goneEvents;
        this.messages = messages;
        from = new int[notes.size];
        shifts = new long[notes.size];
    }

    ChangeResult write(ChangeResult.Effect effect) {
        findMoved();
        long[] offs = ordered(movedOffs, note -> notes.end[note]);
        long[] ons = ordered(movedOns, note -> notes.start[note]);
        long[] pressures = ordered(movedPressure, this::pressureTick);
        BitSet added = new BitSet();
        added.set(0, messages.size());
        long[] others = ordered(added, messages::tick);
        int off = 0;
        int on = 0;
        int pressure = 0;
        int other = 0;
        int event = 0;
        while (true) {
            long offAt = tick(offs, off);
            long eventAt = event < clip.size() ? clip.tick(event) : Long.MAX_VALUE;
            long otherAt = tick(others, other);
            long onAt = tick(ons, on);
            long pressureAt = tick(pressures, pressure);
            long next = Math.min(Math.min(Math.min(offAt, eventAt), Math.min(otherAt, onAt)), pressureAt);
            if (next == Long.MAX_VALUE) {
                break;
            }
            if (offAt == next) {
                writeOff(number(offs, off++));
            } else if (eventAt == next) {
                writeInPlace(event++);
            } else if (otherAt == next) {
                int number = number(others, other++);
                out.add(next, messages.message(number), index.destinationName(messages.destination(number)));
            } else if (onAt == next) {
                writeOn(number(ons, on++));
            } else {
                writePressure(number(pressures, pressure++), next);
            }
        }
        MidiTrack made = out.build(clip.endTick());
        return new ChangeResult(
                made,
                Arrays.copyOf(from, written),
                shifted ? Arrays.copyOf(shifts, written) : null,
                selectedThen,
                effect);
    }

    private void findMoved() {
        int[] ordered = notes.bySlot();
        long end = clip.endTick();
        for (int note : ordered) {
            end = Math.max(end, notes.end[note]);
        }
        for (int i = 0; i < ordered.length; i++) {
            int note = ordered[i];
            if (notes.isAdded(note)) {
                movedOns.set(note);
                movedOffs.set(note);
                continue;
            }
            boolean movesOn = notes.start[note] != index.start(note);
            movedOns.set(note, movesOn);
            if (index.off(note) != NONE) {
                boolean same = notes.end[note] == index.end(note) && notes.release[note] == index.releaseVelocity(note);
                movedOffs.set(note, !same);
            } else {
                boolean last = i + 1 == ordered.length || notes.slot[ordered[i + 1]] != notes.slot[note];
                boolean endsByItself = last
                        ? index.end(note) == end && notes.isUnchanged(note)
                        : notes.start[ordered[i + 1]] == notes.end[note];
                movedOffs.set(note, !endsByItself);
            }
        }
        for (int i = 0; i < clip.size(); i++) {
            int note = index.noteOf(i);
            boolean isPressure = note != NONE && i != index.on(note) && i != index.off(note);
            movedPressure.set(i, isPressure && !notes.gone.get(note) && !notes.isUnchanged(note));
        }
    }

    private long pressureTick(int event) {
        int note = index.noteOf(event);
        long moved = clip.tick(event) + notes.start[note] - index.start(note);
        return Math.max(notes.start[note], Math.min(notes.end[note] - 1, moved));
    }

    private interface Ticks {
        long of(int number);
    }

    /** Numbers in the order of their ticks, each below its tick. */
    private static long[] ordered(BitSet numbers, Ticks ticks) {
        long[] ordered = new long[numbers.cardinality()];
        int n = 0;
        for (int i = numbers.nextSetBit(0); i >= 0; i = numbers.nextSetBit(i + 1)) {
            ordered[n++] = ticks.of(i) << NUMBER_BITS | i;
        }
        Arrays.sort(ordered);
        return ordered;
    }

    private static long tick(long[] ordered, int i) {
        return i < ordered.length ? ordered[i] >>> NUMBER_BITS : Long.MAX_VALUE;
    }

    private static int number(long[] ordered, int i) {
        return (int) (ordered[i] & (1 << NUMBER_BITS) - 1);
    }

    private void writeOn(int note) {
        out.add(notes.start[note], on(note), notes.destinationName(note));
        count(note);
    }

    private void count(int note) {
        if (notes.isAdded(note)) {
            from[written] = notes.from[note - notes.there];
            shifts[written] = notes.shift[note - notes.there];
            shifted |= shifts[written] != 0;
            selectedThen.set(written);
        } else {
            from[written] = note;
            selectedThen.set(written, selected.get(note));
        }
        written++;
    }

    private void writeOff(int note) {
        out.add(
                notes.end[note],
                ShortMessage.noteOff(notes.channel(note), notes.key(note), notes.release[note]),
                notes.destinationName(note));
    }

    private int on(int note) {
        return ShortMessage.noteOn(notes.channel(note), notes.key(note), notes.velocity[note]);
    }

    private void writePressure(int event, long tick) {
        int note = index.noteOf(event);
        out.add(
                tick,
                ShortMessage.of(
                        ShortMessage.KEY_PRESSURE,
                        notes.channel(note),
                        notes.key(note),
                        ShortMessage.data2(clip.message(event))),
                notes.destinationName(note));
    }

    private void writeInPlace(int event) {
        int note = index.noteOf(event);
        if (note == NONE) {
            if (!goneEvents.get(event)) {
                out.copy(clip, event);
            }
            return;
        }
        boolean isOn = event == index.on(note);
        boolean elsewhere =
                isOn ? movedOns.get(note) : event == index.off(note) ? movedOffs.get(note) : movedPressure.get(event);
        if (notes.gone.get(note) || elsewhere) {
            return;
        }
        if (!notes.isOnChanged(note)) {
            out.copy(clip, event);
        } else if (isOn) {
            out.add(clip.tick(event), on(note), notes.destinationName(note));
        } else {
            int message = clip.message(event);
            out.add(
                    clip.tick(event),
                    ShortMessage.of(
                            ShortMessage.kind(message),
                            notes.channel(note),
                            notes.key(note),
                            ShortMessage.data2(message)),
                    notes.destinationName(note));
        }
        if (isOn) {
            count(note);
        }
    }
}
