package dibble.routing;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import dibble.text.UserException;

/** The target of a zone: a destination of one instrument. */
public sealed interface ZoneTarget extends SendTarget {
    /** The id of the instrument that it leads to. */
    String instrument();

    /** A part, wherever its channel is. */
    record ToPart(PartRef part) implements ZoneTarget {
        @Override
        public String instrument() {
            return part.instrument();
        }
    }

    /** A channel with no part, 1-16. */
    record ToChannel(String instrument, int channel) implements ZoneTarget {
        public ToChannel {
            if (channel < 1 || channel > 16) {
                throw new UserException(say("common.channel-expected-1-to-16", channel));
            }
        }
    }

    /** The event's own channel. */
    record ToSameChannel(String instrument) implements ZoneTarget {}
}
