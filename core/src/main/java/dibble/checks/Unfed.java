package dibble.checks;

import dibble.gear.PartRef;
import java.util.List;
import java.util.Set;

/** A part that nothing reaches in any scene. */
final class Unfed extends Check {
    Unfed() {
        super("unfed", Level.NOTE, "No key reaches it in any scene. Give it a zone in Keys or a ribbon in Channels.");
    }

    @Override
    void find(Subject subject, Report report) {
        Set<PartRef> fed = Fed.parts(subject);
        subject.session
                .instruments()
                .forEach(instrument -> instrument.parts().stream()
                        .map(instrument::ref)
                        .filter(ref -> !fed.contains(ref))
                        .forEach(ref -> report.add(
                                List.of(ref.toString()), "Nothing plays " + subject.name(ref) + " in any scene.")));
    }
}
