package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.SliderDrag;
import dibble.gear.Loudness;
import javafx.scene.layout.Region;

/** The pan of a sound: a dot on a line. */
final class PanLine extends SliderDrag {
    static final double WIDTH = 62;
    private static final double DOT = 10;

    private final Region line = drawn("pan-rule");
    private final Region middle = drawn("pan-rule");
    private final Region dot = drawn("pan-dot");

    PanLine(String name) {
        super(name, 0, 127, Loudness.MIDDLE, 1);
        setMinSize(WIDTH, 22);
        setMaxSize(WIDTH, 22);
    }

    @Override
    public String words() {
        return words((int) Math.round(value()));
    }

    /** A pan as a practitioner says it: how far to a side, in percent. */
    static String words(int pan) {
        int by = pan - Loudness.MIDDLE;
        int share = Math.round(Math.abs(by) * 100f / 63);
        return by == 0
                ? say("levels-view.pan-middle")
                : say("levels-view.pan-side", by < 0 ? 0 : 1, Math.min(100, share));
    }

    @Override
    protected void layoutChildren() {
        double y = Math.round(getHeight() / 2);
        double x = Math.round(place(value()) * (getWidth() - DOT));
        line.resizeRelocate(DOT / 2, y, getWidth() - DOT, 1);
        middle.resizeRelocate(Math.round(getWidth() / 2), y - 4, 1, 9);
        dot.resizeRelocate(x, y - DOT / 2, DOT, DOT);
    }
}
