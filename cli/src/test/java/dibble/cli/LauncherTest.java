package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The script that starts Dibble, with a Java that only says how it was called. */
class LauncherTest {
    private static final Path START = Path.of("..", "tools/start");

    @TempDir
    private Path folder;

    private Path script;
    private Path lib;

    @BeforeEach
    void aFolderThatIsBuilt() throws IOException {
        Path original = Path.of("..", "dibble");
        assumeTrue(Files.isExecutable(Path.of("/bin/sh")) && Files.exists(original));
        Path home = Files.createDirectories(folder.resolve("a home/dibble"));
        script = home.resolve("dibble");
        Files.copy(original, script, StandardCopyOption.COPY_ATTRIBUTES);
        for (String source : List.of("pom.xml", "core/pom.xml", "core/src/main/x", "cli/src/main/x")) {
            Files.createDirectories(home.resolve(source).getParent());
            Files.createFile(home.resolve(source));
        }
        copyStart(home.resolve("tools/start"));
        lib = Files.createDirectories(home.resolve("target/lib"));
        Files.createFile(lib.resolve(".built"));
        Files.createFile(lib.resolve("java-17-commands.jsa"));
        Files.createFile(lib.resolve("java-17-window.jsa"));
        Path java = Files.createDirectories(folder.resolve("java/bin")).resolve("java");
        Files.writeString(java, "#!/bin/sh\nfor a in \"$@\"; do echo \"$a\"; done\necho \"LC_ALL=$LC_ALL\"\n");
        assertThat(java.toFile().setExecutable(true)).isTrue();
        Files.writeString(folder.resolve("java/release"), "JAVA_VERSION=\"17.0.15\"\n");
    }

    private static void copyStart(Path to) throws IOException {
        Files.createDirectories(to);
        try (Stream<Path> files = Files.list(START)) {
            for (Path file : files.toList()) {
                Files.copy(file, to.resolve(file.getFileName()));
            }
        }
    }

    private record Said(int code, List<String> lines) {
        /** Returns the main class and its arguments. */
        List<String> call() {
            int main = lines.indexOf("-cp") + 2;
            return lines.subList(main, lines.size() - 1);
        }
    }

