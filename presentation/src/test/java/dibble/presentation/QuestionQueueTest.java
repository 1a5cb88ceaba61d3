package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class QuestionQueueTest {
    private final QuestionQueue<String> questions = new QuestionQueue<>();

    @Test
    void aQuestionWaitsForTheOneThatIsShown() {
        questions.ask("where to export?", false);
        questions.ask("recover?", false);
        assertThat(questions.shown()).contains("where to export?");
        questions.end("where to export?");
        assertThat(questions.shown()).contains("recover?");
        questions.end("recover?");
        assertThat(questions.shown()).isEmpty();
    }

    @Test
    void whatFollowsFromAnAnswerComesBeforeTheOthers() {
        questions.ask("save?", false);
        questions.ask("recover?", false);
        questions.end("save?", () -> questions.ask("where?", false));
        assertThat(questions.shown()).contains("where?");
        questions.end("where?");
        assertThat(questions.shown()).contains("recover?");
    }

    @Test
    void whatIsAskedAboutATypedPathIsShownAndThePathComesBack() {
        questions.ask("where?", false);
        questions.ask("recover?", false);
        questions.answer("where?");
        questions.ask("replace it?", false);
        assertThat(questions.shown()).contains("replace it?");
        // The next one has nothing to do with it.
        questions.ask("quit?", false);
        assertThat(questions.shown()).contains("replace it?");
        questions.end("replace it?");
        assertThat(questions.shown()).contains("where?");
        questions.end("where?");
        assertThat(questions.shown()).contains("recover?");
    }

    @Test
    void oneThatIsTakenAwayWhileItWaitsIsNeverShown() {
        questions.ask("where?", false);
        questions.ask("recover?", false);
        questions.end("recover?");
        questions.end("where?");
        assertThat(questions.shown()).isEmpty();
    }

    @Test
    void whatAUsersCommandAsksIsShownAtOnceAndTheOneBeforeComesBack() {
        questions.ask("where to export?", true);
        questions.ask("recover?", false);
        questions.ask("which file to open?", true);
        assertThat(questions.shown()).contains("which file to open?");
        questions.end("which file to open?");
        assertThat(questions.shown()).contains("where to export?");
        questions.end("where to export?");
        assertThat(questions.shown()).contains("recover?");
    }
}
