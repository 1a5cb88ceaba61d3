package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * The settings to make on the gear before a session sounds as intended, device by device: channels, local control,
 * programs. Built-in instruments need none.
 */
public record SetUpList(List<Device> devices) {
    /**
     * A source or an instrument with its settings.
     *
     * @param port its port
     * @param items never empty
     */
    public record Device(String name, String port, List<Item> items) {}

    /**
     * One thing to set.
     *
     * @param id the same until something else has to be set: then it is to be done again
     * @param text what to do, as a sentence without its full stop
     * @param isSent whether sending all sounds does it
     */
    public record Item(String id, String text, boolean isSent) {}

    /** Returns the settings for the present session. */
    public static SetUpList of(Session session, Performance performance) {
        List<Device> devices = new ArrayList<>();
        for (Source source : session.sources()) {
            add(devices, source.name(), source.port(), items(source));
        }
        Routing routing = session.routing(performance);
        for (Instrument instrument : session.instruments()) {
            if (!instrument.builtIn()) {
                add(
                        devices,
                        instrument.name(),
                        instrument.port(),
                        items(instrument, routing, new SheetFormatter(session)));
            }
        }
        return new SetUpList(devices);
    }

    /** The ids of all that sending all sounds does. */
    public List<String> sent() {
        return sent(port -> true);
    }

    /** The same for sounds that are sent on some ports. */
    public List<String> sent(Predicate<String> ports) {
        return devices.stream()
                .filter(device -> ports.test(device.port()))
                .flatMap(device -> device.items().stream())
                .filter(Item::isSent)
                .map(Item::id)
                .toList();
    }

    /** Returns the number of settings. */
    public int count() {
        return devices.stream().mapToInt(device -> device.items().size()).sum();
    }

    private static void add(List<Device> to, String name, String port, List<Item> items) {
        if (!items.isEmpty()) {
            to.add(new Device(name, port, items));
        }
    }

    private static List<Item> items(Source source) {
        List<Item> items = new ArrayList<>();
        if (source.kind() == SourceKind.FILE) {
            return items;
        }
        ChannelSet channels = source.sends().orElse(source.listen());
        if (!channels.isAll() && !channels.isEmpty()) {
            String numbers = channels.numbers().stream().map(String::valueOf).collect(Collectors.joining(" "));
            items.add(new Item(
                    "sends " + source.id() + " " + numbers,
                    say("set-up.sends-on", channels.numbers().size() == 1, numbers),
                    false));
        }
        if (source.ownInstrument() != null) {
            items.add(new Item(
                    "local " + source.id() + " " + source.localControl(),
                    say("set-up.local-control", source.localControl()),
                    false));
        }
        return items;
    }

    private static List<Item> items(Instrument instrument, Routing routing, SheetFormatter words) {
        List<Item> items = new ArrayList<>();
        if (instrument.receives() == Receives.BY_CHANNEL) {
            items.add(new Item("multi " + instrument.id(), say("set-up.multi-mode"), false));
        }
        for (Part part : instrument.parts()) {
            String ref = instrument.ref(part).toString();
            routing.channels().channel(instrument.ref(part)).ifPresent(channel -> {
                if (instrument.receives() != Receives.ALL) {
                    items.add(new Item(
                            "channel " + ref + " " + channel, say("set-up.receives-on", part.name(), channel), false));
                }
            });
            String sound = words.sound(instrument.ref(part), part.sound());
            if (!sound.isEmpty()) {
                items.add(new Item("sound " + ref + " " + sound, say("set-up.sound", part.name(), sound), true));
            }
        }
        return items;
    }
}
