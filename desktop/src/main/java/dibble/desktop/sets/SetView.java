package dibble.desktop.sets;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.presentation.Subscription;
import dibble.presentation.sets.SetActions;
import dibble.session.SessionSet;
import dibble.text.Texts;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The set: its sessions in their order, each with what to think of and its tempo. */
public final class SetView extends BorderPane implements View {
    private static final double MAX_WIDTH = 980;

    private final ViewContext desk;
    private final SetActions actions;
    private final VBox column = new VBox(8);
    private final ViewUpdater watch;

    /** Builds the view; it follows nothing before {@link #open}. */
    public SetView(ViewContext desk, SetActions actions) {
        this.desk = desk;
        this.actions = actions;
        watch = desk.watch(this::show).with(() -> actions.listen(this::stale));
        setId("set");
        column.getStyleClass().add("checks-column");
        setCenter(Cards.scroll(column));
    }

    private void stale() {
        watch.stale();
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void show() {
        List<Node> nodes = new ArrayList<>();
        SessionSet set = actions.set();
        nodes.add(Cards.heading(set == null ? say("set-view.set") : say("set-view.set-named", set.name())));
        Label about = Cards.soft(say("set-view.several-sessions-in-an-order"));
        about.setWrapText(true);
        nodes.add(about);
        nodes.add(buttons(set));
        if (set != null) {
            if (set.entries().isEmpty()) {
                nodes.add(Cards.soft(say("set-view.no-sessions-yet")));
            }
            for (int i = 0; i < set.entries().size(); i++) {
                nodes.add(card(set, i));
            }
            nodes.add(pedals(set));
        }
        Cards.rebuild(column, nodes);
    }

    private Node buttons(SessionSet set) {
        FlowPane buttons = new FlowPane(6, 6);
        buttons.getChildren()
                .addAll(
                        Cards.button("set-new", say("set-view.new-set"), actions::begin),
                        Cards.button("set-open", say("set-view.open-set"), actions::open));
        if (set != null) {
            Button export = Cards.button("set-export", say("set-view.export-sheets"), actions::export);
            export.setDisable(set.entries().isEmpty());
            buttons.getChildren()
                    .addAll(
                            Cards.button("set-add-this", say("set-view.add-this-session"), actions::addThis),
                            Cards.button("set-add", say("set-view.add-session"), actions::add),
                            export);
        }
        return buttons;
    }

    private Node card(SessionSet set, int place) {
        SessionSet.Entry entry = set.entries().get(place);
        Label number = Cards.strong(String.valueOf(place + 1));
        number.setMinWidth(28);
        Label name = Cards.strong(actions.name(place));
        EntryField notes = new EntryField("set-notes-" + place, say("set-view.notes-of", actions.name(place)));
        notes.of(entry.file());
        notes.setPromptText(say("set-view.notes"));
        notes.setText(entry.notes());
        notes.onCommit(() -> {
            String text = notes.getText();
            if (!text.equals(entry.notes())) {
                change(place, entry, it -> it.withNotes(text));
            }
        });
        EntryField tempo = new EntryField("set-tempo-" + place, say("set-view.tempo-of", actions.name(place)));
        tempo.of(entry.file());
        tempo.setPrefColumnCount(5);
        tempo.setPromptText(say("set-view.its-own"));
        tempo.setText(tempo(entry));
        tempo.onCommit(() -> takeTempo(entry, place, tempo));
        HBox line = new HBox(8, Cards.soft(say("set-view.notes")), notes, Cards.soft(say("set-view.tempo")), tempo);
        line.getStyleClass().add("card-line");
        HBox.setHgrow(notes, Priority.ALWAYS);
        Button up = Cards.button(
                "set-up-" + place, say("common.up"), () -> actions.change(it -> it.swapped(place, place - 1)));
        up.setDisable(place == 0);
        Button down = Cards.button(
                "set-down-" + place, say("common.down"), () -> actions.change(it -> it.swapped(place, place + 1)));
        down.setDisable(place + 1 == set.entries().size());
        FlowPane doing = new FlowPane(
                6,
                4,
                Cards.button("set-go-" + place, say("set-view.open"), () -> actions.go(place)),
                up,
                down,
                Cards.button(
                        "set-remove-" + place, say("set-view.remove"), () -> actions.change(it -> it.without(place))));
        VBox words = new VBox(6, name, line, doing);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox card = new HBox(8, number, words);
        card.getStyleClass().addAll("gear-card", "check-card");
        if (actions.place() == place) {
            card.getStyleClass().add("set-now");
        }
        card.setMaxWidth(MAX_WIDTH);
        return card;
    }

    /** Changes an entry, where it is still at its place. */
    private void change(int place, SessionSet.Entry entry, UnaryOperator<SessionSet.Entry> change) {
        actions.change(set -> {
            List<SessionSet.Entry> all = set.entries();
            boolean isThere = place < all.size() && all.get(place).file().equals(entry.file());
            return isThere ? set.with(place, change.apply(all.get(place))) : set;
        });
    }

    private void takeTempo(SessionSet.Entry before, int place, EntryField field) {
        String text = field.getText();
        Double bpm = null;
        if (!text.isBlank()) {
            String plain = text.strip().replace(',', '.');
            bpm = plain.matches("\\d{1,3}(\\.\\d{1,2})?") ? (Double) Double.parseDouble(plain) : null;
            if (bpm == null || bpm < 5 || bpm > 999) {
                desk.ask().tell(say("options-bar.tempo-expected-5-to-999", text));
                field.setText(tempo(before));
                return;
            }
        }
        Double wanted = bpm;
        if (!Objects.equals(wanted, before.tempo())) {
            change(place, before, it -> it.withTempo(wanted));
        }
    }

    private static String tempo(SessionSet.Entry entry) {
        return entry.tempo() == null ? "" : Texts.decimal(entry.tempo());
    }

    private Node pedals(SessionSet set) {
        Label about = Cards.soft(
                actions.isLearning()
                        ? say("set-view.press-the-pedal")
                        : say(
                                "set-view.pedals",
                                set.next() == null,
                                String.valueOf(set.next()),
                                set.previous() == null,
                                String.valueOf(set.previous())));
        about.setId("set-pedals");
        about.setWrapText(true);
        FlowPane buttons = new FlowPane(
                6,
                6,
                Cards.button("set-learn-next", say("set-view.learn-pedal-for-next"), () -> actions.learn(true)),
                Cards.button(
                        "set-learn-previous", say("set-view.learn-pedal-for-previous"), () -> actions.learn(false)));
        return new VBox(6, Cards.heading(say("set-view.pedals-title")), about, buttons);
    }
}
