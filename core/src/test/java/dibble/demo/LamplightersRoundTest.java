package dibble.demo;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Level;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.FileRouter;
import dibble.routing.SlotAllocator;
import dibble.session.Session;
import java.util.HashSet;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** The demo shows what Dibble promises: all its sources play, all its parts sound, all its scenes are called. */
class LamplightersRoundTest {
    private final Session session = LamplightersRound.session();
    private final Set<Integer> scenes = new TreeSet<>();
    private final Set<String> sounded = new TreeSet<>();
    private final Set<Integer> on = new HashSet<>();

    @Test
    void everySourcePlaysEveryPartAndCallsEveryScene() {
        MidiFile played = LamplightersRound.played();
        assertThat(played.tracks().stream().flatMap(track -> track.name().stream()))
                .containsAll(session.sources().stream().map(Source::name).toList());
        String[] sources = played.tracks().stream()
                .map(track -> session.sources().stream()
                        .filter(source -> source.name().equals(track.name().orElse("")))
                        .map(Source::id)
                        .findFirst()
                        .orElse(null))
                .toArray(String[]::new);
        SlotAllocator slots = new SlotAllocator();
        FileRouter.route(
                played,
                sources,
                session.routing(LamplightersRound.performance()),
                true,
                slots,
                new FileRouter.Output() {
                    @Override
                    public boolean send(long stamp, int port, int message, int instrument) {
                        int key = port << 16 | ShortMessage.channel(message) << 8 | ShortMessage.data1(message);
                        if (ShortMessage.startsNote(message)) {
                            assertThat(on.add(key)).isTrue();
                            sounded.add(slots.instrumentId(instrument) + " " + (ShortMessage.channel(message) + 1));
                        } else if (ShortMessage.endsNote(message)) {
                            on.remove(key);
                        }
                        return true;
                    }

                    @Override
                    public void sceneCalled(long stamp, int scene) {
                        scenes.add(scene);
                    }

                    @Override
                    public void exclusive(String instrument, MidiTrack track, int at) {
                        throw new AssertionError("none is in it");
                    }
                });
        assertThat(on).isEmpty();
        // It begins in the first.
        assertThat(scenes).hasSize(session.scenes().size() - 1);
        Set<String> parts = new TreeSet<>();
        var channels = session.routing(LamplightersRound.performance()).channels();
        for (Instrument instrument : session.instruments()) {
            instrument
                    .parts()
                    .forEach(part -> parts.add(instrument.id() + " "
                            + channels.channel(instrument.ref(part)).orElseThrow()));
        }
        assertThat(sounded).isEqualTo(parts);
    }

    @Test
    void nothingInItSurprises() {
        assertThat(Checks.run(session, LamplightersRound.performance()))
                .filteredOn(finding -> finding.level() != Level.NOTE)
                .extracting(Finding::text)
                .isEmpty();
    }
}
