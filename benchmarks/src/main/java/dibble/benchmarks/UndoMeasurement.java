package dibble.benchmarks;

import dibble.demo.LamplightersRound;
import dibble.edits.NoteEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.NoteFunction;
import dibble.notes.Pitches;
import dibble.notes.TimeChanges;
import dibble.notes.Velocities;
import dibble.recording.ClipIndex;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Measures the memory of the undo history: edits of one note, and of all notes, of a long track. */
public final class UndoMeasurement {
    private static final int EDITS = 300;
    private static final String TRACK = "long";

    private UndoMeasurement() {}

    public static void main(String[] args) {
        for (int notes : new int[] {20_000, 100_000}) {
            measure(notes, false);
            measure(notes, true);
        }
    }

    private static void measure(int notes, boolean all) {
        Document document = new Document(session(notes), Performance.NEW);
        long before = heap();
        Random random = new Random(1);
        for (int i = 0; i < EDITS; i++) {
            int number = i;
            document.edit("edit", session -> edited(session, random, number, all));
            // Derive the values that a window needs to show the track.
            Regions shown = track(document.session()).regions();
            shown.sounding();
            shown.editable().index();
        }
        long after = heap();
        int steps = 0;
        while (document.undoName().isPresent()) {
            document.undo();
            steps++;
        }
        System.out.printf(
                "%,d notes, %d edits of %s: %d MiB, %d steps back%n",
                notes, EDITS, all ? "all notes" : "one note", (after - before) >> 20, steps);
    }

    private static Session session(int notes) {
        MidiTrack.Builder print = new MidiTrack.Builder();
        for (int i = 0; i < notes; i++) {
            print.add(i * 100L, ShortMessage.noteOn(0, 40 + i % 40, 80));
            print.add(i * 100L + 60, ShortMessage.noteOff(0, 40 + i % 40, 64));
        }
        MidiTrack clip = print.build();
        Track track = Track.of(TRACK, "Long", new PartRef("sorrel", "celesta"))
                .withRegions(new Regions(
                        List.of(new Region("take-1", 0, clip.endTick(), PrintMode.REPLACE_ALL, false, clip))));
        return LamplightersRound.session().withTracks(List.of(track));
    }

    private static Track track(Session session) {
        return session.track(TRACK).orElseThrow();
    }

    private static Session edited(Session session, Random random, int number, boolean all) {
        ClipIndex index = track(session).regions().editable().index();
        BitSet selected = new BitSet();
        if (all) {
            selected.set(0, index.noteCount());
        } else {
            selected.set(random.nextInt(index.noteCount()));
        }
        if (number % 10 == 9) {
            return NoteEdits.mute(session, Map.of(TRACK, selected), number % 20 == 9);
        }
        NoteFunction function = switch (number % 3) {
            case 0 -> Velocities.add(number % 2 == 0 ? 1 : -1);
            case 1 -> TimeChanges.shift(number % 2 == 0 ? 5 : -5);
            default -> Pitches.transpose(number % 2 == 0 ? 1 : -1);
        };
        return NoteEdits.change(session, Map.of(TRACK, selected), function).session();
    }

    private static long heap() {
        Runtime runtime = Runtime.getRuntime();
        long used = Long.MAX_VALUE;
        for (int i = 0; i < 4; i++) {
            System.gc();
            used = Math.min(used, runtime.totalMemory() - runtime.freeMemory());
        }
        return used;
    }
}
