package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.LiveState;
import dibble.presentation.Piano;
import dibble.session.Gesture;
import java.util.Arrays;
import java.util.BitSet;
import java.util.function.BiFunction;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** A keyboard that is played with the mouse and shows which keys are down. The lower a key is hit, the louder. */
public final class KeyboardPane extends Pane {
    /** Receives the mouse gestures on the keys. */
    public interface Player {
        /** @param velocity 1-127 */
        void press(int key, int velocity);

        void release(int key);
    }

    private static final Color WHITE = Color.web("#FFFDF7");
    private static final Color BLACK = Color.web("#26281F");
    private static final Color LINE = Color.web("#8F8770");
    private static final Color NAME = Color.web("#6F6B5C");
    private static final Color DOWN = Color.web("#2F6B3F");
    private static final int NO_KEY = -1;
    private static final Font FONT = Font.font("Dibble Sans", 12);

    private final Canvas canvas = new Canvas();
    private final BiFunction<Range, Double, Piano> shape;
    private final boolean named;
    private final boolean[] down = new boolean[128];
    /** As much of a key's foot as the colours of its parts may take. */
    private static final double MAX_STRIPS = 16;

    private final int[] strips = new int[128];
    private final Color[] downColours = new Color[128];
    private final String[] words = new String[128];
    private final Text measured = new Text();
    private Range keys = new Range(36, 96);
    private MiddleC middleC = MiddleC.C4;
    private Piano piano;
    private Player player;
    private int pressed = NO_KEY;

    /** Keys that went down or up since the last frame. */
    private final BitSet changed = new BitSet();

    private boolean stale = true;
    private LiveState.Down shownDown;
    private long shownVersion;

    /**
     * @param shape how keys and width make the places of keys
     * @param named whether every C bears its name
     */
    public KeyboardPane(BiFunction<Range, Double, Piano> shape, boolean named) {
        this.shape = shape;
        this.named = named;
        getChildren().add(canvas);
        getStyleClass().add("keyboard");
        setAccessibleRole(AccessibleRole.NODE);
        setAccessibleText(say("keyboard-pane.keyboard"));
    }

    /** Makes its keys playable with the pointer. */
    public void setPlayer(Pointer pointer, Player to) {
        player = to;
        pointer.plays(this, new Pointer.Handler() {
            @Override
            public boolean press(MouseEvent event) {
                mouse(event);
                return true;
            }

            @Override
            public void drag(MouseEvent event, Gesture gesture) {
                mouse(event);
            }

            @Override
            public void release(MouseEvent event, Gesture gesture) {
                letGo();
            }

            @Override
            public void cancel() {
                letGo();
            }
        });
    }

    /** Sets the keys and the naming of notes. */
    public void setKeys(Range range, MiddleC naming) {
        if (!range.equals(keys) || naming != middleC) {
            letGo();
            keys = range;
            middleC = naming;
            // Where its keys lie is known again after the layout.
            piano = null;
            requestLayout();
            stale = true;
        }
    }

    /** Shows a key as pressed or not, in a colour or (null) the accent. */
    public void setDown(int key, boolean isDown, Color colour) {
        if (down[key] != isDown || isDown && colour != downColours[key]) {
            down[key] = isDown;
            downColours[key] = colour;
            changed.set(key);
        }
    }

    /**
     * Shows which keys are down.
     *
     * @param keys those that are
     * @param colours of keys that are down, or null for the accent
     */
    public void setDown(LiveState.Down keys, Color[] colours) {
        if (keys == shownDown && keys.version() == shownVersion && !stale) {
            return;
        }
        shownDown = keys;
        shownVersion = keys.version();
        for (int key = this.keys.low(); key <= this.keys.high(); key++) {
            setDown(key, keys.isDown(key), colours == null ? null : colours[key]);
        }
    }

    /** Returns true if its keys are pads. */
    public boolean isPads() {
        return piano != null && piano.isPads();
    }

    /** Returns true if a key 0-127 is shown as down. */
    public boolean isDown(int key) {
        return down[key];
    }

    /** Marks keys with the colours of the parts that they play: bit {@code c} for colour c, 1-16. */
    public void setStrips(int[] colourBits) {
        if (!Arrays.equals(strips, colourBits)) {
            System.arraycopy(colourBits, 0, strips, 0, 128);
            stale = true;
        }
    }

    /** Sets the labels of keys in addition to their notes, for keys that are wide enough; null for none. */
    public void setWords(String[] words) {
        if (!Arrays.equals(this.words, words)) {
            System.arraycopy(words, 0, this.words, 0, 128);
            stale = true;
        }
    }

    /** Draws the changes since the last frame. */
    public void drawIfStale() {
        if (piano == null) {
            return;
        }
        if (stale) {
            stale = false;
            draw();
        } else if (!changed.isEmpty()) {
            drawChanged();
        }
    }

