package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Palette;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Theme;
import dibble.gear.Part;
import dibble.session.SessionFormatter;
import java.util.Collections;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.geometry.Orientation;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** The sixteen channels of a port with their owners, drawn: forty of them are to be made at once. */
final class ChannelStrip extends Pane {
    private static final int CHANNELS = 16;
    private static final double WIDE = 28;
    private static final double HIGH = 24;
    private static final double GAP = 4;
    private static final double ROUND = 8;

    private final Canvas canvas = new Canvas();
    private final Theme theme;
    private List<List<Part>> owners = Collections.nCopies(CHANNELS, List.of());
    private String shownPort;
    private Palette drawn;

    ChannelStrip(Theme theme) {
        this.theme = theme;
        getChildren().add(canvas);
        setAccessibleRole(AccessibleRole.TEXT);
        Tooltip tooltip = new Tooltip();
        Tooltip.install(this, tooltip);
        setOnMouseMoved(event -> {
            int channel = channelAt(event.getX(), event.getY());
            tooltip.setText(channel == 0 ? "" : say("channel-strip.channel", words(channel)));
        });
    }

    /**
     * Shows the parts on channels.
     *
     * @param now the parts on each channel; two are a conflict
     */
    void show(String port, List<List<Part>> now) {
        if (now.equals(owners) && theme.palette() == drawn && port.equals(shownPort)) {
            return;
        }
        owners = now;
        shownPort = port;
        String taken = IntStream.rangeClosed(1, CHANNELS)
                .filter(channel -> !owners.get(channel - 1).isEmpty())
                .mapToObj(this::words)
                .collect(Collectors.joining(", "));
        setAccessibleText(say("channel-strip.channels-of-all-free", port, taken.isEmpty(), taken));
        draw();
    }

    /** Returns the parts on a channel 1-16. */
    String words(int channel) {
        List<Part> here = owners.get(channel - 1);
        return say(
                "channel-strip.free",
                channel,
                here.isEmpty(),
                SessionFormatter.list(here.stream().map(Part::name).toList()));
    }

    private int columns(double width) {
        return (int) Math.max(1, Math.min(CHANNELS, (width + GAP) / (WIDE + GAP)));
    }

    private int channelAt(double x, double y) {
        int columns = columns(getWidth());
        int column = (int) (x / (WIDE + GAP));
        int channel = (int) (y / (HIGH + GAP)) * columns + column + 1;
        return column < columns && channel <= CHANNELS ? channel : 0;
    }

    @Override
    public Orientation getContentBias() {
        return Orientation.HORIZONTAL;
    }

    @Override
    protected double computePrefWidth(double height) {
        return CHANNELS * (WIDE + GAP) - GAP;
    }

    @Override
    protected double computeMinWidth(double height) {
        return WIDE;
    }

    @Override
    protected double computePrefHeight(double width) {
        int columns = columns(width < 0 ? computePrefWidth(-1) : width);
        int lines = (CHANNELS + columns - 1) / columns;
        return lines * (HIGH + GAP) - GAP;
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        draw();
    }

    private void draw() {
        drawn = theme.palette();
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.CENTER);
        g.setFont(Font.font("Dibble Sans", 12));
        int columns = columns(getWidth());
        for (int channel = 1; channel <= CHANNELS; channel++) {
            double x = (channel - 1) % columns * (WIDE + GAP);
            double y = (channel - 1) / columns * (HIGH + GAP);
            drawCell(g, channel, x, y);
        }
    }

    private void drawCell(GraphicsContext g, int channel, double x, double y) {
        List<Part> here = owners.get(channel - 1);
        boolean owned = !here.isEmpty();
        int colour = owned ? here.get(0).colour() : 0;
        g.setFill(owned ? PartColours.of(colour) : theme.palette().get("raised"));
        g.fillRoundRect(x, y, WIDE, HIGH, ROUND, ROUND);
        if (!owned || here.size() > 1) {
            g.setStroke(theme.palette().get(owned ? "check" : "rule"));
            g.setLineWidth(owned ? 3 : 1);
            g.strokeRoundRect(x + 0.5, y + 0.5, WIDE - 1, HIGH - 1, ROUND, ROUND);
        }
        g.setFill(owned ? PartColours.ink(colour) : theme.palette().get("soft"));
        g.fillText(String.valueOf(channel), x + WIDE / 2, y + HIGH / 2);
    }
}
