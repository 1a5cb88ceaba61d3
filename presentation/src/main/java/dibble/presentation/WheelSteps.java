package dibble.presentation;

/** Converts the distances that a wheel or a trackpad reports into whole steps: a notch of a wheel is one step. */
public final class WheelSteps {
    /** The distance of one step in pixels, as a wheel reports a notch. */
    public static final double STEP = 40;

    private double rest;

    /** Returns the steps that a distance completes. Distances below a step add up; turning back starts again. */
    public int add(double pixels) {
        if (pixels * rest < 0) {
            rest = 0;
        }
        rest += pixels;
        int steps = (int) (rest / STEP);
        rest -= steps * STEP;
        return steps;
    }
}
