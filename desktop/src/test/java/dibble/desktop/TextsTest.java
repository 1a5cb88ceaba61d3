package dibble.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.BinaryTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ConditionalExpressionTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.tree.ParenthesizedTree;
import com.sun.source.tree.Tree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreePath;
import com.sun.source.util.TreePathScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.MessageFormat;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a user reads stands in the message bundles, and nowhere else; the bundles are whole. */
class TextsTest {
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Map<String, String> BUNDLES =
            Map.of("core", "dibble/text/core", "cli", "dibble/cli/cli", "presentation", "dibble/presentation/window");

    /** Two words, or a word that begins as a label does. */
    private static final Pattern READS_AS_TEXT =
            Pattern.compile("(?s).*\\p{L}{2,}[,.:;]? \\p{L}.*|\\p{Lu}\\p{Ll}{2,}[^/.+\\p{Lu}-]*");

    /** What these say is for those who read a log or mend a mistake in the program. */
    private static final Set<String> FOR_DEVELOPERS =
            Set.of("IllegalStateException", "UncheckedIOException", "AssertionError", "Thread", "Player");

    /** Calls whose words are names, patterns and keys. */
    private static final Pattern NAMES = Pattern.compile(
            "LOG\\..*|.*\\.(matches|split|replaceAll|replaceFirst|startsWith|setProperty|getProperty|key|resolve|font|append)"
                    + "|.*getStyleClass\\(\\)\\..*|Font\\.font|Pattern\\.compile|String\\.format");

    /** Music and gear of the demo are data; the rest are marks that other programs or parts of this one read. */
    private static final Set<String> DATA = Set.of(
            "LamplightersRound",
            "FirstMinutes",
            "Performance",
            "MachinePorts",
            "UserFolder",
            "Trace",
            "EventRing",
            "EventHistory",
            "JdkSynth",
            "StandardOutput",
            "WarmUp",
            "LargeScene",
            "Commands",
            "Palette",
            "Calls",
            "JackDevices",
            "Column",
            "SheetCsv",
            "SheetHtml",
            "SheetPdf",
            "MidnamWriter",
            "NamesReader",
            "NamesFile");

    /** Where every word is shown. */
    private static final Pattern SHOWN = Pattern.compile(
            "(.*\\.)?(setText|setAccessibleText|setPromptText|fillText|tell)"
                    + "|Cards\\.(soft|strong|heading)|Label|Button|ToggleButton|MenuItem|Menu|MenuButton|CheckBox|Tooltip|Text");

    private record Literal(String place, String text, boolean shown) {}

