package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.live.Why;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;

/** A line of an explanation: whether an object has output, the object as a link, and its effect. */
final class WhyLine extends HBox {
    private final Label mark = new Label();
    private final PartBadge chip = new PartBadge();
    private final Button name;
    private final Label text = new Label();
    private Why.Line line;

    WhyLine(ViewContext desk) {
        super(8);
        getStyleClass().add("card-line");
        name = Cards.button("", "", () -> desk.places().show(line.thing()));
        name.getStyleClass().add("link");
        name.setTooltip(new Tooltip(say("common.show-it")));
        text.setWrapText(true);
        getChildren().addAll(mark, chip, name, text);
    }

    void show(Why.Line next) {
        if (next.equals(line)) {
            return;
        }
        line = next;
        mark.setText(line.sounds() ? "●" : "○");
        mark.getStyleClass().setAll("label", line.sounds() ? "arrow" : "quiet");
        Cards.show(chip, !line.channel().isEmpty());
        chip.show(line.colour(), line.channel());
        Cards.show(name, line.thing() != null);
        name.setId(line.thing() == null ? null : "why-" + line.thing().id());
        name.setText(line.name());
        text.setText(line.text());
        text.getStyleClass().setAll("label", line.sounds() ? "plain" : "quiet");
    }
}
