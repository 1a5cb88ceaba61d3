package dibble.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.edits.StartingPoint;
import dibble.files.SessionContent;
import dibble.midi.HeardMessage;
import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import dibble.routing.Trace;
import dibble.session.Performance;
import dibble.session.Session;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class StartingPointTest {
    @ParameterizedTest
    @EnumSource(StartingPoint.class)
    void surprisesNobodyAndSoundsAtOnce(StartingPoint point) throws Exception {
        Session session = point.session();
        assertThat(Checks.run(session, Performance.NEW)).noneMatch(finding -> finding.level() != Level.NOTE);
        Routing routing = session.routing(Performance.NEW);
        session.sources().forEach(source -> {
            int key = ShortMessage.noteOn(source.playsOn(), source.keys().low(), 90);
            assertThat(Trace.of(routing, source.id(), HeardMessage.alone(key)).zones())
                    .anyMatch(answer -> answer.reason() == null);
        });
        byte[] json = SessionContent.json(session, Performance.NEW);
        assertThat(SessionContent.readJson(json).session()).isEqualTo(session);
    }
}
