package dibble.desktop.levels;

import static dibble.desktop.ui.UiText.say;

import dibble.gear.Loudness;
import javafx.scene.layout.Region;

/** A strip's level and what sounds now, on one scale: the lying bar ends where the level is, its filling at the peak. */
final class LevelBar extends Slide {
    /** What the scale begins and ends with, in dB. */
    static final double LOW = -60;

    static final double HIGH = Loudness.MOST;
    private static final double THICK = 14;
    private static final double THUMB = 8;

    /** How far the mark of 0 dB goes over, to meet those of the rows above and below. */
    private static final double ABOVE = 5;

    private final Region track = part("level-track");
    private final Region zero = part("level-zero");
    private final Region level = part("level-face");
    private final Region filling = part("level-filling");
    private final Region loudness = part("level-loudness");
    private final Region thumb = part("level-thumb");
    private double peak = Loudness.SILENCE;
    private double loud = Loudness.SILENCE;
    private double top;

    LevelBar(String name) {
        super(name, LOW, HIGH, 0, 0.5);
        getChildren().addAll(track, zero, level, filling, loudness, thumb);
        setPrefHeight(24);
        setMinHeight(24);
        getStyleClass().add("level-bar");
    }

    private static Region part(String style) {
        Region region = new Region();
        region.getStyleClass().add(style);
        region.setManaged(false);
        region.setMouseTransparent(true);
        return region;
    }

    @Override
    double scaleEnd() {
        return HIGH;
    }

    /** The left end is silence. */
    @Override
    double end(double of) {
        return of <= LOW ? Loudness.SILENCE : of;
    }

    @Override
    String words() {
        return say("levels-view.decibels", LevelsPresenter.decibels(end(value())));
    }

    /** Shows what sounds, in dB. */
    void meter(double peakNow, double loudNow) {
        if (peakNow != peak || loudNow != loud) {
            peak = peakNow;
            loud = loudNow;
            layMeter();
        }
    }

    private void layMeter() {
        double filled = Math.round(place(peak) * getWidth());
        if (filling.getWidth() != filled) {
            filling.resizeRelocate(0, top + 3, filled, THICK - 6);
        }
        double at = Math.round(place(loud) * getWidth());
        loudness.setVisible(loud > LOW);
        if (loudness.getLayoutX() != at) {
            loudness.resizeRelocate(at - 1, top, 2, THICK);
        }
    }

    @Override
    protected void layoutChildren() {
        top = Math.round((getHeight() - THICK) / 2);
        double end = Math.round(place(value()) * getWidth());
        track.resizeRelocate(0, top, getWidth(), THICK);
        zero.resizeRelocate(Math.round(place(0) * getWidth()), -ABOVE, 1, getHeight() + 2 * ABOVE);
        level.resizeRelocate(0, top, end, THICK);
        thumb.resizeRelocate(end - THUMB / 2, top - 4, THUMB, THICK + 8);
        filling.resize(-1, THICK - 6);
        layMeter();
    }
}
