package dibble.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Whoever comes to the code finds said what each package, each public type and what it offers is for. */
class DocsTest {
    private static final List<String> MODULES =
            List.of("core", "runtime", "sound", "jack", "paper", "presentation", "cli", "desktop");

    /** A public type, and the line before it and its annotations. */
    private static final Pattern PUBLIC_TYPE = Pattern.compile(
            "(?m)^(.*)\\R(?:@.*\\R(?:[ )].*\\R)*)*public (?:final |abstract |sealed |non-sealed )*(?:class|record|enum|interface|@interface) (\\w+)");

    /** A public constructor, method or constant of a type that is in no other, and the line before it. */
    private static final Pattern PUBLIC_MEMBER =
            Pattern.compile("(?m)^(.*)\\R {4}public (?!.*\\b(?:class|record|enum|interface)\\b)(.+)$");

    /** What a component's own comment says already: another value for it, and the parts of a builder. */
    private static final Pattern SAID_ELSEWHERE =
            Pattern.compile("\\bwith[A-Z]\\w*\\(|Builder \\w+\\(|\\(\\w*Builder\\b|^\\w+ \\{$");

    private static Stream<Path> sources() {
        return MODULES.stream().flatMap(module -> {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src/main/java"))) {
                return files.filter(file -> file.toString().endsWith(".java")).toList().stream();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void everyPublicTypeSaysWhatItIs() {
        List<String> types = sources()
                .flatMap(file -> PUBLIC_TYPE.matcher(text(file)).results().map(found -> found.group(2)))
                .toList();
        List<String> silent = sources()
                .flatMap(file -> PUBLIC_TYPE
                        .matcher(text(file))
                        .results()
                        .filter(found -> !found.group(1).endsWith("*/"))
                        .map(found -> found.group(2)))
                .toList();
        assertThat(types).hasSizeGreaterThan(300);
        assertThat(silent).isEmpty();
    }

    @Test
    void everyPublicMemberSaysWhatItDoes() {
        List<String> silent = sources()
                .filter(file -> PUBLIC_TYPE.matcher(text(file)).find())
                .flatMap(file -> PUBLIC_MEMBER
                        .matcher(text(file))
                        .results()
                        .filter(found -> !found.group(1).endsWith("*/")
                                && !found.group(1).strip().startsWith("@"))
                        .filter(found -> !SAID_ELSEWHERE.matcher(found.group(2)).find())
                        .map(found -> file.getFileName() + ": " + found.group(2)))
                .toList();
        assertThat(silent).isEmpty();
    }

    @Test
    void everyPackageSaysWhatItIsFor() {
        List<Path> packages = sources()
                .map(Path::getParent)
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        assertThat(packages)
                .hasSizeGreaterThan(30)
                .allSatisfy(
                        it -> assertThat(text(it.resolve("package-info.java"))).startsWith("/**"));
    }
}
