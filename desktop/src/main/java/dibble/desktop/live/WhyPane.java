package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.HeardMessage;
import dibble.midi.MessageText;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.LiveState;
import dibble.presentation.live.Why;
import dibble.studio.Loop;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Why? of the last key, of one that passed, or of a message that is typed. */
final class WhyPane extends VBox {
    /** The least time between explanations, so that they can be read; the last event is always explained. */
    private static final long BETWEEN_ANSWERS = TimeUnit.MILLISECONDS.toNanos(150);

    private final ViewContext desk;
    private final ToggleButton last = new ToggleButton(say("why-pane.follow-playing"));
    private final ComboBox<Choice<String>> source = new ComboBox<>();
    private final ComboBox<Choice<Integer>> channel = new ComboBox<>();
    private final TextField typed = new TextField();
    private final Label sentence = new Label();
    private final VBox lines = new VBox(2);
    private String askedSource;
    private HeardMessage asked;
    private Why.Answer answer;
    private final List<WhyLine> rows = new ArrayList<>();
    private long answeredAt;
    private boolean stale = true;

    WhyPane(ViewContext desk) {
        super(6);
        this.desk = desk;
        setId("why-pane");
        last.setId("why-last");
        last.setSelected(true);
        last.setMinWidth(USE_PREF_SIZE);
        last.setTooltip(new Tooltip(say("why-pane.follows-the-keys-and-controls")));
        last.setOnAction(event -> stale = true);
        source.setId("why-source");
        source.setAccessibleText(say("why-pane.source-of-the-event"));
        channel.setId("why-channel");
        channel.setAccessibleText(say("why-pane.channel-of-the-event"));
        channel.getItems().setAll(Form.CHANNELS);
        source.getStyleClass().add("live-choice");
        channel.getStyleClass().add("live-choice");
        source.setOnAction(event -> showChannel());
        typed.setId("why-typed");
        typed.setPromptText(say("why-pane.f-3-96-or-cc"));
        typed.setAccessibleText(say("why-pane.a-key-or-another-message"));
        typed.setPrefColumnCount(18);
        typed.setOnAction(event -> askTyped());
        FlowPane line = new FlowPane(
                6,
                4,
                last,
                new Label(say("why-pane.or-if")),
                source,
                new Label(say("why-pane.sent-on-channel")),
                channel,
                typed,
                Cards.button("why-ask", say("why-pane.ask"), this::askTyped));
        line.getStyleClass().add("card-line");
        sentence.setId("why-sentence");
        sentence.getStyleClass().add("strong");
        sentence.setWrapText(true);
        sentence.setMinHeight(USE_PREF_SIZE);
        lines.setId("why-lines");
        ScrollPane scroll = new ScrollPane(lines);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("why-scroll");
        scroll.setMinHeight(60);
        scroll.setPrefHeight(170);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(line, sentence, scroll);
        setMinHeight(0);
    }

    /** Asks about an event. */
    void ask(String sourceId, HeardMessage message) {
        last.setSelected(false);
        askedSource = sourceId;
        asked = message;
        stale = true;
    }

    /** Asks about the last key that was played, whatever is typed. */
    void askLast() {
        last.setSelected(true);
        stale = true;
    }

    private void askTyped() {
        if (source.getValue() == null || channel.getValue() == null) {
            return;
        }
        try {
            ask(
                    source.getValue().value(),
                    MessageText.parse(
                            typed.getText(),
                            channel.getValue().value() - 1,
                            desk.session().middleC()));
        } catch (UserException e) {
            last.setSelected(false);
            askedSource = null;
            answer = new Why.Answer(e.getMessage(), List.of());
            showAnswer();
        }
    }

    /** The session has changed. */
    void show() {
        List<Choice<String>> choices = Choices.sources(desk.session());
        if (!source.getItems().equals(choices)) {
            source.getItems().setAll(choices);
            source.setValue(choices.stream()
                    .filter(it -> it.value().equals(desk.selection().source().get()))
                    .findFirst()
                    .orElse(choices.stream().findFirst().orElse(null)));
            showChannel();
        }
        stale = true;
    }

    private void showChannel() {
        if (source.getValue() != null) {
            int plays = desk.session()
                    .source(source.getValue().value())
                    .map(Source::playsOn)
                    .orElse(0);
            channel.getSelectionModel().select(plays);
        }
    }

    /** @param now the frame's time in nanoseconds */
    void follow(long now) {
        if (last.isSelected() && now - answeredAt >= BETWEEN_ANSWERS) {
            LiveState.Heard heard = desk.live().lastMove();
            if (heard != null && (!heard.what().equals(asked) || !heard.source().equals(askedSource))) {
                askedSource = heard.source();
                asked = heard.what();
                answeredAt = now;
                stale = true;
            }
        }
        if (!stale) {
            return;
        }
        stale = false;
        boolean isThere =
                askedSource != null && desk.session().source(askedSource).isPresent();
        Why.Answer next = isThere
                ? Why.ask(
                        desk.session(),
                        desk.routing(),
                        desk.performance().unheard(),
                        askedSource,
                        asked,
                        closed(),
                        desk.studio().heardAlone())
                : last.isSelected() || answer == null
                        ? new Why.Answer(say("why-pane.play-a-key-or-type"), List.of())
                        : answer;
        if (!Objects.equals(next, answer)) {
            answer = next;
            showAnswer();
        }
    }

    /** Why nothing is sent to some instruments now. */
    private Map<String, String> closed() {
        Map<String, String> closed = new HashMap<>();
        List<String> cut = desk.studio().loops().stream().map(Loop::output).toList();
        for (Instrument instrument : desk.session().instruments()) {
            if (cut.contains(instrument.port())) {
                closed.put(instrument.id(), say("why-pane.nothing-is-sent-to-now", instrument.name()));
            } else if (desk.studio().lane(instrument.port()).isEmpty()) {
                closed.put(instrument.id(), say("why-pane.the-port-of-is-missing", instrument.name()));
            }
        }
        return closed;
    }

    /** Lines are reused with other texts: rebuilding them would cost a frame. */
    private void showAnswer() {
        sentence.setText(answer.sentence());
        List<Why.Line> next = answer.lines();
        while (rows.size() < next.size()) {
            rows.add(new WhyLine(desk));
        }
        for (int i = 0; i < next.size(); i++) {
            rows.get(i).show(next.get(i));
        }
        if (lines.getChildren().size() != next.size()) {
            lines.getChildren().setAll(rows.subList(0, next.size()));
        }
    }
}
