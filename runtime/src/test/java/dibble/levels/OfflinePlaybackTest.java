package dibble.levels;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.TrackEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class OfflinePlaybackTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private static final PartRef HARP = new PartRef("yarrow", "harp");

    private static Session withNote(Session session, PartRef part, String id) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        clip.add(960, ShortMessage.controller(0, 64, 127));
        clip.add(960, ShortMessage.noteOn(0, 60, 90));
        clip.add(1920, ShortMessage.noteOff(0, 60, 64));
        List<Track> tracks = new ArrayList<>(session.tracks());
        tracks.add(Track.of(id, id, part).withRegions(Regions.own(clip.build(1920))));
        return session.withTracks(tracks);
    }

    private static List<String> notes(OfflinePlayback music) {
        List<String> notes = new ArrayList<>();
        for (int i = 0; i < music.size(); i++) {
            if (ShortMessage.isNote(music.message(i))) {
                notes.add(
                        music.port(i) + " " + music.stamp(i) / 1_000_000 + " " + Integer.toHexString(music.message(i)));
            }
        }
        return notes;
    }

    /** At 96 a minute a quarter note lasts 625 ms. */
    @Test
    void tracksAreSentAsTheyArePlayedAndEndAtRest() {
        Session session = withNote(withNote(LamplightersRound.session(), CELESTA, "one"), HARP, "two");
        OfflinePlayback music = OfflinePlayback.ofTracks(session, LamplightersRound.performance());
        assertThat(notes(music))
                .containsExactlyInAnyOrder(
                        "stand-in:sorrel 625 5a3c90",
                        "stand-in:sorrel 1250 403c80",
                        "stand-in:yarrow 625 5a3c92",
                        "stand-in:yarrow 1250 403c82");
        assertThat(music.length() / 1_000_000).isEqualTo(1250);
        assertThat(music.stamp(0)).isZero();
        int last = music.message(music.size() - 1);
        assertThat(ShortMessage.kind(last)).isEqualTo(ShortMessage.CONTROLLER);
        assertThat(ShortMessage.data2(last)).isZero();
    }

    @Test
    void whatIsMutedOrNotSoloedIsNotPlayed() {
        Session session = withNote(withNote(LamplightersRound.session(), CELESTA, "one"), HARP, "two");
        Performance performance = LamplightersRound.performance();
        assertThat(notes(OfflinePlayback.ofTracks(session, performance.withMuted("one", true))))
                .allSatisfy(note -> assertThat(note).startsWith("stand-in:yarrow"));
        assertThat(notes(OfflinePlayback.ofTracks(session, performance.withSoloed("one", true))))
                .allSatisfy(note -> assertThat(note).startsWith("stand-in:sorrel"));
    }

    @Test
    void aPerformanceGoesThroughTheRoutingInItsOwnTempo() {
        MidiTrack.Builder keys = new MidiTrack.Builder();
        keys.meta(0, MidiTrack.META_TEMPO, new byte[] {7, (byte) 0xA1, 0x20});
        keys.add(480, ShortMessage.noteOn(0, 72, 100));
        keys.add(960, ShortMessage.noteOff(0, 72, 64));
        OfflinePlayback music = OfflinePlayback.ofFile(
                TrackEdits.readyToRecord(LamplightersRound.session()),
                LamplightersRound.performance(),
                new MidiFile(1, 480, List.of(keys.build(960))),
                new String[] {"larkspur"});
        assertThat(notes(music)).contains("stand-in:sorrel 500 644890", "stand-in:sorrel 1000 404880");
        assertThat(music.length() / 1_000_000).isEqualTo(1000);
    }
}
