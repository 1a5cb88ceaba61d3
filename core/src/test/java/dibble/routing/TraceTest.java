package dibble.routing;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOn;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.Parameter;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.routing.Trace.Reason;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class TraceTest {
    private static final PartRef LOW = new PartRef("i", "low");

    /**
     * Returns the combined output of zones by the contract: one note for each place, one message for each destination.
     */
    private static List<Integer> joined(Trace trace, Routing routing, int message) {
        List<Integer> sent = new ArrayList<>();
        trace.controls().forEach(answer -> answer.messages().forEach(it -> sent.add(it.message())));
        Map<String, Integer> byPlace = new LinkedHashMap<>();
        for (Trace.Answer answer : trace.zones()) {
            for (Trace.Sent it : answer.messages()) {
                String port = routing.instrument(it.to()).orElseThrow().port();
                String note = ShortMessage.startsNote(message) ? " " + ShortMessage.data1(it.message()) : "";
                byPlace.merge(
                        port + it.channel() + note,
                        it.message(),
                        (a, b) -> ShortMessage.data2(a) >= ShortMessage.data2(b) ? a : b);
            }
        }
        sent.addAll(byPlace.values());
        return sent;
    }

    @Property(tries = 2000)
    void saysWhatAFreshRouterSends(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        Routing routing = randomly.routing(12);
        String source = randomly.source();
        int message = randomly.message();
        if (routing.source(source).isEmpty() || ShortMessage.endsNote(message)) {
            return;
        }
        Trace trace = Trace.of(routing, source, HeardMessage.alone(message));
        SlotAllocator slots = new SlotAllocator();
        List<Integer> sent = new ArrayList<>();
        int[] scene = {-1};
        Router router = new Router(new RouterOutput() {
            @Override
            public boolean send(long stamp, int port, int out, int instrument) {
                sent.add(out);
                return true;
            }

            @Override
            public void sceneCalled(long stamp, int called) {
                scene[0] = called;
            }
        });
        router.install(RoutingCompiler.compile(routing, slots), 0);
        router.event(slots.source(source), message, 0);
        if (trace.gate() != null) {
            assertThat(sent).isEmpty();
            return;
        }
        // Key pressure follows held notes, of which there are none. A note of an inactive control map does not end.
        List<Integer> expected = joined(trace, routing, message);
        expected.removeIf(out -> ShortMessage.endsNote(out));
        if (ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
            expected = new ArrayList<>();
            for (Trace.Answer answer : trace.controls()) {
                answer.messages().stream().map(Trace.Sent::message).forEach(expected::add);
            }
            expected.removeIf(out -> ShortMessage.endsNote(out));
        }
        // A repeated value is not sent again; the trace ignores previous output.
        expected.removeIf(Parameter::isChoice);
        sent.removeIf(Parameter::isChoice);
        boolean callsScene = trace.controls().stream().anyMatch(answer -> answer.scene() != null);
        if (callsScene) {
            // Resets of the previous scene are not part of the trace.
            assertThat(sent).containsAll(expected);
            return;
        }
        sent.removeIf(out -> ShortMessage.endsNote(out));
        assertThat(sent).isEqualTo(expected);
        assertThat(scene[0]).isEqualTo(-1);
    }

    private static Routing routing(UnaryOperator<Zone> change) {
        List<Instrument> instruments =
                List.of(Instrument.of("i", "i", true, "port", List.of(Part.of("low", "low", 1, 0, Range.ALL, 1))));
        Source source = Source.keyboard("a", "a", "in", Range.ALL);
        Zone zone = change.apply(Zone.of("z", "", "a", new Range(40, 80), LOW));
        return Routing.of(
                List.of(source, Source.keyboard("b", "b", "in-b", Range.ALL).withListen(ChannelSet.of(2))),
                instruments,
                ChannelPlan.of(instruments, Map.of()),
                List.of(zone),
                List.of(),
                null);
    }

    private static Reason why(int message, UnaryOperator<Zone> change) {
        return Trace.of(routing(change), "a", HeardMessage.alone(message))
                .zones()
                .get(0)
                .reason();
    }

    @Test
    void theFirstReasonIsGivenInTheOrderOfTheContract() {
        int key = noteOn(0, 60, 80);
        assertThat(why(key, zone -> zone)).isNull();
        assertThat(why(key, zone -> zone.withEnabled(false))).isEqualTo(Reason.OFF);
        assertThat(why(key, zone -> zone.with().source("b").build())).isEqualTo(Reason.OTHER_SOURCE);
        assertThat(why(key, zone -> zone.with().channels(ChannelSet.of(2)).build()))
                .isEqualTo(Reason.CHANNEL);
        assertThat(why(noteOn(0, 39, 80), zone -> zone)).isEqualTo(Reason.KEY_BELOW);
        assertThat(why(noteOn(0, 81, 80), zone -> zone)).isEqualTo(Reason.KEY_ABOVE);
        assertThat(why(key, zone -> zone.withVelocity(new Range(90, 127)))).isEqualTo(Reason.VELOCITY_BELOW);
        assertThat(why(key, zone -> zone.withVelocity(new Range(1, 70)))).isEqualTo(Reason.VELOCITY_ABOVE);
        assertThat(why(key, zone -> zone.with().dropUnmapped(true).build())).isEqualTo(Reason.UNMAPPED);
        assertThat(why(key, zone -> zone.withTranspose(100))).isEqualTo(Reason.OUTSIDE);
        assertThat(why(
                        controller(0, 64, 1),
                        zone -> zone.with().blockControllers(Set.of(64)).build()))
                .isEqualTo(Reason.NOT_PASSED);
        assertThat(why(ShortMessage.programChange(0, 1), zone -> zone)).isEqualTo(Reason.NOT_PASSED);
        assertThat(why(
                        key,
                        zone -> zone.with()
                                .to(new ZoneTarget.ToPart(new PartRef("i", "gone")))
                                .build()))
                .isEqualTo(Reason.NO_SUCH_PART);
    }

    @Test
    void aControlMapThatTakesTheEventIsSaidAtTheZone() {
        ControlMap taking = ControlMap.of(
                "c",
                "a",
                new ControlMap.Trigger(ControlKind.CONTROLLER, 1, 20, 100),
                ControlMap.Send.controller(11, new ZoneTarget.ToPart(LOW)));
        Routing routing = routing(zone -> zone).withControls(List.of(taking, taking.withIgnoreOutside(true)));
        Trace inside = Trace.of(routing, "a", HeardMessage.alone(controller(0, 1, 60)));
        assertThat(inside.zones().get(0).reason()).isEqualTo(Reason.TAKEN);
        assertThat(inside.controls().get(0).messages()).containsExactly(new Trace.Sent("i", 1, controller(0, 11, 64)));
        Trace outside = Trace.of(routing, "a", HeardMessage.alone(controller(0, 1, 10)));
        assertThat(outside.controls().get(0).messages()).containsExactly(new Trace.Sent("i", 1, controller(0, 11, 0)));
        assertThat(outside.controls().get(1).reason()).isEqualTo(Reason.OUTSIDE_THE_WINDOW);
        assertThat(Trace.of(routing, "a", HeardMessage.alone(controller(0, 2, 10)))
                        .controls()
                        .get(0)
                        .reason())
                .isEqualTo(Reason.OTHER_EVENT);
    }

    @Test
    void theGateIsSaidAboveTheZones() {
        Routing routing = routing(zone -> zone);
        assertThat(Trace.of(routing, "b", HeardMessage.alone(noteOn(0, 60, 80))).gate())
                .isEqualTo(Reason.NOT_LISTENING);
        Source deaf = routing.sources().get(0).withAccept(Set.of(EventKind.NOTES));
        Routing picky =
                Routing.of(List.of(deaf), routing.instruments(), routing.channels(), routing.always(), List.of(), null);
        assertThat(Trace.of(picky, "a", HeardMessage.alone(controller(0, 7, 1))).gate())
                .isEqualTo(Reason.NOT_ACCEPTED);
        assertThat(Trace.of(picky, "a", HeardMessage.alone(noteOn(0, 60, 80))).gate())
                .isNull();
    }

    @Test
    void liveItSaysWhatIsWithheld() {
        Routing routing = routing(zone -> zone);
        int key = noteOn(0, 60, 80);
        assertThat(Trace.live(routing, "a", HeardMessage.alone(key), Set.of("a"))
                        .zones()
                        .get(0)
                        .reason())
                .isEqualTo(Reason.NOT_HEARD);
        Source own = routing.sources().get(0).withOwnSounds(true, "i");
        Routing byItself =
                Routing.of(List.of(own), routing.instruments(), routing.channels(), routing.always(), List.of(), null);
        assertThat(Trace.live(byItself, "a", HeardMessage.alone(key), Set.of())
                        .zones()
                        .get(0)
                        .reason())
                .isEqualTo(Reason.SOUNDS_BY_ITSELF);
        assertThat(Trace.of(byItself, "a", HeardMessage.alone(key))
                        .zones()
                        .get(0)
                        .reason())
                .isNull();
    }

    private static ControlMap takes(ControlKind kind, int number, SendTarget to) {
        return ControlMap.of(
                "m", "a", ControlMap.Trigger.any(kind, number), ControlMap.Send.whole(ControlKind.NRPN, 300, to));
    }

    @Test
    void aParameterIsOneValueThatAMapTakes() {
        Routing plain = routing(zone -> zone);
        SendTarget to = plain.zones().get(0).to();
        Routing routing = plain.withControls(List.of(takes(ControlKind.RPN, 1, to)));
        Trace wanted = Trace.of(routing, "a", HeardMessage.parameter(0, false, 1, 8197));
        assertThat(wanted.controls().get(0).values())
                .extracting(
                        value -> value.message().choice(),
                        value -> value.message().parameter())
                .containsExactly(tuple(Parameter.choice(true, 300), 8197));
        assertThat(wanted.zones().get(0).reason()).isEqualTo(Reason.TAKEN);
        Trace other = Trace.of(routing, "a", HeardMessage.parameter(0, false, 2, 8197));
        assertThat(other.controls().get(0).reason()).isEqualTo(Reason.OTHER_EVENT);
        assertThat(other.zones().get(0).values())
                .extracting(
                        value -> value.message().choice(),
                        value -> value.message().parameter())
                .containsExactly(tuple(Parameter.choice(false, 2), 8197));
    }

    @Test
    void aControllerWithItsFineHalfIsOneValue() {
        Routing plain = routing(zone -> zone);
        SendTarget to = plain.zones().get(0).to();
        HeardMessage fine = HeardMessage.pair(0, 7, 8197);
        assertThat(Trace.of(plain, "a", fine).zones().get(0).values())
                .extracting(
                        value -> value.message().pair(),
                        value -> value.message().message())
                .containsExactly(tuple(8197, controller(0, 39, 5)));
        Routing routing = plain.withControls(List.of(takes(ControlKind.CONTROLLER_14, 7, to)));
        assertThat(Trace.of(routing, "a", fine).controls().get(0).values())
                .extracting(value -> value.message().parameter())
                .containsExactly(8197);
        // An LSB without an MSB has no value, and is dropped.
        Trace alone = Trace.of(routing, "a", HeardMessage.alone(controller(0, 39, 5)));
        assertThat(alone.controls().get(0).reason()).isEqualTo(Reason.NO_MSB);
        assertThat(alone.zones().get(0).reason()).isEqualTo(Reason.TAKEN);
    }
}
