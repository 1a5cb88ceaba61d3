import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Makes the marked bundles of the core and the window, whose texts stand in ⟦ ⟧ and are a third longer: what has no marks
 * in a window that runs with them was written in code. {@code java tools/MarkTexts.java} writes them,
 * {@code java tools/MarkTexts.java --check} says by its exit code whether they are up to date.
 */
class MarkTexts {
    private static final List<String> BUNDLES = List.of("core/%s/dibble/text/core", "presentation/%s/dibble/presentation/window");
    private static final String TO = "desktop/src/test/resources";

    public static void main(String[] args) throws IOException {
        boolean checks = args.length > 0 && args[0].equals("--check");
        boolean same = true;
        for (String bundle : BUNDLES) {
            Path from = Path.of(String.format(bundle, "src/main/resources") + ".properties");
            String name = bundle.substring(bundle.indexOf("%s") + 3);
            Path to = Path.of(TO, name + "_en_XA.properties");
            String marked = Files.readAllLines(from).stream()
                    .map(MarkTexts::marked)
                    .collect(Collectors.joining("\n", "# Made by tools/MarkTexts.java.\n", "\n"));
            if (checks) {
                same &= Files.exists(to) && Files.readString(to).equals(marked);
            } else {
                Files.createDirectories(to.getParent());
                Files.writeString(to, marked);
            }
        }
        System.exit(same ? 0 : 1);
    }

    private static String marked(String line) {
        int at = line.indexOf(" = ");
        if (at < 0 || line.startsWith("#")) {
            return line;
        }
        String key = line.substring(0, at);
        String text = line.substring(at + 3);
        if (key.startsWith("general-midi.")) {
            return key + " = " + List.of(text.split(";")).stream().map(MarkTexts::mark).collect(Collectors.joining(";"));
        }
        return key + " = " + (text.matches(".*\\p{L}.*") && !text.contains("\\u") ? mark(text) : text);
    }

    /** Arguments and escapes do not count as letters. */
    private static String mark(String text) {
        int letters = text.replaceAll("\\{[^{}]*}|\\\\.", "").length();
        return "⟦" + text + "˙".repeat((letters + 2) / 3) + "⟧";
    }
}
