package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.live.EventLogRows;
import dibble.studio.EventHistory;
import java.time.ZoneId;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.BiConsumer;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.FontWeight;

/** Everything that passed: a row for each event with what became of it; draws only the rows that are seen. */
final class EventLogPane extends VBox {
    private static final double ROW = 20;
    private static final double TIME = 8;
    private static final double SOURCE = 104;
    private static final double CHANNEL = 224;
    private static final double IN = 262;
    private static final double OUT = 470;
    private static final double HEAD = 18;
    private static final int ALL = -1;

    /** Rows that go by faster than this cannot be read; to draw them would only slow the frame. */
    private static final long BETWEEN_DRAWS = TimeUnit.MILLISECONDS.toNanos(60);

    private static final Color ALERT = Color.web("#E8B765");
    private static final Font PLAIN = Font.font("Dibble Sans", 13);
    private static final Font SMALL = Font.font("Dibble Sans", 12);
    private static final Font BOLD = Font.font("Dibble Sans", FontWeight.BOLD, 12);

    private final ViewContext desk;
    private final EventLogRows rows;
    private final BiConsumer<String, HeardMessage> why;
    private final Canvas canvas = new Canvas();
    private final Pane view = new Pane(canvas);
    private final ComboBox<Choice<String>> source = new ComboBox<>();
    private final ToggleButton pause = toggle("passed-pause", say("passed-pane.pause"));
    private final ToggleButton bytes = toggle("passed-bytes", say("passed-pane.bytes"));
    private final Label skipped = new Label();
    private EventHistory paused;
    private int behind;
    private int chosen = ALL;
    private List<Long> shown = List.of();
    private long drawnCount = -1;
    private long drawnAt;
    private boolean stale = true;

