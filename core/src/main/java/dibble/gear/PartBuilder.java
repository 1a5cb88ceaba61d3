package dibble.gear;

import dibble.midi.Range;
import java.util.List;
import java.util.Map;

/** Makes a part that differs from another in some values. */
public final class PartBuilder {
    private String id;
    private String name;
    private Integer channel;
    private List<Integer> bank;
    private Integer program;
    private Integer volume;
    private Integer pan;
    private Range keys;
    private boolean drums;
    private Map<Integer, String> noteNames;
    private Map<Integer, String> keyswitches;
    private int output;
    private int colour;
    private Extras extras;

    PartBuilder(Part from) {
        id = from.id();
        name = from.name();
        channel = from.channel();
        bank = from.bank();
        program = from.program();
        volume = from.volume();
        pan = from.pan();
        keys = from.keys();
        drums = from.drums();
        noteNames = from.noteNames();
        keyswitches = from.keyswitches();
        output = from.output();
        colour = from.colour();
        extras = from.extras();
    }

    public PartBuilder id(String value) {
        id = value;
        return this;
    }

    public PartBuilder name(String value) {
        name = value;
        return this;
    }

    public PartBuilder channel(Integer value) {
        channel = value;
        return this;
    }

    public PartBuilder bank(List<Integer> value) {
        bank = value;
        return this;
    }

    public PartBuilder program(Integer value) {
        program = value;
        return this;
    }

    public PartBuilder volume(Integer value) {
        volume = value;
        return this;
    }

    public PartBuilder pan(Integer value) {
        pan = value;
        return this;
    }

    public PartBuilder keys(Range value) {
        keys = value;
        return this;
    }

    public PartBuilder drums(boolean value) {
        drums = value;
        return this;
    }

    public PartBuilder noteNames(Map<Integer, String> value) {
        noteNames = value;
        return this;
    }

    public PartBuilder keyswitches(Map<Integer, String> value) {
        keyswitches = value;
        return this;
    }

    public PartBuilder output(int value) {
        output = value;
        return this;
    }

    public PartBuilder colour(int value) {
        colour = value;
        return this;
    }

    /** @throws IllegalArgumentException where a value is out of its range */
    public Part build() {
        return new Part(
                id,
                name,
                channel,
                bank,
                program,
                volume,
                pan,
                keys,
                drums,
                noteNames,
                keyswitches,
                output,
                colour,
                extras);
    }
}
