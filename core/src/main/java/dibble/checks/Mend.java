package dibble.checks;

import dibble.edits.ZoneEdits;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * An edit that puts right what a check has found.
 *
 * @param words what it does, as an order: <em>Move Harp to channel 5</em>
 * @param session what it does to the session
 * @param performance what it does to the performance
 */
public record Mend(String words, UnaryOperator<Session> session, UnaryOperator<Performance> performance) {
    static Mend session(String words, UnaryOperator<Session> edit) {
        return new Mend(words, edit, UnaryOperator.identity());
    }

    static Mend performance(String words, UnaryOperator<Performance> edit) {
        return new Mend(words, UnaryOperator.identity(), edit);
    }

    /** Switches zones off. */
    static Mend zonesOff(String words, List<String> zones) {
        return session(words, session -> ZoneEdits.changeZones(session, zones, zone -> zone.withEnabled(false)));
    }

    /** Gives a zone other keys. */
    static Mend keys(String words, Zone zone, Range keys) {
        return session(words, session -> ZoneEdits.changeZone(session, zone.id(), it -> it.withKeys(keys)));
    }
}
