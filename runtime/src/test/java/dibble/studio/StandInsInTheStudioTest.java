package dibble.studio;

import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.checks.Checks;
import dibble.checks.Live;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.Fault;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.time.HandClock;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Cables that are pulled, devices that misbehave, questions who is who: with the stand-ins that ship. */
@Tag("slow")
class StandInsInTheStudioTest {
    private final List<Integer> sounded = new CopyOnWriteArrayList<>();
    private final AtomicBoolean portsChanged = new AtomicBoolean();
    private final HandClock clock = new HandClock();
    private final StandIns standIns = new StandIns(clock, name -> new OutputPort() {
        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(int message, long stamp) {
            sounded.add(message);
        }
    });
    private final StandIn larkspur = standIns.standIn("stand-in:larkspur").orElseThrow();
    private final StandIn yarrow = standIns.standIn("stand-in:yarrow").orElseThrow();
    private Document document;
    private Studio studio;

    @BeforeEach
    void open() {
        Instrument instrument = Instrument.of(
                "yarrow", "Yarrow", false, "stand-in:yarrow", List.of(Part.of("harp", "Harp", 3, 46, Range.ALL, 1)));
        Session session = Session.empty("Cables")
                .withSources(List.of(Source.keyboard("larkspur", "Larkspur", "stand-in:larkspur", Range.ALL)))
                .withInstruments(List.of(instrument))
                .withZones(List.of(Zone.of("harp", "Harp", "larkspur", Range.ALL, new PartRef("yarrow", "harp"))));
        document = new Document(session, Performance.NEW);
        studio = new Studio(clock, standIns, document);
        standIns.onChange(() -> portsChanged.set(true));
    }

    @AfterEach
    void close() {
        studio.close();
        standIns.close();
    }

    private void plug(StandIn device, boolean in) {
        device.plug(in);
        assertThat(portsChanged.getAndSet(false)).isTrue();
        studio.portsChanged();
    }

    private void awaitSounded(int... messages) {
        for (int message : messages) {
            await().untilAsserted(() -> assertThat(sounded).contains(message));
        }
    }

    private List<String> missing() {
        Set<String> there = new HashSet<>(standIns.inputs());
        there.addAll(standIns.outputs());
        return Checks.find(Set.of("port-missing"), document.session(), document.performance(), Live.ports(there))
                .stream()
                .flatMap(finding -> finding.ids().stream())
                .toList();
    }

    @Test
    void aChordEndsWhenItsKeyboardIsPulledAndPluggedInAgainItPlays() {
        larkspur.press(0, 60, 80);
        larkspur.press(0, 64, 80);
        awaitSounded(noteOn(2, 60, 80), noteOn(2, 64, 80));
        Session before = document.session();
        assertThat(missing()).isEmpty();
        plug(larkspur, false);
        awaitSounded(noteOff(2, 60, 64), noteOff(2, 64, 64));
        assertThat(studio.soundingCount()).isZero();
        assertThat(document.session()).isEqualTo(before);
        assertThat(missing()).containsExactly("larkspur");
        larkspur.press(0, 67, 80);
        plug(larkspur, true);
        larkspur.press(0, 72, 80);
        awaitSounded(noteOn(2, 72, 80));
        assertThat(sounded).doesNotContain(noteOn(2, 67, 80));
        assertThat(missing()).isEmpty();
    }

    @Test
    void aChordEndsWhenItsModuleIsPulledAndPluggedInAgainItSounds() {
        larkspur.press(0, 60, 80);
        awaitSounded(noteOn(2, 60, 80));
        plug(yarrow, false);
        await().untilAsserted(() -> assertThat(yarrow.face().channel(3).held()).isZero());
        assertThat(studio.soundingCount()).isZero();
        assertThat(missing()).containsExactly("yarrow");
        larkspur.release(0, 60);
        sounded.clear();
        plug(yarrow, true);
        larkspur.press(0, 62, 80);
        // Its sound comes first: it may have been switched off in between.
        awaitSounded(ShortMessage.programChange(2, 46), noteOn(2, 62, 80));
    }

    @Test
    void theLooperIsCutOff() {
        StandIn clover = standIns.standIn(StandIns.LOOPER).orElseThrow();
        document.edit(
                "looper",
                session -> session.withSources(List.of(
                                session.sources().get(0),
                                Source.keyboard("clover", "Clover", StandIns.LOOPER, Range.ALL)))
                        .withInstruments(List.of(session.instruments().get(0).withPort(StandIns.LOOPER)))
                        .withZones(List.of(Zone.of("all", "", "*", Range.ALL, new PartRef("yarrow", "harp")))));
        plug(clover, true);
        larkspur.press(0, 60, 80);
        await().until(() -> studio.loops().equals(List.of(new Loop(StandIns.LOOPER, StandIns.LOOPER))));
        larkspur.release(0, 60);
        assertThat(studio.soundingCount()).isZero();
    }

    @Test
    void aPortThatIsPlayedThoughNobodyUsesItIsNamedWhileThatIsAsked() {
        StandIn stranger = standIns.standIn("stand-in:sedge").orElseThrow();
        stranger.press(0, 40, 80);
        studio.listenEverywhere(true);
        assertThat(studio.strangerPlayed()).isNull();
        larkspur.press(0, 60, 80);
        assertThat(studio.strangerPlayed()).isNull();
        stranger.press(0, 40, 80);
        assertThat(studio.strangerPlayed()).isEqualTo("stand-in:sedge");
        studio.listenEverywhere(false);
        stranger.press(0, 40, 80);
        assertThat(studio.strangerPlayed()).isNull();
        awaitSounded(noteOn(2, 60, 80));
    }

    @Test
    void everybodySaysWhoTheyAre() {
        assertThat(studio.identity("stand-in:yarrow")).isEmpty();
        studio.askWhoIsThere();
        assertThat(studio.isAsking()).isTrue();
        await().untilAsserted(() -> {
            assertThat(studio.identity("stand-in:yarrow")).isPresent();
            assertThat(studio.identity("stand-in:larkspur")).isPresent();
        });
        clock.passUntil(() -> {
            studio.pulse();
            return !studio.isAsking();
        });
        // Nothing is open any more that the session does not use.
        yarrow.press(0, 60, 80);
        assertThat(studio.strangerPlayed()).isNull();
    }

    @Test
    void aKeyboardWithLocalControlOnSoundsTwice() {
        larkspur.misbehave(Fault.LOCAL_CONTROL, true);
        larkspur.press(0, 60, 80);
        awaitSounded(noteOn(0, 60, 80), noteOn(2, 60, 80));
        plug(larkspur, false);
        assertThat(larkspur.face().channel(1).held()).isZero();
    }
}
