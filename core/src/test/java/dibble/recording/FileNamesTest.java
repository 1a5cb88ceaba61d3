package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class FileNamesTest {
    @Test
    void namesOfThingsBecomeNamesThatEverySystemTakes() {
        assertThat(FileNames.plain("Harp / low: \u266Fnotes?")).isEqualTo("Harp  low notes");
        assertThat(FileNames.plain("../..")).isEqualTo("untitled");
        assertThat(FileNames.plain("  ")).isEqualTo("untitled");
        assertThat(FileNames.plain("nul")).isEqualTo("nul file");
        assertThat(FileNames.plain("COM1")).isEqualTo("COM1 file");
        assertThat(FileNames.plain("x".repeat(500))).hasSize(80);
        assertThat(FileNames.plain("Gl\u00f6ckchen")).isEqualTo("Gl\u00f6ckchen");
    }

    @Test
    void noTwoAreTheSameNotEvenInSmallLetters() {
        Set<String> taken = new HashSet<>();
        for (String name : List.of("A/B", "AB", "ab", "a:b", "AB 2")) {
            String free = FileNames.fresh(name, taken::contains);
            assertThat(taken.add(free.toLowerCase(java.util.Locale.ROOT))).isTrue();
        }
        assertThat(taken).containsExactlyInAnyOrder("ab", "ab 2", "ab 3", "ab 4", "ab 2 2");
    }
}
