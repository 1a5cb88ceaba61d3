package dibble.presentation.gear;

import static dibble.presentation.UiText.say;

import dibble.checks.Fix;
import dibble.checks.StraySoundTest;
import dibble.session.Document;
import dibble.studio.Studio;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;

/** The presenter of the test for stray sounds: plays notes that should be silent, and records the answers. */
public final class SilencePresenter {
    private static final int NOTE = 60;
    private static final int VELOCITY = 90;

    private final Document document;
    private final Studio studio;
    private final Deque<StraySoundTest.Question> left = new ArrayDeque<>();
    private final List<StraySoundTest.Question> sounded = new ArrayList<>();
    private StraySoundTest.Question asked;

    /** The source that is kept quiet while it is asked about. */
    private String hushed;

    private int all;

    /** Tests a document that a studio plays. */
    public SilencePresenter(Document document, Studio studio) {
        this.document = document;
        this.studio = studio;
    }

    /** Restarts the test. Returns the number of questions. */
    public int begin() {
        end();
        left.addAll(StraySoundTest.questions(document.session(), document.performance()));
        all = left.size();
        return all;
    }

    /** Ends the test, and restores the muted sources. */
    public void end() {
        endQuestion();
        left.clear();
        sounded.clear();
    }

    private void endQuestion() {
        if (asked instanceof StraySoundTest.FreeChannel) {
            studio.endTest();
        }
        if (hushed != null) {
            String source = hushed;
            hushed = null;
            document.perform(performance -> performance.withHeard(source, true));
        }
        asked = null;
    }

    /** Returns the next question with its number, and plays its notes; empty after the last. */
    public Optional<String> next() {
        endQuestion();
        asked = left.poll();
        if (asked == null) {
            return Optional.empty();
        }
        play();
        return Optional.of(say("silence-presenter.of", all - left.size(), all, asked.text()));
    }

    /** Records that the present question's notes were audible. */
    public void sounds() {
        sounded.add(asked);
    }

    /** Plays it once more. */
    public void play() {
        if (asked instanceof StraySoundTest.FreeChannel free) {
            studio.endTest();
            studio.test(free.instrument(), free.channel(), NOTE, VELOCITY);
        } else if (asked instanceof StraySoundTest.OwnSounds own) {
            String source = own.source().id();
            if (!document.performance().unheard().contains(source)) {
                hushed = source;
                document.perform(performance -> performance.withHeard(source, false));
            }
        }
    }

    /** Returns the questions with audible notes. */
    public List<StraySoundTest.Question> sounded() {
        return List.copyOf(sounded);
    }

    /** Makes the edit that fixes a finding. */
    public void mend(Fix mend) {
        document.edit(say("edit.stray-sound-test"), mend.session());
    }
}
