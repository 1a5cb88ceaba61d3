package dibble.demo;

import dibble.midi.MiddleC;
import dibble.midi.MidiTrack;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * A parser for music as text. A word is {@code NOTE[+NOTE…]/LENGTH}, where the length is a fraction of a whole note (4
 * is a quarter; a dot adds half of it), and {@code -} is a rest. A {@code |} between bars is ignored.
 */
final class Phrase {
    private static final int WHOLE = TempoMap.PPQ * 4;

    private record Timed(long tick, int message) {}

    private final List<Timed> events = new ArrayList<>();
    private final int channel;
    private long at;
    private int count;

    /** @param channel 0-15 */
    Phrase(int channel) {
        this.channel = channel;
    }

    /** Plays on from where it is. Hands are not even: accents on the beat, and a little less on what follows. */
    Phrase play(String music, int velocity) {
        for (String word : music.split("[\\s|]+")) {
            if (word.isEmpty()) {
                continue;
            }
            String[] halves = word.split("/");
            boolean dotted = halves[1].endsWith(".");
            long length = WHOLE / Integer.parseInt(halves[1].replace(".", ""));
            length += dotted ? length / 2 : 0;
            if (!halves[0].equals("-")) {
                for (String name : halves[0].split("\\+")) {
                    note(NoteNames.parse(name, MiddleC.C4).orElseThrow(), length, velocity);
                }
            }
            at += length;
        }
        return this;
    }

    private void note(int note, long length, int velocity) {
        int accent = at % WHOLE == 0 ? 8 : at % TempoMap.PPQ == 0 ? 0 : -9;
        int sway = count++ * 7 % 5 - 2;
        events.add(new Timed(
                at, ShortMessage.noteOn(channel, note, Math.max(1, Math.min(127, velocity + accent + sway)))));
        events.add(new Timed(at + length - TempoMap.PPQ / 16, ShortMessage.noteOff(channel, note, 64)));
    }

    /** Presses the sustain pedal at the beginning of each bar of a stretch, and lifts it before its end. */
    Phrase pedal(int firstBar, int bars) {
        for (int bar = firstBar - 1; bar < firstBar - 1 + bars; bar++) {
            events.add(new Timed((long) bar * WHOLE + 40, ShortMessage.controller(channel, 64, 127)));
            events.add(new Timed((bar + 1L) * WHOLE - 60, ShortMessage.controller(channel, 64, 0)));
        }
        return this;
    }

    /** Changes the program on a quarter 0-3 of a bar, a little behind it: what begins there is held by then. */
    Phrase program(int bar, int quarter, int program) {
        long tick = (bar - 1L) * WHOLE + (long) quarter * TempoMap.PPQ + (bar > 1 ? TempoMap.PPQ / 4 : 0);
        events.add(new Timed(tick, ShortMessage.programChange(channel, program)));
        return this;
    }

    /** Moves a controller up and down again within a bar. */
    Phrase swell(int bar, int controller) {
        for (int step = 0; step <= 16; step++) {
            int value = 56 + Math.min(step, 16 - step) * 8;
            events.add(new Timed(
                    (bar - 1L) * WHOLE + (long) step * WHOLE / 17,
                    ShortMessage.controller(channel, controller, value)));
        }
        return this;
    }

    /** Goes to the beginning of a bar, from 1. */
    Phrase bar(int bar) {
        at = (bar - 1L) * WHOLE;
        return this;
    }

    /** Both hands at once. */
    Phrase with(Phrase other) {
        Phrase both = new Phrase(channel);
        both.events.addAll(events);
        both.events.addAll(other.events);
        return both;
    }

    /** The phrase as a named track that lasts to the end of a bar. */
    MidiTrack track(String name, int lastBar) {
        MidiTrack.Builder track = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, name);
        // Offs first where one note ends as the next begins.
        events.sort(
                Comparator.comparingLong(Timed::tick).thenComparing(event -> ShortMessage.startsNote(event.message())));
        events.forEach(event -> track.add(event.tick(), event.message()));
        return track.build((long) lastBar * WHOLE);
    }
}
