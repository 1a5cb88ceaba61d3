package dibble.files;

import static dibble.text.CoreText.say;

import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiFormatException;
import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import dibble.recording.Clips;
import dibble.recording.ManualEdits;
import dibble.recording.NoteOrigins;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The content of tracks as standard MIDI files. {@code tracks/ID.mid} has the sounding notes. If they come from several
 * prints, or a part of one, {@code prints/ID.mid} has the whole prints, a track each.
 */
public final class TrackFiles {
    /** The fields of a track's files and regions in the session. */
    record Said(
            String clip,
            String prints,
            List<Region> regions,
            List<Integer> printOf,
            SaidByHand byHand,
            String printedFrom) {}

    /**
     * The manual edits of a track in the session.
     *
     * @param played the notes as they were played, or null if not recorded
     * @param muted the same for muted notes, which are the last of the prints; null if there are none
     * @param mutedEvents the indexes of their events; null if not recorded
     */
    record SaidByHand(String played, String muted, String mutedEvents) {}

    private static final Pattern RUN = Pattern.compile("(\\d{1,8})(?:-(\\d{1,8}))?");

    private TrackFiles() {}

    /** Returns the prints, then the muted notes; none where the sounding events alone say the same. */
    static List<MidiTrack> keptPrints(Track track) {
        List<MidiTrack> prints = new ArrayList<>(track.regions().prints());
        Optional<ManualEdits> hand = track.regions().byHand();
        if (hand.isEmpty() && prints.size() == 1 && prints.get(0).equals(track.sounding())) {
            return List.of();
        }
        hand.map(ManualEdits::silent).filter(it -> it.size() > 0).ifPresent(prints::add);
        return prints;
    }

    /** The files of a track, by their names. */
    public static Map<String, byte[]> files(Track track, SessionWriter.FileNames names) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put(names.clip(track), write(0, List.of(track.sounding())));
        List<MidiTrack> prints = keptPrints(track);
        if (!prints.isEmpty()) {
            files.put(names.prints(track), write(1, prints));
        }
        return files;
    }

    private static byte[] write(int type, List<MidiTrack> clips) {
        return MidiFileWriter.write(new MidiFile(
                type, TempoMap.PPQ, clips.stream().map(Clips::writeDeviceNames).toList()));
    }

    /** Reads the content of a track from its files; returns empty regions if there are none, as in a bare session. */
    static Regions read(Said said, Map<String, byte[]> entries, List<Take> takes) throws SessionFormatException {
        byte[] clipBytes = said.clip == null ? null : entries.get(said.clip);
        if (clipBytes == null) {
            return Regions.NONE;
        }
        List<MidiTrack> clips = tracks(clipBytes, said.clip);
        if (clips.size() != 1) {
            throw new SessionFormatException(say("track-files.tracks-expected-1", said.clip, clips.size()));
        }
        MidiTrack clip = clips.get(0);
        if (said.printedFrom != null) {
            return ofEarlierVersion(clip, said.printedFrom, takes);
        }
        byte[] printBytes = said.prints == null ? null : entries.get(said.prints);
        boolean drawnAlone = said.byHand.played != null && said.regions.isEmpty();
        if (printBytes == null && !drawnAlone) {
            return Regions.of(clip, said.regions);
        }
        List<MidiTrack> prints = printBytes == null ? List.of() : tracks(printBytes, said.prints);
        List<Region> regions = new ArrayList<>();
        for (int i = 0; i < said.regions.size(); i++) {
            Region region = said.regions.get(i);
            int print = said.printOf.get(i);
            if (region.isGone()) {
                regions.add(region);
                continue;
            }
            if (print >= prints.size()) {
                throw new SessionFormatException(
                        say("track-files.no-print-expected-0-to", said.prints, print, prints.size() - 1));
            }
            regions.add(region.ofPrint(prints.get(print)));
        }
        Regions together = new Regions(regions);
        if (together.sounding().equals(clip) && said.byHand.muted == null) {
            return together;
        }
        return together.edited(byHand(said.byHand, clip, together.printed(), prints));
    }

    private static ManualEdits byHand(SaidByHand said, MidiTrack clip, MidiTrack printed, List<MidiTrack> prints) {
        NoteOrigins origins = origins(said.played, clip, printed);
        if (said.muted == null) {
            return new ManualEdits(clip, origins, new BitSet());
        }
        MidiTrack silent = prints.isEmpty() ? Track.NOTHING : prints.get(prints.size() - 1);
        return ManualEdits.of(clip, origins, silent, origins(said.muted, silent, printed), events(said.mutedEvents));
    }

    /** Returns the numbers of events as {@link #text} wrote them. */
    private static BitSet events(String text) {
        BitSet events = new BitSet();
        for (String run :
                text == null || text.isBlank() ? new String[0] : text.strip().split(" +")) {
            Matcher matcher = RUN.matcher(run);
            if (!matcher.matches()) {
                return new BitSet();
            }
            int first = Integer.parseInt(matcher.group(1));
            int last = matcher.group(2) == null ? first : Integer.parseInt(matcher.group(2));
            events.set(first, Math.max(first, last) + 1);
        }
        return events;
    }

    /** Writes the numbers of events as runs: {@code 0-3 7}. */
    static String text(BitSet events) {
        StringBuilder text = new StringBuilder();
        for (int first = events.nextSetBit(0); first >= 0; ) {
            int behind = events.nextClearBit(first);
            text.append(text.length() == 0 ? "" : " ").append(first);
            text.append(behind - first == 1 ? "" : "-" + (behind - 1));
            first = events.nextSetBit(behind);
        }
        return text.toString();
    }

    /**
     * Another application may have edited the sounding notes. Its content counts, so the session's data on notes is
     * stale; notes at their played position are matched again.
     */
    private static NoteOrigins origins(String said, MidiTrack clip, MidiTrack printed) {
        int notes = ClipIndex.of(clip).noteCount();
        return NoteOrigins.parse(
                        said == null ? "" : said, notes, ClipIndex.of(printed).noteCount())
                .orElseGet(() -> ManualEdits.recognized(clip, printed).origins());
    }

    /** An earlier version recorded only the last take; content before and after it belongs to no take. */
    private static Regions ofEarlierVersion(MidiTrack clip, String take, List<Take> takes) {
        Optional<Take> known = takes.stream().filter(it -> it.id().equals(take)).findFirst();
        long from = known.map(Take::startTick).orElse(0L);
        long to = known.map(Take::endTick).orElse(clip.endTick());
        if (clip.size() == 0) {
            return Regions.NONE;
        }
        return Regions.of(
                clip,
                List.of(new Region(take, from, Math.max(from + 1, to), PrintMode.REPLACE_ALL, false, Track.NOTHING)));
    }

    private static List<MidiTrack> tracks(byte[] bytes, String file) throws SessionFormatException {
        try {
            MidiFile midi = MidiFileReader.read(bytes);
            if (midi.division() != TempoMap.PPQ) {
                throw new SessionFormatException(
                        say("track-files.ticks-per-quarter-note-expected", file, midi.division(), TempoMap.PPQ));
            }
            return midi.tracks().stream().map(Clips::readDeviceNames).toList();
        } catch (MidiFormatException e) {
            throw new SessionFormatException(file + ", " + e.getMessage());
        }
    }
}
