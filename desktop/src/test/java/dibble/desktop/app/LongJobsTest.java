package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.edits.ZoneEdits;
import dibble.midi.ShortMessage;
import dibble.presentation.app.Page;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Long work on a large session: cancelled or overtaken by an edit, it leaves session and file as they were. Every test
 * cancels or edits in the same turn of the interface thread that starts the work, so that no machine is too fast for it.
 * {@code ./dibble bench million} runs the same with a million events and watches the interface thread.
 */
class LongJobsTest extends WindowTest {
    private static final int NOTES = Integer.getInteger("dibble.notes", 2_000);

    @TempDir
    static Path files;

    private static Path file;

    /** Larkspur plays two hours: on the tracks and in the take there are a million events together. */
    @BeforeAll
    static void makeFile() throws IOException {
        Session demo = LamplightersRound.session();
        EventStore log = new EventStore();
        long each = TimeUnit.HOURS.toNanos(2) / NOTES;
        for (int i = 0; i < NOTES; i++) {
            int key = 40 + i * 7 % 50;
            log.add(i * each, 0, ShortMessage.noteOn(0, key, 30 + i % 90));
            log.add(i * each + each / 2, 0, ShortMessage.noteOff(0, key, 64));
        }
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, demo.routing(Performance.NEW))),
                TempoMap.of(96),
                TimeUnit.HOURS.toNanos(2),
                0);
        file = files.resolve("long.dibble");
        SessionFile.write(file, TakeEdits.keep(demo, Performance.NEW, take), Performance.NEW);
    }

    @Override
    Session session() {
        return Session.empty("Bare");
    }

    private static long events(Session session) {
        return session.takes().stream().mapToLong(take -> take.log().size()).sum()
                + session.tracks().stream()
                        .mapToLong(track -> track.sounding().size())
                        .sum();
    }

    private boolean isShown(String job) {
        return lookup("#job").query().isVisible() && text("#job-words").startsWith(job);
    }

    private void open() {
        onFx(() -> window.files().open(file, () -> {}));
        until(() -> desk().session().takes().size() == 1);
        assertThat(events(desk().session())).isGreaterThan(4L * NOTES);
    }

    private void cancelJob() {
        desk().jobs().running().orElseThrow().cancel();
    }

    private void resting() {
        until(() -> desk().jobs().running().isEmpty());
    }

    @Test
    void everyViewIsShownAndEditedWhileNothingStandsStill() {
        open();
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            onFx(() -> desk().document()
                    .edit(
                            "name of a zone",
                            session -> ZoneEdits.changeZone(
                                    session, "celesta", zone -> zone.withName("Celesta on " + page))));
            onFx(() -> desk().document().perform(performance -> performance.withMuted("celesta", true)));
        }
        onFx(() -> desk().document().undo());
        push(KeyCode.SPACE);
        until(() -> workbench.studio().position() > 0);
        push(KeyCode.SPACE);
        resting();
    }

    @Test
    void aTakeIsRoutedAgainAndSortedWithALookAtIt() {
        open();
        onFx(() -> window.show(Page.TAKES));
        for (Track track : desk().session().tracks()) {
            until(() -> lookup("#track-" + track.id()).tryQuery().isPresent());
            until(() -> drawnNotes(track) == track.noteCount());
        }
        int tracks = desk().session().tracks().size();
        onFx(() -> desk().document()
                .edit("lower", session -> ZoneEdits.changeZone(session, "celesta", zone -> zone.withTranspose(-12))));
        until(() -> lookup("#route-again-open").tryQuery().isPresent());
        onFx(() -> lookup("#route-again-open").queryAs(Button.class).fire());
        resting();
        Session before = desk().session();
        onFx(() -> lookup("#route-again-do").queryAs(Button.class).fire());
        until(() -> desk().session() != before);
        assertThat(desk().session().tracks()).hasSize(tracks);
        resting();
    }

    @Test
    void routingAgainIsCancelledWithTheSessionAsItWas() {
        open();
        onFx(() -> window.show(Page.TAKES));
        until(() -> lookup("#route-again-open").tryQuery().isPresent());
        Session before = desk().session();
        onFx(() -> {
            lookup("#route-again-open").queryAs(Button.class).fire();
            cancelJob();
        });
        until(() -> !lookup("#route-again").query().isVisible());
        onFx(() -> {
            lookup("#print-as-heard").queryAs(Button.class).fire();
            cancelJob();
        });
        resting();
        assertThat(desk().session()).isSameAs(before);
    }

    @Test
    void openingIsCancelledWithTheSessionAsItWas() {
        Session before = desk().session();
        onFx(() -> {
            window.files().open(file, () -> {});
            cancelJob();
        });
        resting();
        assertThat(desk().session()).isSameAs(before);
        assertThat(window.files().file()).isNull();
    }

    @Test
    void aJobThatLastsIsShownWithAButtonThatCancelsIt() {
        CountDownLatch ends = new CountDownLatch(1);
        onFx(() -> {
            desk().jobs()
                    .start(
                            "Waiting for the test",
                            progress -> {
                                try {
                                    ends.await();
                                } catch (InterruptedException e) {
                                    throw new CancellationException();
                                }
                                return true;
                            },
                            done -> desk().ask().tell("done"));
        });
        until(() -> isShown("Waiting for the test"));
        clickOn("#job-cancel");
        resting();
        until(() -> told().startsWith("Cancelled: Waiting"));
        ends.countDown();
    }

    @Test
    void savingIsCancelledWithTheFileAsItWas() throws IOException {
        open();
        byte[] before = Files.readAllBytes(file);
        onFx(() -> desk().document().edit("name", session -> session.withName("Another name")));
        onFx(() -> {
            window.files().save();
            cancelJob();
        });
        resting();
        until(() -> Files.list(files).count() == 1);
        assertThat(Files.readAllBytes(file)).isEqualTo(before);
        assertThat(desk().document().isChanged()).isTrue();
    }
}
