package dibble.ports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.midi.RealTime;
import dibble.ports.PlugBoard.Plug;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Ports of this machine, through the JDK's device service and a provider of the tests' own. */
@Tag("slow")
class MachineDevicesTest {
    private final Plug keys = new Plug("Larkspur", "keys", true);
    private final Plug module = new Plug("Yarrow", "module", false);
    private MachineDevices devices;

    @BeforeEach
    void plugIn() {
        PlugBoard.plugIn(keys);
        PlugBoard.plugIn(module);
        devices = new MachineDevices();
    }

    @AfterEach
    void close() {
        devices.close();
        PlugBoard.pullOutAll();
    }

    private static final class Heard implements InputPort.Listener {
        final List<Integer> messages = new CopyOnWriteArrayList<>();
        final List<byte[]> exclusive = new CopyOnWriteArrayList<>();

        @Override
        public void heard(int message) {
            messages.add(message);
        }

        @Override
        public void heardExclusive(byte[] message) {
            exclusive.add(message);
        }
    }

    @Test
    void aPortIsOpenOnlyWhileItIsUsed() throws Exception {
        assertThat(devices.inputs()).contains("midi:Larkspur");
        assertThat(devices.outputs()).contains("midi:Yarrow");
        InputPort port = devices.input("midi:Larkspur").orElseThrow();
        assertThat(keys.open).isFalse();
        Heard heard = new Heard();
        port.listen(heard);
        assertThat(keys.open).isTrue();
        keys.play(new ShortMessage(ShortMessage.NOTE_ON, 3, 60, 90));
        keys.play(new ShortMessage(ShortMessage.ACTIVE_SENSING));
        keys.play(new ShortMessage(ShortMessage.PROGRAM_CHANGE, 3, 5, 0));
        assertThat(heard.messages)
                .containsExactly(
                        dibble.midi.ShortMessage.noteOn(3, 60, 90), dibble.midi.ShortMessage.programChange(3, 5));
        port.listen(null);
        assertThat(keys.open).isFalse();
    }

    @Test
    void systemExclusiveComesWholeThoughItIsPlayedInPieces() throws Exception {
        Heard heard = new Heard();
        devices.input("midi:Larkspur").orElseThrow().listen(heard);
        keys.play(new SysexMessage(new byte[] {(byte) 0xF0, 0x7D, 1, (byte) 0xF7}, 4));
        keys.play(new SysexMessage(new byte[] {(byte) 0xF0, 0x7D, 2}, 3));
        keys.play(new SysexMessage(new byte[] {(byte) 0xF7, 3, (byte) 0xF7}, 3));
        assertThat(heard.exclusive).hasSize(2);
        assertThat(heard.exclusive.get(0)).containsExactly(0xF0, 0x7D, 1, 0xF7);
        assertThat(heard.exclusive.get(1)).containsExactly(0xF0, 0x7D, 2, 3, 0xF7);
    }

    @Test
    void whatIsSentArrives() {
        OutputPort port = devices.output("midi:Yarrow").orElseThrow();
        for (int i = 0; i < 3000; i++) {
            port.send(dibble.midi.ShortMessage.controller(2, 7, i & 127), 0);
        }
        port.sendExclusive(new byte[] {(byte) 0xF0, 0x7D, (byte) 0xF7});
        assertThat(module.heard).hasSize(3001);
        assertThat(module.heard.get(2999)).containsExactly(0xB2, 7, 2999 & 127);
        assertThat(module.heard.get(3000)).containsExactly(0xF0, 0x7D, 0xF7);
        port.close();
        assertThat(module.open).isFalse();
    }

    @Test
    void clockGoesBothWays() throws Exception {
        List<Integer> clocks = new ArrayList<>();
        devices.input("midi:Larkspur").orElseThrow().listen(new InputPort.Listener() {
            @Override
            public void heard(int message) {
                throw new AssertionError("no channel message was played");
            }

            @Override
            public void heardRealTime(int status) {
                clocks.add(status);
            }
        });
        keys.play(new ShortMessage(ShortMessage.START));
        keys.play(new ShortMessage(ShortMessage.TIMING_CLOCK));
        keys.play(new ShortMessage(ShortMessage.ACTIVE_SENSING));
        assertThat(clocks).containsExactly(RealTime.START, RealTime.CLOCK);
        OutputPort port = devices.output("midi:Yarrow").orElseThrow();
        port.sendRealTime(RealTime.STOP);
        assertThat(module.heard.get(0)[0] & 0xFF).isEqualTo(RealTime.STOP);
        port.close();
    }

    @Test
    void plugsAreNoticedWithoutARestart() {
        AtomicInteger changes = new AtomicInteger();
        devices.onChange(changes::incrementAndGet);
        PlugBoard.pullOut(keys);
        await().until(() -> changes.get() == 1);
        assertThat(devices.input("midi:Larkspur")).isEmpty();
        PlugBoard.plugIn(keys);
        await().until(() -> changes.get() == 2);
        assertThat(devices.input("midi:Larkspur")).isPresent();
    }

