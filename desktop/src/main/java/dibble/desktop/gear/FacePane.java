package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.midi.GeneralMidi;
import dibble.midi.NoteNames;
import dibble.standins.Face;
import dibble.standins.StandIn;
import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** The display of a stand-in module: the state of its sixteen channels. */
final class FacePane extends VBox {
    private static final PseudoClass SOUNDS = PseudoClass.getPseudoClass("sounds");

    private static final PseudoClass OWNED = PseudoClass.getPseudoClass("owned");

    private final ViewContext desk;
    private final Instrument instrument;
    private final StandIn device;
    private final Label count = Cards.soft("");
    private final List<Cell> cells = new ArrayList<>();

    private static final class Cell extends VBox {
        final Label sound = new Label();
        final Label note = new Label();
        Face.Channel shown;
    }

    FacePane(ViewContext desk, Instrument instrument, StandIn device) {
        super(6);
        this.desk = desk;
        this.instrument = instrument;
        this.device = device;
        setId("face-" + instrument.id());
        getStyleClass().add("face");
        FlowPane grid = new FlowPane(4, 4);
        for (int channel = 1; channel <= 16; channel++) {
            Cell cell = new Cell();
            cell.getStyleClass().add("face-cell");
            cell.setId("face-" + instrument.id() + "-" + channel);
            Label number = new Label(String.valueOf(channel));
            number.getStyleClass().add("strong");
            cell.sound.getStyleClass().add("face-line");
            cell.note.getStyleClass().add("face-line");
            cell.setStyle(PartColours.css(colour(channel)));
            cell.pseudoClassStateChanged(OWNED, colour(channel) > 0);
            cell.getChildren().setAll(number, cell.sound, cell.note);
            cells.add(cell);
            grid.getChildren().add(cell);
        }
        getChildren().setAll(count, grid);
        follow();
    }

    private int colour(int channel) {
        return desk.routing().partAt(instrument.id(), channel).map(Part::colour).orElse(0);
    }

    /** Shows events since the last frame. */
    void follow() {
        Face face = device.face();
        String text = say("face-pane.received-data-message", face.received(), face.received() == 1);
        if (!text.equals(count.getText())) {
            count.setText(text);
        }
        for (int channel = 1; channel <= 16; channel++) {
            Cell cell = cells.get(channel - 1);
            Face.Channel now = face.channel(channel);
            if (!now.equals(cell.shown)) {
                cell.shown = now;
                cell.sound.setText(now.program() < 0 ? "–" : GeneralMidi.program(now.program()));
                String level = now.volume() < 0 ? "" : say("face-pane.level", now.volume());
                cell.note.setText(level
                        + (now.note() < 0
                                ? ""
                                : NoteNames.name(now.note(), desk.session().middleC())));
                cell.pseudoClassStateChanged(SOUNDS, now.held() > 0);
            }
        }
    }
}
