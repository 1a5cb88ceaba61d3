package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.gear.Loudness;
import dibble.presentation.Decibels;
import javafx.scene.layout.Region;

/** The level of a strip and its meter on one scale: the bar ends at the level, its filling at the peak. */
public final class LevelBar extends SliderDrag {
    /** The lower end of the scale, in dB. */
    public static final double LOW = -60;

    /** The level at its right end, in decibels. */
    public static final double HIGH = Loudness.MAX;

    private static final double THICK = 14;
    private static final double SMALL = 8;
    private static final double THUMB = 8;

    /** The overhang of the 0 dB mark, which joins those of adjacent rows. */
    private static final double ABOVE = 5;

    private final Region track = drawn("level-track");
    private final Region zero = drawn("level-zero");
    private final Region level = drawn("level-face");
    private final Region filling = drawn("level-filling");
    private final Region loudness = drawn("level-loudness");
    private final Region thumb = drawn("level-thumb");
    private double peak = Loudness.SILENCE;
    private double loud = Loudness.SILENCE;
    private final double thick;
    private double top;

    /** @param name the accessible name */
    public LevelBar(String name) {
        this(name, THICK);
    }

    /** A small one, for where there is little room. */
    public static LevelBar small(String name) {
        return new LevelBar(name, SMALL);
    }

    private LevelBar(String name, double thick) {
        super(name, LOW, HIGH, 0, 0.5);
        this.thick = thick;
        if (thick != THICK) {
            getChildren().remove(zero);
        }
        setPrefHeight(thick + 10);
        setMinHeight(thick + 10);
        getStyleClass().add("level-bar");
    }

    @Override
    protected double scaleEnd() {
        return HIGH;
    }

    /** Returns the position of a level on the scale, from 0 at the left to 1 at the right; limited to the scale. */
    public static double share(double decibels) {
        return Math.max(0, Math.min(1, (decibels - LOW) / (HIGH - LOW)));
    }

    /** The left end is silence. */
    @Override
    protected double end(double of) {
        return of <= LOW ? Loudness.SILENCE : of;
    }

    @Override
    public String words() {
        return say("levels-view.decibels", Decibels.words(end(value())));
    }

    /** Shows the meter, in dB. */
    public void meter(double peakNow, double loudNow) {
        if (peakNow != peak || loudNow != loud) {
            peak = peakNow;
            loud = loudNow;
            layMeter();
        }
    }

    private void layMeter() {
        double filled = Math.round(place(peak) * getWidth());
        if (filling.getWidth() != filled) {
            filling.resizeRelocate(0, top + thick / 4, filled, thick / 2);
        }
        double at = Math.round(place(loud) * getWidth());
        loudness.setVisible(loud > LOW);
        if (loudness.getLayoutX() != at) {
            loudness.resizeRelocate(at - 1, top, 2, thick);
        }
    }

    @Override
    protected void layoutChildren() {
        top = Math.round((getHeight() - thick) / 2);
        double end = Math.round(place(value()) * getWidth());
        track.resizeRelocate(0, top, getWidth(), thick);
        zero.resizeRelocate(Math.round(place(0) * getWidth()), -ABOVE, 1, getHeight() + 2 * ABOVE);
        level.resizeRelocate(0, top, end, thick);
        thumb.resizeRelocate(end - THUMB / 2, top - 3, THUMB, thick + 6);
        filling.resize(-1, thick / 2);
        layMeter();
    }
}
