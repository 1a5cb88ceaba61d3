package dibble.presentation.app;

import dibble.user.Memory;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Places the window on the screens that are there, so that all of it is visible. */
public final class WindowPlacement {
    /** The width of a first window, with its frame, where the screen has room for it. */
    static final double WIDTH = 1280;

    /** The height of a first window. */
    static final double HEIGHT = 830;

    private WindowPlacement() {}

    /** A screen without task bars, or a window, in the units of the toolkit. */
    public record Area(double x, double y, double width, double height) {
        private double shared(Area other) {
            double wide = Math.min(x + width, other.x + other.width) - Math.max(x, other.x);
            double high = Math.min(y + height, other.y + other.height) - Math.max(y, other.y);
            return wide > 0 && high > 0 ? wide * high : 0;
        }
    }

    /** Returns the place of a first window: in the middle of a screen, and no larger than it. */
    public static Area first(Area screen) {
        double width = Math.min(WIDTH, screen.width);
        double height = Math.min(HEIGHT, screen.height);
        return new Area(screen.x + (screen.width - width) / 2, screen.y + (screen.height - height) / 2, width, height);
    }

    /**
     * Returns the place of a window that was remembered: on the screen that it shares most with, made smaller and moved as far
     * as is needed to be there as a whole. Empty where no screen has any of it.
     */
    public static Optional<Area> fit(Memory.Place remembered, List<Area> screens) {
        Area was = new Area(remembered.x(), remembered.y(), remembered.width(), remembered.height());
        return screens.stream()
                .filter(screen -> screen.shared(was) > 0)
                .max(Comparator.comparingDouble(screen -> screen.shared(was)))
                .map(screen -> within(was, screen));
    }

    private static Area within(Area was, Area screen) {
        double width = Math.min(was.width, screen.width);
        double height = Math.min(was.height, screen.height);
        double x = Math.max(screen.x, Math.min(screen.x + screen.width - width, was.x));
        double y = Math.max(screen.y, Math.min(screen.y + screen.height - height, was.y));
        return new Area(x, y, width, height);
    }
}
