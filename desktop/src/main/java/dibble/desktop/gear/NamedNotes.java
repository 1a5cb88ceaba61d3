package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.NoteField;
import dibble.midi.MiddleC;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Names of notes, a line each: of a kit's sounds, or of keyswitches. The next note's field takes a key that is pressed. */
final class NamedNotes extends VBox {
    private final String id;
    private final Consumer<Map<Integer, String>> taker;
    private Map<Integer, String> shown;
    private MiddleC middleC;

    /** @param taker takes all the names after one has changed */
    NamedNotes(String id, Consumer<Map<Integer, String>> taker) {
        super(4);
        this.id = id;
        this.taker = taker;
        setId(id);
    }

    void show(Map<Integer, String> names, MiddleC naming) {
        if (names.equals(shown) && naming == middleC) {
            return;
        }
        shown = names;
        middleC = naming;
        List<Node> nodes = new ArrayList<>();
        names.forEach((note, name) -> nodes.add(line(note, name)));
        Button add = Cards.button(id + "-add", say("named-notes.name-a-note"), this::add);
        add.getStyleClass().add("small");
        nodes.add(add);
        Cards.rebuild(this, nodes);
    }

    private HBox line(int note, String name) {
        NoteField field = new NoteField(say("common.note"));
        field.setId(id + "-note-" + note);
        field.setPrefColumnCount(5);
        field.setMinWidth(66);
        field.setNote(note, middleC);
        field.setOnNote(other -> {
            Map<Integer, String> next = new TreeMap<>(shown);
            next.remove(note);
            next.put(other, name);
            taker.accept(next);
        });
        EntryField[] text = new EntryField[1];
        text[0] = Cards.field(id + "-name-" + note, say("named-notes.name-of-the-note"), () -> {
            String typed = text[0].getText().strip();
            if (!typed.equals(name)) {
                put(note, typed);
            }
        });
        text[0].setText(name);
        HBox.setHgrow(text[0], Priority.ALWAYS);
        Button remove = Cards.button(id + "-remove-" + note, "×", () -> put(note, ""));
        remove.setAccessibleText(say("named-notes.delete-the-name"));
        remove.getStyleClass().add("link");
        HBox line = new HBox(4, field, text[0], remove);
        line.getStyleClass().add("card-line");
        return line;
    }

    /** An empty name takes the line away. */
    private void put(int note, String name) {
        Map<Integer, String> next = new TreeMap<>(shown);
        if (name.isEmpty()) {
            next.remove(note);
        } else {
            next.put(note, name);
        }
        taker.accept(next);
    }

    private void add() {
        int next = shown.isEmpty() ? 36 : Math.min(127, new TreeMap<>(shown).lastKey() + 1);
        if (!shown.containsKey(next)) {
            put(next, say("common.name"));
        }
    }
}
