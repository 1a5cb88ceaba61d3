package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.StripRef;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class NumberSeriesTest {
    private static Session session(int parts) {
        List<Part> row = new ArrayList<>();
        IntStream.range(0, parts).forEach(i -> row.add(Part.of("p" + i, "P" + i, null, 0, Range.ALL, 1)));
        return Session.empty("Plant").withInstruments(List.of(Instrument.of("i", "I", true, "port", row)));
    }

    private static List<PartRef> row(int count) {
        return IntStream.range(0, count)
                .mapToObj(i -> new PartRef("i", "p" + i))
                .toList();
    }

    @Test
    void sixteenOfSixteenAreCountedUpAndChangedAtOnce() {
        Session session = session(16);
        NumberSeries plant = NumberSeries.channels(session, row(16), 1, 1);
        assertThat(plant.rows()).hasSize(16).last().isEqualTo(new NumberSeries.Row("P15", 16));
        assertThat(plant.wanted()).isEqualTo(16);
        assertThat(plant.taken()).isEmpty();
        Session planted = plant.apply(session);
        assertThat(planted.instruments().get(0).parts())
                .extracting(Part::channel)
                .containsExactly(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16);
    }

    @Test
    void whatDoesNotFitIsLeftAsItWasAndSaid() {
        NumberSeries plant = NumberSeries.channels(session(6), row(6), 4, 4);
        assertThat(plant.values()).containsExactly(4, 8, 12, 16);
        assertThat(plant.wanted()).isEqualTo(6);
    }

    @Test
    void channelsThatOthersOnThePortHaveAreNamed() {
        Session session = GearEdits.changePart(session(4), new PartRef("i", "p3"), part -> part.withChannel(2));
        assertThat(NumberSeries.channels(session, row(3), 1, 1).taken()).containsExactly(2);
        assertThat(NumberSeries.channels(session, row(4), 1, 1).taken()).isEmpty();
    }

    @Test
    void aChannelStaysWhenPartsAndInstrumentsComeAndGo() {
        Document document = new Document(session(5), Performance.NEW);
        PartRef last = new PartRef("i", "p4");
        int channel = document.session()
                .channels(document.performance())
                .channel(last)
                .orElseThrow();
        document.edit("add", before -> GearEdits.addPart(before, "i", Part.of("new", "New", null, 0, Range.ALL, 0), 0));
        document.edit("delete", before -> GearEdits.deletePart(before, new PartRef("i", "p1")));
        ChannelPlan plan = document.session().channels(document.performance());
        assertThat(plan.channel(last)).hasValue(channel);
        assertThat(document.session()
                        .part(new PartRef("i", "new"))
                        .orElseThrow()
                        .colour())
                .isPositive();
        document.edit("gone", before -> GearEdits.deleteInstrument(before, "i"));
        document.undo();
        assertThat(document.session().channels(document.performance()).channel(last))
                .hasValue(channel);
    }

    /** Saved and opened again, a part added before the others, another instrument on the port removed. */
    @Test
    void noChannelMovesWhenASessionIsOpenedAgainAndItsGearChanges() throws SessionFormatException {
        Session two = session(4)
                .withInstruments(List.of(
                        Instrument.of(
                                "first", "First", true, "port", List.of(Part.of("a", "A", null, 0, Range.ALL, 1))),
                        session(4).instruments().get(0)));
        Document before = new Document(two, Performance.NEW);
        ChannelPlan kept = before.session().channels(before.performance());
        SessionContent opened = SessionContent.readJson(SessionContent.json(before.session(), before.performance()));
        Document after = new Document(opened.session(), opened.performance());
        after.edit("add", it -> GearEdits.addPart(it, "i", Part.of("new", "New", null, 0, Range.ALL, 0), 0));
        after.edit("remove", it -> GearEdits.deleteInstrument(it, "first"));
        ChannelPlan now = after.session().channels(after.performance());
        for (PartRef part : row(4)) {
            assertThat(now.channel(part)).isEqualTo(kept.channel(part));
        }
        assertThat(now.channel(new PartRef("i", "new"))).isPresent();
    }

    @Test
    void outputsAreCountedUp() {
        Session session = session(3);
        Session planted = NumberSeries.outputs(
                        session, row(3).stream().map(StripRef::of).toList(), 3, 2)
                .apply(session);
        assertThat(planted.instruments().get(0).parts())
                .extracting(Part::output)
                .containsExactly(3, 5, 7);
        assertThat(planted.instruments().get(0).parts())
                .extracting(Part::channel)
                .containsOnlyNulls();
    }

    @Test
    void padsPlayNotesOfTheirOwn() {
        Range pads = new Range(53, 56);
        Session session = session(1)
                .withSources(List.of(Source.keyboard("pads", "Pads", "stand-in:pads", pads)))
                .withZones(List.of(Zone.of("kit", "Kit", "pads", pads, new PartRef("i", "p0"))));
        NumberSeries plant = NumberSeries.notes("kit", pads, List.of("1", "2", "3", "4"), 124, 2);
        assertThat(plant.rows()).containsExactly(new NumberSeries.Row("1", 124), new NumberSeries.Row("2", 126));
        assertThat(plant.wanted()).isEqualTo(4);
        assertThat(plant.apply(session).zone("kit").orElseThrow().noteMap())
                .isEqualTo(Map.of(53, List.of(124), 54, List.of(126)));
    }

    @Test
    void lanesTakeTheirZonesAlong() {
        Source sequencer = Source.keyboard("teasel", "Teasel", "stand-in:teasel", Range.ALL)
                .with()
                .lanes(List.of(new SequencerLane("A", 2), new SequencerLane("B", 5), new SequencerLane("C", 9)))
                .listen(ChannelSet.of(2, 5, 9))
                .build();
        PartRef part = new PartRef("i", "p0");
        Session session = session(1)
                .withSources(List.of(sequencer))
                .withZones(List.of(
                        Zone.of("a", "", "teasel", Range.ALL, part)
                                .with()
                                .channels(ChannelSet.of(5))
                                .build(),
                        Zone.of("b", "", "teasel", Range.ALL, part)));
        Session planted = NumberSeries.lanes(session, "teasel", 5, 1).apply(session);
        assertThat(planted.source("teasel").orElseThrow().lanes())
                .extracting(SequencerLane::channel)
                .containsExactly(5, 6, 7);
        assertThat(planted.source("teasel").orElseThrow().listen()).isEqualTo(ChannelSet.of(5, 6, 7));
        assertThat(planted.zone("a").orElseThrow().channels()).isEqualTo(ChannelSet.of(6));
        assertThat(planted.zone("b").orElseThrow().channels()).isEqualTo(ChannelSet.ALL);
    }
}
