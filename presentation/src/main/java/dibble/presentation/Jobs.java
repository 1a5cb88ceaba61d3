package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.session.Document;
import dibble.session.Session;
import dibble.work.Progress;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Function;

/**
 * Work that can take longer than a tenth of a second: it is done in the background, one after another, on values
 * that are never altered, and its outcome is taken in on the thread that edits. Everything here is called there.
 */
public final class Jobs implements AutoCloseable {
    /** The progress is not known. */
    public static final double UNKNOWN = -1;

    /** Long work. */
    @FunctionalInterface
    public interface Work<T> {
        /** @throws IOException where it cannot be done: the message is for the user */
        T run(Progress progress) throws IOException;
    }

    private enum State {
        OPEN,
        CANCELLED,
        /** Its effect has begun. */
        COMMITTED
    }

    /** Work that is going on, or waits for its turn. */
    public final class Job {
        private final String words;
        private final Consumer<Job> work;
        private final long began = System.nanoTime();
        private volatile double share = UNKNOWN;
        private final AtomicReference<State> state = new AtomicReference<>(State.OPEN);
        private boolean edits;
        private Runnable onCancel = () -> {};

        /** Null while it waits for its turn. */
        private Future<?> future;

        private Job(String words, Consumer<Job> work) {
            this.words = words;
            this.work = work;
        }

        /** Returns the activity for display: {@code Opening Evening.dibble}. */
        public String words() {
            return words;
        }

        /** 0 to 1, or {@link #UNKNOWN}. */
        public double share() {
            return share;
        }

        /** Returns the age in nanoseconds. */
        public long age() {
            return System.nanoTime() - began;
        }

        /**
         * Cancels the work: its result is dropped, and the next work begins, even where this cannot be stopped.
         *
         * @return whether nothing was changed; not where the work has begun to take effect
         */
        public boolean cancel() {
            boolean cancelled = running.contains(this) && drop();
            if (cancelled) {
                onCancel.run();
            }
            return cancelled;
        }

        /** Cancels the work without notifying the one who began it. Returns whether nothing was changed. */
        public boolean drop() {
            boolean cancelled = abandon();
            if (cancelled) {
                end(this);
            }
            return cancelled;
        }

        private boolean abandon() {
            boolean cancelled = state.compareAndSet(State.OPEN, State.CANCELLED);
            if (cancelled && future != null) {
                future.cancel(true);
            }
            return cancelled;
        }

        private boolean isCancelled() {
            return state.get() == State.CANCELLED;
        }

        /** Sets an action for a cancellation by the user. */
        public Job onCancel(Runnable then) {
            onCancel = then;
            return this;
        }

        /** The progress of the work, on its thread. */
        private final class Steps implements Progress {
            @Override
            public void at(double now) {
                if (isCancelled()) {
                    throw new CancellationException(words);
                }
                share = now;
            }

            @Override
            public void commit() {
                if (!state.compareAndSet(State.OPEN, State.COMMITTED) && isCancelled()) {
                    throw new CancellationException(words);
                }
            }
        }
    }

    private final Executor back;
    private final Executor threads;

    /** The first is under way, the others wait for it. */
    private final List<Job> running = new ArrayList<>();

    private final List<Runnable> afterAll = new ArrayList<>();

    /**
     * @param back runs something on the thread that edits
     * @param threads run the work
     */
    public Jobs(Executor back, Executor threads) {
        this.back = back;
        this.threads = threads;
    }

    /**
     * Starts a job.
     *
     * @param words the activity for display
     * @param done receives the result, unless the job was cancelled
     * @param failed receives the failure: an {@link IOException}, also for too little memory
     */
    public <T> Job start(String words, Work<T> work, Consumer<T> done, Consumer<IOException> failed) {
        Job job = new Job(words, it -> work(it, work, done, failed));
        running.add(job);
        beginNext();
        return job;
    }

    /** The same for work that cannot fail but by a mistake. */
    public <T> Job start(String words, Function<Progress, T> work, Consumer<T> done) {
        return start(words, (Work<T>) work::apply, done, e -> {
            throw new IllegalStateException(e);
        });
    }

    private void beginNext() {
        if (!running.isEmpty() && running.get(0).future == null) {
            Job next = running.get(0);
            FutureTask<Void> task = new FutureTask<>(() -> next.work.accept(next), null);
            next.future = task;
            threads.execute(task);
        }
    }

    private <T> void work(Job job, Work<T> work, Consumer<T> done, Consumer<IOException> failed) {
        try {
            T outcome = work.run(job.new Steps());
            end(job, () -> done.accept(outcome));
        } catch (IOException e) {
            end(job, () -> failed.accept(e));
        } catch (OutOfMemoryError e) {
            end(job, () -> failed.accept(new IOException(say("jobs.it-is-too-large-for"))));
        } catch (CancellationException e) {
            end(job, () -> {});
        } catch (RuntimeException | Error e) {
            // Noted where mistakes are; the others go on, and the window can be closed.
            end(job, () -> {
                throw e;
            });
        }
    }

    private void end(Job job, Runnable outcome) {
        back.execute(() -> {
            if (!job.isCancelled()) {
                // The handler of the result may start another job, which must not wait for this one.
                running.remove(job);
                try {
                    outcome.run();
                } finally {
                    end(job);
                }
            }
        });
    }

    private void end(Job job) {
        running.remove(job);
        beginNext();
        if (running.isEmpty()) {
            List<Runnable> now = List.copyOf(afterAll);
            afterAll.clear();
            now.forEach(Runnable::run);
        }
    }

    /** An edit that takes long. */
    @FunctionalInterface
    public interface LongEdit {
        Session of(Session session, Progress progress);
    }

    /**
     * Makes an edit that takes long, as one step. Where the session has been edited meanwhile, the edit is made again, of the
     * edited one; where another session was opened, it is dropped.
     *
     * @param name what undo calls it
     * @param after run where it is made
     */
    public Job edit(Document document, String words, String name, LongEdit change, Runnable after) {
        Session before = document.kept().session();
        Object opening = document.opening();
        Job job = start(words, progress -> change.of(before, progress), next -> {
            if (document.kept().session() == before) {
                document.edit(name, session -> next);
                after.run();
            } else if (document.opening() == opening) {
                edit(document, words, name, change, after);
            }
        });
        job.edits = true;
        return job;
    }

    /** Returns the edit that is being made, or waits to be made. */
    public Optional<Job> editing() {
        return running.stream().filter(job -> job.edits).findFirst();
    }

    /** The work that has been going on for longest. */
    public Optional<Job> running() {
        return running.stream().findFirst();
    }

    /** Runs something when nothing is going on any more; at once where nothing is. */
    public void afterAll(Runnable then) {
        if (running.isEmpty()) {
            then.run();
        } else {
            afterAll.add(then);
        }
    }

    /** Drops all work. */
    @Override
    public void close() {
        List.copyOf(running).forEach(Job::abandon);
    }
}
