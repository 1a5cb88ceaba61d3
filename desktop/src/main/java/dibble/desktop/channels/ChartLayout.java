package dibble.desktop.channels;

import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javafx.scene.layout.Region;

/** The positions of rows and ribbon ends on a chart. */
final class ChartLayout {
    private static final double BELOW = 12;
    private static final double GAP = 4;
    private static final double GROUP = 7;
    private static final double HEAD = 22;
    private static final double FREE = 24;
    private static final double SPREAD = 3.5;
    private static final double MAX_SPREAD = 10;

    private final Map<Arrival, ChartRow<Arrival>> arrivals;
    private final Map<Place, ChartRow<Place>> places;

    ChartLayout(Map<Arrival, ChartRow<Arrival>> arrivals, Map<Place, ChartRow<Place>> places) {
        this.arrivals = arrivals;
        this.places = places;
    }

    private static double height(Region region, boolean head) {
        return head ? HEAD : region instanceof ChartRow ? ChartRow.HEIGHT : FREE;
    }

    /** Returns the total height of groups of rows. */
    static double height(List<List<Region>> groups) {
        double height = BELOW;
        for (List<Region> group : groups) {
            height += GROUP;
            for (int i = 0; i < group.size(); i++) {
                height += height(group.get(i), i == 0) + GAP;
            }
        }
        return height;
    }

    /** Lays groups of rows under one another, with their dots at one side. */
    static void lay(List<List<Region>> groups, double x, double width, double dotX) {
        double y = 0;
        for (List<Region> group : groups) {
            y += GROUP;
            for (int i = 0; i < group.size(); i++) {
                Region region = group.get(i);
                double height = height(region, i == 0);
                region.resizeRelocate(x, y, width, height);
                if (region instanceof ChartRow<?> row) {
                    row.dot.setLayoutX(dotX);
                    row.dot.setLayoutY(y + height / 2);
                }
                y += height + GAP;
            }
        }
    }

    /** Returns the ends of ribbons on one side; those of one dot are sorted by their other ends. */
    Map<Ribbon, Double> ends(List<Ribbon> ribbons, boolean start) {
        Map<Ribbon, Double> at = new LinkedHashMap<>();
        Map<Object, List<Ribbon>> byEnd = ribbons.stream()
                .collect(Collectors.groupingBy(
                        ribbon -> start ? ribbon.way.from() : ribbon.way.to(),
                        LinkedHashMap::new,
                        Collectors.toList()));
        byEnd.values().forEach(group -> {
            group.sort(Comparator.comparingDouble(ribbon -> start ? toY(ribbon) : fromY(ribbon)));
            double step = Math.min(SPREAD, 2 * MAX_SPREAD / Math.max(1, group.size() - 1));
            for (int i = 0; i < group.size(); i++) {
                double home = start ? fromY(group.get(i)) : toY(group.get(i));
                at.put(group.get(i), home + (i - (group.size() - 1) / 2.0) * step);
            }
        });
        return at;
    }

    private double fromY(Ribbon ribbon) {
        return arrivals.get(ribbon.way.from()).dot.getLayoutY();
    }

    private double toY(Ribbon ribbon) {
        return places.get(ribbon.way.to()).dot.getLayoutY();
    }
}
