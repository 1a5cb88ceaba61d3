package dibble.standins;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static dibble.midi.ShortMessage.programChange;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.midi.IdentityMessage;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What stand-ins do, well and badly. */
class StandInTest {
    private static final String PORT = "stand-in:yarrow";

    private final List<Integer> sounded = new CopyOnWriteArrayList<>();
    private final List<Integer> heard = new CopyOnWriteArrayList<>();
    private final List<Integer> clocks = new CopyOnWriteArrayList<>();
    private final List<byte[]> exclusive = new CopyOnWriteArrayList<>();
    private final StandIns standIns = new StandIns(Clock.SYSTEM, name -> new OutputPort() {
        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(int message, long stamp) {
            sounded.add(message);
        }
    });
    private final StandIn yarrow = standIns.standIn(PORT).orElseThrow();

    private void listen(StandIn device) {
        device.listen(new InputPort.Listener() {
            @Override
            public void heard(int message) {
                heard.add(message);
            }

            @Override
            public void heardExclusive(byte[] message) {
                exclusive.add(message);
            }

            @Override
            public void heardRealTime(int status) {
                clocks.add(status);
            }
        });
    }

    @AfterEach
    void close() {
        standIns.close();
    }

    @Test
    void aModuleSoundsAndShowsWhatItReceived() {
        OutputPort out = standIns.output(PORT).orElseThrow();
        out.send(programChange(2, 19), 0);
        out.send(controller(2, 7, 90), 0);
        out.send(controller(2, 10, 20), 0);
        out.send(noteOn(2, 60, 80), 0);
        out.send(noteOn(2, 64, 80), 0);
        out.send(noteOn(2, 64, 80), 0);
        out.send(noteOff(2, 60, 64), 0);
        assertThat(yarrow.face().channel(3)).isEqualTo(new Face.Channel(19, 90, 20, 64, 1));
        assertThat(yarrow.face().channel(1).isUsed()).isFalse();
        assertThat(yarrow.face().received()).isEqualTo(7);
        assertThat(sounded).hasSize(7);
        out.send(controller(2, 123, 0), 0);
        assertThat(yarrow.face().channel(3).held()).isZero();
    }

    @Test
    void itPlaysOnTheNextChannelWhereItMisbehaves() {
        listen(yarrow);
        yarrow.press(15, 60, 70);
        yarrow.misbehave(Fault.OTHER_CHANNEL, true);
        yarrow.press(15, 61, 70);
        assertThat(heard).containsExactly(noteOn(15, 60, 70), noteOn(0, 61, 70));
        assertThat(sounded).isEmpty();
    }

    @Test
    void localControlSoundsWhatIsPlayedAndEndsItsNotesWhenItGoesOff() {
        listen(yarrow);
        yarrow.misbehave(Fault.LOCAL_CONTROL, true);
        yarrow.press(0, 60, 70);
        yarrow.press(0, 64, 70);
        yarrow.release(0, 60);
        yarrow.misbehave(Fault.LOCAL_CONTROL, false);
        assertThat(sounded)
                .containsExactly(noteOn(0, 60, 70), noteOn(0, 64, 70), noteOff(0, 60, 64), noteOff(0, 64, 64));
        assertThat(heard).hasSize(3);
    }

    @Test
    void aModuleThatHearsAllChannelsSoundsEveryPartInUse() {
        OutputPort out = standIns.output(PORT).orElseThrow();
        out.send(programChange(0, 1), 0);
        out.send(programChange(4, 2), 0);
        yarrow.misbehave(Fault.HEARS_ALL, true);
        sounded.clear();
        out.send(noteOn(9, 60, 80), 0);
        // Channel 10 has no program: the note itself puts it in use.
        assertThat(sounded).containsExactly(noteOn(0, 60, 80), noteOn(4, 60, 80), noteOn(9, 60, 80));
    }

    @Test
    void whatEchoesSendsBackWhatItGets() {
        listen(yarrow);
        OutputPort out = standIns.output(PORT).orElseThrow();
        out.send(noteOn(0, 60, 80), 0);
        assertThat(heard).isEmpty();
        yarrow.misbehave(Fault.ECHOES, true);
        out.send(noteOff(0, 60, 64), 0);
        assertThat(heard).containsExactly(noteOff(0, 60, 64));
    }