    /** Returns the middle of a key in this pane, for lines that end there. */
    public double middleOf(int key) {
        return piano == null ? 0 : piano.x(key) + piano.width(key) / 2;
    }

    private void mouse(MouseEvent event) {
        if (piano == null) {
            return;
        }
        int key = piano.keyAt(event.getX(), event.getY() / getHeight());
        if (key != pressed) {
            letGo();
            if (key != NO_KEY) {
                pressed = key;
                player.press(key, velocityAt(event.getY() / getHeight(), piano.isRaised(key)));
            }
        }
    }

    private static int velocityAt(double y, boolean black) {
        double depth = black ? y / Piano.BLACK_HEIGHT : y;
        return (int) Math.max(1, Math.min(127, Math.round(40 + 87 * depth)));
    }

    private void letGo() {
        if (pressed != NO_KEY) {
            int key = pressed;
            pressed = NO_KEY;
            player.release(key);
        }
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        piano = shape.apply(keys, getWidth());
        stale = false;
        draw();
    }

    private void draw() {
        changed.clear();
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, getWidth(), getHeight());
        g.setFont(FONT);
        for (int key = keys.low(); key <= keys.high(); key++) {
            if (!piano.isRaised(key)) {
                drawWhite(g, key);
            }
        }
        // After all white keys: on a narrow keyboard a name is wider than its key.
        for (int key = keys.low(); named && key <= keys.high(); key++) {
            drawName(g, key);
        }
        for (int key = keys.low(); key <= keys.high(); key++) {
            drawRaised(g, key);
        }
    }

    /** Draws the keys that went down or up, and the black ones that lie over them. */
    private void drawChanged() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.setFont(FONT);
        for (int key = changed.nextSetBit(keys.low());
                key >= 0 && key <= keys.high();
                key = changed.nextSetBit(key + 1)) {
            if (piano.isRaised(key)) {
                drawRaised(g, key);
            } else {
                drawWhite(g, key);
                for (int over = Math.max(keys.low(), key - 1); over <= Math.min(keys.high(), key + 1); over++) {
                    // A name can reach over from the key below.
                    if (named && over <= key) {
                        drawName(g, over);
                    }
                    drawRaised(g, over);
                }
            }
        }
        changed.clear();
    }

    private void drawWhite(GraphicsContext g, int key) {
        drawKey(g, key, getHeight(), WHITE);
        g.setStroke(LINE);
        g.setLineWidth(1);
        g.strokeRect(Math.round(piano.x(key)) + 0.5, 0.5, Math.round(piano.width(key)), Math.round(getHeight()) - 1);
    }

    private void drawName(GraphicsContext g, int key) {
        if (key % 12 == 0 || piano.isPads()) {
            g.setFill(NAME);
            g.fillText(
                    NoteNames.name(key, middleC), piano.x(key) + Math.min(4, piano.width(key) / 6), getHeight() - 20);
        }
        if (words[key] != null && piano.isPads()) {
            drawWords(g, key);
        }
    }

    private void drawRaised(GraphicsContext g, int key) {
        if (piano.isRaised(key)) {
            drawKey(g, key, getHeight() * Piano.BLACK_HEIGHT, BLACK);
        }
    }

    /** As many words on a line as it has room for; a word that is wider than its key is made narrower. */
    private void drawWords(GraphicsContext g, int key) {
        double room = piano.width(key) - 8;
        double y = 16;
        g.setFill(down[key] ? WHITE : BLACK);
        StringBuilder line = new StringBuilder();
        for (String word : words[key].split(" ")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            measured.setFont(g.getFont());
            measured.setText(longer);
            if (!line.isEmpty() && measured.getLayoutBounds().getWidth() > room) {
                g.fillText(line.toString(), piano.x(key) + 4, y, room);
                y += 14;
                line.setLength(0);
                line.append(word);
            } else {
                line.setLength(0);
                line.append(longer);
            }
        }
        g.fillText(line.toString(), piano.x(key) + 4, y, room);
    }

    private void drawKey(GraphicsContext g, int key, double height, Color plain) {
        double x = Math.round(piano.x(key));
        double width = Math.round(piano.x(key) + piano.width(key)) - x;
        g.setFill(down[key] ? downColours[key] == null ? DOWN : downColours[key] : plain);
        g.fillRect(x, 0, width, height);
        if (down[key]) {
            g.setStroke(BLACK);
            g.setLineWidth(2);
            g.strokeRect(x + 1, 1, Math.max(1, width - 2), height - 2);
        }
        if (named && plain == WHITE) {
            double y = height - 1;
            double thick = Math.min(4, MAX_STRIPS / Math.max(1, Integer.bitCount(strips[key])));
            for (int colour = 1; colour <= 16; colour++) {
                if ((strips[key] >>> colour & 1) != 0) {
                    y -= thick;
                    g.setFill(PartColours.of(colour));
                    g.fillRect(x + 1, y, width - 1, thick);
                }
            }
        }
    }
}
