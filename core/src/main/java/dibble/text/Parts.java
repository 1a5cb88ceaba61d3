package dibble.text;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URL;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;

/** The libraries that ship with Dibble, as the build listed them (CycloneDX, a list in each jar that is started). */
public final class Parts {
    private static final String LIST = "META-INF/sbom/parts.cdx.json";
    private static final String OWN = "dibble";

    /**
     * A library.
     *
     * @param licences their SPDX identifiers, or the names that the library gives them; any of them may be chosen
     */
    public record Part(String name, String version, List<String> licences) {}

    private Parts() {}

    /** All of them by name; empty where no list was built in. */
    public static List<Part> all() {
        SortedMap<String, Part> parts = new TreeMap<>();
        try {
            for (URL list : Collections.list(Parts.class.getClassLoader().getResources(LIST))) {
                try (InputStream in = list.openStream()) {
                    for (JsonNode component : new ObjectMapper().readTree(in).path("components")) {
                        if (!component.path("group").asText().equals(OWN)) {
                            Part part = part(component);
                            parts.put(part.name(), part);
                        }
                    }
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return List.copyOf(parts.values());
    }

    private static Part part(JsonNode component) {
        List<String> licences = new ArrayList<>();
        for (JsonNode choice : component.path("licenses")) {
            JsonNode licence = choice.path("license");
            licences.add(licence.path("id").asText(licence.path("name").asText()));
        }
        return new Part(
                component.path("name").asText(), component.path("version").asText(), List.copyOf(licences));
    }
}
