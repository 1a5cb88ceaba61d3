package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Effects;
import dibble.gear.Instrument;
import dibble.presentation.levels.LevelsPresenter;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** The header of an instrument above its strips, with the room and chorus of a built-in one. */
final class InstrumentHeader extends HBox {
    private final ViewContext desk;
    private final LevelsPresenter presenter;
    private final Label name = Cards.heading("");
    private final Label about = Cards.soft("");
    private final HBox effects = new HBox(10);
    private final List<SendBar> bars;
    private Instrument shown;

    InstrumentHeader(ViewContext desk, LevelsPresenter presenter) {
        super(12);
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("strip-group");
        setAlignment(Pos.BASELINE_LEFT);
        name.setMinWidth(USE_PREF_SIZE);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        bars = List.of(
                bar("room", say("levels-view.room-size")),
                bar("damping", say("levels-view.damping")),
                bar("rate", say("levels-view.chorus-rate")),
                bar("depth", say("levels-view.chorus-depth")));
        effects.setAlignment(Pos.CENTER_LEFT);
        effects.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(name, about, space, effects);
    }

    private SendBar bar(String id, String words) {
        int controller = Effects.FIRST_CONTROLLER + effects.getChildren().size() / 2;
        SendBar bar = new SendBar(words, Effects.USUAL.at(controller));
        bar.setId("effect-" + id);
        bar.on(desk, () -> {
            String dragged = shown.id();
            return to -> presenter.effectsEdit(dragged, it -> it.with(controller, (int) Math.round(to)));
        });
        effects.getChildren().addAll(Cards.soft(words), (Node) bar);
        return bar;
    }

    void show(Instrument instrument) {
        shown = instrument;
        setId("levels-" + instrument.id());
        name.setText(instrument.name());
        about.setText(instrument.builtIn() ? say("levels-view.built-in") : say("levels-view.module"));
        Cards.show(effects, instrument.builtIn());
        for (int i = 0; i < bars.size(); i++) {
            bars.get(i).show(instrument.effects().at(Effects.FIRST_CONTROLLER + i));
        }
    }
}
