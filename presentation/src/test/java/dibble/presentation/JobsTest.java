package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.session.Document;
import dibble.session.Gesture;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.system.Workers;
import dibble.testing.PatientAwaiting;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The thread of the test is the one that edits: what is posted back waits until it is taken. */
class JobsTest {
    private final BlockingQueue<Runnable> posted = new LinkedBlockingQueue<>();
    private final Jobs jobs = new Jobs(posted::add, Workers.shared().jobs());
    private final List<String> told = new ArrayList<>();

    @AfterEach
    void close() {
        jobs.close();
    }

    /** Takes in what one job has come to. */
    private void takeIn() throws InterruptedException {
        Runnable outcome = posted.poll(20, TimeUnit.SECONDS);
        assertThat(outcome).isNotNull();
        outcome.run();
    }

    private Jobs.Job start(String words, Jobs.Work<String> work) {
        return jobs.start(words, work, told::add, e -> told.add("failed: " + e.getMessage()));
    }

    @Test
    void outcomesComeBackInTheirOrder() throws InterruptedException {
        start("first", progress -> "one");
        start("second", progress -> "two");
        assertThat(jobs.running().map(Jobs.Job::words)).contains("first");
        takeIn();
        assertThat(jobs.running().map(Jobs.Job::words)).contains("second");
        takeIn();
        assertThat(told).containsExactly("one", "two");
        assertThat(jobs.running()).isEmpty();
    }

    @Test
    void whatGoesWrongIsTold() throws InterruptedException {
        start("reading", progress -> {
            throw new IOException("no such file");
        });
        takeIn();
        start("unpacking", progress -> {
            throw new OutOfMemoryError();
        });
        takeIn();
        assertThat(told).containsExactly("failed: no such file", "failed: it is too large for Dibble’s memory");
    }

    @Test
    void aMistakeIsThrownWhereItIsNotedAndTheOthersGoOn() throws InterruptedException {
        start("erring", progress -> {
            throw new IllegalStateException("a mistake");
        });
        start("worse", progress -> {
            throw new NoClassDefFoundError("a class");
        });
        assertThatThrownBy(this::takeIn).hasMessage("a mistake");
        assertThatThrownBy(this::takeIn).hasMessage("a class");
        assertThat(jobs.running()).isEmpty();
        start("next", progress -> "goes on");
        takeIn();
        assertThat(told).containsExactly("goes on");
    }

    @Test
    void whatIsCancelledComesToNothingAndStops() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch stopped = new CountDownLatch(1);
        Jobs.Job job = start("counting", progress -> {
            begun.countDown();
            try {
                while (true) {
                    progress.at(0.25);
                }
            } finally {
                stopped.countDown();
            }
        });
        assertThat(begun.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        job.cancel();
        assertThat(stopped.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        assertThat(jobs.running()).isEmpty();
        start("next", progress -> "goes on");
        // What was cancelled posts that it ended, before or after.
        takeIn();
        takeIn();
        assertThat(told).containsExactly("goes on");
    }

    @Test
    void workThatHasTakenEffectCannotBeCancelled() throws InterruptedException {
        CountDownLatch committed = new CountDownLatch(1);
        CountDownLatch goesOn = new CountDownLatch(1);
        Jobs.Job job = start("saving", progress -> {
            progress.within(0, 0.5).commit();
            committed.countDown();
            try {
                goesOn.await();
            } catch (InterruptedException e) {
                return "interrupted";
            }
            progress.at(1);
            return "saved";
        });
        assertThat(committed.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        assertThat(job.cancel()).isFalse();
        goesOn.countDown();
        takeIn();
        assertThat(told).containsExactly("saved");
    }

    @Test
    void cancelledWorkTakesNoEffect() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch refused = new CountDownLatch(1);
        Jobs.Job job = start("saving", progress -> {
            begun.countDown();
            try {
                new CountDownLatch(1).await();
            } catch (InterruptedException e) {
                // Cancelled: what follows must not take effect.
            }
            try {
                progress.commit();
            } catch (CancellationException e) {
                refused.countDown();
                throw e;
            }
            return "saved";
        });
        assertThat(begun.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        assertThat(job.cancel()).isTrue();
        assertThat(refused.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        assertThat(told).isEmpty();
    }

    /** A file on a disk that does not answer must not keep the session from being saved. */
    @Test
    void whatCannotBeStoppedKeepsNobodyWaiting() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch answers = new CountDownLatch(1);
        Jobs.Job stuck = start("reading", progress -> {
            begun.countDown();
            boolean waits = true;
            while (waits) {
                try {
                    answers.await();
                    waits = false;
                } catch (InterruptedException e) {
                    // Some calls of the system cannot be interrupted.
                }
            }
            return "too late";
        });
        start("saving", progress -> "saved");
        assertThat(begun.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isTrue();
        stuck.cancel();
        takeIn();
        answers.countDown();
        Runnable late = posted.poll(20, TimeUnit.SECONDS);
        if (late != null) {
            late.run();
        }
        assertThat(told).containsExactly("saved");
    }

    @Test
    void howFarItHasComeIsSeen() throws InterruptedException {
        CountDownLatch seen = new CountDownLatch(1);
        Jobs.Job job = start("counting", progress -> {
            progress.at(0.75);
            try {
                seen.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            return "done";
        });
        long until = System.nanoTime() + PatientAwaiting.TIMEOUT.toNanos();
        while (job.share() != 0.75 && System.nanoTime() < until) {
            Thread.onSpinWait();
        }
        assertThat(job.share()).isEqualTo(0.75);
        seen.countDown();
        takeIn();
    }

    @Test
    void whatWaitsForAllIsDoneAfterTheLast() throws InterruptedException {
        start("first", progress -> "one");
        start("second", progress -> "two");
        jobs.afterAll(() -> told.add("closed"));
        takeIn();
        takeIn();
        assertThat(told).containsExactly("one", "two", "closed");
        jobs.afterAll(() -> told.add("at once"));
        assertThat(told).endsWith("at once");
    }

    @Test
    void aLongEditIsMadeOfTheSessionAsItIsThen() throws InterruptedException {
        Document document = new Document(Session.empty("One"), Performance.NEW);
        jobs.edit(
                document,
                "Renaming",
                "rename",
                (session, progress) -> session.withName(session.name() + ", longer"),
                () -> told.add("done"));
        document.edit("meanwhile", session -> session.withName("Two"));
        takeIn();
        assertThat(document.session().name()).isEqualTo("Two");
        assertThat(told).isEmpty();
        takeIn();
        assertThat(document.session().name()).isEqualTo("Two, longer");
        assertThat(told).containsExactly("done");
        document.undo();
        assertThat(document.session().name()).isEqualTo("Two");
    }

    @Test
    void aLongEditDoesNotKeepAPreview() throws InterruptedException {
        Document document = new Document(Session.empty("Kept"), Performance.NEW);
        Gesture gesture = document.begin(end -> {});
        gesture.preview(session -> session.withName("Shown"));
        jobs.edit(document, "editing", "edit", (session, progress) -> session.withName(session.name() + "!"), () -> {});
        gesture.preview(session -> session.withName("Shown later"));
        takeIn();
        assertThat(document.kept().session().name()).isEqualTo("Kept!");
        gesture.leave();
        document.undo();
        assertThat(document.session().name()).isEqualTo("Kept");
    }
}
