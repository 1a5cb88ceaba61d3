package dibble.gear;

import dibble.midi.Range;
import dibble.text.UserException;
import java.util.List;
import java.util.Map;

/** Makes a part that differs from another in some values. */
public final class PartBuilder {
    private String id;
    private String name;
    private Integer channel;
    private List<Integer> bank;
    private Integer program;
    private String soundFile;
    private Strip strip;
    private Map<Integer, Strip> keyStrips;
    private Range keys;
    private boolean drums;
    private Map<Integer, String> noteNames;
    private Map<Integer, String> keyswitches;
    private int colour;
    private Extras extras;

    PartBuilder(Part from) {
        id = from.id();
        name = from.name();
        channel = from.channel();
        bank = from.bank();
        program = from.program();
        soundFile = from.soundFile();
        strip = from.strip();
        keyStrips = from.keyStrips();
        keys = from.keys();
        drums = from.drums();
        noteNames = from.noteNames();
        keyswitches = from.keyswitches();
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

    public PartBuilder soundFile(String value) {
        soundFile = value;
        return this;
    }

    public PartBuilder strip(Strip value) {
        strip = value;
        return this;
    }

    public PartBuilder keyStrips(Map<Integer, Strip> value) {
        keyStrips = value;
        return this;
    }

    public PartBuilder volume(Integer value) {
        return strip(strip.withVolume(value));
    }

    public PartBuilder pan(Integer value) {
        return strip(strip.withPan(value));
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
        return strip(strip.withOutput(value));
    }

    public PartBuilder colour(int value) {
        colour = value;
        return this;
    }

    /** @throws UserException where a value is out of its range */
    public Part build() {
        return new Part(
                id,
                name,
                channel,
                bank,
                program,
                soundFile,
                strip,
                keyStrips,
                keys,
                drums,
                noteNames,
                keyswitches,
                colour,
                extras);
    }
}
