package dibble.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.List;
import org.junit.jupiter.api.Test;

class SilenceQuestionsTest {
    private static final Instrument YARROW = Instrument.of(
            "yarrow",
            "Yarrow",
            false,
            "stand-in:yarrow",
            List.of(Part.of("harp", "Harp", 16, 46, Range.ALL, 1), Part.of("winds", "Winds", 1, 71, Range.ALL, 2)));
    private static final Instrument SORREL = Instrument.of(
            "sorrel", "Sorrel", true, "stand-in:sorrel", List.of(Part.of("c", "C", null, 8, Range.ALL, 1)));
    private static final Session SESSION = Session.empty("Quiet")
            .withInstruments(List.of(SORREL, YARROW))
            .withSources(List.of(Source.keyboard("larkspur", "Larkspur", "stand-in:larkspur", Range.ALL)));

    @Test
    void askForFreeChannelsOfModulesAndForSourcesThatMaySoundThemselves() {
        List<StraySoundTest.Question> questions = StraySoundTest.questions(SESSION, Performance.NEW);
        assertThat(questions)
                .containsExactly(
                        new StraySoundTest.FreeChannel(YARROW, 15),
                        new StraySoundTest.OwnSounds(SESSION.sources().get(0)));
        assertThat(questions.get(0).text()).contains("Yarrow").contains("channel 15");
    }

    @Test
    void aYesIsTakenIntoTheSessionAndNotAskedAgain() {
        List<StraySoundTest.Question> questions = StraySoundTest.questions(SESSION, Performance.NEW);
        Session told = SESSION;
        for (StraySoundTest.Question question : questions) {
            told = question.mends().get(0).session().apply(told);
        }
        assertThat(told.instrument("yarrow").orElseThrow().receives()).isEqualTo(Receives.ALL);
        assertThat(told.source("larkspur").orElseThrow().localControl()).isTrue();
        assertThat(StraySoundTest.questions(told, Performance.NEW)).isEmpty();
        Session listed = questions.get(0).mends().get(1).session().apply(SESSION);
        assertThat(listed.part(new PartRef("yarrow", "part-on-15"))
                        .orElseThrow()
                        .channel())
                .isEqualTo(15);
        assertThat(StraySoundTest.questions(listed, Performance.NEW).get(0))
                .isInstanceOfSatisfying(
                        StraySoundTest.FreeChannel.class,
                        next -> assertThat(next.channel()).isEqualTo(14));
    }

    @Test
    void aFullPortHasNothingToAsk() {
        List<Part> parts = java.util.stream.IntStream.rangeClosed(1, 16)
                .mapToObj(channel -> Part.of("p" + channel, "P", channel, 0, Range.ALL, 1))
                .toList();
        Session full = SESSION.withInstruments(List.of(YARROW.withParts(parts)));
        assertThat(StraySoundTest.questions(full, Performance.NEW)).hasSize(1);
    }
}
