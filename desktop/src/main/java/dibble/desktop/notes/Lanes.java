package dibble.desktop.notes;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Palette;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The lanes below the notes: one for each controller and the like that is wanted. */
final class Lanes extends VBox {
    /** A lane with its head. */
    private record Line(HBox node, LaneArea area) {}

    private final Board board;
    private final double head;
    private final Runnable stale;
    private final Map<LaneKind, Line> shown = new TreeMap<>();

    /**
     * @param head how wide the heads are
     * @param stale has everything shown again
     */
    Lanes(Board board, double head, Runnable stale) {
        this.board = board;
        this.head = head;
        this.stale = stale;
    }

    /** An entry for each lane that the shown tracks can have. */
    List<MenuItem> items() {
        TreeSet<LaneKind> kinds = new TreeSet<>(shown.keySet());
        board.presenter()
                .sheets()
                .values()
                .forEach(sheet -> kinds.addAll(LaneKind.all(sheet.hand().whole(), sheet.index())));
        List<MenuItem> items = new ArrayList<>();
        for (LaneKind kind : kinds) {
            CheckMenuItem item = new CheckMenuItem(kind.name());
            item.setSelected(shown.containsKey(kind));
            item.setOnAction(event -> show(kind, item.isSelected()));
            items.add(item);
        }
        if (items.isEmpty()) {
            MenuItem none = new MenuItem(say("lanes.no-controllers"));
            none.setDisable(true);
            items.add(none);
        }
        return items;
    }

    private void show(LaneKind kind, boolean on) {
        if (on) {
            Button off = Cards.button("lane-off", "×", () -> show(kind, false));
            off.setAccessibleText(say("lanes.hide", kind.name()));
            off.getStyleClass().add("small");
            Label name = new Label(kind.name());
            name.setMinWidth(0);
            LaneArea area = new LaneArea(board, kind);
            shown.put(kind, new Line(line(Cards.line(name, off), head, area), area));
        } else {
            shown.remove(kind);
        }
        getChildren().setAll(shown.values().stream().map(Line::node).toList());
        stale.run();
    }

    /** An area with a head at its left, as wide as those of tracks. */
    static HBox line(Region left, double head, Node area) {
        left.getStyleClass().add("lane-head");
        left.setMinWidth(head);
        left.setMaxWidth(head);
        HBox.setHgrow(area, Priority.ALWAYS);
        HBox line = new HBox(left, area);
        line.getStyleClass().add("note-lane-line");
        return line;
    }

    void draw(Palette palette) {
        shown.values().forEach(line -> line.area().draw(palette));
    }
}
