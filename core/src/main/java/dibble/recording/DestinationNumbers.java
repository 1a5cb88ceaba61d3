package dibble.recording;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Small numbers for the destinations that events name, in the order in which they are asked for. Not thread-safe. */
final class DestinationNumbers {
    private final Map<String, Integer> numbers = new HashMap<>();
    private final List<String> names = new ArrayList<>();

    /** The destination that was asked for last: most events have that of the event before. */
    private String last;

    private int lastNumber;

    int number(String destination) {
        if (!destination.equals(last)) {
            last = destination;
            lastNumber = numbers.computeIfAbsent(destination, name -> {
                names.add(name);
                return names.size() - 1;
            });
        }
        return lastNumber;
    }

    String name(int number) {
        return names.get(number);
    }

    int count() {
        return names.size();
    }
}
