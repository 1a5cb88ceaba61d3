package dibble.presentation;

import dibble.jack.ServerState;
import dibble.ports.Devices;
import dibble.programs.Cables;
import dibble.programs.OwnPorts;
import dibble.transport.ServerTransport;
import java.util.List;
import java.util.Optional;

/** The ports that we have among other programs, as views show them. */
public interface OtherPrograms {
    /** No access to other applications. */
    OtherPrograms NONE = new OtherPrograms() {
        @Override
        public List<Devices> devices() {
            return List.of();
        }

        @Override
        public ServerTransport transport() {
            return ServerTransport.NONE;
        }

        @Override
        public void giveSound(boolean on) {}

        @Override
        public void opened() {}

        @Override
        public boolean hasNews() {
            return false;
        }

        @Override
        public void pulse(Runnable serverChanged) {}

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

    /** Returns the ports of other programs, or none. */
    List<Devices> devices();

    /** Returns the shared transport of all applications, or one that never moves. */
    ServerTransport transport();

    /** Selects whether the built-in sounds have ports for other applications. */
    void giveSound(boolean on);

    /** Another session is open. */
    void opened();

    /** Returns true if there is something to take in. Any thread. */
    boolean hasNews();

    /**
     * Updates after changes.
     *
     * @param serverChanged runs after a server has appeared, disappeared or been replaced
     */
    void pulse(Runnable serverChanged);

    /** Returns whether there is a server of ports. */
    ServerState server();

    /** The ports that we have there, or would have. */
    OwnPorts ports();

    /** The cables at them; empty where they are not known yet. */
    Optional<Cables.Look> cables();
}
