package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;

/**
 * The state of a track at a position, to begin there: the last program with its bank, controllers, bend and pressure of
 * each channel, and values of registered and non-registered parameters, each after its selection, in the order of
 * arrival. Notes are not part of it. Allocates only for parameters and for the first message of a channel. Confined to
 * one thread.
 */
public final class Chase {
    private static final int RESET_CONTROLLERS = 121;
    private static final int FIRST_MODE = 120;
    private static final int BANK_MSB = 0;
    private static final int BANK_LSB = 32;
    private static final int EXPRESSION = 11;

    /** From a coarse half's number to that of its fine half. */
    private static final int FINE = 32;

    /** Indexes of messages other than controllers, behind those. */
    private static final int BEND = 128;

    private static final int PRESSURE = 129;
    private static final int PROGRAM = 130;
    private static final int PLACES = 131;
    private static final int NONE = -1;

    /** The state of a channel. */
    private static final class Held {
        /** By place: the last message, or 0. */
        final int[] last = new int[PLACES];

        /** By place: the number of that message in the order of all. */
        final long[] number = new long[PLACES];

        /** The last bank select messages, and those that the program was chosen with. */
        final int[] bank = new int[2];

        final int[] bankOfProgram = new int[2];
    }

    /** The data of a parameter: coarse and fine value, and steps up and down since. */
    private record Data(int coarse, int fine, List<Integer> steps, long number) {
        Data with(int message, long now) {
            return switch (ShortMessage.data1(message)) {
                case Parameter.DATA -> new Data(message, 0, List.of(), now);
                case Parameter.DATA_FINE -> new Data(coarse, message, List.of(), now);
                default -> {
                    List<Integer> more = new ArrayList<>(steps);
                    more.add(message);
                    yield new Data(coarse, fine, more, now);
                }
            };
        }

        boolean isSame(Data other) {
            return other != null
                    && coarse == other.coarse
                    && fine == other.fine
                    && steps.isEmpty()
                    && other.steps.isEmpty();
        }

        void addTo(List<Integer> messages) {
            if (coarse != 0) {
                messages.add(coarse);
            }
            if (fine != 0) {
                messages.add(fine);
            }
            messages.addAll(steps);
        }
    }

    private final ControllerLanes lanes;
    private final Held[] channels = new Held[16];
    private final Map<Integer, Data> parameters;
    private long count;

    /** Nothing has been said yet. */
    public Chase() {
        lanes = new ControllerLanes();
        parameters = new TreeMap<>();
    }

    /** The same as another, and its own from here on. */
    public Chase(Chase other) {
        lanes = new ControllerLanes(other.lanes);
        parameters = new TreeMap<>(other.parameters);
        count = other.count;
        for (int channel = 0; channel < 16; channel++) {
            Held held = other.channels[channel];
            if (held != null) {
                Held copy = held(channel);
                System.arraycopy(held.last, 0, copy.last, 0, PLACES);
                System.arraycopy(held.number, 0, copy.number, 0, PLACES);
                System.arraycopy(held.bank, 0, copy.bank, 0, 2);
                System.arraycopy(held.bankOfProgram, 0, copy.bankOfProgram, 0, 2);
            }
        }
    }

    private Held held(int channel) {
        if (channels[channel] == null) {
            channels[channel] = new Held();
        }
        return channels[channel];
    }

    /** Takes the next message. */
    public void add(int message) {
        int kind = ShortMessage.kind(message);
        int number = ShortMessage.data1(message);
        int channel = ShortMessage.channel(message);
        switch (kind) {
            case ShortMessage.PITCH_BEND -> put(channel, BEND, message);
            case ShortMessage.CHANNEL_PRESSURE -> put(channel, PRESSURE, message);
            case ShortMessage.PROGRAM_CHANGE -> {
                put(channel, PROGRAM, message);
                System.arraycopy(held(channel).bank, 0, held(channel).bankOfProgram, 0, 2);
            }
            case ShortMessage.CONTROLLER -> {
                if (number == BANK_MSB || number == BANK_LSB) {
                    held(channel).bank[number == BANK_MSB ? 0 : 1] = message;
                } else if (number == RESET_CONTROLLERS) {
                    reset(channel);
                } else if (number < FIRST_MODE) {
                    addController(channel, number, message);
                }
            }
            default -> {
                // Notes and their pressure do not hold over.
            }
        }
    }

