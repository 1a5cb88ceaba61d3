package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Recorded notes, sorted into tracks. Offs and key pressure go with their notes; events without a key go to every track
 * with notes of their channel, since each needs its pedals and wheels. All tracks begin and end together.
 *
 * @param piles the resulting tracks, in order
 * @param warning a warning before the sorting is applied; empty for none
 */
public record Sorting(List<Pile> piles, String warning) {
    /** The sorting criteria. */
    public enum By {
        CHANNEL,
        KEY,
        CHANNEL_AND_KEY,
        RANGE,
        HAND,
        TRACK;

        /** Returns the word for this criterion in a command: {@code channel-and-key}. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * The options of a sorting.
     *
     * @param splits the first keys of further ranges, ascending; for {@link By#RANGE}
     * @param names the names of keys, such as those of drums; other keys have the names of their notes
     */
    public record How(By by, List<Integer> splits, Map<Integer, String> names, MiddleC middleC) {
        public How {
            splits = List.copyOf(splits);
            names = Map.copyOf(names);
            if (by == By.RANGE && splits.isEmpty()) {
                throw new UserException(say("sorting.no-split-key-expected-one"));
            }
            for (int i = 0; i < splits.size(); i++) {
                if (splits.get(i) < 1 || splits.get(i) > 127 || i > 0 && splits.get(i) <= splits.get(i - 1)) {
                    throw new UserException(say("sorting.split-at-key-expected-1", splits.get(i)));
                }
            }
        }

        public static How by(By by) {
            return new How(by, by == By.RANGE ? List.of(60) : List.of(), Map.of(), MiddleC.C4);
        }
    }

    /** One of the tracks that come of it. */
    public record Pile(String name, MidiTrack track) {
        /** Returns the number of notes. */
        public int notes() {
            int notes = 0;
            for (int i = 0; i < track.size(); i++) {
                notes += track.isChannelMessage(i) && ShortMessage.startsNote(track.message(i)) ? 1 : 0;
            }
            return notes;
        }
    }

    public Sorting {
        piles = List.copyOf(piles);
    }

    /** Sorts the content of one track. */
    public static Sorting of(MidiTrack track, How how) {
        return new Sorter(List.of(track), List.of(""), TempoMap.PPQ, how, false).sorting();
    }

    /**
     * Sorts the content of a file. Events other than channel messages go with their track, or stay in a separate track.
     */
    public static Sorting of(MidiFile file, How how) {
        MidiFile atOnce = file.atOnce();
        List<String> names = new ArrayList<>();
        for (int i = 0; i < atOnce.tracks().size(); i++) {
            names.add(atOnce.tracks().get(i).name().orElse(say("sorting.track", i + 1)));
        }
        return new Sorter(atOnce.tracks(), names, file.division() > 0 ? file.division() : TempoMap.PPQ, how, true)
                .sorting();
    }

    /**
     * Returns the piles as a standard MIDI file of type 1, with a first track for events that apply to the whole file.
     *
     * @param from the sorted file
     */
    public MidiFile file(MidiFile from) {
        List<MidiTrack> out = new ArrayList<>();
        out.add(from.atOnce().conductor());
        for (Pile pile : piles) {
            MidiTrack.Builder track = new MidiTrack.Builder();
            track.text(0, MidiTrack.META_TRACK_NAME, pile.name());
            for (int i = 0; i < pile.track().size(); i++) {
                track.copy(pile.track(), i);
            }
            out.add(track.build(pile.track().endTick()));
        }
        return new MidiFile(1, from.division(), out);
    }
}
