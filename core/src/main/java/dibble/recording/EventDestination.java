package dibble.recording;

import dibble.gear.PartRef;
import java.util.Optional;

/**
 * The destination that an event of a clip names: a part, or an instrument on the channel of the event.
 *
 * @param instrument the id of the instrument
 * @param part the id of its part, or null where the channel of the event decides
 */
public record EventDestination(String instrument, String part) {
    /** Returns the destination for a part. */
    public static EventDestination of(PartRef part) {
        return new EventDestination(part.instrument(), part.part());
    }

    /** Returns the destination for an instrument, on whatever channel an event has. */
    public static EventDestination of(String instrument) {
        return new EventDestination(instrument, null);
    }

    /** Reads the text of a destination; any text without a slash is an instrument's id. */
    public static EventDestination parse(String text) {
        int slash = text.indexOf('/');
        return slash < 0 ? of(text) : new EventDestination(text.substring(0, slash), text.substring(slash + 1));
    }

    /** Returns the part, where it names one. */
    public Optional<PartRef> asPart() {
        return part == null ? Optional.empty() : Optional.of(new PartRef(instrument, part));
    }

    /** Returns the text by which events and files name it: {@code sorrel}, or {@code sorrel/celesta}. */
    public String text() {
        return part == null ? instrument : instrument + "/" + part;
    }
}
