package dibble.ports;

import java.util.List;
import java.util.Optional;

/**
 * A kind of ports: those of this machine, stand-ins, other applications, and so on. A new kind implements this in a
 * separate package and is registered in the studio's list of devices.
 */
public interface Devices extends AutoCloseable {
    /** Returns the kind, as a short English word for logs. */
    String kind();

    /** Starts looking for ports, if that takes time; before, there are none. */
    default void start() {}

    /** Runs a listener, on any thread, whenever ports have come or gone. */
    void onChange(Runnable listener);

    /** Closes all ports and ends all threads. */
    @Override
    void close();

    /** The input port of this name, if there is one now. */
    Optional<InputPort> input(String name);

    /** Opens the output port of this name, if there is one now. */
    Optional<OutputPort> output(String name);

    /** The names of the input ports that are there now. */
    List<String> inputs();

    /** The names of the output ports that are there now. */
    List<String> outputs();

    /** The device that a port belongs to: ports with one name for both directions are one device. */
    default String device(String port) {
        return port;
    }

    /** Returns true if ports of this name come from here, whether they are there now or not. */
    default boolean owns(String port) {
        return inputs().contains(port) || outputs().contains(port);
    }

    /**
     * Returns true if an opened output port is still the present one of its name: a port that was plugged in again is
     * another.
     */
    boolean isCurrent(String name, OutputPort port);

    /** Why a port that is there could not be opened: another program may hold it. */
    default Optional<String> trouble(String port) {
        return Optional.empty();
    }

    /** Returns true if a port may lead over a serial line, which takes about a thousand messages a second. */
    default boolean isSerial(String port) {
        return false;
    }
}
