package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Random;

/** Clips as bad as files have them: notes without offs, of no length, under one another, with all there is in between. */
final class RandomClips {
    private record Event(long tick, int message) {}

    private RandomClips() {}

    static MidiTrack clip(Random random, int notes) {
        List<Event> events = new ArrayList<>();
        for (int i = 0; i < notes; i++) {
            int channel = random.nextInt(2);
            int key = 58 + random.nextInt(6);
            long start = random.nextInt(notes * 200 + 1);
            long end = start + (random.nextInt(8) == 0 ? 0 : random.nextInt(700));
            events.add(new Event(start, ShortMessage.noteOn(channel, key, 1 + random.nextInt(127))));
            if (random.nextInt(12) > 0) {
                events.add(new Event(
                        end,
                        random.nextBoolean()
                                ? ShortMessage.noteOff(channel, key, random.nextInt(128))
                                : ShortMessage.noteOn(channel, key, 0)));
            }
            if (random.nextInt(4) == 0) {
                events.add(new Event(
                        (start + end) / 2,
                        ShortMessage.of(ShortMessage.KEY_PRESSURE, channel, key, random.nextInt(128))));
            }
            if (random.nextInt(3) == 0) {
                events.add(new Event(start, ShortMessage.controller(channel, 64, random.nextBoolean() ? 127 : 0)));
                events.add(new Event(end, ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, random.nextInt(128))));
            }
        }
        events.sort(Comparator.comparingLong(Event::tick));
        boolean devices = random.nextInt(3) == 0;
        MidiTrack.Builder clip = new MidiTrack.Builder();
        String destination = MidiTrack.NO_DESTINATION;
        for (Event event : events) {
            if (devices && random.nextInt(10) == 0) {
                destination = "instrument-" + random.nextInt(3);
            }
            clip.add(event.tick(), event.message(), destination);
        }
        return clip.build(notes * 200L + random.nextInt(900));
    }

    static BitSet selection(Random random, MidiTrack clip) {
        int notes = ClipIndex.of(clip).noteCount();
        BitSet selected = new BitSet();
        for (int note = 0; note < notes; note++) {
            selected.set(note, random.nextInt(3) > 0);
        }
        return selected;
    }
}
