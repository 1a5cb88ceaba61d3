package dibble.desktop.sheet;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.session.Performance;
import dibble.sheet.SetUpList;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** The settings to make on the gear itself, with a check box each, device by device. */
final class SetUpPane extends VBox {
    private final ViewContext desk;
    private Object shown;

    SetUpPane(ViewContext desk) {
        super(6);
        this.desk = desk;
        setId("set-up");
    }

    void show() {
        Performance performance = desk.performance();
        SetUpList list = SetUpList.of(desk.session(), performance);
        Object now = List.of(list, performance.setUp());
        if (!now.equals(shown)) {
            shown = now;
            Cards.rebuild(this, nodes(list, performance.setUp()));
        }
    }

    private List<Node> nodes(SetUpList list, Set<String> done) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.heading(say("set-up-pane.set-up-list")));
        long ticked = list.devices().stream()
                .flatMap(device -> device.items().stream())
                .filter(item -> done.contains(item.id()))
                .count();
        Label about = Cards.soft(
                list.count() == 0
                        ? say("set-up-pane.nothing-to-set")
                        : say("set-up-pane.done-of", (int) ticked, list.count()));
        about.setWrapText(true);
        about.setId("set-up-count");
        nodes.add(about);
        if (!list.sent().isEmpty()) {
            nodes.add(new FlowPane(
                    6,
                    6,
                    Cards.button("set-up-send", say("set-up-pane.send-all-sounds"), () -> sendSounds(list.sent()))));
        }
        int number = 0;
        for (SetUpList.Device device : list.devices()) {
            nodes.add(Cards.strong(device.name()));
            for (SetUpList.Item item : device.items()) {
                nodes.add(tick(item, done.contains(item.id()), number++));
            }
        }
        return nodes;
    }

    private Node tick(SetUpList.Item item, boolean isDone, int number) {
        CheckBox box = new CheckBox(item.text());
        box.setId("set-up-" + number);
        box.setSelected(isDone);
        box.setWrapText(true);
        box.setOnAction(event ->
                desk.document().perform(performance -> performance.withSetUp(List.of(item.id()), box.isSelected())));
        return box;
    }

    private void sendSounds(List<String> sent) {
        desk.studio().sendAllSounds();
        desk.document().perform(performance -> performance.withSetUp(sent, true));
    }
}
