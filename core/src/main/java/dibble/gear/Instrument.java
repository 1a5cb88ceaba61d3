package dibble.gear;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A multitimbral instrument or sound module.
 *
 * @param id unique among the instruments
 * @param builtIn whether Dibble sounds it itself
 * @param port the name of the port it hears; instruments can share one
 */
public record Instrument(String id, String name, boolean builtIn, String port, List<Part> parts, Extras extras) {
    public Instrument {
        Ids.check(id);
        parts = List.copyOf(parts);
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!ids.add(part.id())) {
                throw new IllegalArgumentException("part \"" + part.id() + "\" twice in " + id);
            }
        }
    }

    public Optional<Part> part(String partId) {
        return parts.stream().filter(part -> part.id().equals(partId)).findFirst();
    }

    public Instrument withParts(List<Part> others) {
        return new Instrument(id, name, builtIn, port, others, extras);
    }

    public PartRef ref(Part part) {
        return new PartRef(id, part.id());
    }
}
