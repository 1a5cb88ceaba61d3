package dibble.gear;

import static dibble.text.CoreText.say;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A multitimbral instrument or sound module.
 *
 * @param id unique among the instruments
 * @param builtIn whether Dibble sounds it itself
 * @param port the name of the port it hears; instruments can share one
 * @param partPorts whether each part has a port of its own, where it is another program
 * @param receives what it does with channels
 * @param hearsDirectly the ids of sources that are connected to it past Dibble
 * @param effects the room and the chorus of one that Dibble sounds
 */
public record Instrument(
        String id,
        String name,
        boolean builtIn,
        String port,
        boolean partPorts,
        Receives receives,
        List<String> hearsDirectly,
        List<Part> parts,
        Effects effects,
        Extras extras) {
    public Instrument {
        Ids.check(id);
        parts = List.copyOf(parts);
        hearsDirectly = List.copyOf(hearsDirectly);
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!ids.add(part.id())) {
                throw new IllegalArgumentException(say("instrument.part-appears-twice-in", part.id(), id));
            }
        }
    }

    /** An instrument each of whose parts hears its own channel. */
    public static Instrument of(String id, String name, boolean builtIn, String port, List<Part> parts) {
        return new Instrument(
                id, name, builtIn, port, false, Receives.BY_CHANNEL, List.of(), parts, Effects.USUAL, Extras.NONE);
    }

    public Optional<Part> part(String partId) {
        return parts.stream().filter(part -> part.id().equals(partId)).findFirst();
    }

    public Instrument withParts(List<Part> others) {
        return new Instrument(id, name, builtIn, port, partPorts, receives, hearsDirectly, others, effects, extras);
    }

    public Instrument withId(String other) {
        return new Instrument(other, name, builtIn, port, partPorts, receives, hearsDirectly, parts, effects, extras);
    }

    public Instrument withName(String text) {
        return new Instrument(id, text, builtIn, port, partPorts, receives, hearsDirectly, parts, effects, extras);
    }

    public Instrument withBuiltIn(boolean own) {
        return new Instrument(id, name, own, port, partPorts, receives, hearsDirectly, parts, effects, extras);
    }

    public Instrument withPort(String text) {
        return new Instrument(id, name, builtIn, text, partPorts, receives, hearsDirectly, parts, effects, extras);
    }

    public Instrument withPartPorts(boolean each) {
        return new Instrument(id, name, builtIn, port, each, receives, hearsDirectly, parts, effects, extras);
    }

    public Instrument withReceives(Receives channels) {
        return new Instrument(id, name, builtIn, port, partPorts, channels, hearsDirectly, parts, effects, extras);
    }

    public Instrument withHearsDirectly(List<String> sources) {
        return new Instrument(id, name, builtIn, port, partPorts, receives, sources, parts, effects, extras);
    }

    public Instrument withEffects(Effects other) {
        return new Instrument(id, name, builtIn, port, partPorts, receives, hearsDirectly, parts, other, extras);
    }

    public PartRef ref(Part part) {
        return new PartRef(id, part.id());
    }
}
