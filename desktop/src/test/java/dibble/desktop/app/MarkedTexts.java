package dibble.desktop.app;

import dibble.files.SessionContent;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.Parts;
import dibble.text.Texts;
import dibble.user.GearShelf;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.text.Text;

/**
 * The marked language, in which every text of the bundles stands in ⟦ ⟧ and is a third longer. What is shown without marks
 * was written in code, unless it comes from the session or from the user.
 */
final class MarkedTexts {
    private static final Pattern WORD = Pattern.compile("\\p{L}{3,}");
    private static final Pattern INNERMOST = Pattern.compile("⟦[^⟦⟧]*⟧");

    /** What is the same in every language: the numbers of controllers, names of keys, of notes, and what files are called. */
    private static final Set<String> EVERYWHERE = Set.of(
            "ctrl", "shift", "alt", "space", "enter", "delete", "bpm", "dibble", "qwerty", "qwertz", "azerty", "midi");

    /** What undo and redo are of comes from whoever edited: in tests, from the test. */
    private static final Set<String> BACK = Set.of("undo", "redo");

    private MarkedTexts() {}

    static boolean areShown() {
        return System.getProperty(Texts.LANGUAGE, "").equals("en-XA");
    }

    /** A text without its marks; null stays null. */
    static String off(String text) {
        return text == null ? null : text.replaceAll("[⟦⟧˙]", "");
    }

    /** What is shown and in no bundle, with where it is. */
    static List<String> strays(Node root, Session session) {
        String names = (new String(SessionContent.json(session, Performance.NEW), StandardCharsets.UTF_8)
                        + shelf()
                        + Parts.all())
                .toLowerCase(Locale.ROOT);
        List<String> strays = new ArrayList<>();
        each(root, node -> {
            String id = String.valueOf(node.getId());
            if (!BACK.contains(id) && !id.startsWith("bare-recent-")) {
                texts(node).forEach(text -> look(node, text, names, strays));
            }
        });
        return strays;
    }

    private static void look(Node node, String text, String names, List<String> strays) {
        Matcher word = WORD.matcher(unmarked(text));
        while (word.find()) {
            String small = word.group().toLowerCase(Locale.ROOT);
            if (!names.contains(small) && !EVERYWHERE.contains(small)) {
                strays.add(node.getClass().getSimpleName() + " " + node.getId() + ": " + text);
                return;
            }
        }
    }

    /** The names of what ships on the gear shelf: data, as a session's are. */
    private static String shelf() {
        return new GearShelf(Path.of("nowhere"))
                .contents().kept().stream().map(kept -> kept.item().name()).collect(Collectors.joining(" "));
    }

    /** Buttons whose text does not fit. */
    static List<String> cut(Node root) {
        List<String> cut = new ArrayList<>();
        each(root, node -> {
            if (node instanceof ButtonBase button && button.getText() != null) {
                for (Node inner : button.lookupAll(".text")) {
                    if (inner instanceof Text text
                            && text.getParent() == button
                            && !text.getText().equals(button.getText())) {
                        cut.add(button.getId() + ": " + text.getText());
                    }
                }
            }
        });
        return cut;
    }

    /** Returns the labels below a node that show less than their text. */
    static List<String> cutLabels(Node root) {
        List<String> cut = new ArrayList<>();
        each(root, node -> {
            if (node instanceof Label label && label.getText() != null && !label.isWrapText()) {
                for (Node inner : label.lookupAll(".text")) {
                    if (inner instanceof Text text
                            && text.getParent() == label
                            && !text.getText().equals(label.getText())) {
                        cut.add(label.getText() + ": " + text.getText());
                    }
                }
            }
        });
        return cut;
    }

    private static List<String> texts(Node node) {
        List<String> texts = new ArrayList<>();
        // The links of the help are in its pages, which are no bundle.
        if (node instanceof Labeled labeled && !(node instanceof Hyperlink) && labeled.getText() != null) {
            texts.add(labeled.getText());
        }
        if (node instanceof TextInputControl field && field.getPromptText() != null) {
            texts.add(field.getPromptText());
        }
        if (node.getAccessibleText() != null) {
            texts.add(node.getAccessibleText());
        }
        return texts;
    }

    private static String unmarked(String text) {
        String before;
        String now = text;
        do {
            before = now;
            now = INNERMOST.matcher(before).replaceAll(" ");
        } while (!now.equals(before));
        return now;
    }

    static void each(Node node, Consumer<Node> taker) {
        if (!node.isVisible()) {
            return;
        }
        taker.accept(node);
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> each(child, taker));
        }
    }
}
