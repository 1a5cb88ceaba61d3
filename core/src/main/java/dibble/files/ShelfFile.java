package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.ChannelPlan;
import dibble.gear.UnknownFields;
import dibble.routing.Routing;
import dibble.session.Session;
import dibble.session.ShelfItem;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A {@link ShelfItem} as JSON: {@code "format": "dibble-gear"}, and sources, instruments and zones as a session has
 * them; {@code places} has the names of gear that the zones need and the item has not.
 */
public final class ShelfFile {
    private static final String FORMAT = "dibble-gear";

    private ShelfFile() {}

    /** The file of an item. */
    public static byte[] write(ShelfItem item) {
        Routing routing = Routing.of(
                item.sources(), item.instruments(), new ChannelPlan(Map.of()), item.zones(), List.of(), null);
        ObjectNode node = SessionWriter.routingAlone(routing, UnknownFields.NONE);
        node.put("format", FORMAT).put("name", item.name());
        node.remove(List.of("$schema", "performance", "scenes", "controls"));
        ObjectNode places = node.putObject("places");
        names(places.putObject("sources"), item.places().sources());
        names(places.putObject("parts"), item.places().parts());
        names(places.putObject("instruments"), item.places().instruments());
        return SessionWriter.bytes(node);
    }

    private static void names(ObjectNode node, Map<String, String> names) {
        names.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(entry -> node.put(entry.getKey(), entry.getValue()));
    }

    /**
     * Reads the file of an item.
     *
     * @param file the file name, for messages
     * @throws SessionFormatException with one line: the problem and its place
     */
    public static ShelfItem read(byte[] bytes, String file) throws SessionFormatException {
        JsonNode node = SessionReader.parse(bytes, file);
        if (!node.isObject() || !FORMAT.equals(node.path("format").asText())) {
            throw new SessionFormatException(say("shelf-file.format-not-gear-expected", file, FORMAT));
        }
        ObjectNode session = ((ObjectNode) node.deepCopy()).put("format", "dibble-session");
        JsonNode places = session.remove("places");
        try {
            Session read = SessionReader.read(session).session();
            return new ShelfItem(
                    read.name(),
                    read.sources(),
                    read.instruments(),
                    read.zones(),
                    places == null
                            ? ShelfItem.Places.NONE
                            : new ShelfItem.Places(
                                    names(places, "sources"), names(places, "parts"), names(places, "instruments")));
        } catch (SessionFormatException e) {
            throw new SessionFormatException(file + ", " + e.getMessage());
        }
    }

    private static Map<String, String> names(JsonNode places, String list) {
        Map<String, String> names = new HashMap<>();
        places.path(list)
                .properties()
                .forEach(entry -> names.put(entry.getKey(), entry.getValue().asText()));
        return names;
    }
}
