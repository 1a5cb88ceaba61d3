package dibble.programs;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.ShortMessage;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.HashSet;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Which ports other programs see of the demo, where some of its gear is theirs. */
class OwnPortsTest {
    private static Session source(Session session, String id, UnaryOperator<Source> change) {
        return session.withSources(session.sources().stream()
                .map(source -> source.id().equals(id) ? change.apply(source) : source)
                .toList());
    }

    private static Session instrument(Session session, String id, UnaryOperator<Instrument> change) {
        return session.withInstruments(session.instruments().stream()
                .map(it -> it.id().equals(id) ? change.apply(it) : it)
                .toList());
    }

    private static Session demo(boolean partPorts) {
        Session session = source(
                LamplightersRound.session(),
                "larkspur",
                it -> it.with().port("program:larkspur").build());
        return instrument(session, "yarrow", it -> it.withPort("program:yarrow").withPartPorts(partPorts));
    }

    private static List<NotesPort> notes(Session session) {
        return OwnPorts.of(session, Performance.NEW).notes();
    }

    @Test
    void onlyWhatIsAnotherProgramHasPortsForNotes() {
        assertThat(notes(LamplightersRound.session())).isEmpty();
        assertThat(notes(demo(false)))
                .extracting(NotesPort::id, NotesPort::name, NotesPort::in)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("in/larkspur", "Larkspur 73", true),
                        org.assertj.core.groups.Tuple.tuple("out/yarrow", "Yarrow", false));
    }

    /** Other programs show these names; what turns the direction of text would make one look like another. */
    @Test
    void namesForOtherProgramsHaveNoMarksThatTurnText() {
        for (char mark : "\u200E\u200F\u202A\u202E\u2066\u2069\u061C\u2028\n\t".toCharArray()) {
            Session renamed = source(
                    demo(false),
                    "larkspur",
                    it -> it.with().name("Up" + mark + "per").build());
            assertThat(notes(renamed).get(0).name()).isEqualTo("Up per");
        }
    }

    @Test
    void namesFollowRenamesAndIdsStay() {
        Session renamed = source(
                demo(false), "larkspur", it -> it.with().name("Upper: hands").build());
        assertThat(notes(renamed).get(0))
                .isEqualTo(new NotesPort("in/larkspur", "Upper  hands", true, "program:larkspur", 0, false));
    }

    @Test
    void twoSourcesOnOnePortHaveOne() {
        Session both = source(
                demo(false), "tansy", it -> it.with().port("program:larkspur").build());
        assertThat(notes(both)).hasSize(2);
    }

    @Test
    void eachPartHasItsOwnPortWithItsChannelAsTheFirst() {
        Session session = demo(true);
        Instrument yarrow = session.instrument("yarrow").orElseThrow();
        List<NotesPort> parts = notes(session).stream().filter(NotesPort::alone).toList();
        assertThat(parts).hasSameSizeAs(yarrow.parts());
        for (int i = 0; i < parts.size(); i++) {
            int channel = session.channels(Performance.NEW)
                    .channel(yarrow.ref(yarrow.parts().get(i)))
                    .orElseThrow();
            int mine = ShortMessage.noteOn(channel - 1, 60, 90);
            assertThat(parts.get(i).borne(mine)).isEqualTo(ShortMessage.noteOn(0, 60, 90));
            NotesPort port = parts.get(i);
            assertThat(parts).filteredOn(other -> other != port).allMatch(other -> other.borne(mine) == 0);
        }
    }

    @Test
    void channelsWithNoPartHaveAPortWhereSomethingIsSentThere() {
        Session session = demo(true);
        assertThat(notes(session)).noneMatch(port -> port.id().equals("out/yarrow"));
        String zone = session.allZones().get(0).id();
        Session bare = ZoneEdits.changeZone(
                session,
                zone,
                it -> it.with().to(new ZoneTarget.ToChannel("yarrow", 16)).build());
        NotesPort rest = notes(bare).stream()
                .filter(port -> port.id().equals("out/yarrow"))
                .findFirst()
                .orElseThrow();
        assertThat(rest.borne(ShortMessage.noteOn(15, 60, 90))).isNotZero();
        assertThat(rest.borne(ShortMessage.noteOn(0, 60, 90))).isZero();
    }

    @Test
    void noTwoPortsHaveOneName() {
        Session same = demo(true);
        for (Instrument it : same.instruments()) {
            same = instrument(
                    same,
                    it.id(),
                    old -> old.withName("Bell")
                            .withParts(old.parts().stream()
                                    .map(part -> part.with().name("Bell").build())
                                    .toList()));
        }
        OwnPorts ports = OwnPorts.of(same, Performance.NEW);
        List<String> names = Stream.concat(
                        ports.notes().stream().map(NotesPort::name),
                        ports.sound().stream().flatMap(pair -> Stream.of(pair.leftName(), pair.rightName())))
                .toList();
        assertThat(new HashSet<>(names)).hasSameSizeAs(names);
    }

    @Test
    void eachOutputAndEachStripThatDibbleSoundsHasAPair() {
        Session session = LamplightersRound.session();
        assertThat(OwnPorts.of(session, Performance.NEW).sound())
                .extracting(SoundPair::leftName)
                .contains("main left", "Celesta left")
                .noneMatch(name -> name.startsWith("Yarrow"));
    }
}
