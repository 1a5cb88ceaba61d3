package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The differences of two sessions, in the terms of the sheet: object by object, matched by their ids.
 *
 * @param differences in the order of the sheet; empty if the sheets would be equal
 */
public record Comparison(List<Difference> differences) {
    /**
     * An object that differs.
     *
     * @param thing its kind and name: {@code zone Celesta}
     * @param id its id, unique among objects
     * @param changes its changed properties; empty if only one of the two sessions has it
     * @param first whether the first has it
     * @param second whether the second has it
     */
    public record Difference(String thing, String id, List<Change> changes, boolean first, boolean second) {
        /** In one line. */
        public String text() {
            if (!first || !second) {
                return first ? say("compare.only-first", thing) : say("compare.only-second", thing);
            }
            List<String> said = changes.stream()
                    .map(change -> say("compare.change", change.what(), shown(change.first()), shown(change.second())))
                    .toList();
            return say("compare.differs", thing, String.join("; ", said));
        }

        private static String shown(String value) {
            return value.isEmpty() ? say("compare.nothing") : value;
        }
    }

    /** A property of a thing that differs, as both have it. */
    public record Change(String what, String first, String second) {}

    /** Compares two sessions, each in its state. */
    public static Comparison of(Session first, Performance inFirst, Session second, Performance inSecond) {
        Map<String, Facts.Thing> ones = new Facts(first, inFirst).things();
        Map<String, Facts.Thing> others = new Facts(second, inSecond).things();
        Set<String> ids = new LinkedHashSet<>(ones.keySet());
        ids.addAll(others.keySet());
        List<Difference> differences = new ArrayList<>();
        for (String id : ids) {
            Facts.Thing one = ones.get(id);
            Facts.Thing other = others.get(id);
            if (one == null || other == null) {
                differences.add(
                        new Difference((one == null ? other : one).name(), id, List.of(), one != null, other != null));
            } else if (!one.facts().equals(other.facts())) {
                differences.add(new Difference(one.name(), id, changes(one.facts(), other.facts()), true, true));
            }
        }
        return new Comparison(differences);
    }

    private static List<Change> changes(Map<String, String> first, Map<String, String> second) {
        Map<String, String> all = new LinkedHashMap<>(first);
        second.forEach(all::putIfAbsent);
        List<Change> changes = new ArrayList<>();
        for (String what : all.keySet()) {
            String one = first.getOrDefault(what, "");
            String other = second.getOrDefault(what, "");
            if (!one.equals(other)) {
                changes.add(new Change(what, one, other));
            }
        }
        return changes;
    }
}