    private void addController(int channel, int number, int message) {
        int lane = lanes.lane(message);
        if (ControllerLanes.isParameter(lane)) {
            Data before = parameters.getOrDefault(lane, new Data(0, 0, List.of(), 0));
            parameters.put(lane, before.with(message, ++count));
        } else if (lane != ControllerLanes.NONE) {
            put(channel, number, message);
            if (isCoarse(number)) {
                // It begins a new value of 14 bits, whose fine half is 0 until the next one comes.
                held(channel).last[number + FINE] = 0;
            }
        }
    }

    /** Returns true for the coarse half of a 14-bit controller, other than bank select and parameter data. */
    private static boolean isCoarse(int place) {
        return place > BANK_MSB && place < FINE && place != Parameter.DATA;
    }

    private void put(int channel, int place, int message) {
        Held held = held(channel);
        held.last[place] = message;
        held.number[place] = ++count;
    }

    /** Applies a reset of all controllers as recommended (RP-015); only values that were ever set. */
    private void reset(int channel) {
        lanes.deselect(channel);
        Held held = held(channel);
        for (int place = 0; place < PROGRAM; place++) {
            int last = held.last[place];
            if (last != 0 && place <= NeutralValues.FIRST_PEDAL + 3 && NeutralValues.moves(last)
                    || place == BEND
                    || place == PRESSURE) {
                if (last != 0) {
                    put(channel, place, NeutralValues.of(last));
                }
            } else if (last != 0 && place == EXPRESSION) {
                put(channel, place, ShortMessage.controller(channel, EXPRESSION, 127));
            }
        }
    }

    /** Returns the messages of the present state. */
    public List<Integer> messages() {
        return new Chase().wayTo(this);
    }

    /** Returns the state of a track before a tick. */
    public static Chase before(MidiTrack track, long tick) {
        Chase chase = new Chase();
        for (int i = 0; i < track.size() && track.tick(i) < tick; i++) {
            if (track.isChannelMessage(i)) {
                chase.add(track.message(i));
            }
        }
        return chase;
    }

    /** The pedals, wheels and pressure of it alone. */
    public Chase ofRests() {
        Chase rests = new Chase();
        for (Held held : channels) {
            for (int place = 0; held != null && place < PROGRAM; place++) {
                if (held.last[place] != 0 && NeutralValues.moves(held.last[place])) {
                    rests.add(held.last[place]);
                }
            }
        }
        return rests;
    }

    /** Returns the messages that reset pedals, wheels and pressure to neutral. */
    public List<Integer> rests() {
        List<Integer> rests = new ArrayList<>();
        for (Held held : channels) {
            for (int place = 0; held != null && place < PROGRAM; place++) {
                int last = held.last[place];
                if (last != 0 && NeutralValues.moves(last) && !NeutralValues.isAtRest(last)) {
                    rests.add(NeutralValues.of(last));
                }
            }
        }
        return rests;
    }

    /** A message, or the messages of a parameter, in the order in which they came. */
    private record Item(long number, int message, int parameter, Data data) {}