    @Test
    void twoOfOneNameAreToldApartAndNeverGuessed() {
        PlugBoard.plugIn(new Plug("Tansy", "left", true));
        Plug right = PlugBoard.plugIn(new Plug("Tansy", "right", true));
        PlugBoard.plugIn(new Plug("Sedge", "pads", true));
        PlugBoard.plugIn(new Plug("Sedge", "pads", true));
        try (MachineDevices more = new MachineDevices()) {
            assertThat(more.inputs())
                    .contains(
                            "midi:Tansy, left, Hedgerow",
                            "midi:Tansy, right, Hedgerow",
                            "midi:Sedge, pads, Hedgerow (1)",
                            "midi:Sedge, pads, Hedgerow (2)");
            // A name that would fit both is nobody's.
            assertThat(more.input("midi:Tansy")).isEmpty();
            assertThat(more.trouble("midi:Tansy")).contains("2 ports have this name; choose one of them");
            assertThat(more.trouble("midi:Fern")).isEmpty();
        }
        PlugBoard.pullOut(right);
        try (MachineDevices fewer = new MachineDevices()) {
            assertThat(fewer.inputs()).contains("midi:Tansy");
        }
    }

    @Test
    void aPortThatAnotherProgramHoldsIsNamedAsSuch() {
        module.refuses = true;
        keys.refuses = true;
        assertThat(devices.output("midi:Yarrow")).isEmpty();
        assertThat(devices.trouble("midi:Yarrow")).contains("in use by another program");
        devices.input("midi:Larkspur").orElseThrow().listen(message -> {});
        assertThat(devices.trouble("midi:Larkspur")).contains("in use by another program");
        module.refuses = false;
        assertThat(devices.output("midi:Yarrow")).isPresent();
        assertThat(devices.trouble("midi:Yarrow")).isEmpty();
    }

    @Test
    void aTroubleIsRememberedWhileItsPortIsThere() {
        module.refuses = true;
        assertThat(devices.output("midi:Yarrow")).isEmpty();
        AtomicInteger changes = new AtomicInteger();
        devices.onChange(changes::incrementAndGet);
        PlugBoard.pullOut(keys);
        await().until(() -> changes.get() == 1);
        assertThat(devices.trouble("midi:Yarrow")).contains("in use by another program");
        PlugBoard.pullOut(module);
        await().until(() -> changes.get() == 2);
        assertThat(devices.trouble("midi:Yarrow")).isEmpty();
    }

    @Test
    void aPortThatFailsIsCountedAndDoesNotStopItsLane() {
        module.fails = true;
        try (OutputQueue lane = new OutputQueue(devices.output("midi:Yarrow").orElseThrow())) {
            lane.offer(0, dibble.midi.ShortMessage.noteOn(0, 60, 90));
            await().until(() -> lane.failed() == 1);
            module.fails = false;
            lane.offer(0, dibble.midi.ShortMessage.noteOff(0, 60, 64));
            await().until(() -> module.heard.size() == 1);
        }
    }

    @Test
    void whoClosesAPortLeavesItOpenForThoseWhoUseIt() {
        OutputPort used = devices.output("midi:Yarrow").orElseThrow();
        OutputPort asking = devices.output("midi:Yarrow").orElseThrow();
        asking.close();
        assertThat(module.open).isTrue();
        used.close();
        assertThat(module.open).isFalse();
    }

    @Test
    void whatIsPluggedInAgainUnderItsNameIsAnotherPort() {
        OutputPort before = devices.output("midi:Yarrow").orElseThrow();
        assertThat(devices.isCurrent("midi:Yarrow", before)).isTrue();
        AtomicInteger changes = new AtomicInteger();
        devices.onChange(changes::incrementAndGet);
        PlugBoard.pullOut(module);
        PlugBoard.plugIn(new Plug("Yarrow", "module", false));
        await().until(() -> changes.get() == 1);
        assertThat(devices.isCurrent("midi:Yarrow", before)).isFalse();
        // The studio asks all places where ports come from at once.
        assertThat(new JoinedDevices(devices).isCurrent("midi:Yarrow", before)).isFalse();
        assertThat(devices.isCurrent(
                        "midi:Yarrow", devices.output("midi:Yarrow").orElseThrow()))
                .isTrue();
    }

    @Test
    void anInputThatAnotherProgramHeldIsOpenWhenItIsTriedAgain() {
        keys.refuses = true;
        InputPort port = devices.input("midi:Larkspur").orElseThrow();
        port.listen(message -> {});
        assertThat(port.isOpen()).isFalse();
        keys.refuses = false;
        port.listen(message -> {});
        assertThat(port.isOpen()).isTrue();
    }

    @Test
    void noMessageCutsIntoASystemExclusiveMessageButTheClock() throws Exception {
        OutputPort port = devices.output("midi:Yarrow").orElseThrow();
        CountDownLatch sending = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        module.whileSending = message -> {
            if ((message[0] & 0xFF) == 0xF0) {
                sending.countDown();
                goOn.await();
            }
        };
        Thread exclusive = new Thread(() -> port.sendExclusive(new byte[] {(byte) 0xF0, 0x7D, (byte) 0xF7}));
        exclusive.start();
        sending.await();
        Thread note = new Thread(() -> port.send(dibble.midi.ShortMessage.noteOn(0, 60, 80), 0));
        note.start();
        port.sendRealTime(RealTime.CLOCK);
        await().until(() -> note.getState() == Thread.State.BLOCKED);
        assertThat(module.heard).hasSize(1);
        goOn.countDown();
        note.join();
        assertThat(module.heard.stream().map(message -> message[0] & 0xFF)).containsExactly(0xF8, 0xF0, 0x90);
        port.close();
    }
}
