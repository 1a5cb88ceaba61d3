package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.files.IoWords;
import dibble.gear.Instrument;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.gear.GearPresenter;
import dibble.session.ShelfItem;
import dibble.user.GearShelf;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * The gear shelf: the user's items for other sessions, and the shipped ones. It asks in place for the targets of zones.
 */
final class ShelfPanel extends VBox {
    private static final Choice<String> LEFT_OUT = new Choice<>(null, say("shelf-panel.leave-out"));

    private final ViewContext desk;
    private final GearPresenter presenter;

    ShelfPanel(ViewContext desk, GearPresenter presenter) {
        super(6);
        this.desk = desk;
        this.presenter = presenter;
        setId("shelf");
        getStyleClass().add("gear-ports");
    }

    /** Looks at the shelf again, on its disk. */
    void load() {
        desk.jobs()
                .start(
                        say("shelf-panel.reading-the-gear-shelf"),
                        progress -> desk.shelf().contents(),
                        this::show);
    }

    private void show(GearShelf.Contents contents) {
        presenter.keepShelfNames(contents.kept().stream()
                .flatMap(kept -> kept.item().instruments().stream())
                .map(Instrument::names)
                .filter(Objects::nonNull)
                .toList());
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.heading(say("shelf-panel.gear-shelf"), say("about.shelf")));
        Label about = Cards.soft(say("shelf-panel.keyboards-and-modules-with-or"));
        about.setWrapText(true);
        nodes.add(about);
        for (int i = 0; i < contents.kept().size(); i++) {
            nodes.add(line(contents.kept().get(i), i));
        }
        contents.damaged().forEach(text -> {
            Label label = new Label(say("shelf-panel.skipped", text));
            label.setWrapText(true);
            label.getStyleClass().add("missing");
            nodes.add(label);
        });
        Button keep =
                Cards.button("keep-zones", say("shelf-panel.save-current-zones"), () -> keep(presenter.zonesToKeep()));
        keep.getStyleClass().add("small");
        nodes.add(keep);
        Cards.rebuild(this, nodes);
    }

    private VBox line(GearShelf.Kept kept, int place) {
        ShelfItem item = kept.item();
        VBox question = new VBox(6);
        Button add = Cards.button("shelf-add-" + place, say("shelf-panel.add"), () -> add(item, question));
        add.getStyleClass().add("link");
        add.setAccessibleText(say("common.add", item.name()));
        HBox ends = new HBox(add);
        if (kept.file() != null) {
            Button remove = Cards.button("shelf-remove-" + place, "×", () -> remove(kept));
            remove.getStyleClass().add("link");
            remove.setAccessibleText(say("shelf-panel.delete-from-the-gear-shelf", item.name()));
            ends.getChildren().add(remove);
        }
        Label name = new Label(item.name());
        VBox line = new VBox(2, Cards.line(name, ends), question);
        line.getStyleClass().add("shelf-line");
        String holds = holds(item);
        if (!holds.isEmpty()) {
            line.getChildren().add(1, Cards.soft(holds));
        }
        return line;
    }

    private static String holds(ShelfItem item) {
        return item.zones().isEmpty()
                ? ""
                : say("shelf-panel.with-zones", item.zones().size());
    }

    /** Puts something on the shelf. */
    void keep(ShelfItem item) {
        desk.jobs()
                .start(
                        say("shelf-panel.saving-to-the-gear-shelf", item.name()),
                        progress -> {
                            desk.shelf().keep(item);
                            return item;
                        },
                        kept -> {
                            desk.ask().tell(say("shelf-panel.is-on-the-gear-shelf", item.name()));
                            load();
                        },
                        e -> desk.ask()
                                .tell(say(
                                        "shelf-panel.not-saved-cannot-be-written",
                                        desk.preferences().folder(),
                                        IoWords.of(e))));
    }

    private void remove(GearShelf.Kept kept) {
        desk.jobs()
                .start(
                        say(
                                "shelf-panel.deleting-from-the-gear-shelf",
                                kept.item().name()),
                        progress -> {
                            desk.shelf().remove(kept);
                            return kept;
                        },
                        gone -> load(),
                        e -> desk.ask().tell(say("shelf-panel.not-deleted-from-the-gear", IoWords.of(e))));
    }

    private void add(ShelfItem item, VBox question) {
        ShelfItem.Places found = item.guess(desk.session());
        boolean all = found.sources().size() == item.places().sources().size()
                && found.parts().size() == item.places().parts().size()
                && found.instruments().size() == item.places().instruments().size();
        if (all) {
            presenter.add(item, found);
        } else {
            ask(item, found, question);
        }
    }

    /** Asks for the ends of the zones in this session. */
    private void ask(ShelfItem item, ShelfItem.Places found, VBox question) {
        GridPane grid = new GridPane();
        grid.setHgap(6);
        grid.setVgap(4);
        ShelfItem.Places[] now = {found};
        Label outcome = Cards.soft("");
        outcome.setId("shelf-outcome");
        Runnable show = () -> {
            int left = item.addTo(desk.session(), now[0]).left();
            outcome.setText(say(
                    "shelf-panel.of-zones",
                    item.zones().size() - left,
                    item.zones().size()));
        };
        byName(
                item.places().sources(),
                (id, name) -> choice(
                        grid,
                        "place-" + id,
                        name,
                        Choices.sources(desk.session()),
                        found.sources().get(id),
                        to -> {
                            now[0] = now[0].withSource(id, to);
                            show.run();
                        }));
        byName(
                item.places().parts(),
                (ref, name) -> choice(
                        grid,
                        "place-" + ref.replace('/', '-'),
                        name,
                        parts(),
                        found.parts().get(ref),
                        to -> {
                            now[0] = now[0].withPart(ref, to);
                            show.run();
                        }));
        byName(
                item.places().instruments(),
                (id, name) -> choice(
                        grid,
                        "place-" + id,
                        name,
                        Choices.instruments(desk.session()),
                        found.instruments().get(id),
                        to -> {
                            now[0] = now[0].withInstrument(id, to);
                            show.run();
                        }));
        show.run();
        FlowPane buttons = new FlowPane(
                6,
                4,
                Cards.button("shelf-do", say("shelf-panel.add-2"), () -> {
                    question.getChildren().clear();
                    presenter.add(item, now[0]);
                }),
                Cards.button(
                        "shelf-cancel",
                        say("common.cancel"),
                        () -> question.getChildren().clear()),
                outcome);
        Label asks = Cards.soft(say("shelf-panel.what-should-take-their-place"));
        question.getChildren().setAll(asks, grid, buttons);
    }

    private static void byName(Map<String, String> places, BiConsumer<String, String> taker) {
        places.entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .forEach(place -> taker.accept(place.getKey(), place.getValue()));
    }

    private static void choice(
            GridPane grid, String id, String name, List<Choice<String>> choices, String guess, Consumer<String> taker) {
        ComboBox<Choice<String>> box = Cards.box(id, say("shelf-panel.what-takes-the-place-of", name));
        Form.choose(box, Choices.with(LEFT_OUT, choices), guess);
        box.setOnAction(event -> taker.accept(box.getValue().value()));
        Label label = new Label(name);
        label.setMinWidth(70);
        label.setMaxWidth(110);
        grid.addRow(grid.getRowCount(), label, box);
    }

    /** Parts as the item names them. */
    private List<Choice<String>> parts() {
        return Choices.parts(desk.session()).stream()
                .map(it -> new Choice<>(it.value().toString(), it.words()))
                .toList();
    }
}
