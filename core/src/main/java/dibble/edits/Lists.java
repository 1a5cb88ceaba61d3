package dibble.edits;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;

/** Lists with one thing more, or in another order. */
final class Lists {
    private Lists() {}

    static <T> List<T> moved(List<T> items, Predicate<T> which, int by) {
        List<T> moved = new ArrayList<>(items);
        for (int from = 0; from < items.size(); from++) {
            if (which.test(items.get(from))) {
                int to = Math.max(0, Math.min(items.size() - 1, from + by));
                moved.add(to, moved.remove(from));
                return moved;
            }
        }
        return moved;
    }

    static <T> List<T> with(List<T> list, T item) {
        List<T> longer = new ArrayList<>(list);
        longer.add(item);
        return longer;
    }
}
