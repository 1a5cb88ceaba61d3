package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.routing.Destination;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Two parts on one port with the same channel. */
final class ChannelClash extends Check {
    ChannelClash() {
        super("channel-clash", Level.ERROR, say("channel-clash.both-would-sound-on-every"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        Map<Destination, PartRef> owners = new HashMap<>();
        for (Instrument instrument : subject.session.instruments()) {
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                Optional<Destination> to = subject.routing.destination(ref);
                PartRef owner = to.map(it -> owners.putIfAbsent(it, ref)).orElse(null);
                if (owner != null) {
                    report.add(
                            List.of(owner.toString(), ref.toString()),
                            say(
                                    "channel-clash.and-are-both-on-channel",
                                    subject.name(owner),
                                    subject.name(ref),
                                    to.get().channel(),
                                    subject.port(to.get().port())),
                            mend(subject, ref, to.get().port()));
                }
            }
        }
    }

    /** The later part moves to the lowest channel that no part of the port has. */
    private static Fix mend(CheckContext subject, PartRef ref, String port) {
        for (int channel = 1; channel <= 16; channel++) {
            int free = channel;
            if (subject.isFree(port, free)) {
                return Fix.session(
                        say("channel-clash.move-to-channel", subject.name(ref), free),
                        session -> GearEdits.changePart(session, ref, part -> part.withChannel(free)));
            }
        }
        return null;
    }
}
