package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;

class PathQuestionsTest {
    @Test
    void quotesAroundATypedPathAreNoPartOfIt() {
        assertThat(PathQuestions.parse(" \"/evening/my round.dibble\" ")).contains(Path.of("/evening/my round.dibble"));
        assertThat(PathQuestions.parse("'/evening/round.dibble'")).contains(Path.of("/evening/round.dibble"));
        assertThat(PathQuestions.parse("/evening/it's.dibble")).contains(Path.of("/evening/it's.dibble"));
    }

    @Test
    void textThatIsNoPathIsRefusedWithoutAnException() {
        assertThat(PathQuestions.parse("a\0b")).isEmpty();
        assertThat(PathQuestions.parse("\"")).contains(Path.of("\""));
    }
}
