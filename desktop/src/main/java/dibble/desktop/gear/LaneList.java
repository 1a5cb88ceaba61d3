package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.NumberScrubber;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.presentation.gear.GearPresenter;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The lanes of a sequencer. */
final class LaneList extends VBox {
    private final GearPresenter presenter;
    private Source shown;

    LaneList(GearPresenter presenter) {
        super(4);
        this.presenter = presenter;
        setId("lanes");
    }

    void show(Source source) {
        if (source.equals(shown)) {
            return;
        }
        if (shown != null && !shown.id().equals(source.id())) {
            EntryField.commitWithin(this);
        }
        shown = source;
        List<Node> nodes = new ArrayList<>(List.of(Cards.soft(say("lane-list.lanes"))));
        for (int i = 0; i < source.lanes().size(); i++) {
            nodes.add(line(source, i));
        }
        Button add = Cards.button("lane-add", say("lane-list.add-lane"), () -> {
            List<SequencerLane> lanes = new ArrayList<>(source.lanes());
            int channel = Math.min(
                    16, lanes.stream().mapToInt(SequencerLane::channel).max().orElse(0) + 1);
            lanes.add(new SequencerLane(say("lane-list.lane", lanes.size() + 1), channel));
            put(lanes);
        });
        add.getStyleClass().add("small");
        nodes.add(add);
        Cards.rebuild(this, nodes);
    }

    private HBox line(Source source, int place) {
        SequencerLane lane = source.lanes().get(place);
        EntryField[] fields = new EntryField[2];
        Runnable commit = () -> {
            String name = fields[0].getText().strip();
            String channel = fields[1].getText().strip();
            boolean fits = channel.matches("[1-9]|1[0-6]");
            SequencerLane next = fits ? new SequencerLane(name, Integer.parseInt(channel), lane.extras()) : lane;
            if (next.equals(lane)) {
                fields[1].setText(String.valueOf(lane.channel()));
            } else {
                List<SequencerLane> lanes = new ArrayList<>(source.lanes());
                lanes.set(place, next);
                put(lanes);
            }
        };
        fields[0] = Cards.field("lane-name-" + (place + 1), say("lane-list.name-of-the-lane"), commit)
                .of(source.id());
        fields[1] = Cards.field("lane-channel-" + (place + 1), say("lane-list.channel-of-the-lane"), commit)
                .of(source.id());
        fields[0].setText(lane.name());
        fields[1].setText(String.valueOf(lane.channel()));
        fields[1].setPrefColumnCount(2);
        NumberScrubber.number(fields[1], 1, 16);
        fields[1].setMinWidth(40);
        HBox.setHgrow(fields[0], Priority.ALWAYS);
        Button remove = Cards.button("lane-remove-" + (place + 1), "×", () -> {
            List<SequencerLane> lanes = new ArrayList<>(source.lanes());
            lanes.remove(place);
            put(lanes);
        });
        remove.setAccessibleText(say("lane-list.delete-the-lane"));
        remove.getStyleClass().add("link");
        HBox line = new HBox(4, fields[0], fields[1], remove);
        line.getStyleClass().add("card-line");
        return line;
    }

    private void put(List<SequencerLane> lanes) {
        presenter.changeSource(
                say("edit.lanes"), shown.id(), it -> it.with().lanes(lanes).build());
    }
}
