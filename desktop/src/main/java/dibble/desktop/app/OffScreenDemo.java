package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.ViewContext;
import dibble.disk.AtomicFile;
import dibble.disk.SessionFile;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.presentation.Subscription;
import dibble.presentation.app.MidiFiles;
import dibble.presentation.app.Page;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.studio.Transport;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Scene;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;

/**
 * The demo on a machine with no display: the same application, off-screen, records its performance and leaves pictures,
 * the session and the separate tracks in a folder. Advances by conditions that it looks at once a frame.
 */
final class OffScreenDemo {
    /** A condition to wait for, and the following action. */
    private record Step(Condition condition, Action action) {}

    private interface Condition {
        boolean holds();
    }

    private interface Action {
        void run() throws IOException;
    }

    private final Workbench workbench;
    private final MainWindow window;
    private final Scene scene;
    private final Path folder;
    private final Deque<Step> steps = new ArrayDeque<>();
    private Subscription pulse = Subscription.NONE;

    OffScreenDemo(Workbench workbench, MainWindow window, Scene scene, Path folder) {
        this.workbench = workbench;
        this.window = window;
        this.scene = scene;
        this.folder = folder;
    }

    void start() {
        System.out.println(
                say("off-screen-demo.dibble-no-display-found-playing", TimeUnit.NANOSECONDS.toSeconds(barStart(12))));
        ViewContext desk = workbench.desk();
        // The panel of a zone is part of the picture.
        desk.selection().zone().set(desk.session().zones().get(0).id());
        steps.add(new Step(() -> true, workbench::record));
        // From its beginning, so that its bars are those of the take.
        steps.add(new Step(() -> workbench.studio().recording() != null, workbench::perform));
        steps.add(
                new Step(() -> position() > barStart(7) && desk.live().lastNote() != null, () -> picture("keys.png")));
        steps.add(new Step(() -> true, () -> window.show(Page.GEAR)));
        steps.add(new Step(() -> position() > barStart(9), () -> picture("gear.png")));
        steps.add(new Step(() -> true, () -> window.show(Page.CHANNELS)));
        steps.add(new Step(() -> position() > barStart(10), () -> picture("channels.png")));
        steps.add(new Step(() -> true, () -> window.show(Page.CONTROLS)));
        steps.add(new Step(() -> position() > barStart(11), () -> picture("controls.png")));
        steps.add(new Step(() -> true, () -> window.show(Page.TAKES)));
        steps.add(new Step(() -> position() > barStart(12), () -> picture("takes.png")));
        steps.add(new Step(() -> true, workbench.studio()::stop));
        steps.add(new Step(
                () -> workbench.studio().transport() == Transport.STOPPED
                        && !desk.session().takes().isEmpty(),
                this::leaveFiles));
        pulse = desk.pulse().each(this::advance);
    }

    private long barStart(long bar) {
        var tempo = workbench.document().session().tempo();
        return tempo.nanos(tempo.barStart(bar));
    }

    private long position() {
        return workbench.studio().transport() == Transport.RECORDING
                ? workbench.studio().position()
                : 0;
    }

    private void advance() {
        try {
            if (!steps.isEmpty() && steps.peek().condition().holds()) {
                steps.poll().action().run();
            }
        } catch (IOException e) {
            System.err.println(say("off-screen-demo.dibble-the-demos-files-could", e.getMessage()));
            steps.clear();
        } finally {
            if (steps.isEmpty()) {
                pulse.unsubscribe();
                Platform.exit();
            }
        }
    }

    private void picture(String name) throws IOException {
        Files.createDirectories(folder);
        WritableImage image = scene.snapshot(null);
        Path file = folder.resolve(name);
        if (!ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", file.toFile())) {
            throw new IOException(say("off-screen-demo.cannot-write", file));
        }
    }

    private void leaveFiles() throws IOException {
        workbench.studio().stopPerformance();
        ViewContext desk = workbench.desk();
        Session session = desk.session();
        Files.createDirectories(folder.resolve("tracks"));
        AtomicFile.write(folder.resolve("played.mid"), MidiFileWriter.write(LamplightersRound.played()));
        SessionFile.write(folder.resolve("lamplighters-round.dibble"), session, desk.performance());
        write("all-tracks.mid", MidiFiles.exported(session, desk.routing()));
        session.tracks().stream().filter(track -> track.sounding().size() > 0).forEach(track -> {
            try {
                write("tracks/" + track.id() + ".mid", alone(session, track));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        System.out.println(say("off-screen-demo.dibble-pictures-session-and-separate", folder.toAbsolutePath()));
    }

    private MidiFile alone(Session session, Track track) {
        return MidiFiles.exported(
                session.withTracks(List.of(track)), workbench.desk().routing());
    }

    private void write(String name, MidiFile file) throws IOException {
        AtomicFile.write(folder.resolve(name), MidiFileWriter.write(file));
    }
}
