package dibble.presentation.live;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.midi.EventKind;
import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.session.Session;
import dibble.studio.EventHistory;
import dibble.studio.Packed;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Rows of the monitor: what came in beside what became of it. */
class EventLogRowsTest {
    private static final long MS = 1_000_000;

    private final Session demo = LamplightersRound.session();
    private final Routing routing = demo.routing(LamplightersRound.performance());
    private final SlotAllocator slots = new SlotAllocator();
    private final EventHistory passed = new EventHistory(64);
    private final EventLogRows rows = new EventLogRows(slots, ZoneOffset.UTC);

    private void played(long at, String source, int message) {
        passed.take(at, Packed.of(Packed.PLAYED, slots.source(source), 0, 0, message));
    }

    private void left(long at, int what, int message) {
        passed.take(at, Packed.of(what, 0, slots.port("stand-in:sorrel"), slots.instrument("sorrel"), message));
    }

    @BeforeEach
    void play() {
        rows.look(3_600_000, 0);
        played(MS, "tansy", ShortMessage.noteOn(1, 60, 80));
        left(MS, Packed.SENT, ShortMessage.noteOn(3, 72, 80));
        played(2 * MS, "larkspur", ShortMessage.controller(0, 64, 127));
        left(2 * MS, Packed.NOT_SENT, ShortMessage.controller(0, 64, 127));
        played(3 * MS, "tansy", ShortMessage.noteOn(1, 30, 80));
        played(4 * MS, "tansy", ShortMessage.noteOff(1, 30, 64));
        left(9 * MS, Packed.SENT, ShortMessage.noteOff(3, 72, 64));
    }

    private List<EventLogRows.Row> all() {
        return rows.leaders(passed, 0, 100).stream().map(this::row).toList();
    }

    private EventLogRows.Row row(long leader) {
        return rows.row(passed, leader, demo, routing, Set.of());
    }

    @Test
    void whatPassedKeepsItsTimeWhenTheMachineSleepsOrItsClockIsSet() {
        rows.look(3_600_010, 10 * MS);
        // It slept for an hour; then its clock is set back by two.
        rows.look(7_200_020, 20 * MS);
        played(20 * MS, "tansy", ShortMessage.noteOn(1, 60, 80));
        rows.look(30, 30 * MS);
        played(30 * MS, "tansy", ShortMessage.noteOn(1, 60, 80));
        assertThat(all().stream().map(EventLogRows.Row::time))
                .startsWith("01:00:00.001", "01:00:00.002")
                .endsWith("01:00:00.009", "02:00:00.020", "00:00:00.030");
    }

    @Test
    void eachRowHasTimeSourceChannelAndWhatBecameOfIt() {
        EventLogRows.Row first = all().get(0);
        assertThat(first.time()).isEqualTo("01:00:00.001");
        assertThat(first.source()).isEqualTo("Tansy 32");
        assertThat(first.channel()).isEqualTo("2");
        assertThat(first.in()).isEqualTo("C4 60 · velocity 80");
        assertThat(first.outs()).hasSize(1);
        assertThat(first.outs().get(0).part()).isEqualTo("Marimba");
        assertThat(first.outs().get(0).what()).isEqualTo("C5 72 · velocity 80");
        assertThat(all().get(1).outs().get(0).taken()).isFalse();
        assertThat(all().get(2).note()).isEqualTo("not used: why?");
        assertThat(all().get(3).note()).isEmpty();
        // What left by itself is Dibble's.
        assertThat(all().get(4).source()).isEqualTo("Dibble");
        assertThat(all().get(4).sourceId()).isNull();
    }

    @Test
    void rowsAreShownBySourceKindAndSilence() {
        rows.showSource("tansy");
        assertThat(all()).hasSize(3);
        rows.showSilent(true);
        assertThat(all()).extracting(EventLogRows.Row::in).containsExactly("F♯1 30 · velocity 80");
        rows.showSilent(false);
        rows.showSource(null);
        rows.showKind(EventKind.NOTES, false);
        assertThat(all()).extracting(EventLogRows.Row::in).containsExactly("CC 64 sustain · 127");
        rows.showKind(EventKind.NOTES, true);
        assertThat(rows.leaders(passed, 2, 2))
                .extracting(leader -> row(leader).in())
                .containsExactly("CC 64 sustain · 127", "F♯1 30 · velocity 80");
    }

    @Test
    void textHasALineForEachRowWithItsBytes() {
        List<String> lines = rows.text(passed, demo, routing, Set.of()).lines().toList();
        assertThat(lines).hasSize(6);
        assertThat(lines.get(1))
                .isEqualTo("01:00:00.001\tTansy 32\t2\tC4 60 · velocity 80\t91 3C 50\tMarimba 4: C5 72 · velocity 80"
                        + " (93 48 50)");
        assertThat(lines.get(2)).endsWith("refused by its port");
    }

    /** Four messages that are one value: the last two say which, and how much. */
    @Test
    void aParameterIsReadAsOneValue() {
        played(20 * MS, "larkspur", ShortMessage.controller(0, 101, 0));
        played(21 * MS, "larkspur", ShortMessage.controller(0, 100, 0));
        played(22 * MS, "larkspur", ShortMessage.controller(0, 6, 24));
        played(23 * MS, "larkspur", ShortMessage.controller(0, 38, 50));
        List<EventLogRows.Row> shown = all();
        assertThat(shown.get(shown.size() - 2).in()).endsWith("(RPN 0 pitch bend range · 3072)");
        assertThat(shown.get(shown.size() - 1).in()).endsWith("(RPN 0 pitch bend range · 3122)");
    }
}
