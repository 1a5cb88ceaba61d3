package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.journals.TakeJournal;
import dibble.ports.JoinedDevices;
import dibble.session.ClockPlan;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Studio;
import dibble.studio.Transport;
import dibble.testing.JackServer;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.ServerTransport;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The transport that all programs on a server share, followed and led. */
class SharedTransportTest {
    private static final double SECOND = 1e9;

    /** Not in step with blocks, so that it is looked at each place in one. */
    private static final Duration LOOK_AGAIN = Duration.ofMillis(7);

    private final JackServer server = new JackServer();
    private JackDevices programs;
    private Document document;
    private Studio studio;
    private Partner partner;

    @BeforeAll
    static void hasServer() {
        JackServer.assumeInstalled();
    }

    @BeforeEach
    void open() {
        server.start();
        programs = new JackDevices(Clock.SYSTEM);
        document = new Document(Session.empty("Together").withTempo(TempoMap.of(120)), Performance.NEW);
        studio =
                new Studio(Clock.SYSTEM, new JoinedDevices(programs), document, TakeJournal.NONE, programs.transport());
        programs.start();
        await().until(() -> programs.state().isRunning());
        partner = new Partner("Wren");
    }

    @AfterEach
    void close() {
        if (studio != null) {
            partner.close();
            studio.close();
            programs.close();
        }
        server.close();
    }

    private void until(Callable<Boolean> condition) {
        await().until(() -> {
            studio.pulse();
            return condition.call();
        });
    }

    private void clock(ClockPlan plan) {
        document.edit("clock", session -> session.withClock(plan));
    }

    private void untilTogether() {
        untilTogether(1);
    }

    /**
     * Our music is a block ahead of the transport, since it is heard a block after it is decided, and the position that the
     * server reports is up to a block old. The follower corrects only what is off by more than 3 ms: after a busy machine
     * missed blocks, the rest of that stays.
     *
     * @param pace how much of the other's time passes in ours
     */
    private void untilTogether(double pace) {
        double uncorrected = pace * 0.003 * JackServer.RATE / JackServer.BLOCK;
        await().pollInterval(LOOK_AGAIN).untilAsserted(() -> {
            studio.pulse();
            double ours = studio.position() / SECOND * pace * JackServer.RATE;
            long theirs = partner.transportFrame();
            assertThat((ours - theirs) / JackServer.BLOCK)
                    .as("blocks from frame %d to frame %.0f", theirs, ours)
                    .isBetween(0.5 - uncorrected, 2.5 + uncorrected);
        });
    }

    /** Four beats of half a second are a bar. */
    private static int barAt(long frame) {
        return 1 + (int) (frame / (2 * JackServer.RATE));
    }

    @Test
    void theTransportIsFollowed() {
        clock(ClockPlan.NONE.withFrom(ServerTransport.PORT));
        partner.locate(10 * JackServer.RATE);
        studio.record();
        assertThat(studio.waitsToRecord()).isTrue();
        partner.roll();
        until(() -> studio.transport() == Transport.RECORDING);
        assertThat(studio.position()).isGreaterThanOrEqualTo(10_000_000_000L);
        until(() -> studio.position() > 10_300_000_000L);
        untilTogether();
        partner.halt();
        until(() -> studio.transport() == Transport.STOPPED);
    }

    @Test
    void anotherTempoIsFollowedBeatByBeat() {
        clock(ClockPlan.NONE.withFrom(ServerTransport.PORT));
        partner.sayTempo(60);
        partner.locate(0);
        studio.record();
        partner.roll();
        until(() -> studio.followedTempo() == 60 && studio.transport() == Transport.RECORDING);
        until(() -> studio.position() > 500_000_000L);
        // The other's second is a beat: half a second of ours, or all of it where we took its tempo before it rolled.
        untilTogether(document.session().tempo().bpm(0) / 60);
    }

    @Test
    void theTransportIsLedOntoTheFrame() {
        clock(new ClockPlan(Set.of(ServerTransport.PORT), null));
        studio.locate(4_000_000_000L);
        studio.record();
        until(() -> partner.rolls() && partner.transportFrame() > 4.5 * JackServer.RATE);
        untilTogether();
        assertThat(partner.tempo()).isEqualTo(120);
        long before = partner.transportFrame();
        int bar = partner.bar();
        long after = partner.transportFrame();
        assertThat(bar).isBetween(barAt(before), barAt(after));
        studio.stop();
        until(() -> !partner.rolls());
    }

    /** Who leads does not start again what somebody else has stopped. */
    @Test
    void othersMayStopIt() {
        clock(new ClockPlan(Set.of(ServerTransport.PORT), null));
        studio.record();
        until(() -> partner.rolls() && partner.transportFrame() > JackServer.RATE / 2);
        partner.halt();
        int from = partner.soon();
        until(() -> partner.soon() - from > JackServer.RATE / 4);
        assertThat(partner.rolls()).isFalse();
        studio.stop();
    }
}
