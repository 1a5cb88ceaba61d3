package dibble.checks;

import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import java.util.List;

/** A part that chooses its channel and found none. */
final class NoChannelLeft extends Check {
    private static final int DRUMS = 10;

    NoChannelLeft() {
        super("no-channel-left", Level.ERROR, "A port has sixteen channels. What is sent to this part goes nowhere.");
    }

    @Override
    void find(Subject subject, Report report) {
        for (Instrument instrument : subject.session.instruments()) {
            boolean isDrumsFree = subject.isFree(instrument.port(), DRUMS);
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                if (subject.routing.channels().channel(ref).isEmpty()) {
                    report.add(
                            List.of(ref.toString()),
                            subject.name(ref) + " has no channel: "
                                    + (isDrumsFree
                                            ? "only 10, which is kept for drums, is free on "
                                            : "none is free on ")
                                    + subject.port(instrument.port()) + ".",
                            isDrumsFree
                                    ? Mend.session(
                                            "Move " + subject.name(ref) + " to channel 10",
                                            session -> GearEdits.changePart(session, ref, it -> it.withChannel(DRUMS)))
                                    : null);
                }
            }
        }
    }
}
