package dibble.ports;

import java.util.Optional;

/** Where ports come from. */
public interface Devices {
    /** The input port of this name, if there is one now. */
    Optional<InputPort> input(String name);

    /** Opens the output port of this name, if there is one now. */
    Optional<OutputPort> output(String name);
}
