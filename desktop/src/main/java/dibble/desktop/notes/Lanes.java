package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Palette;
import dibble.midi.MiddleC;
import dibble.recording.ValueLane;
import dibble.session.SessionFormatter;
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

    private final NotesDrawing board;
    private final double head;
    private final Runnable stale;
    private final Map<ValueLane, Line> shown = new TreeMap<>();

    /**
     * @param head how wide the heads are
     * @param stale has everything shown again
     */
    Lanes(NotesDrawing board, double head, Runnable stale) {
        this.board = board;
        this.head = head;
        this.stale = stale;
    }

    /** An entry for each lane that the shown tracks can have. */
    List<MenuItem> items() {
        TreeSet<ValueLane> kinds = new TreeSet<>(shown.keySet());
        board.presenter()
                .sheets()
                .values()
                .forEach(sheet -> kinds.addAll(ValueLane.all(sheet.hand().whole())));
        List<MenuItem> items = new ArrayList<>();
        for (ValueLane lane : kinds) {
            CheckMenuItem item = new CheckMenuItem(name(lane));
            item.setSelected(shown.containsKey(lane));
            item.setOnAction(event -> show(lane, item.isSelected()));
            items.add(item);
        }
        if (items.isEmpty()) {
            MenuItem none = new MenuItem(say("lanes.no-controllers"));
            none.setDisable(true);
            items.add(none);
        }
        return items;
    }

    private void show(ValueLane lane, boolean on) {
        if (on) {
            Button off = Cards.button("lane-off", "×", () -> show(lane, false));
            off.setAccessibleText(say("lanes.hide", name(lane)));
            off.getStyleClass().add("small");
            Label name = new Label(name(lane));
            name.setMinWidth(0);
            LaneArea area = new LaneArea(board, lane, name(lane));
            shown.put(lane, new Line(line(Cards.line(name, off), head, area), area));
        } else {
            shown.remove(lane);
        }
        getChildren().setAll(shown.values().stream().map(Line::node).toList());
        stale.run();
    }

    private static String name(ValueLane lane) {
        return switch (lane.kind()) {
            case PITCH_BEND -> say("lanes.pitch-bend");
            case CHANNEL_PRESSURE -> say("lanes.channel-pressure");
            case KEY_PRESSURE -> say("lanes.poly-pressure");
            case PROGRAM_CHANGE -> say("lanes.program-change");
            default -> SessionFormatter.control(lane.kind(), lane.number(), MiddleC.C4);
        };
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
