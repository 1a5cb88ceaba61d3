package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.Way;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Channels joined to parts: the same zones, seen as ways. */
class ConnectionsTest {
    private static final PartRef HARP = new PartRef("yarrow", "harp");
    private static final ZoneTarget TO_HARP = new ZoneTarget.ToPart(HARP);

    private final Session demo = LamplightersRound.session();

    private static Routing routing(Session session) {
        return session.routing(Performance.NEW);
    }

    private static ChannelChart chart(Session session) {
        return ChannelChart.of(routing(session), source -> new ChannelSet(0), Set.of());
    }

    private static List<Way> from(Session session, String source, int channel) {
        ChannelChart chart = chart(session);
        return chart.ways().stream()
                .filter(way -> way.from().source().equals(source) && way.from().channel() == channel)
                .toList();
    }

    @Test
    void aChartHasTheChannelsThatArriveAndThePartsPortByPort() {
        ChannelChart chart = chart(demo);
        assertThat(chart.arrivals())
                .extracting(Arrival::source, Arrival::channel)
                .contains(
                        org.assertj.core.groups.Tuple.tuple("tansy", 2),
                        org.assertj.core.groups.Tuple.tuple("teasel", 13));
        assertThat(chart.ports())
                .extracting(ChannelChart.PortChart::port)
                .containsExactly("stand-in:sorrel", "stand-in:yarrow");
        // Free channels are one row each stretch.
        assertThat(chart.ports().get(1).places())
                .extracting(Place::low, Place::high)
                .last()
                .isEqualTo(org.assertj.core.groups.Tuple.tuple(4, 16));
        assertThat(chart.ways()).hasSize(routing(demo).zones().size());
        assertThat(from(demo, "tansy", 2).get(0).whole()).isTrue();
        assertThat(from(demo, "larkspur", 1).get(0).whole()).isFalse();
    }

    @Test
    void oneChannelIsJoinedToSeveralAndUnpluggedAgain() {
        Session joined = Connections.join(demo, "more", "teasel", 5, TO_HARP);
        joined =
                Connections.join(joined, "again", "teasel", 5, new ZoneTarget.ToPart(new PartRef("sorrel", "marimba")));
        assertThat(from(joined, "teasel", 5)).hasSize(3);
        assertThat(joined.zone("more").orElseThrow().channels()).isEqualTo(ChannelSet.of(5));
        assertThat(joined.zone("more").orElseThrow().keys()).isEqualTo(new Range(24, 103));
        Session unplugged = Connections.unplug(
                joined, chart(joined), from(joined, "teasel", 5).get(2));
        unplugged = Connections.unplug(
                unplugged, chart(unplugged), from(unplugged, "teasel", 5).get(1));
        assertThat(unplugged).isEqualTo(demo);
    }

    @Test
    void aZoneOfTwoChannelsKeepsOneWhenTheOtherIsUnpluggedOrLedElsewhere() {
        Session two = ZoneEdits.changeZone(
                demo,
                "harp-line",
                zone -> zone.with().channels(ChannelSet.of(5, 6)).build());
        Way six = from(two, "teasel", 6).stream()
                .filter(way -> way.zone().id().equals("harp-line"))
                .findFirst()
                .orElseThrow();
        assertThat(Connections.unplug(two, chart(two), six)).isEqualTo(demo);
        Session led =
                Connections.lead(two, chart(two), six, new ZoneTarget.ToPart(new PartRef("sorrel", "celesta")), "copy");
        assertThat(led.zone("harp-line").orElseThrow().channels()).isEqualTo(ChannelSet.of(5));
        assertThat(led.zone("copy").orElseThrow().channels()).isEqualTo(ChannelSet.of(6));
        Session moved = Connections.beginAt(two, chart(two), six, new Arrival("fern", 3, "", true), "copy");
        assertThat(moved.zone("copy").orElseThrow().source()).isEqualTo("fern");
        assertThat(moved.zone("copy").orElseThrow().channels()).isEqualTo(ChannelSet.of(3));
    }

    @ParameterizedTest
    @ValueSource(ints = {25, 60, 103})
    void besideLeavesOneSoundForEachKey(int at) {
        Session joined =
                Connections.join(demo, "upper", "teasel", 5, new ZoneTarget.ToPart(new PartRef("sorrel", "celesta")));
        Session split = Connections.beside(joined, "upper", at);
        assertThat(IntStream.rangeClosed(24, 103))
                .allSatisfy(key -> assertThat(routing(split).zones().stream()
                                .filter(zone -> zone.source().equals("teasel")
                                        && zone.channels().holds(4)
                                        && zone.keys().holds(key))
                                .map(Zone::id))
                        .containsExactly(key < at ? "harp-line" : "upper"));
    }

    @Test
    void besideAsksForAKeyInside() {
        Session joined = Connections.join(demo, "upper", "teasel", 5, TO_HARP);
        assertThatThrownBy(() -> Connections.beside(joined, "upper", 24))
                .hasMessage("split at key 24 (expected 25 to 103)");
    }

    @Test
    void straightAcrossLeadsEachChannelToThePartThatHasIt() {
        Session bare = Connections.unplugAll(demo, routing(demo), List.of("teasel"));
        assertThat(from(bare, "teasel", 5)).isEmpty();
        ChannelChart chart = chart(bare);
        Session across = Connections.straightAcross(
                bare, routing(bare), chart.channelsOf("teasel"), chart.ports().get(0));
        // Kalimba 3 and hand drums 10 have no lane; 9 and 13 have no part.
        assertThat(chart(across).ways().stream()
                        .filter(way -> way.from().source().equals("teasel"))
                        .map(way -> way.from().channel() + ">" + way.to().low()))
                .containsExactly("2>2", "5>5", "6>6");
        assertThat(Connections.straightAcross(
                        across,
                        routing(across),
                        chart.channelsOf("teasel"),
                        chart.ports().get(0)))
                .isEqualTo(across);
    }

    @Test
    void plantingCountsOnAndSaysWhatDoesNotFit() {
        ChannelChart chart = chart(demo);
        List<Arrival> lanes = chart.channelsOf("teasel");
        List<PartRef> parts = List.of(HARP, new PartRef("yarrow", "organ"), new PartRef("yarrow", "winds"));
        NumberSeries plan =
                Connections.plant(demo, routing(demo), lanes, List.of("a", "b", "c", "d", "e"), parts, 0, 2);
        assertThat(plan.wanted()).isEqualTo(5);
        assertThat(plan.rows()).extracting(NumberSeries.Row::name).containsExactly("a → Harp", "b → Low winds");
        assertThat(plan.apply(demo).zones()).hasSize(demo.zones().size() + 2);
    }

    @Test
    void allToOneLeadsEverybodyThereOnce() {
        List<String> all = demo.sources().stream().map(source -> source.id()).toList();
        Session one = Connections.allToOne(demo, routing(demo), all, TO_HARP);
        assertThat(one.zones()).hasSize(demo.zones().size() + 5);
        assertThat(Connections.allToOne(one, routing(one), all, TO_HARP)).isEqualTo(one);
    }
}
