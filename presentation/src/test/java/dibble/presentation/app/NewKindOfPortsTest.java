package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.session.Session;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A kind of ports that nothing else knows needs nothing but its registration; and the application lives without a toolkit. */
class NewKindOfPortsTest {
    private static final String IN = "pipe-in";
    private static final String OUT = "pipe-out";

    private final Pipes pipes = new Pipes();

    /** Two ports that come and go together. */
    private static final class Pipes implements Devices {
        final List<Integer> sent = new CopyOnWriteArrayList<>();
        private final List<Runnable> listeners = new ArrayList<>();
        private final OutputPort out = new OutputPort() {
            @Override
            public String name() {
                return OUT;
            }

            @Override
            public void send(int message, long stamp) {
                sent.add(message);
            }
        };
        private final InputPort in = new InputPort() {
            @Override
            public String name() {
                return IN;
            }

            @Override
            public void listen(Listener listener) {
                heard = listener;
            }
        };
        volatile InputPort.Listener heard;
        volatile boolean there = true;
        boolean closed;

        void setThere(boolean now) {
            there = now;
            listeners.forEach(Runnable::run);
        }

        @Override
        public String kind() {
            return "pipes";
        }

        @Override
        public void onChange(Runnable listener) {
            listeners.add(listener);
        }

        @Override
        public Optional<InputPort> input(String name) {
            return there && name.equals(IN) ? Optional.of(in) : Optional.empty();
        }

        @Override
        public Optional<OutputPort> output(String name) {
            return there && name.equals(OUT) ? Optional.of(out) : Optional.empty();
        }

        @Override
        public List<String> inputs() {
            return there ? List.of(IN) : List.of();
        }

        @Override
        public List<String> outputs() {
            return there ? List.of(OUT) : List.of();
        }

        @Override
        public boolean isCurrent(String name, OutputPort port) {
            return there && port == out;
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    private static Session session() {
        Session session = Session.empty("Pipes")
                .withSources(List.of(Source.keyboard("keys", "Keys", IN, Range.ALL)))
                .withInstruments(List.of(Instrument.of(
                        "box", "Box", false, OUT, List.of(Part.of("organ", "Organ", 1, 19, Range.ALL, 1)))));
        return ZoneEdits.layerPart(session, "all", "keys", new PartRef("box", "organ"), Range.ALL);
    }

    @Test
    void aNewKindOfPortsIsPlayedSoundsGoesAndComesBack(@TempDir Path folder) {
        try (HeadlessApp app = new HeadlessApp(session(), folder, pipes)) {
            AppServices services = app.services;
            pipes.heard.heard(ShortMessage.noteOn(0, 60, 90));
            await().until(() -> pipes.sent.contains(ShortMessage.noteOn(0, 60, 90)));
            InputPort.Listener before = pipes.heard;
            pipes.setThere(false);
            assertThat(services.hasNews()).isTrue();
            services.pulse();
            await().until(() -> services.studio().soundingCount() == 0);
            pipes.setThere(true);
            services.pulse();
            assertThat(pipes.heard).isNotNull();
            assertThat(before).isNotNull();
            pipes.heard.heard(ShortMessage.noteOn(0, 64, 80));
            await().until(() -> pipes.sent.contains(ShortMessage.noteOn(0, 64, 80)));
        }
        assertThat(pipes.closed).isTrue();
    }
}
