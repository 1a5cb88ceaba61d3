package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.Rest;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What holds at a place, so that one can begin there: the last program with the bank that it was chosen from,
 * controllers, bend and pressure of each channel, and the values of registered and non-registered parameters, each
 * after the parameter is selected, in the order in which they came. Notes do not hold over. Belongs to one thread.
 */
public final class Chase {
    private static final int RESET_CONTROLLERS = 121;
    private static final int BANK_MSB = 0;
    private static final int BANK_LSB = 32;
    private static final int EXPRESSION = 11;

    private final ControllerLanes lanes = new ControllerLanes();

    /** By lane: its last message; several for a parameter, whose coarse and fine value are apart. */
    private final Map<Integer, List<Integer>> last = new LinkedHashMap<>();

    /** By channel: the last bank select messages, and those that the last program was chosen with. */
    private final int[][] bank = new int[16][2];

    private final int[][] bankOfProgram = new int[16][2];

    /** Takes the next message. */
    public void add(int message) {
        int channel = ShortMessage.channel(message);
        boolean controller = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
        int number = ShortMessage.data1(message);
        if (controller && number == RESET_CONTROLLERS) {
            reset(channel);
            return;
        }
        if (controller && (number == BANK_MSB || number == BANK_LSB)) {
            bank[channel][number == BANK_MSB ? 0 : 1] = message;
            return;
        }
        int lane = lanes.lane(message);
        if (lane == ControllerLanes.NONE) {
            return;
        }
        if (ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE) {
            bankOfProgram[channel] = bank[channel].clone();
        }
        // Taken out first, so that the order is that of the last of each.
        List<Integer> before = last.remove(lane);
        last.put(lane, ControllerLanes.isParameter(lane) ? data(before, message) : List.of(message));
    }

    /** A parameter's messages: a coarse value makes all before it meaningless, a fine one the fine ones before it. */
    private static List<Integer> data(List<Integer> before, int message) {
        List<Integer> data = new ArrayList<>();
        int number = ShortMessage.data1(message);
        if (before != null && number != ControllerLanes.DATA_MSB) {
            before.stream()
                    .filter(other ->
                            number != ControllerLanes.DATA_LSB || ShortMessage.data1(other) == ControllerLanes.DATA_MSB)
                    .forEach(data::add);
        }
        data.add(message);
        return data;
    }

    /** What a reset of all controllers puts to rest, as the standard recommends (RP-015). */
    private void reset(int channel) {
        lanes.deselect(channel);
        List<Integer> rests = new ArrayList<>(List.of(
                ShortMessage.controller(channel, 1, 0),
                ShortMessage.controller(channel, EXPRESSION, 127),
                Rest.of(ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, 0)),
                ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, 0, 0)));
        for (int pedal = Rest.FIRST_PEDAL; pedal < Rest.FIRST_PEDAL + 4; pedal++) {
            rests.add(ShortMessage.controller(channel, pedal, 0));
        }
        rests.forEach(message -> {
            // What was never moved need not be put back.
            if (last.remove(lanes.lane(message)) != null) {
                last.put(lanes.lane(message), List.of(message));
            }
        });
    }

    /** What holds now. */
    public List<Integer> messages() {
        List<Integer> messages = new ArrayList<>();
        int[] selected = new int[16];
        Arrays.fill(selected, ControllerLanes.NONE);
        int[][] banks = new int[16][2];
        last.forEach((lane, data) -> {
            if (ControllerLanes.isParameter(lane)) {
                int channel = ControllerLanes.channel(lane);
                select(channel, ControllerLanes.parameter(lane), selected, messages);
            } else if (ShortMessage.kind(data.get(0)) == ShortMessage.PROGRAM_CHANGE) {
                int channel = ShortMessage.channel(data.get(0));
                putBank(bankOfProgram[channel], banks[channel], messages);
            }
            messages.addAll(data);
        });
        for (int channel = 0; channel < 16; channel++) {
            putBank(bank[channel], banks[channel], messages);
            if (lanes.selected(channel) != ControllerLanes.NONE) {
                select(channel, lanes.selected(channel), selected, messages);
            }
        }
        return messages;
    }

    private static void select(int channel, int parameter, int[] selected, List<Integer> messages) {
        if (selected[channel] != parameter) {
            selected[channel] = parameter;
            for (int message : ControllerLanes.selecting(channel, parameter)) {
                messages.add(message);
            }
        }
    }

    private static void putBank(int[] wanted, int[] put, List<Integer> messages) {
        for (int i = 0; i < 2; i++) {
            if (wanted[i] != 0 && wanted[i] != put[i]) {
                put[i] = wanted[i];
                messages.add(wanted[i]);
            }
        }
    }

    /** What holds in a track before a tick. */
    public static Chase before(MidiTrack track, long tick) {
        Chase chase = new Chase();
        for (int i = 0; i < track.size() && track.tick(i) < tick; i++) {
            if (track.isChannelMessage(i)) {
                chase.add(track.message(i));
            }
        }
        return chase;
    }

    /**
     * The way from what holds at one place to what holds at another: what the one has and the other has not goes to its
     * rest, where it has one, and then comes what is different there.
     *
     * @param there what holds at the other place
     */
    public List<Integer> wayTo(Chase there) {
        List<Integer> way = new ArrayList<>();
        last.forEach((lane, data) -> {
            int message = data.get(data.size() - 1);
            if (!there.last.containsKey(lane) && Rest.moves(message) && !Rest.isAtRest(message)) {
                way.add(Rest.of(message));
            }
        });
        there.messages().stream().filter(message -> !holds(message)).forEach(way::add);
        return way;
    }

    /** Whether a message would change nothing; parameters are always said anew, since their order matters. */
    private boolean holds(int message) {
        int number = ShortMessage.data1(message);
        if (ShortMessage.kind(message) == ShortMessage.CONTROLLER
                && (number == BANK_MSB
                        || number == BANK_LSB
                        || number >= 96 && number <= ControllerLanes.RPN_MSB
                        || ControllerLanes.isData(message))) {
            return false;
        }
        List<Integer> now = last.get(new ControllerLanes().lane(message));
        return now != null && now.get(0) == message && ShortMessage.kind(message) != ShortMessage.PROGRAM_CHANGE;
    }
}
