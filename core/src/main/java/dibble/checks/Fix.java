package dibble.checks;

import dibble.edits.ZoneEdits;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * An edit that removes the cause of a finding.
 *
 * @param words the edit as a command: <em>Move Harp to channel 5</em>
 * @param session the change of the session
 * @param performance the change of the performance
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
