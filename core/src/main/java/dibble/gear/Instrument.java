package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
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
 * @param names the names of its sounds, or null where they are not known
 */
@RecordBuilder
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
        SoundNames names,
        UnknownFields extras)
        implements InstrumentBuilder.With {
    public Instrument {
        Ids.check(id);
        parts = List.copyOf(parts);
        hearsDirectly = List.copyOf(hearsDirectly);
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!ids.add(part.id())) {
                throw new UserException(say("instrument.part-appears-twice-in", part.id(), id));
            }
        }
    }

    /** An instrument each of whose parts hears its own channel. */
    public static Instrument of(String id, String name, boolean builtIn, String port, List<Part> parts) {
        return new Instrument(
                id,
                name,
                builtIn,
                port,
                false,
                Receives.BY_CHANNEL,
                List.of(),
                parts,
                Effects.USUAL,
                null,
                UnknownFields.NONE);
    }

    /** The part with an id, if it has one. */
    public Optional<Part> part(String partId) {
        return parts.stream().filter(part -> part.id().equals(partId)).findFirst();
    }

    /** With names of sounds; those of notes go to parts whose keys are sounds of their own, where these have none. */
    public Instrument named(SoundNames other) {
        return withNames(other)
                .withParts(parts.stream()
                        .map(part -> part.drums()
                                        && part.noteNames().isEmpty()
                                        && !other.notes().isEmpty()
                                ? part.with().noteNames(other.notes()).build()
                                : part)
                        .toList());
    }

    /** The name of the program of a sound, where the names of its sounds are known and have it. */
    public Optional<String> programName(Sound sound) {
        return names == null || sound.program() == null
                ? Optional.empty()
                : names.program(sound.bank(), sound.program()).map(SoundNames.Program::name);
    }

    /** By which controllers banks of it are selected. */
    public BankSelect bankSelect() {
        return names == null ? BankSelect.BOTH : names.bankSelect();
    }

    /** The messages that give a channel 0-15 of it a sound, in their order: bank, program, volume, pan. */
    public int[] messages(Sound sound, int channel) {
        return sound.messages(channel, bankSelect());
    }

    /** What points to a part of it. */
    public PartRef ref(Part part) {
        return new PartRef(id, part.id());
    }
}
