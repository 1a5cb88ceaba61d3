package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import dibble.recording.Clips;
import dibble.recording.FileTempo;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;

/** Changes of the notes of a whole MIDI file: its division, its tracks and all that is no note stay as they are. */
public final class FileNotes {
    private FileNotes() {}

    /**
     * A selection of notes of a file.
     *
     * @param tracks the numbers of tracks, from 1; empty for all
     * @param channel 1-16; 0 for all
     * @param lowest the lowest key, 0-127
     * @param highest the highest key, 0-127
     * @param firstBar the first bar, from 1
     * @param lastBar the last bar
     */
    public record Which(List<Integer> tracks, int channel, int lowest, int highest, long firstBar, long lastBar) {
        /** All notes. */
        public static final Which ALL = new Which(List.of(), 0, 0, 127, 1, Long.MAX_VALUE);

        public Which {
            tracks = List.copyOf(tracks);
        }
    }

    /**
     * A file after a change.
     *
     * @param effects the total effect of each change
     */
    public record Outcome(MidiFile file, List<ChangeResult.Effect> effects) {}

    /** Makes a function for the lengths of a quarter note and a bar, and the starts of bars with another meter. */
    public interface Maker {
        NoteFunction of(long quarter, long bar, List<Long> meters);
    }

    /**
     * Changes notes, by one function after another; those that are meant are so until the end.
     *
     * @throws UserException where the file counts in frames rather than in notes, or has no such track
     */
    public static Outcome change(MidiFile file, Which which, List<Maker> makers) {
        if (file.division() <= 0) {
            throw new UserException(say("file-notes.frames"));
        }
        for (int track : which.tracks) {
            if (track < 1 || track > file.tracks().size()) {
                throw new UserException(
                        say("file-notes.track-expected", track, file.tracks().size()));
            }
        }
        // Only its meters count: 4/4 until one is said.
        TempoMap bars = FileTempo.of(file, TempoMap.of(120)).tempo();
        List<Long> meters =
                bars.meters().stream().map(meter -> inFile(file, meter.at())).toList();
        long bar = inFile(file, bars.meter(0).ticksPerBar());
        List<NoteFunction> functions = makers.stream()
                .map(maker -> maker.of(file.division(), bar, meters))
                .toList();
        ChangeResult.Effect[] effects = new ChangeResult.Effect[functions.size()];
        Arrays.fill(effects, ChangeResult.Effect.NONE);
        List<MidiTrack> tracks = new ArrayList<>();
        for (int i = 0; i < file.tracks().size(); i++) {
            MidiTrack track = file.tracks().get(i);
            MidiTrack clip = hasSeveralDevices(track) ? Clips.readDeviceNames(track) : track;
            boolean isChanged = false;
            if (which.tracks.isEmpty() || which.tracks.contains(i + 1)) {
                BitSet selected = selected(file, ClipIndex.of(clip), which, bars);
                for (int f = 0; f < effects.length; f++) {
                    ChangeResult changed = functions.get(f).of(clip, selected);
                    effects[f] = effects[f].and(changed.effect());
                    isChanged |= changed.clip() != clip;
                    clip = changed.clip();
                    selected = changed.selected();
                }
            }
            tracks.add(isChanged ? Clips.writeDeviceNames(clip) : track);
        }
        return new Outcome(new MidiFile(file.type(), file.division(), tracks), List.of(effects));
    }

    private static boolean hasSeveralDevices(MidiTrack track) {
        return IntStream.range(0, track.size())
                        .filter(i -> track.isMeta(i, MidiTrack.META_DEVICE))
                        .mapToObj(track::text)
                        .distinct()
                        .count()
                > 1;
    }

    private static BitSet selected(MidiFile file, ClipIndex index, Which which, TempoMap bars) {
        long from = inFile(file, bars.barStart(which.firstBar));
        long to = which.lastBar == Long.MAX_VALUE ? Long.MAX_VALUE : inFile(file, bars.barStart(which.lastBar + 1));
        BitSet selected = new BitSet();
        for (int note = 0; note < index.noteCount(); note++) {
            selected.set(
                    note,
                    (which.channel == 0 || index.channel(note) == which.channel - 1)
                            && index.key(note) >= which.lowest
                            && index.key(note) <= which.highest
                            && index.start(note) >= from
                            && index.start(note) < to);
        }
        return selected;
    }

    private static long inFile(MidiFile file, long tick) {
        return Math.round((double) tick * file.division() / TempoMap.PPQ);
    }
}
