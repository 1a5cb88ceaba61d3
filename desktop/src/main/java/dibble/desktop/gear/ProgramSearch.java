package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.PartRef;
import dibble.presentation.Choice;
import dibble.presentation.Programs;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;

/** Finds a program of a device by a part of its name: typed, and chosen with Enter or a click. */
final class ProgramSearch extends VBox {
    private static final int MAX = 8;

    private final ViewContext desk;
    private final Consumer<Programs.Picked> taker;
    private final TextField field = new TextField();
    private final VBox found = new VBox(2);
    private Programs programs;

    /** @param taker receives the chosen program */
    ProgramSearch(ViewContext desk, Consumer<Programs.Picked> taker) {
        super(4);
        this.desk = desk;
        this.taker = taker;
        field.setId("program-search");
        field.setPromptText(say("program-search.part-of-a-name"));
        field.setAccessibleText(say("program-search.search-programs-by-name"));
        field.textProperty().subscribe(text -> find(text));
        field.setOnAction(event -> {
            if (!found.getChildren().isEmpty()) {
                ((Button) found.getChildren().get(0)).fire();
            }
        });
        getChildren().addAll(field, found);
    }

    void show(PartRef ref) {
        programs = new Programs(desk.session(), ref);
        find(field.getText());
    }

    private void find(String text) {
        List<Node> nodes = new ArrayList<>();
        if (programs != null && !text.isBlank()) {
            for (Choice<Programs.Picked> choice : programs.search(text, MAX)) {
                Button button = Cards.button("program-found-" + nodes.size(), choice.words(), () -> {
                    field.clear();
                    taker.accept(choice.value());
                });
                button.getStyleClass().add("link");
                nodes.add(button);
            }
            if (nodes.isEmpty()) {
                nodes.add(Cards.soft(say("program-search.none")));
            }
        }
        Cards.rebuild(found, nodes);
    }
}
