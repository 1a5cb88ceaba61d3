package dibble.standins;

import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/** The stand-ins: every port whose name begins with {@link #PREFIX} is there, made when it is first asked for. */
public final class StandIns implements Devices {
    /** How the names of stand-ins' ports begin. */
    public static final String PREFIX = "stand-in:";

    private final Map<String, StandInKeyboard> keyboards = new ConcurrentHashMap<>();
    private final Set<String> opened = ConcurrentHashMap.newKeySet();
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
        if (!name.startsWith(PREFIX)) {
            return Optional.empty();
        }
        opened.add(name);
        return Optional.of(instruments.apply(name));
    }

    @Override
    public List<String> inputs() {
        return keyboards.keySet().stream().sorted().toList();
    }

    @Override
    public List<String> outputs() {
        return opened.stream().sorted().toList();
    }
}
