package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.gear.Source;
import dibble.presentation.Prompter;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Gesture;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/**
 * A user who does anything in any order: edits, drags that are interrupted anywhere, typing that is not committed, undo, saving,
 * opening, long edits, scenes, keys, and files that another program changes, with any answer to every question. The
 * application is compared with a model that knows finished edits only, and every overwritten file with the questions that were asked.
 * Each session is known by its name, which every edit makes another.
 */
class RandomUserTest {
    private static final int ACTIONS = 40;
    private static final List<String> SCENES = List.of("dusk", "snow");

    @Property
    void losesNothingThatNobodyWasAskedAbout(@ForAll long seed) throws IOException {
        Path folder = Files.createTempDirectory("random-user");
        try (Course course = new Course(folder, new Random(seed))) {
            for (int i = 0; i < ACTIONS; i++) {
                course.act();
            }
            course.end();
        } finally {
            remove(folder);
        }
    }

    /** Nothing writes there any more by then, where the property holds. */
    private static void remove(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        }
    }

    /** One user at one application. */
    private static final class Course implements AutoCloseable {
        private final Random random;
        private final HeadlessApp app;
        private final Document document;
        private final List<Path> files = new ArrayList<>();

        /** The content of each file at the last check. */
        private final Map<Path, String> onDisk = new HashMap<>();

        /** The steps of undo, and the present one. */
        private List<String> steps = new ArrayList<>();

        private int now;
        private Object opening;

        /** The file of the session, and the version of it that the application has read or written. */
        private Path own;

        private String known;
        private String asked = "";

        /** The session that the user decided not to save. */
        private String abandoned;

        private boolean isComputing;
        private boolean hasStepped;
        private Gesture gesture;
        private final Set<Integer> down = new HashSet<>();
        private final List<String> history = new ArrayList<>();
        private int count;

        Course(Path folder, Random random) throws IOException {
            this.random = random;
            for (int i = 0; i < 3; i++) {
                Path file = folder.resolve("file-" + i + ".dibble");
                files.add(file);
                writeOutside(file);
            }
            app = new HeadlessApp(named(next("begin")), folder.resolve("user"));
            document = app.context().document();
            restart();
        }

        private String next(String what) {
            return what + "-" + count++;
        }

        private static Session named(String name) {
            return LamplightersRound.session().withName(name);
        }

        private void writeOutside(Path file) throws IOException {
            String name = next("outside");
            SessionFile.write(file, named(name), Performance.NEW);
            onDisk.put(file, name);
        }

        private void restart() {
            opening = document.opening();
            steps = new ArrayList<>(List.of(document.kept().session().name()));
            now = 0;
        }

        private String kept() {
            return document.kept().session().name();
        }

        private Edit rename(String name) {
            return new Edit("rename", session -> session.withName(name));
        }

        private void stepped(String name) {
            while (steps.size() > now + 1) {
                steps.remove(steps.size() - 1);
            }
            steps.add(name);
            now++;
            hasStepped = true;
        }

        void act() throws IOException {
            asked = "";
            abandoned = null;
            hasStepped = false;
            boolean wasChanged = document.isChanged();
            int action = random.nextInt(16);
            history.add(action + " " + kept() + "@" + app.files.file());
            switch (action) {
                case 0 -> {
                    String name = next("edit");
                    document.edit(rename(name));
                    stepped(name);
                }
                case 1 -> {
                    gesture = document.begin(end -> {});
                    gesture.preview(rename(next("preview")).change());
                }
                case 2 -> {
                    if (gesture != null) {
                        boolean counts = gesture.isOpen();
                        String name = next("dragged");
                        gesture.finish(rename(name));
                        if (counts) {
                            stepped(name);
                        }
                    }
                }
                case 3 -> document.cancelGesture();
                case 4 -> {
                    boolean cancels = document.gesture() != null;
                    document.undo();
                    now = cancels ? now : Math.max(0, now - 1);
                }
                case 5 -> {
                    boolean cancels = document.gesture() != null;
                    document.redo();
                    now = cancels ? now : Math.min(steps.size() - 1, now + 1);
                }
                case 6 -> app.entry = this::commitTyped;
                case 7 -> app.files.save();
                case 8 -> app.files.saveAs();
                case 9 -> app.files.openAsked(anyFile());
                case 10 -> app.files.begin(() -> {});
                case 11 -> writeOutside(anyFile());
                case 12 -> {
                    String name = next("long");
                    app.context()
                            .jobs()
                            .edit(document, "renaming", "rename", (session, progress) -> session.withName(name), () -> {
                                stepped(name);
                                isComputing = false;
                            });
                    isComputing = true;
                    // Something else may begin before it is done.
                    switch (random.nextInt(3)) {
                        case 0 -> app.files.openAsked(anyFile());
                        case 1 -> app.files.begin(() -> {});
                        default -> {
                            // Nothing else.
                        }
                    }
                }
                case 13 -> app.context().callScene(SCENES.get(random.nextInt(SCENES.size())));
                case 14 -> app.files.close();
                default -> pressOrRelease();
            }
            settle();
            check(wasChanged);
            if (action == 7 || action == 8) {
                assertThat(app.entry).as("typed, and not saved").isNull();
            }
        }

        private void commitTyped() {
            String name = next("typed");
            document.edit(rename(name));
            stepped(name);
        }

        private Path anyFile() {
            return files.get(random.nextInt(files.size()));
        }

        private void pressOrRelease() {
            if (app.session().sources().isEmpty()) {
                return;
            }
            Source source = app.session().sources().get(0);
            int key = source.keys().low() + random.nextInt(5);
            if (down.add(key)) {
                app.context().press(source, key, 80);
            } else {
                down.remove(key);
                app.context().release(source, key);
            }
        }

        /** Takes in what jobs have come to, and answers every question somehow. */
        private void settle() {
            app.settle();
            for (int i = 0; app.question != null && i < 6; i++) {
                List<Prompter.Answer> answers = app.answers();
                String askedAbout = kept();
                int choice = random.nextInt(answers.size() + 1);
                if (app.asksForText()) {
                    if (random.nextInt(3) == 0) {
                        app.leave();
                    } else {
                        app.type(anyFile());
                    }
                } else if (choice == answers.size()) {
                    app.leave();
                } else {
                    String label = answers.get(choice).label();
                    asked += "[" + label + "]";
                    // A user may edit before the answer.
                    if (random.nextInt(4) == 0 && document.gesture() == null) {
                        commitTyped();
                    }
                    if (label.equals("Don’t save")) {
                        abandoned = askedAbout;
                    }
                    app.answer(label);
                }
            }
            app.leave();
            app.settle();
        }

        private void check(boolean wasChanged) throws IOException {
            String as = history + " " + asked;
            String knownNow = known;
            for (Path file : files) {
                String there = SessionFile.read(file).session().name();
                String was = onDisk.put(file, there);
                if (!there.equals(was)) {
                    boolean knew = file.equals(own) && was.equals(known);
                    assertThat(knew || asked.contains("[Replace]"))
                            .as("written over " + was + " (known: " + known + " of " + own + ") unasked: " + file + as)
                            .isTrue();
                }
                boolean isOwn = file.equals(app.files.file());
                if (isOwn && (!there.equals(was) || document.opening() != opening)) {
                    knownNow = there;
                }
            }
            known = knownNow;
            own = app.files.file();
            if (document.opening() == opening) {
                assertThat(kept()).as(as).isEqualTo(steps.get(now));
                return;
            }
            String left = steps.get(now);
            if (wasChanged || hasStepped) {
                assertThat(onDisk.containsValue(left) || left.equals(abandoned))
                        .as(left + " was left without asking: " + as)
                        .isTrue();
            }
            assertThat(isComputing).as("an edit is lost: " + as).isFalse();
            assertThat(app.hasDroppedEntry).as("what was typed is lost: " + as).isFalse();
            restart();
            gesture = null;
        }

        void end() {
            document.cancelGesture();
            app.drop();
            Source source = app.session().sources().isEmpty()
                    ? LamplightersRound.session().sources().get(0)
                    : app.session().sources().get(0);
            down.forEach(key -> app.context().release(source, key));
            for (int i = now; i > 0; i--) {
                assertThat(kept()).isEqualTo(steps.get(i));
                document.undo();
            }
            assertThat(kept()).isEqualTo(steps.get(0));
            assertThat(document.undoName()).isEmpty();
            await().until(() -> app.services.studio().soundingCount() == 0);
        }

        @Override
        public void close() {
            app.close();
        }
    }
}
