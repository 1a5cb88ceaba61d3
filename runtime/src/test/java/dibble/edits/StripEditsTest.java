package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.Loudness;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.session.Session;
import java.util.List;
import org.junit.jupiter.api.Test;

class StripEditsTest {
    private static final StripRef CELESTA = StripRef.of(new PartRef("sorrel", "celesta"));
    private static final StripRef HARP = StripRef.of(new PartRef("yarrow", "harp"));
    private static final PartRef HANDS = new PartRef("sorrel", "hands");
    private static final StripRef LOW = new StripRef(HANDS, 41);
    private final Session demo = LamplightersRound.session();

    private static double level(Session session, StripRef ref) {
        return StripEdits.strip(session, null, ref).map(Strip::levelNow).orElseThrow();
    }

    @Test
    void aStripOfAGroupTakesTheOthersAlongByAsMuch() {
        Session grouped = demo;
        for (StripRef ref : List.of(CELESTA, HARP, LOW)) {
            grouped =
                    StripEdits.change(grouped, ref, strip -> strip.withGroup(2).withLevel(-10.0));
        }
        Session moved = StripEdits.move(grouped, null, CELESTA, -7.5);
        assertThat(level(moved, CELESTA)).isEqualTo(-7.5);
        assertThat(level(moved, LOW)).isEqualTo(-7.5);
        assertThat(level(moved, HARP)).isEqualTo(-7.5);
        assertThat(level(moved, StripRef.of(HANDS))).isEqualTo(level(demo, StripRef.of(HANDS)));
        // Each has its own end: what a module is sent goes to 0 dB, a strip of Dibble's to 6.
        Session most = StripEdits.move(moved, null, CELESTA, 6);
        assertThat(level(most, LOW)).isEqualTo(Loudness.MAX);
        assertThat(level(most, HARP)).isZero();
        // Silence moves nobody by infinitely much, and nobody out of silence.
        Session silent = StripEdits.move(moved, null, CELESTA, Loudness.SILENCE);
        assertThat(level(silent, CELESTA)).isEqualTo(Loudness.SILENCE);
        assertThat(level(silent, LOW)).isEqualTo(-7.5);
    }

    @Test
    void allAtZeroDecibels() {
        Session level = StripEdits.allAtZero(StripEdits.change(demo, LOW, strip -> strip.withLevel(-3.0)), null);
        assertThat(level.instruments())
                .allSatisfy(instrument -> assertThat(instrument.parts()).allSatisfy(part -> {
                    assertThat(part.strip().level()).isZero();
                    assertThat(part.volume()).isEqualTo(127);
                }));
        assertThat(level(level, LOW)).isZero();
    }

    @Test
    void aKeyWithATrackOfItsOwnHasAStripThatBeginsAsItsPart() {
        Session session = TrackEdits.addKeyTracks(demo, HANDS, List.of(50, 41));
        List<StripPlan> plans = SoundPlan.of(session, LamplightersRound.performance()).strips().stream()
                .filter(plan -> plan.ref().part().equals(HANDS))
                .toList();
        assertThat(plans.stream().map(StripPlan::name)).containsExactly("Hand drums", "Frame drum, low", "Finger drum");
        assertThat(plans)
                .allSatisfy(plan -> assertThat(plan.strip())
                        .isEqualTo(session.part(HANDS).orElseThrow().strip()));
        Session own = StripEdits.change(session, LOW, strip -> strip.withOutput(4));
        assertThat(StripEdits.strip(own, null, LOW).orElseThrow().output()).isEqualTo(4);
        assertThat(own.part(HANDS).orElseThrow().output())
                .isEqualTo(session.part(HANDS).orElseThrow().output());
    }

    /** In Dusk the celesta has a volume of its own: whoever moves its strip there moves that. */
    @Test
    void aLevelThatASceneGivesIsMovedInTheScene() {
        assertThat(StripEdits.isOfScene(demo, "dusk", CELESTA)).isTrue();
        assertThat(StripEdits.isOfScene(demo, "lamps", CELESTA)).isFalse();
        Session moved = StripEdits.move(demo, "dusk", CELESTA, -12);
        assertThat(StripEdits.strip(moved, "dusk", CELESTA).orElseThrow().levelNow())
                .isCloseTo(-12, org.assertj.core.api.Assertions.within(0.3));
        assertThat(level(moved, CELESTA)).isEqualTo(level(demo, CELESTA));
        Session own = StripEdits.move(demo, "lamps", CELESTA, -12);
        assertThat(level(own, CELESTA)).isEqualTo(-12);
        assertThat(StripEdits.strip(own, "dusk", CELESTA)).isEqualTo(StripEdits.strip(demo, "dusk", CELESTA));
        Session panned = StripEdits.change(
                demo, "dusk", CELESTA, strip -> strip.withPan(20).withReverb(9));
        assertThat(panned.part(CELESTA.part()).orElseThrow().pan()).isEqualTo(20);
        assertThat(panned.part(CELESTA.part()).orElseThrow().strip().reverb()).isEqualTo(9);
        assertThat(panned.scene("dusk")).isEqualTo(demo.scene("dusk"));
    }

    @Test
    void outputsHaveNamesAndFilesOfSoundsAreKnownByWhatIsInThem() {
        Session named = StripEdits.nameOutput(demo, 3, " drums ");
        assertThat(named.outputs()).containsEntry(3, "drums");
        assertThat(StripEdits.nameOutput(named, 3, "").outputs()).isEqualTo(demo.outputs());
        Session with = StripEdits.addSoundFile(demo, "Glass", "/a/glass.sf2", "0".repeat(64));
        Session again = StripEdits.addSoundFile(with, "Glass", "/b/glass.sf2", "0".repeat(64));
        assertThat(again.soundFiles()).hasSize(1);
        assertThat(again.soundFile("glass").orElseThrow().path()).isEqualTo("/b/glass.sf2");
        assertThat(StripEdits.addSoundFile(again, "Glass", "/c/glass.sf2", "1".repeat(64))
                        .soundFiles())
                .extracting("id")
                .containsExactly("glass", "glass-2");
        assertThat(StripEdits.effects(demo, "sorrel", effects -> effects.with(103, 5))
                        .instrument("sorrel")
                        .orElseThrow()
                        .effects()
                        .damping())
                .isEqualTo(5);
    }
}
