package dibble.routing;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Pending resets of pedals and wheels, of voices and of sends, against maps that say the same plainly. */
class PendingResetsTest {
    private static final int VOICES = 4;
    private static final int PORTS = 3;
    private static final int SENDS = 5;
    private static final int[] CHANNELS = {0, 1, 15};
    private static final int[] PLACES = {0, 1, 15};

    private record Owed(int voice, int channel, int destination, int kind) {}

    private record Sent(int slot, int destination) {}

    private final PendingResets debts = new PendingResets();
    private final SendStates sends = new SendStates(debts);
    private final Map<Owed, Integer> owed = new HashMap<>();
    private final Map<Sent, Integer> sent = new HashMap<>();
    private final Map<Sent, Boolean> moved = new HashMap<>();
    private final int[] last = new int[SENDS];
    private final int[] driver = new int[SENDS];
    private final int[] held = new int[SENDS];
    private int voices;
    private int ports;
    private int slots;
    private Random random;

    /** The kind of debt that a send makes: it stays the same for as long as the send is there. */
    private static int kindOf(int slot) {
        return new int[] {
                    PendingResets.BEND,
                    PendingResets.FIRST_PEDAL,
                    PendingResets.FIRST_PEDAL + 2,
                    PendingResets.KINDS - 1,
                    PendingResets.FIRST_PEDAL
                }
                [slot];
    }

    private int anyDestination() {
        return random.nextInt(ports) * 16 + PLACES[random.nextInt(PLACES.length)];
    }

    private void grow() {
        voices = Math.max(voices, 1 + random.nextInt(VOICES));
        ports = Math.max(ports, 1 + random.nextInt(PORTS));
        int more = Math.max(slots, 1 + random.nextInt(SENDS));
        Arrays.fill(last, slots, more, SendStates.NONE);
        Arrays.fill(driver, slots, more, SendStates.NONE);
        Arrays.fill(held, slots, more, SendStates.NONE);
        slots = more;
        if (random.nextBoolean()) {
            debts.openVoices(voices);
            debts.openPorts(ports);
        } else {
            debts.openPorts(ports);
            debts.openVoices(voices);
        }
        sends.open(slots, ports);
    }

    private void step() {
        int voice = random.nextInt(voices);
        int channel = CHANNELS[random.nextInt(CHANNELS.length)];
        int destination = anyDestination();
        int kind = random.nextInt(PendingResets.KINDS);
        int slot = random.nextInt(slots);
        int instrument = random.nextInt(200);
        switch (random.nextInt(16)) {
            case 0 -> grow();
            case 1, 2, 3, 4 -> {
                debts.begin(voice, channel, destination, kind, instrument);
                owed.put(new Owed(voice, channel, destination, kind), instrument);
            }
            case 5, 6 -> {
                debts.end(voice, channel, destination, kind);
                owed.remove(new Owed(voice, channel, destination, kind));
            }
            case 7, 8, 9 -> {
                sends.begin(slot, destination, kindOf(slot), instrument);
                sent.put(new Sent(slot, destination), instrument);
            }
            case 10 -> {
                sends.end(slot, destination, kindOf(slot));
                sent.remove(new Sent(slot, destination));
            }
            case 11 -> {
                sends.put(slot, instrument, voice);
                last[slot] = instrument;
                driver[slot] = voice;
            }
            case 12 -> {
                sends.hold(slot, destination << 7 | 60);
                held[slot] = destination << 7 | 60;
            }
            case 13 -> {
                boolean moves = random.nextBoolean();
                if (moves) {
                    sends.move(slot, destination);
                } else {
                    sends.unmove(slot, destination);
                }
                moved.put(new Sent(slot, destination), moves);
            }
            case 14 -> forgetPort(destination / 16);
            default -> {
                if (random.nextInt(4) == 0) {
                    forgetAll();
                } else {
                    sends.forgetLast(slot);
                    last[slot] = SendStates.NONE;
                }
            }
        }
    }

    private void forgetPort(int port) {
        debts.forgetPort(port);
        sends.forgetPort(port);
        owed.keySet().removeIf(debt -> debt.destination / 16 == port);
        for (int slot = 0; slot < slots; slot++) {
            int number = slot;
            boolean any = held[slot] != SendStates.NONE && held[slot] >>> 11 == port;
            if (any) {
                held[slot] = SendStates.NONE;
            }
            any |= sent.keySet().removeIf(one -> one.slot == number && one.destination / 16 == port);
            any |= moved.entrySet()
                    .removeIf(one ->
                            one.getKey().slot == number && one.getKey().destination / 16 == port && one.getValue());
            if (any) {
                last[slot] = SendStates.NONE;
            }
        }
    }

