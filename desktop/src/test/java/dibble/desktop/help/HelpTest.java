package dibble.desktop.help;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.presentation.help.HelpTopic;
import java.util.Arrays;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class HelpTest {
    private static final Pattern LINK = Pattern.compile("\\[[^]]+]\\(([^)]+)\\)");

    @ParameterizedTest
    @EnumSource(HelpTopic.class)
    void everyLinkLeadsToAPage(HelpTopic topic) {
        assertThat(LINK.matcher(topic.text()).results().map(link -> link.group(1)))
                .allMatch(link -> HelpTopic.ofLink(link).isPresent());
    }

    @ParameterizedTest
    @EnumSource(HelpTopic.class)
    void everyPageBeginsWithItsHeading(HelpTopic topic) {
        assertThat(topic.text()).startsWith("# ").doesNotContain("\"", "'");
    }

    @Test
    void everyPageButTheLastIsReachedByALink() {
        assertThat(Arrays.stream(HelpTopic.values())
                        .flatMap(topic -> LINK.matcher(topic.text()).results().map(MatchResult::group)))
                .hasSizeGreaterThan(15);
    }
}