    /**
     * Returns the messages from this state to another: resets of values that the other does not have, then different
     * values.
     */
    public List<Integer> wayTo(Chase there) {
        List<Integer> way = new ArrayList<>();
        List<Item> items = new ArrayList<>();
        for (int channel = 0; channel < 16; channel++) {
            for (int place = 0; place < PLACES; place++) {
                int now = last(channel, place);
                int then = there.last(channel, place);
                if (then != 0 && isCoarse(place)) {
                    addPair(channel, place, there, items);
                } else if (isFineOfPair(channel, place, there)) {
                    continue;
                } else if (then == 0 && now != 0 && NeutralValues.moves(now) && !NeutralValues.isAtRest(now)) {
                    way.add(NeutralValues.of(now));
                } else if (then != 0 && (now != then || place == PROGRAM && !isSameBank(channel, there))) {
                    items.add(new Item(there.channels[channel].number[place], then, NONE, null));
                }
            }
        }
        there.parameters.forEach((lane, data) -> {
            if (!data.isSame(parameters.get(lane))) {
                items.add(new Item(data.number, 0, lane, data));
            }
        });
        items.sort(Comparator.comparingLong(Item::number));
        int[] selected = new int[16];
        int[][] banks = new int[16][];
        for (int channel = 0; channel < 16; channel++) {
            selected[channel] = lanes.selected(channel);
            banks[channel] = channels[channel] == null ? new int[2] : channels[channel].bank.clone();
        }
        for (Item item : items) {
            if (item.data != null) {
                select(
                        ControllerLanes.channel(item.parameter),
                        ControllerLanes.parameter(item.parameter),
                        selected,
                        way);
                item.data.addTo(way);
            } else {
                int channel = ShortMessage.channel(item.message);
                if (ShortMessage.kind(item.message) == ShortMessage.PROGRAM_CHANGE) {
                    putBank(there.channels[channel].bankOfProgram, banks[channel], way);
                }
                way.add(item.message);
            }
        }
        for (int channel = 0; channel < 16; channel++) {
            if (there.channels[channel] != null) {
                putBank(there.channels[channel].bank, banks[channel], way);
            }
            if (there.lanes.selected(channel) != ControllerLanes.NONE) {
                select(channel, there.lanes.selected(channel), selected, way);
            }
        }
        return way;
    }

    /** Adds both halves where one differs: the coarse one alone would put the fine one to 0. */
    private void addPair(int channel, int coarse, Chase there, List<Item> items) {
        int fine = there.last(channel, coarse + FINE);
        boolean differs = last(channel, coarse) != there.last(channel, coarse) || last(channel, coarse + FINE) != fine;
        if (differs) {
            long number = there.channels[channel].number[coarse];
            items.add(new Item(number, there.last(channel, coarse), NONE, null));
            if (fine != 0) {
                items.add(new Item(number, fine, NONE, null));
            }
        }
    }

    private static boolean isFineOfPair(int channel, int place, Chase there) {
        return place >= FINE && isCoarse(place - FINE) && there.last(channel, place - FINE) != 0;
    }

    private int last(int channel, int place) {
        return channels[channel] == null ? 0 : channels[channel].last[place];
    }

    private boolean isSameBank(int channel, Chase there) {
        int[] here = channels[channel].bankOfProgram;
        int[] other = there.channels[channel].bankOfProgram;
        return Objects.equals(here[0], other[0]) && Objects.equals(here[1], other[1]);
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

    /**
     * Returns the state of a channel before the first event, for everything that a clip changes: the defaults of
     * General MIDI, and the sound of the part.
     *
     * @param clip the clip, on one channel or several
     * @param sound the messages of the part's sound, on the channel of the clip; empty for several channels
     */
    public static Chase start(MidiTrack clip, int[] sound) {
        Chase moved = before(clip, Long.MAX_VALUE);
        Chase start = new Chase();
        moved.parameters.forEach((lane, data) -> {
            int channel = ControllerLanes.channel(lane);
            int value = ControllerLanes.valueAtFirst(lane);
            if (value != NONE) {
                for (int message : ControllerLanes.selecting(channel, ControllerLanes.parameter(lane))) {
                    start.add(message);
                }
                start.add(ShortMessage.controller(channel, Parameter.DATA, value));
                start.add(ShortMessage.controller(channel, Parameter.DATA_FINE, 0));
                start.lanes.deselect(channel);
            }
        });
        for (Held held : moved.channels) {
            for (int place = 0; held != null && place < PROGRAM; place++) {
                int first = held.last[place] == 0 ? 0 : NeutralValues.atFirst(held.last[place]);
                if (first != 0) {
                    start.add(first);
                }
            }
        }
        for (int message : sound) {
            if (moved.touches(message)) {
                start.add(message);
            }
        }
        return start;
    }

    private boolean touches(int message) {
        Held held = channels[ShortMessage.channel(message)];
        if (held == null) {
            return false;
        }
        int number = ShortMessage.data1(message);
        boolean program = ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE;
        boolean bank = !program && (number == BANK_MSB || number == BANK_LSB);
        return program || bank
                ? held.last[PROGRAM] != 0 || held.bank[0] != 0 || held.bank[1] != 0
                : held.last[number] != 0;
    }
}
