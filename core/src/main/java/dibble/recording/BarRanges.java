package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.time.Slice;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;

/** Rearrangements of the bars of a track. Functions of its manual edits. */
public final class BarRanges {
    private BarRanges() {}

    /**
     * Concatenates slices of a track. At the end of a slice, notes end, and pedals and wheels return to neutral; at its
     * start, controllers get their values there. A note keeps its origin, and the move of its bars.
     *
     * @param slices the slices in order; gaps between them are empty
     */
    public static ManualEdits arranged(ManualEdits edits, List<Slice> slices) {
        Traced content = Traced.of(edits.whole(), ManualEdits.OF_WHOLE);
        MidiTrack.Builder whole = new MidiTrack.Builder();
        List<Integer> from = new ArrayList<>();
        List<Long> shifts = new ArrayList<>();
        long end = 0;
        for (Slice slice : slices) {
            Traced traced = Clips.within(content, List.of(new Clips.Stretch(slice.from(), slice.to())));
            MidiTrack piece = traced.clip();
            ClipIndex index = ClipIndex.of(piece);
            for (int i = 0; i < piece.size(); i++) {
                whole.copyAt(piece.tick(i) + slice.shift(), piece, i);
            }
            for (int note = 0; note < index.noteCount(); note++) {
                from.add(edits.index().noteOf(traced.number(index.on(note))));
                shifts.add(slice.shift());
            }
            end = slice.to() == Long.MAX_VALUE
                    ? Math.max(slice.at(), edits.whole().endTick() + slice.shift())
                    : slice.end();
        }
        MidiTrack made = edits.index().noteCount() == 0 && whole.size() == 0 ? Track.NOTHING : whole.build(end);
        int[] cameFrom = from.stream().mapToInt(Integer::intValue).toArray();
        long[] taken = shifts.stream().mapToLong(Long::longValue).toArray();
        return edits.after(made, cameFrom, taken);
    }

    /**
     * Returns some notes of a track with the controllers, wheels and pedals that apply to them, but without programs,
     * which belong to the sound.
     *
     * @param selected the notes
     */
    public static MidiTrack taken(MidiTrack clip, BitSet selected) {
        ClipIndex index = ClipIndex.of(clip);
        long begin = Long.MAX_VALUE;
        long end = 0;
        for (int note = selected.nextSetBit(0); note >= 0; note = selected.nextSetBit(note + 1)) {
            begin = Math.min(begin, index.start(note));
            end = Math.max(end, index.end(note));
        }
        MidiTrack.Builder kept = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            int note = index.noteOf(i);
            boolean isOf = note == ClipIndex.NONE ? !isProgram(clip, i) : selected.get(note);
            if (isOf) {
                kept.copy(clip, i);
            }
        }
        MidiTrack all = Clips.closed(kept.build(clip.endTick()));
        return selected.isEmpty()
                ? Track.NOTHING
                : Clips.within(all, List.of(new Clips.Stretch(begin, pedalUp(all, end))));
    }

    /** Returns the tick at which the last pedal releases notes that ended at a tick. */
    private static long pedalUp(MidiTrack clip, long end) {
        return Clips.byDestination(clip).values().stream()
                .mapToLong(part -> pedalUpOfOne(part, end))
                .max()
                .orElse(end);
    }

    private static long pedalUpOfOne(MidiTrack clip, long end) {
        Chase chase = Chase.before(clip, end + 1);
        int next = 0;
        while (next < clip.size() && clip.tick(next) <= end) {
            next++;
        }
        long up = end;
        while (!chase.rests().isEmpty() && next < clip.size()) {
            up = clip.tick(next);
            if (clip.isChannelMessage(next)) {
                chase.add(clip.message(next));
            }
            next++;
        }
        return Math.max(end, up);
    }

    private static boolean isProgram(MidiTrack clip, int i) {
        if (!clip.isChannelMessage(i)) {
            return true;
        }
        int message = clip.message(i);
        int kind = ShortMessage.kind(message);
        int number = ShortMessage.data1(message);
        return kind == ShortMessage.PROGRAM_CHANGE || kind == ShortMessage.CONTROLLER && (number == 0 || number == 32);
    }
}
