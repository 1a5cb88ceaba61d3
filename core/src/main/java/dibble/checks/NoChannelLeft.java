package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import java.util.List;

/** A part that chooses its channel and found none. */
final class NoChannelLeft extends Check {
    private static final int DRUMS = 10;

    NoChannelLeft() {
        super("no-channel-left", Level.ERROR, say("no-channel-left.a-port-has-sixteen-channels"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Instrument instrument : subject.session.instruments()) {
            boolean isDrumsFree = subject.isFree(instrument.port(), DRUMS);
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                if (subject.routing.channels().channel(ref).isEmpty()) {
                    report.add(
                            List.of(ref.toString()),
                            say(
                                    "no-channel-left.has-no-channel-only-10",
                                    subject.name(ref),
                                    isDrumsFree,
                                    subject.port(instrument.port())),
                            isDrumsFree
                                    ? Fix.session(
                                            say("no-channel-left.move-to-channel-10", subject.name(ref)),
                                            session -> GearEdits.changePart(session, ref, it -> it.withChannel(DRUMS)))
                                    : null);
                }
            }
        }
    }
}
