package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.SliderDrag;
import javafx.scene.layout.Region;

/** A value 0-127 as a bar. */
final class SendBar extends SliderDrag {
    static final double WIDTH = 58;
    private static final double THICK = 8;

    private final Region track = drawn("send-track");
    private final Region filling = drawn("send-filling");

    SendBar(String name, double rest) {
        super(name, 0, 127, rest, 1);
        setMinSize(WIDTH, 22);
        setMaxSize(WIDTH, 22);
    }

    @Override
    public String words() {
        return say("levels-view.percent", Math.round(value() * 100 / 127));
    }

    @Override
    protected void layoutChildren() {
        double y = Math.round((getHeight() - THICK) / 2);
        track.resizeRelocate(0, y, getWidth(), THICK);
        filling.resizeRelocate(0, y, Math.round(place(value()) * getWidth()), THICK);
    }
}
