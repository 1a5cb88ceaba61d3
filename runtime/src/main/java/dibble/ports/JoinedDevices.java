package dibble.ports;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Devices from several places: the first with a port of a name provides it. */
public final class JoinedDevices implements Devices {
    private final List<Devices> places;

    /** @param places the devices, in the order of precedence */
    public JoinedDevices(Devices... places) {
        this.places = List.of(places);
    }

    /** @param places the devices, in the order of precedence */
    public JoinedDevices(List<Devices> places) {
        this.places = List.copyOf(places);
    }

    @Override
    public String kind() {
        return "joined";
    }

    @Override
    public void start() {
        places.forEach(Devices::start);
    }

    @Override
    public void onChange(Runnable listener) {
        places.forEach(place -> place.onChange(listener));
    }

    @Override
    public void close() {
        places.forEach(Devices::close);
    }

    @Override
    public Optional<InputPort> input(String name) {
        return place(name).flatMap(place -> place.input(name));
    }

    @Override
    public Optional<OutputPort> output(String name) {
        return place(name).flatMap(place -> place.output(name));
    }

    @Override
    public List<String> inputs() {
        return all(places.stream().map(Devices::inputs));
    }

    @Override
    public List<String> outputs() {
        return all(places.stream().map(Devices::outputs));
    }

    @Override
    public boolean isCurrent(String name, OutputPort port) {
        return place(name).map(place -> place.isCurrent(name, port)).orElse(false);
    }

    @Override
    public Optional<String> trouble(String name) {
        return place(name).flatMap(place -> place.trouble(name));
    }

    @Override
    public boolean isSerial(String name) {
        return place(name).map(place -> place.isSerial(name)).orElse(false);
    }

    @Override
    public String device(String name) {
        return place(name).map(place -> place.device(name)).orElse(name);
    }

    private Optional<Devices> place(String name) {
        return places.stream().filter(place -> place.owns(name)).findFirst();
    }

    private static List<String> all(Stream<List<String>> lists) {
        return lists.flatMap(List::stream).toList();
    }
}