    @Test
    void noTextStandsInCode() throws IOException {
        List<String> texts = new ArrayList<>();
        for (String module : List.of("core", "runtime", "sound", "jack", "paper", "presentation", "cli", "desktop")) {
            literals(module, true).stream()
                    .filter(it -> READS_AS_TEXT.matcher(it.text).matches()
                            || it.shown && it.text.matches("(?s).*\\p{L}{2,}.*"))
                    .forEach(it -> texts.add(it.place + ": " + it.text));
        }
        assertThat(texts).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"core", "cli", "presentation"})
    void eachTextIsUsedAndEachKeyThatIsUsedIsThere(String module) throws IOException {
        Set<String> keys = keys(module);
        Set<String> used = new TreeSet<>();
        List<String> prefixes = new ArrayList<>();
        Pattern key = Pattern.compile("[a-z0-9-]+\\.[a-z0-9-]+");
        List<Literal> all = new ArrayList<>(literals(module, false));
        if (module.equals("core")) {
            // The modules right above the core have their texts in its bundle.
            all.addAll(literals("runtime", false));
            all.addAll(literals("sound", false));
            all.addAll(literals("paper", false));
        }
        if (module.equals("presentation")) {
            all.addAll(literals("desktop", false));
        }
        for (Literal literal : all) {
            if (key.matcher(literal.text).matches()) {
                used.add(literal.text);
            } else if (literal.text.matches("[a-z0-9-]+\\.")) {
                prefixes.add(literal.text);
            }
        }
        // The usage of the command line is looked up by the library that prints it.
        prefixes.addAll(List.of("dibble.", "usage.", "mixinStandardHelpOptions."));
        assertThat(keys.stream()
                        .filter(it -> !used.contains(it) && prefixes.stream().noneMatch(it::startsWith)))
                .as("in the bundle, not in code")
                .isEmpty();
        assertThat(said(module).stream().filter(it -> !keys.contains(it)))
                .as("in code, not in the bundle")
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"core", "cli", "presentation"})
    void eachTextIsAPatternInTypographicMarks(String module) throws IOException {
        bundle(module).forEach((key, text) -> {
            if (!key.toString().startsWith("dibble.") && !key.toString().startsWith("usage.")) {
                new MessageFormat(text.toString());
                assertThat(text.toString().replaceAll("'[{}#|<]'", ""))
                        .as(key.toString())
                        .doesNotContain("'");
                assertThat(text.toString()).as(key.toString()).doesNotContain("...");
            }
        });
    }

    @Test
    void theMarkedBundlesAreUpToDate() throws Exception {
        Process marking = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "tools/MarkTexts.java",
                        "--check")
                .directory(ROOT.toFile())
                .inheritIO()
                .start();
        assertThat(marking.waitFor())
                .as("java tools/MarkTexts.java makes them anew")
                .isZero();
    }

    private static Properties bundle(String module) throws IOException {
        Properties texts = new Properties();
        Path file = ROOT.resolve(module + "/src/main/resources/" + BUNDLES.get(module) + ".properties");
        try (var in = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            texts.load(in);
        }
        return texts;
    }

    private static Set<String> keys(String module) throws IOException {
        return bundle(module).stringPropertyNames();
    }

    /** The keys that are said as they stand. */
    private static List<String> said(String module) throws IOException {
        Pattern call = Pattern.compile("\\bsay\\(\\s*\"([^\"]+)\"");
        List<String> keys = new ArrayList<>();
        for (Path file : sources(module)) {
            call.matcher(Files.readString(file))
                    .results()
                    .map(it -> it.group(1))
                    .filter(it -> !it.endsWith("."))
                    .forEach(keys::add);
        }
        return keys;
    }

    private static List<Path> sources(String module) throws IOException {
        try (Stream<Path> files = Files.walk(ROOT.resolve(module + "/src/main/java"))) {
            return files.filter(it -> it.toString().endsWith(".java")).sorted().collect(Collectors.toList());
        }
    }

    private static List<Literal> literals(String module, boolean readByUsers) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        List<Literal> found = new ArrayList<>();
        try (StandardJavaFileManager files = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8)) {
            JavacTask task = (JavacTask)
                    compiler.getTask(null, files, null, null, null, files.getJavaFileObjectsFromPaths(sources(module)));
            SourcePositions positions = Trees.instance(task).getSourcePositions();
            for (CompilationUnitTree unit : task.parse()) {
                String name = Path.of(unit.getSourceFile().toUri())
                        .getFileName()
                        .toString()
                        .replace(".java", "");
                if (readByUsers && DATA.contains(name)) {
                    continue;
                }
                new TreePathScanner<Void, Void>() {
                    @Override
                    public Void visitLiteral(LiteralTree literal, Void none) {
                        if (literal.getValue() instanceof String text
                                && !(readByUsers && isForDevelopers(getCurrentPath()))) {
                            long line = unit.getLineMap().getLineNumber(positions.getStartPosition(unit, literal));
                            found.add(new Literal(name + ":" + line, text, isShown(getCurrentPath())));
                        }
                        return null;
                    }
                }.scan(unit, null);
            }
        }
        return found;
    }

    private static boolean isShown(TreePath path) {
        TreePath at = path.getParentPath();
        while (at.getLeaf() instanceof BinaryTree
                || at.getLeaf() instanceof ConditionalExpressionTree
                || at.getLeaf() instanceof ParenthesizedTree) {
            at = at.getParentPath();
        }
        return at.getLeaf() instanceof NewClassTree made
                        && SHOWN.matcher(made.getIdentifier().toString()).matches()
                || at.getLeaf() instanceof MethodInvocationTree call
                        && SHOWN.matcher(call.getMethodSelect().toString().replaceAll("\\s", ""))
                                .matches();
    }

    private static boolean isForDevelopers(TreePath path) {
        for (TreePath at = path; at != null; at = at.getParentPath()) {
            Tree tree = at.getLeaf();
            if (tree instanceof AnnotationTree
                    || tree instanceof NewClassTree made
                            && FOR_DEVELOPERS.contains(made.getIdentifier().toString())
                    || tree instanceof MethodInvocationTree call
                            && NAMES.matcher(call.getMethodSelect().toString().replaceAll("\\s", ""))
                                    .matches()) {
                return true;
            }
        }
        return false;
    }
}
