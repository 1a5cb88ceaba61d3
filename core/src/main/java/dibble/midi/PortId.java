package dibble.midi;

/**
 * The identity of a port, by kind. Session files have it as text; {@link #parse} and {@link #text} are the only place that
 * knows how each kind is spelled.
 */
public sealed interface PortId {
    /** A port of a stand-in, which ships with the application. @param id unique among stand-ins */
    record StandIn(String id) implements PortId {
        private static final String PREFIX = "stand-in:";

        @Override
        public String text() {
            return PREFIX + id;
        }
    }

    /**
     * A MIDI port of the machine.
     *
     * @param name the name that the system has for it; if several have one name, with description, vendor and ordinal
     */
    record Machine(String name) implements PortId {
        private static final String PREFIX = "midi:";

        @Override
        public String text() {
            return PREFIX + name;
        }
    }

    /** A port of ours for another program on the machine. @param id the id of the gear that the program is */
    record Program(String id) implements PortId {
        private static final String PREFIX = "program:";

        @Override
        public String text() {
            return PREFIX + id;
        }
    }

    /** The transport that programs on one server share. */
    record SharedTransport() implements PortId {
        private static final String NAME = "program-transport";

        @Override
        public String text() {
            return NAME;
        }
    }

    /** A port of a kind that this version does not know. */
    record Unknown(String text) implements PortId {}

    /** Returns the text by which files name the port. */
    String text();

    /** Returns the identity of a port named in a file. */
    static PortId parse(String text) {
        if (text.startsWith(StandIn.PREFIX)) {
            return new StandIn(text.substring(StandIn.PREFIX.length()));
        }
        if (text.startsWith(Machine.PREFIX)) {
            return new Machine(text.substring(Machine.PREFIX.length()));
        }
        if (text.startsWith(Program.PREFIX)) {
            return new Program(text.substring(Program.PREFIX.length()));
        }
        return text.equals(SharedTransport.NAME) ? new SharedTransport() : new Unknown(text);
    }

    /** Returns the text of a stand-in's port. */
    static String standIn(String id) {
        return new StandIn(id).text();
    }

    static boolean isStandIn(String text) {
        return parse(text) instanceof StandIn;
    }

    static boolean isMachine(String text) {
        return parse(text) instanceof Machine;
    }

    static boolean isProgram(String text) {
        return parse(text) instanceof Program;
    }
}
