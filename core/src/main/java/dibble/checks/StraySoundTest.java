package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.Range;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;

/** A list of questions about sounds that should not be audible. Only the player can hear the answers. */
public final class StraySoundTest {
    private static final Set<SourceKind> HAVE_KEYS =
            EnumSet.of(SourceKind.KEYBOARD, SourceKind.PADS, SourceKind.PEDALS);

    private StraySoundTest() {}

    /** A question that the player answers with yes or no. */
    public sealed interface Question {
        /** Returns the action and the question. */
        String text();

        /** Returns the meaning of a sound. */
        String ifYes();

        /** Returns the possible fixes of the session after a sound, the likeliest first. */
        List<Fix> mends();
    }

    /**
     * A note is sent to a module, on a channel where no part is.
     *
     * @param channel 1-16
     */
    public record FreeChannel(Instrument instrument, int channel) implements Question {
        @Override
        public String text() {
            return say("silence-test.a-note-goes-to-on", instrument.name(), channel);
        }

        @Override
        public String ifYes() {
            return say("silence-test.sounds-on-channel-it-is", instrument.name(), channel);
        }

        @Override
        public List<Fix> mends() {
            Part part = Part.of("part-on-" + channel, say("silence-test.part-on", channel), channel, 0, Range.ALL, 0)
                    .with()
                    .program(null)
                    .build();
            return List.of(
                    Fix.session(
                            say("silence-test.it-is-in-omni-mode"),
                            session -> GearEdits.changeInstrument(
                                    session, instrument.id(), it -> it.withReceives(Receives.ALL))),
                    Fix.session(
                            say("silence-test.add-that-part"),
                            session -> GearEdits.addPart(
                                    session,
                                    instrument.id(),
                                    part,
                                    instrument.parts().size())));
        }
    }

    /** A source is not heard by Dibble for a moment, and the player presses one of its keys. */
    public record OwnSounds(Source source) implements Question {
        @Override
        public String text() {
            return say("silence-test.dibble-is-not-listening-to", source.name());
        }

        @Override
        public String ifYes() {
            return say("silence-test.sounds-without-dibble-its-local", source.name());
        }

        @Override
        public List<Fix> mends() {
            return List.of(Fix.session(
                    say("silence-test.its-local-control-is-on"),
                    session -> GearEdits.changeSource(
                            session, source.id(), it -> it.withOwnSounds(true, it.ownInstrument()))));
        }
    }

    /**
     * Returns the questions for a session. It leaves out parts that are known to sound, and sounds of Dibble itself.
     */
    public static List<Question> questions(Session session, Performance performance) {
        CheckContext subject = new CheckContext(session, performance, Live.UNKNOWN);
        List<Question> questions = new ArrayList<>();
        for (Instrument instrument : session.instruments()) {
            if (!instrument.builtIn() && instrument.receives() != Receives.ALL) {
                // The highest: modules that are limited to a few channels have the low ones.
                IntStream.iterate(16, channel -> channel >= 1, channel -> channel - 1)
                        .filter(channel -> subject.isFree(instrument.port(), channel))
                        .findFirst()
                        .ifPresent(channel -> questions.add(new FreeChannel(instrument, channel)));
            }
        }
        for (Source source : session.sources()) {
            if (HAVE_KEYS.contains(source.kind()) && !source.localControl()) {
                questions.add(new OwnSounds(source));
            }
        }
        return questions;
    }
}