    private Said run(Path called, Map<String, String> environment, String... args)
            throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(called.toString()));
        command.addAll(Arrays.asList(args));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().put("JAVA_HOME", folder.resolve("java").toString());
        builder.environment().putAll(environment);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Said(process.waitFor(), said.lines().toList());
    }

    private void assertRefused(Map<String, String> environment, String... words) throws Exception {
        Said said = run(script, environment, "ports");
        assertThat(said.code()).isEqualTo(2);
        assertThat(said.lines()).last().asString().startsWith("dibble: ").contains(words);
        assertThat(said.lines()).noneMatch(line -> line.contains("\tat "));
    }

    private List<String> call(String... args) throws IOException, InterruptedException {
        return run(script, Map.of(), args).call();
    }

    @Test
    void commandsNeedNoWindowAndFilesDo() throws Exception {
        Files.createFile(folder.resolve("round one.dibble"));
        assertThat(call("check", "x y")).containsExactly("dibble.cli.Main", "check", "x y");
        assertThat(call("--help")).containsExactly("dibble.cli.Main", "--help");
        assertThat(call("round one.dibble")).containsExactly("dibble.desktop.app.Main", "round one.dibble");
        assertThat(call("demo")).containsExactly("dibble.desktop.app.Main", "demo");
        assertThat(call()).containsExactly("dibble.desktop.app.Main");
        assertThat(call("--", "-odd.dibble")).containsExactly("dibble.desktop.app.Main", "-odd.dibble");
    }

    @Test
    void everyCommandIsKnownToTheScript() throws Exception {
        Set<String> known = new HashSet<>(
                List.of(Files.readString(START.resolve("commands")).strip().split(" ")));
        Set<String> expected = new HashSet<>(Main.commands().getSubcommands().keySet());
        expected.addAll(List.of("-h", "--help", "-V", "--version"));
        assertThat(known).isEqualTo(expected);
    }

    @Test
    void aPackageTellsCommandsFromFilesInTheSameWayAndGoesOnWithoutADisplay() throws Exception {
        Path place = Files.createDirectories(folder.resolve("lib/dibble"));
        copyStart(place.resolve("lib/start"));
        Path called = Files.createDirectories(place.resolve("bin")).resolve("dibble");
        Files.copy(Path.of("..", "tools/package/dibble"), called, StandardCopyOption.COPY_ATTRIBUTES);
        Path java = Files.createDirectories(place.resolve("lib/runtime/bin")).resolve("java");
        Files.writeString(java, """
                #!/bin/sh
                while [ "$1" != -cp ]; do shift; done
                shift 2
                echo "$* on ${DISPLAY-none}"
                [ "$1" = dibble.cli.Main ] || [ -z "${DISPLAY-}" ] || exit 75
                """);
        assertThat(java.toFile().setExecutable(true)).isTrue();
        assertThat(called.toFile().setExecutable(true)).isTrue();
        Path link = Files.createSymbolicLink(
                Files.createDirectories(folder.resolve("usr")).resolve("dibble"), called);
        Files.createFile(folder.resolve("round.dibble"));
        Map<String, String> display = Map.of("DISPLAY", ":123");
        assertThat(run(link, display, "check", "x").lines()).containsExactly("dibble.cli.Main check x on :123");
        assertThat(run(link, display, "chekc").lines()).containsExactly("dibble.cli.Main chekc on :123");
        assertThat(run(link, display, "--", "round.dibble").lines())
                .containsExactly(
                        "dibble.desktop.app.Main round.dibble on :123",
                        "dibble: the display :123 cannot be used; going on without one",
                        "dibble.desktop.app.Main round.dibble on none");
    }

    @Test
    void whatIsMistypedOrMissingOpensNoWindow() throws Exception {
        assertThat(call("chekc", "x")).containsExactly("dibble.cli.Main", "chekc", "x");
        assertThat(call("missing.dibble")).containsExactly("dibble.cli.Main", "missing.dibble");
        assertThat(call("render", "x")).containsExactly("dibble.cli.Main", "render", "x");
    }

    @Test
    void itIsFoundThroughLinksFromAnywhereWithAnyEnvironment() throws Exception {
        Path links = Files.createDirectories(folder.resolve("bin"));
        Path link = Files.createSymbolicLink(links.resolve("dibble"), script);
        Path second = Files.createSymbolicLink(links.resolve("d"), Path.of("dibble"));
        for (Path called : List.of(link, second)) {
            Said said = run(called, Map.of("CDPATH", ".:" + folder + ":/"), "ports");
            assertThat(said.call()).containsExactly("dibble.cli.Main", "ports");
            assertThat(said.lines()).contains(lib.toRealPath() + "/*");
        }
    }

    @Test
    void namesAreUtf8WhateverTheEnvironmentSays() throws Exception {
        assertThat(run(script, Map.of("LANG", "C", "LC_ALL", ""), "ports").lines())
                .endsWith("LC_ALL=C.UTF-8");
        assertThat(run(script, Map.of("LANG", "C", "LC_ALL", "de_DE.UTF-8"), "ports")
                        .lines())
                .endsWith("LC_ALL=de_DE.UTF-8");
    }

    @Test
    void aFolderThatItDidNotMakeIsLeftAlone() throws Exception {
        Files.delete(lib.resolve(".built"));
        Path precious = Files.writeString(lib.resolve("precious"), "mine");
        Said said = run(script, Map.of(), "ports");
        assertThat(said.code()).isEqualTo(2);
        assertThat(said.lines()).singleElement().asString().contains("was not made by this");
        assertThat(precious).hasContent("mine");
    }

    @Nested
    class BeforeItIsBuilt {
        private Path tools;
        private Map<String, String> environment;

        /** The programs that the script calls, and a Maven of the test's own. */
        @BeforeEach
        void unbuilt() throws IOException {
            Files.walk(lib)
                    .sorted(Comparator.reverseOrder())
                    .forEach(file -> file.toFile().delete());
            tools = Files.createDirectories(folder.resolve("tools"));
            for (String tool : List.of(
                    "sh",
                    "cat",
                    "chmod",
                    "cp",
                    "dirname",
                    "find",
                    "grep",
                    "head",
                    "ln",
                    "mkdir",
                    "mktemp",
                    "mv",
                    "readlink",
                    "rm",
                    "sed",
                    "sleep",
                    "touch",
                    "uname")) {
                Path found = Stream.of("/usr/bin", "/bin")
                        .map(place -> Path.of(place, tool))
                        .filter(Files::exists)
                        .findFirst()
                        .orElseThrow();
                Files.createSymbolicLink(tools.resolve(tool), found);
            }
            executable(folder.resolve("java/bin/javac"), "#!/bin/sh\n");
            environment = Map.of("PATH", tools.toString(), "HOME", folder.toString());
        }

        private static void executable(Path file, String text) throws IOException {
            Files.writeString(file, text);
            assertThat(file.toFile().setExecutable(true)).isTrue();
        }

        @Test
        void saysThatThereIsNoMaven() throws Exception {
            assertRefused(environment, "no Maven found", "3.8 or newer");
        }

        @Test
        void saysThatThereIsNoCompiler() throws Exception {
            executable(tools.resolve("mvn"), "#!/bin/sh\nexit 1\n");
            Files.delete(folder.resolve("java/bin/javac"));
            assertRefused(environment, "without a compiler", "JDK");
        }

        @Test
        void saysThatPackagesCannotBeFetched() throws Exception {
            executable(tools.resolve("mvn"), "#!/bin/sh\necho '[ERROR] Unknown host: packages.invalid'\nexit 1\n");
            assertRefused(environment, "cannot be fetched", "network", "build.log");
        }

        @Test
        void saysThatABuildFailed() throws Exception {
            executable(tools.resolve("mvn"), "#!/bin/sh\necho '[ERROR] a semicolon is missing'\nexit 1\n");
            assertRefused(environment, "the build failed", "build.log");
        }

        /** The second start waits until the first has built, and builds nothing itself. */
        @Test
        void buildsOnceHoweverManyStart() throws Exception {
            Path go = folder.resolve("go");
            executable(tools.resolve("mvn"), """
                    #!/bin/sh
                    echo built >>"$HOME/builds"
                    until [ -e "$HOME/go" ]; do sleep 0.02; done
                    for argument in "$@"; do
                        case $argument in -DoutputDirectory=*) touch "${argument#*=}/library.jar" ;; esac
                    done
                    mkdir -p cli/target desktop/target
                    touch cli/target/dibble-cli.jar desktop/target/dibble-desktop.jar
                    """);
            List<Process> starts = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                ProcessBuilder builder = new ProcessBuilder(script.toString(), "ports");
                builder.environment().put("JAVA_HOME", folder.resolve("java").toString());
                builder.environment().putAll(environment);
                starts.add(builder.redirectErrorStream(true)
                        .redirectOutput(folder.resolve("said-" + i).toFile())
                        .start());
            }
            // Two of them say that they wait; only then does the build go on.
            await().until(() -> {
                int waiting = 0;
                for (int i = 0; i < 3; i++) {
                    waiting +=
                            Files.readString(folder.resolve("said-" + i)).contains("waiting for another start") ? 1 : 0;
                }
                return waiting == 2;
            });
            Files.createFile(go);
            for (int i = 0; i < 3; i++) {
                assertThat(starts.get(i).waitFor())
                        .as(Files.readString(folder.resolve("said-" + i)))
                        .isZero();
                assertThat(Files.readString(folder.resolve("said-" + i))).contains("dibble.cli.Main");
            }
            assertThat(folder.resolve("builds")).hasContent("built");
            try (Stream<Path> left = Files.list(lib.getParent())) {
                assertThat(left.map(path -> path.getFileName().toString()))
                        .allMatch(name -> name.equals("lib") || name.startsWith("lib-") || name.equals("build.log"))
                        .hasSize(3);
            }
        }

        /** The lock of a start that was killed is not waited for. */
        @Test
        void takesTheLockOfAStartThatIsGone() throws Exception {
            executable(tools.resolve("mvn"), "#!/bin/sh\nexit 1\n");
            Process gone = new ProcessBuilder("true").start();
            gone.waitFor();
            Path lock = Files.createDirectories(lib.resolveSibling(".building"));
            Files.writeString(lock.resolve("owner"), String.valueOf(gone.pid()));
            assertRefused(environment, "the build failed");
            assertThat(lock).doesNotExist();
        }
    }

    @Test
    void aJavaHomeWithoutAJavaIsNamed() throws Exception {
        assertRefused(
                Map.of("JAVA_HOME", folder.resolve("nowhere").toString()), "JAVA_HOME is", "nowhere", "17 or newer");
    }

    @Test
    void anOldJavaIsCalledByItsNumber() throws Exception {
        Files.writeString(folder.resolve("java/release"), "JAVA_VERSION=\"1.8.0_392\"\n");
        assertRefused(Map.of(), "Java 8 is too old");
        Files.writeString(folder.resolve("java/release"), "JAVA_VERSION=\"11.0.2\"\n");
        assertRefused(Map.of(), "Java 11 is too old");
    }
}
