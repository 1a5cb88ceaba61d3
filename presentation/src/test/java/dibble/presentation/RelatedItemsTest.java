package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.TrackEdits;
import dibble.presentation.Navigator.Kind;
import dibble.presentation.Navigator.Thing;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class RelatedItemsTest {
    private final Session session = TrackEdits.readyToRecord(LamplightersRound.session());

    private Set<String> to(Kind kind, String id) {
        return RelatedItems.to(
                        new Thing(kind, id),
                        session,
                        session.routing(Performance.NEW).zones())
                .stream()
                .map(thing -> thing.kind() + " " + thing.id())
                .collect(Collectors.toSet());
    }

    @Test
    void aZoneLightsItsPartItsPlayerAndTheTrack() {
        String track = session.tracks().stream()
                .filter(it -> it.name().equals("Marimba"))
                .findFirst()
                .orElseThrow()
                .id();
        Set<String> marimba = Set.of("ZONE marimba", "PART sorrel/marimba", "SOURCE tansy", "TRACK " + track);
        assertThat(to(Kind.ZONE, "marimba")).isEqualTo(marimba);
        assertThat(to(Kind.PART, "sorrel/marimba")).isEqualTo(marimba);
        assertThat(to(Kind.TRACK, track)).isEqualTo(marimba);
    }

    @Test
    void aSourceLightsAllThatItPlays() {
        assertThat(to(Kind.SOURCE, "larkspur"))
                .contains("ZONE celesta", "ZONE bass-hand", "PART sorrel/celesta", "PART sorrel/upright")
                .doesNotContain("ZONE marimba");
    }

    @Test
    void whatIsGoneLightsItselfAlone() {
        assertThat(to(Kind.ZONE, "gone")).containsExactly("ZONE gone");
        assertThat(to(Kind.TRACK, "gone")).containsExactly("TRACK gone");
        assertThat(to(Kind.SCENE, "dusk")).containsExactly("SCENE dusk");
    }
}
