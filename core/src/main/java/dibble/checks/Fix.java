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
public record Fix(String words, UnaryOperator<Session> session, UnaryOperator<Performance> performance) {
    static Fix session(String words, UnaryOperator<Session> edit) {
        return new Fix(words, edit, UnaryOperator.identity());
    }

    static Fix performance(String words, UnaryOperator<Performance> edit) {
        return new Fix(words, UnaryOperator.identity(), edit);
    }

    /** Switches zones off. */
    static Fix zonesOff(String words, List<String> zones) {
        return session(words, session -> ZoneEdits.changeZones(session, zones, zone -> zone.withEnabled(false)));
    }

    /** Gives a zone other keys. */
    static Fix keys(String words, Zone zone, Range keys) {
        return session(words, session -> ZoneEdits.changeZone(session, zone.id(), it -> it.withKeys(keys)));
    }
}
