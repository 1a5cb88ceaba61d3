package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import java.util.List;
import java.util.Set;

/** A part that nothing reaches in any scene. */
final class UnusedPart extends Check {
    UnusedPart() {
        super("unfed", Level.NOTE, say("unfed.no-key-reaches-it-in"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        Set<PartRef> fed = PlayedParts.parts(subject);
        subject.session
                .instruments()
                .forEach(instrument -> instrument.parts().stream()
                        .map(instrument::ref)
                        .filter(ref -> !fed.contains(ref))
                        .forEach(ref -> report.add(
                                List.of(ref.toString()), say("unfed.no-source-plays-in-any", subject.name(ref)))));
    }
}
