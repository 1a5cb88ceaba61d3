package dibble.desktop.ui;

import dibble.jack.ServerState;
import dibble.programs.Cables;
import dibble.programs.OwnPorts;
import java.util.Optional;

/** The ports that we have among other programs, as views show them. */
public interface OtherPrograms {
    /** Where nobody looks for other programs. */
    OtherPrograms NONE = new OtherPrograms() {
        @Override
        public ServerState server() {
            return ServerState.NOT_ASKED;
        }

        @Override
        public OwnPorts ports() {
            return OwnPorts.NONE;
        }

        @Override
        public Optional<Cables.Look> cables() {
            return Optional.empty();
        }
    };

    /** Whether there is a server of ports. */
    ServerState server();

    /** The ports that we have there, or would have. */
    OwnPorts ports();

    /** The cables at them; empty where they are not known yet. */
    Optional<Cables.Look> cables();
}