    @Test
    void aPulledCableTakesThePortAwayAndIsTold() {
        int[] told = {0};
        standIns.onChange(() -> told[0]++);
        listen(yarrow);
        OutputPort out = standIns.output(PORT).orElseThrow();
        out.send(noteOn(0, 60, 80), 0);
        assertThat(standIns.outputs()).containsExactly(PORT);
        yarrow.plug(false);
        yarrow.plug(false);
        assertThat(told[0]).isEqualTo(1);
        assertThat(standIns.input(PORT)).isEmpty();
        assertThat(standIns.output(PORT)).isEmpty();
        assertThat(standIns.inputs()).doesNotContain(PORT);
        assertThat(standIns.names()).contains(PORT);
        yarrow.press(0, 60, 80);
        out.send(noteOn(0, 62, 80), 0);
        assertThat(heard).isEmpty();
        // It got no off, and ended what it sounded.
        assertThat(sounded).contains(controller(0, 123, 0)).doesNotContain(noteOn(0, 62, 80));
        assertThat(yarrow.face().channel(1).held()).isZero();
        yarrow.plug(true);
        assertThat(standIns.output(PORT)).isPresent();
        assertThat(told[0]).isEqualTo(2);
    }

    @Test
    void theLooperIsThereUnpluggedAndEchoes() {
        StandIn clover = standIns.standIn(StandIns.LOOPER).orElseThrow();
        assertThat(clover.isPlugged()).isFalse();
        assertThat(clover.faults()).containsExactly(Fault.ECHOES);
        assertThat(standIns.standIn("midi:something")).isEmpty();
    }

    @Test
    void itSaysWhoItIs() {
        listen(yarrow);
        standIns.output(PORT).orElseThrow().sendExclusive(IdentityMessage.request());
        assertThat(exclusive).hasSize(1);
        IdentityMessage.Answer answer = IdentityMessage.answer(exclusive.get(0)).orElseThrow();
        assertThat(answer.maker()).isEqualTo(IdentityMessage.NON_COMMERCIAL);
        assertThat(answer.version()).isEqualTo("1.0.0.0");
    }

    @Test
    void answersOfMakersWithLongNumbersAreRead() {
        IdentityMessage.Answer answer = new IdentityMessage.Answer("00015A", 300, 16383, "1.2.3.127");
        assertThat(IdentityMessage.answer(answer.bytes())).contains(answer);
        byte[] cut = java.util.Arrays.copyOf(answer.bytes(), 12);
        assertThat(IdentityMessage.answer(cut)).isEmpty();
        assertThat(IdentityMessage.answer(IdentityMessage.request())).isEmpty();
    }

    /** A follower plays the same each time, clock by clock, and leaves nothing on. */
    @Test
    void thePatternsFollowAClockOnTheirChannels() {
        listen(yarrow);
        PatternSequencer patterns = yarrow.sequencer();
        patterns.playOn(List.of(2, 5, 6, 9, 13));
        patterns.setFollows(true);
        OutputPort out = standIns.output(PORT).orElseThrow();
        out.sendRealTime(RealTime.CLOCK);
        assertThat(heard).isEmpty();
        List<Integer> first = playBars(out, 8);
        assertThat(first.stream().map(message -> ShortMessage.channel(message) + 1))
                .contains(2, 5, 6, 9, 13)
                .isSubsetOf(2, 5, 6, 9, 13);
        assertEnded(first);
        assertThat(first.stream().filter(ShortMessage::startsNote).count()).isGreaterThan(100);
        assertThat(playBars(out, 8)).isEqualTo(first);
        assertThat(clocks).isEmpty();
    }

    private List<Integer> playBars(OutputPort out, int bars) {
        heard.clear();
        out.sendRealTime(RealTime.START);
        for (int clock = 0; clock < bars * 4 * RealTime.CLOCKS_A_QUARTER; clock++) {
            out.sendRealTime(RealTime.CLOCK);
        }
        out.sendRealTime(RealTime.STOP);
        return List.copyOf(heard);
    }

    private static void assertEnded(List<Integer> messages) {
        Map<Integer, Integer> on = new HashMap<>();
        for (int message : messages) {
            int key = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
            on.merge(key, ShortMessage.startsNote(message) ? 1 : -1, Integer::sum);
        }
        assertThat(on.values()).containsOnly(0);
    }

    @Test
    void thePatternsLeadWithAClockOfTheirOwn() {
        listen(yarrow);
        PatternSequencer patterns = yarrow.sequencer();
        patterns.setTempo(300);
        patterns.start();
        await().until(() -> heard.size() > 20);
        patterns.stop();
        assertThat(clocks.get(0)).isEqualTo(RealTime.START);
        assertThat(clocks).contains(RealTime.CLOCK);
        assertThat(clocks.get(clocks.size() - 1)).isEqualTo(RealTime.STOP);
        assertEnded(heard);
        assertThat(patterns.isRunning()).isFalse();
    }
}