    private void forgetAll() {
        debts.forgetAll();
        sends.forgetDebts();
        owed.clear();
        for (int slot = 0; slot < slots; slot++) {
            int number = slot;
            boolean any = held[slot] != SendStates.NONE;
            held[slot] = SendStates.NONE;
            any |= sent.keySet().removeIf(one -> one.slot == number);
            if (any) {
                last[slot] = SendStates.NONE;
            }
        }
    }

    private void assertSame() {
        assertThat(debts.count()).isEqualTo(owed.size());
        assertThat(sends.debtCount()).isEqualTo(sent.size());
        assertThat(sends.count()).isEqualTo(slots);
        for (int port = 0; port < ports; port++) {
            for (int place : PLACES) {
                assertSame(port * 16 + place);
            }
        }
        for (int slot = 0; slot < slots; slot++) {
            assertThat(sends.last(slot)).isEqualTo(last[slot]);
            assertThat(sends.driver(slot)).isEqualTo(driver[slot]);
            assertThat(sends.held(slot)).isEqualTo(held[slot]);
        }
        for (int voice = 0; voice < voices; voice++) {
            for (int channel : CHANNELS) {
                int number = voice;
                assertThat(debts.owesAnywhere(voice, channel))
                        .isEqualTo(owed.keySet().stream()
                                .anyMatch(debt -> debt.voice == number && debt.channel == channel));
            }
        }
    }

    private void assertSame(int destination) {
        int[] owners = new int[PendingResets.KINDS];
        for (int voice = 0; voice < voices; voice++) {
            for (int channel : CHANNELS) {
                boolean anyPedal = false;
                for (int kind = 0; kind < PendingResets.KINDS; kind++) {
                    Integer instrument = owed.get(new Owed(voice, channel, destination, kind));
                    assertThat(debts.owes(voice, channel, destination, kind)).isEqualTo(instrument != null);
                    if (instrument != null) {
                        assertThat(debts.instrument(voice, channel, destination, kind))
                                .isEqualTo(instrument);
                        owners[kind]++;
                        anyPedal |= kind >= PendingResets.FIRST_PEDAL;
                    }
                }
                assertThat(debts.owesPedal(voice, channel, destination)).isEqualTo(anyPedal);
            }
        }
        for (int slot = 0; slot < slots; slot++) {
            Integer instrument = sent.get(new Sent(slot, destination));
            for (int kind = 0; kind < PendingResets.KINDS; kind++) {
                assertThat(sends.owes(slot, destination, kind)).isEqualTo(instrument != null && kind == kindOf(slot));
            }
            if (instrument != null) {
                assertThat(sends.instrument(slot, destination)).isEqualTo(instrument);
                owners[kindOf(slot)]++;
            }
            assertThat(sends.moved(slot, destination))
                    .isEqualTo(moved.getOrDefault(new Sent(slot, destination), false));
        }
        for (int kind = PendingResets.FIRST_PEDAL; kind < PendingResets.KINDS; kind++) {
            assertThat(debts.pedalOwners(destination, kind)).isEqualTo(owners[kind]);
        }
    }

    @Property(tries = 60)
    void owesWhatThePlainMapsOwe(@ForAll long seed) {
        PendingResetsTest run = new PendingResetsTest();
        run.random = new Random(seed);
        run.grow();
        for (int i = 0; i < 120; i++) {
            run.step();
            if (i % 4 == 0) {
                run.assertSame();
            }
        }
    }

    @Test
    void everyKindIsPaidByTheMessageThatPutsItToRest() {
        for (int kind = 0; kind < PendingResets.KINDS; kind++) {
            int payment = PendingResets.payment(kind);
            assertThat(PendingResets.kind(payment)).isEqualTo(kind);
            assertThat(NeutralValues.isAtRest(payment)).isTrue();
            assertThat(ShortMessage.channel(payment)).isZero();
            assertThat(PendingResets.isPedalUp(payment)).isEqualTo(kind >= PendingResets.FIRST_PEDAL);
        }
        assertThat(PendingResets.isPedalUp(ShortMessage.controller(3, 64, 127))).isFalse();
        assertThat(PendingResets.kind(ShortMessage.controller(0, 63, 1))).isEqualTo(PendingResets.NO_KIND);
        assertThat(PendingResets.kind(ShortMessage.controller(0, 70, 1))).isEqualTo(PendingResets.NO_KIND);
        assertThat(PendingResets.kind(ShortMessage.noteOn(0, 60, 1))).isEqualTo(PendingResets.NO_KIND);
    }
}
