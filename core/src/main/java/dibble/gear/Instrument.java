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
 * @param builtIn whether Dibble itself makes its sound
 * @param port the name of its input port; instruments can share one
 * @param partPorts whether each part has its own port, in another application
 * @param receives its use of channels
 * @param hearsDirectly the ids of sources that are connected to it outside Dibble
 * @param effects the room and the chorus of a built-in instrument
 * @param names the names of its sounds, or null if they are not known
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

    /** Returns the instrument with names of sounds. Names of notes go to drum parts that have none. */
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

    /** Returns the controllers that select its banks. */
    public BankSelect bankSelect() {
        return names == null ? BankSelect.BOTH : names.bankSelect();
    }

    /** The messages that give a channel 0-15 of it a sound, in their order: bank, program, volume, pan. */
    public int[] messages(Sound sound, int channel) {
        return sound.messages(channel, bankSelect());
    }

    /** Returns a reference to a part. */
    public PartRef ref(Part part) {
        return new PartRef(id, part.id());
    }
}
