package dibble.standins;

import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/** The stand-ins: every port whose name begins with {@link #PREFIX} is there, made when it is first asked for. */
public final class StandIns implements Devices {
    /** How the names of stand-ins' ports begin. */
    public static final String PREFIX = "stand-in:";

    private final Map<String, StandInKeyboard> keyboards = new ConcurrentHashMap<>();
    private final Function<String, OutputPort> instruments;

    /** @param instruments opens the built-in instrument of a port's name */
    public StandIns(Function<String, OutputPort> instruments) {
        this.instruments = instruments;
    }

    @Override
    public Optional<InputPort> input(String name) {
        return keyboard(name).map(InputPort.class::cast);
    }

    /** The keyboard on a port; empty where the port is no stand-in's. */
    public Optional<StandInKeyboard> keyboard(String name) {
        return name.startsWith(PREFIX)
                ? Optional.of(keyboards.computeIfAbsent(name, StandInKeyboard::new))
                : Optional.empty();
    }

    @Override
    public Optional<OutputPort> output(String name) {
        return name.startsWith(PREFIX) ? Optional.of(instruments.apply(name)) : Optional.empty();
    }
}
