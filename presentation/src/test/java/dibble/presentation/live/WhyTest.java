package dibble.presentation.live;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.GearEdits;
import dibble.edits.ZoneEdits;
import dibble.midi.MessageText;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Each reason for silence, in words that a player understands. */
class WhyTest {
    private final Session demo = LamplightersRound.session();

    private static Why.Answer ask(Session session, String source, int channel, String typed, Set<String> unheard) {
        Performance performance = LamplightersRound.performance();
        return Why.ask(
                session,
                session.routing(performance),
                unheard,
                source,
                MessageText.parse(typed, channel - 1, session.middleC()),
                Map.of("yarrow", "the port of Yarrow is not there"),
                null);
    }

    private static String line(Why.Answer answer, String name) {
        return answer.lines().stream()
                .filter(line -> line.name().equals(name))
                .map(Why.Line::text)
                .findFirst()
                .orElse("not told");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "larkspur; 1; F#4 90; Celesta; sends F♯4 66 · velocity 90 to Celesta, Sorrel 1.",
                "larkspur; 1; F#4 90; Bass hand; its keys end at F3 53.",
                "larkspur; 1; E2 90; Celesta; its keys start at F♯3 54.",
                "larkspur; 1; F#4 90; Glass bowls, soft; it takes velocities up to 78.",
                "larkspur; 1; CC 64 127; Bass hand; it does not pass controllers (CC 64).",
                "larkspur; 1; RPN 1 8197; Celesta; 'sends RPN 1 fine tuning · 8197 to Celesta, Sorrel 1.'",
                "larkspur; 1; CC14 7 8197; Celesta; 'sends CC 7 level, 14-bit · 8197 to Celesta, Sorrel 1.'",
                "larkspur; 1; CC 16 64; Celesta; a control map takes it, so it goes no further.",
                "teasel; 5; C4 90; Kalimba; 'takes channel 2; this came on channel 5.'",
                "fern; 3; C2 90; Low winds; sends C2 36 · velocity 90 to Low winds, Yarrow 2. But the port of Yarrow is not there.",
                "fern; 3; CC 80 127; Next scene; switches to the next scene."
            })
    void everyZoneAndMapSaysWhatItDoesOrWhyNot(String source, int channel, String typed, String thing, String text) {
        assertThat(line(ask(demo, source, channel, typed, Set.of()), thing)).isEqualTo(text);
    }

    @Test
    void whatStopsAtTheSourceIsSaidThere() {
        Why.Answer deaf = ask(demo, "tansy", 5, "C4", Set.of());
        assertThat(deaf.sentence()).isEqualTo("Tansy 32, channel 5, C4 60 · velocity 96: stopped at its source.");
        assertThat(deaf.lines().get(0).text()).contains("channel 2").contains("came on channel 5");
        Session closed = GearEdits.changeSource(
                demo,
                "tansy",
                source -> source.with()
                        .accept(Set.of(dibble.midi.EventKind.NOTES))
                        .build());
        assertThat(ask(closed, "tansy", 2, "bend 0", Set.of()).lines().get(0).text())
                .isEqualTo("Tansy 32 does not accept pitch bend.");
        assertThat(ask(demo, "larkspur", 1, "program 2", Set.of())
                        .lines()
                        .get(0)
                        .text())
                .startsWith("This program change switches the scene");
    }

    @Test
    void switchesThatSilenceAreNamed() {
        Session off = ZoneEdits.changeZone(demo, "marimba", zone -> zone.withEnabled(false));
        assertThat(line(ask(off, "tansy", 2, "C4", Set.of()), "Marimba")).isEqualTo("it is switched off.");
        assertThat(line(ask(demo, "tansy", 2, "C4", Set.of("tansy")), "Marimba"))
                .isEqualTo("would play, but Tansy 32 is not heard now.");
        assertThat(ask(demo, "tansy", 2, "C4", Set.of()).sentence()).endsWith(" plays Marimba.");
        assertThat(ask(off, "tansy", 2, "C4", Set.of()).sentence()).endsWith(": nothing comes of it.");
    }
}
