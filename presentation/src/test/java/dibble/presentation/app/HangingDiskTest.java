package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.presentation.Preferences;
import dibble.session.Performance;
import dibble.testing.disk.HangingDisk;
import dibble.testing.disk.WatchedProvider;
import dibble.user.Settings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** While a disk does not answer, editing goes on; when it answers, nothing is lost. */
class HangingDiskTest {
    @TempDir
    private Path folder;

    private final HangingDisk disk = new HangingDisk();

    private static void rename(HeadlessApp app, String name) {
        app.context().document().edit("name", session -> session.withName(name));
    }

    /** At whichever change it hangs. The thread of the test is the one that edits, so it must never be the one that waits. */
    @Test
    void aSaveThatHangsHoldsUpNobody() throws IOException {
        Path there = Files.createDirectories(folder.resolve("user"));
        Path file = WatchedProvider.watched(folder, disk).resolve("evening.dibble");
        SessionFile.write(file, LamplightersRound.session().withName("old"), Performance.NEW);
        try (HeadlessApp app = new HeadlessApp(LamplightersRound.session(), there)) {
            app.files.openAsked(file);
            app.settle();
            boolean hung = true;
            int hangs = 0;
            while (hung) {
                rename(app, "saved " + hangs);
                disk.hangAfter(hangs);
                app.files.save();
                await().until(() ->
                        disk.hangs() || app.context().jobs().running().isEmpty() || app.hasPosted());
                hung = disk.hangs();
                rename(app, "later " + hangs);
                app.context().document().undo();
                app.context().document().redo();
                assertThat(app.session().name()).isEqualTo("later " + hangs);
                disk.release();
                app.settle();
                assertThat(SessionFile.read(folder.resolve("evening.dibble"))
                                .session()
                                .name())
                        .isEqualTo("saved " + hangs);
                assertThat(app.context().document().isChanged()).isTrue();
                hangs++;
            }
            assertThat(hangs).isGreaterThan(3);
        }
    }

    @Test
    void aJournalThatHangsHoldsUpNobody() throws IOException {
        Path user = WatchedProvider.watched(folder, disk).resolve("user");
        Path file = folder.resolve("evening.dibble");
        SessionFile.write(file, LamplightersRound.session().withName("old"), Performance.NEW);
        try (HeadlessApp app = new HeadlessApp(LamplightersRound.session(), user)) {
            app.files.openAsked(file);
            app.settle();
            disk.hangAfter(0);
            rename(app, "edited");
            await().until(disk::hangs);
            rename(app, "edited again");
            app.files.save();
            app.settle();
            assertThat(SessionFile.read(file).session().name()).isEqualTo("edited again");
            assertThat(app.context().document().isChanged()).isFalse();
            disk.release();
        }
    }

    @Test
    void theLastSettingsAreKeptWhenTheDiskHangsAtEarlierOnes() throws IOException {
        Path there = Files.createDirectories(folder.resolve("user"));
        Path user = WatchedProvider.watched(folder, disk).resolve("user");
        try (HeadlessApp app = new HeadlessApp(LamplightersRound.session(), user)) {
            Preferences preferences = app.context().preferences();
            int hangs = 0;
            for (boolean hung = true; hung; hangs++) {
                int first = 1 + 2 * hangs;
                disk.hangAfter(hangs);
                preferences.change(settings -> settings.withBacklogMinutes(first));
                await().until(() ->
                        disk.hangs() || app.context().jobs().running().isEmpty() || app.hasPosted());
                hung = disk.hangs();
                preferences.change(settings -> settings.withBacklogMinutes(first + 1));
                assertThat(preferences.get().backlogMinutes()).isEqualTo(first + 1);
                disk.release();
                app.settle();
                assertThat(Settings.load(there, complaint -> {}).backlogMinutes())
                        .isEqualTo(first + 1);
            }
            assertThat(hangs).isGreaterThan(2);
        }
    }
}
