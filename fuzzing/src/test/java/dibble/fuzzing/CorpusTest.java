package dibble.fuzzing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Runs every target on valid inputs, on all inputs found by fuzzing, and on randomly damaged ones. */
class CorpusTest {
    private static final Path FOUND = Path.of("src/test/resources/found");
    private static final int DAMAGED = 15;

    @ParameterizedTest
    @EnumSource(Target.class)
    void whatIsInOrderIsRead(Target target) throws IOException {
        for (byte[] seed : target.seeds()) {
            assertThat(target.run(seed)).isTrue();
        }
    }

    @ParameterizedTest
    @EnumSource(Target.class)
    void whatIsDamagedIsReadOrRefused(Target target) throws IOException {
        List<byte[]> seeds = target.seeds();
        for (int seed = 0; seed < DAMAGED; seed++) {
            target.run(DamageRun.damaged(target, seeds, new Random(seed)));
        }
    }

    /** Files named {@code target-what}. */
    @TestFactory
    Stream<DynamicTest> whatWasADefectOnceIsReadOrRefused() throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.list(FOUND)) {
            files = all.sorted().toList();
        }
        return files.stream().map(file -> {
            String name = file.getFileName().toString();
            Target target = Target.valueOf(name.substring(0, name.indexOf('-')).toUpperCase(java.util.Locale.ROOT));
            return DynamicTest.dynamicTest(name, () -> target.run(Files.readAllBytes(file)));
        });
    }
}