    /** @param why receives the source and the event of a question */
    EventLogPane(ViewContext desk, BiConsumer<String, HeardMessage> why) {
        super(6);
        this.desk = desk;
        this.why = why;
        rows = new EventLogRows(desk.studio().slots(), ZoneId.systemDefault());
        lookAtClocks();
        setId("passed-pane");
        source.setId("passed-source");
        source.setAccessibleText(say("passed-pane.source-whose-events-are-shown"));
        source.getStyleClass().add("live-choice");
        source.setOnAction(event -> {
            rows.showSource(source.getValue() == null ? null : source.getValue().value());
            restart();
        });
        FlowPane line = new FlowPane(6, 4, source);
        line.getStyleClass().add("card-line");
        kind(line, "notes", say("passed-pane.notes"), EventKind.NOTES);
        kind(line, "controllers", say("passed-pane.cc"), EventKind.CONTROLLERS);
        kind(line, "bend", say("passed-pane.pitch-bend"), EventKind.PITCH_BEND);
        kind(line, "pressure", say("passed-pane.pressure"), EventKind.CHANNEL_PRESSURE, EventKind.KEY_PRESSURE);
        kind(line, "programs", say("passed-pane.programs"), EventKind.PROGRAM_CHANGE);
        ToggleButton silent = toggle("passed-silent", say("passed-pane.unused-only"));
        silent.setOnAction(event -> {
            rows.showSilent(silent.isSelected());
            restart();
        });
        pause.setOnAction(event -> pause(pause.isSelected()));
        bytes.setOnAction(event -> stale = true);
        Button copy = Cards.button("passed-copy", say("passed-pane.copy-as-text"), this::copy);
        copy.setTooltip(new Tooltip(say("passed-pane.copies-all-rows-that-are")));
        Button clear = Cards.button("passed-clear", say("common.clear"), () -> {
            desk.live().passed().clear();
            pause(false);
        });
        skipped.setId("passed-skipped");
        line.getChildren().addAll(silent, pause, bytes, copy, clear, skipped);
        view.setId("passed-rows");
        view.setFocusTraversable(true);
        view.setAccessibleText(say("common.event-log"));
        view.getStyleClass().add("passed-rows");
        view.setMinHeight(HEAD + 3 * ROW);
        view.setPrefHeight(HEAD + 10 * ROW);
        VBox.setVgrow(view, Priority.ALWAYS);
        view.layoutBoundsProperty().subscribe(bounds -> stale = true);
        view.addEventHandler(ScrollEvent.SCROLL, event -> scroll(event.getDeltaY() > 0 ? 3 : -3));
        view.addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            view.requestFocus();
            chosen = (int) ((event.getY() - HEAD) / ROW);
            ask();
        });
        view.addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        ContextItems.on(
                view,
                () -> List.of(
                        Cards.item("context-why", say("window-commands.why"), this::ask),
                        Cards.item("context-copy", say("context.copy-row"), this::copyRow)));
        getChildren().addAll(line, view);
        setMinHeight(0);
    }

    private static ToggleButton toggle(String id, String text) {
        ToggleButton button = new ToggleButton(text);
        button.setId(id);
        button.setMinWidth(USE_PREF_SIZE);
        return button;
    }

    private void kind(FlowPane line, String id, String name, EventKind... kinds) {
        ToggleButton button = toggle("passed-" + id, name);
        button.setSelected(true);
        button.setOnAction(event -> {
            for (EventKind kind : kinds) {
                rows.showKind(kind, button.isSelected());
            }
            restart();
        });
        line.getChildren().add(button);
    }

    private void restart() {
        behind = 0;
        chosen = ALL;
        stale = true;
    }

    private EventHistory passed() {
        return paused == null ? desk.live().passed() : paused;
    }

    private void pause(boolean on) {
        paused = on ? desk.live().passed().copy() : null;
        pause.setSelected(on);
        restart();
    }

    /** Looking back pauses: rows do not move under the eye. */
    private void scroll(int by) {
        if (by > 0 && paused == null) {
            pause(true);
        }
        behind = Math.max(0, behind + by);
        List<Long> older = rows.leaders(passed(), behind, 1);
        if (older.isEmpty() && behind > 0) {
            behind = Math.max(0, behind - by);
        }
        chosen = ALL;
        stale = true;
    }

    private void key(KeyEvent event) {
        boolean used = true;
        switch (event.getCode()) {
            case UP, DOWN -> choose(event.getCode() == KeyCode.UP ? -1 : 1);
            case PAGE_UP -> scroll(Math.max(1, room() - 1));
            case PAGE_DOWN -> scroll(-Math.max(1, room() - 1));
            case ENTER -> ask();
            case END -> pause(false);
            default -> used = false;
        }
        if (used) {
            event.consume();
        }
    }

    private void choose(int by) {
        if (paused == null) {
            pause(true);
            draw();
        }
        int next = chosen == ALL ? shown.size() - 1 : chosen + by;
        if (next < 0) {
            scroll(1);
            chosen = 0;
        } else if (next >= shown.size()) {
            scroll(-1);
            chosen = shown.size() - 1;
        } else {
            chosen = next;
        }
        stale = true;
    }

    private void ask() {
        if (chosen >= 0 && chosen < shown.size()) {
            EventLogRows.Row row = row(shown.get(chosen));
            if (row.sourceId() != null) {
                why.accept(row.sourceId(), row.message());
            }
        }
        stale = true;
    }

    private EventLogRows.Row row(long leader) {
        return rows.row(
                passed(),
                leader,
                desk.session(),
                desk.routing(),
                desk.performance().unheard());
    }

    private void copyRow() {
        if (chosen >= 0 && chosen < shown.size()) {
            ClipboardContent content = new ClipboardContent();
            content.putString(EventLogRows.text(row(shown.get(chosen))));
            Clipboard.getSystemClipboard().setContent(content);
        }
    }

    private void copy() {
        ClipboardContent content = new ClipboardContent();
        content.putString(rows.text(
                passed(), desk.session(), desk.routing(), desk.performance().unheard()));
        Clipboard.getSystemClipboard().setContent(content);
    }

    /** Updates names and sources after a change of the session. */
    void show() {
        List<Choice<String>> choices =
                Choices.with(new Choice<>(null, say("common.all-sources-2")), Choices.sources(desk.session()));
        if (!source.getItems().equals(choices)) {
            source.getItems().setAll(choices);
            source.getSelectionModel().selectFirst();
        }
        stale = true;
    }

    private int room() {
        return (int) Math.max(0, (view.getHeight() - HEAD) / ROW);
    }

    /** Keeps up with the wall clock, also while it is not shown. */
    void lookAtClocks() {
        rows.look(System.currentTimeMillis(), System.nanoTime());
    }

    /**
     * Shows the events since the last frame.
     *
     * @param now the frame's time in nanoseconds
     */
    void follow(long now) {
        EventHistory passed = passed();
        if (stale || passed.count() != drawnCount && now - drawnAt >= BETWEEN_DRAWS) {
            drawnAt = now;
            draw();
        }
        long lost = desk.live().passed().skipped();
        String text = lost == 0 ? "" : say("passed-pane.skipped-here", lost);
        if (!text.equals(skipped.getText())) {
            skipped.setText(text);
        }
    }

    private void draw() {
        stale = false;
        drawnCount = passed().count();
        canvas.setWidth(view.getWidth());
        canvas.setHeight(view.getHeight());
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        g.setFont(SMALL);
        g.setFill(Palette.SOFT_ON_DARK);
        g.fillText(say("passed-pane.time"), TIME, 13);
        g.fillText(say("common.played-by-2"), SOURCE, 13);
        g.fillText(say("passed-pane.ch"), CHANNEL, 13);
        g.fillText(say("passed-pane.event"), IN, 13);
        g.fillText(say("passed-pane.result"), OUT, 13);
        shown = rows.leaders(passed(), behind, room());
        for (int i = 0; i < shown.size(); i++) {
            draw(g, row(shown.get(i)), HEAD + i * ROW, i == chosen);
        }
        if (shown.isEmpty()) {
            g.setFont(PLAIN);
            g.fillText(say("passed-pane.no-events-yet-play-something"), TIME, HEAD + 16);
        }
    }

    private void draw(GraphicsContext g, EventLogRows.Row row, double top, boolean isChosen) {
        double base = top + 15;
        if (isChosen) {
            g.setFill(Color.web("#4A5244"));
            g.fillRect(0, top + 1, canvas.getWidth(), ROW - 1);
        }
        g.setFont(SMALL);
        g.setFill(Palette.SOFT_ON_DARK);
        g.fillText(row.time(), TIME, base);
        g.setFont(PLAIN);
        g.setFill(Palette.ON_DARK);
        g.fillText(row.source(), SOURCE, base, CHANNEL - SOURCE - 8);
        g.fillText(row.channel(), CHANNEL, base);
        String in = row.message() != null && bytes.isSelected()
                ? EventLogRows.bytes(row.message().message()) + "  " + row.in()
                : row.in();
        g.fillText(in, IN, base, OUT - IN - 12);
        if (!row.note().isEmpty()) {
            g.setFill(ALERT);
            g.fillText(row.note(), OUT, base);
        }
        double x = OUT;
        for (EventLogRows.Out out : row.outs()) {
            x = draw(g, out, x, top, base);
            if (x > canvas.getWidth()) {
                break;
            }
        }
    }

    private double draw(GraphicsContext g, EventLogRows.Out out, double x, double top, double base) {
        g.setFill(PartColours.of(out.colour()));
        g.fillRoundRect(x, top + 3, 22, 15, 6, 6);
        g.setFill(PartColours.ink(out.colour()));
        g.setFont(BOLD);
        g.fillText(out.channel(), x + (out.channel().length() > 1 ? 4 : 8), base - 1);
        g.setFont(PLAIN);
        g.setFill(out.taken() ? Palette.ON_DARK : ALERT);
        String what = bytes.isSelected() ? EventLogRows.bytes(out.message()) : out.what();
        String text = out.part() + "  " + what + (out.taken() ? "" : " refused");
        g.fillText(text, x + 28, base);
        // About the width of the text: exact widths cost a layout each.
        return x + 28 + text.length() * 6.6 + 18;
    }
}
