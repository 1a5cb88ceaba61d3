package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** The JSON Schema that ships with Dibble and what reads sessions say the same of every session. */
class FormatTest {
    private static final ObjectMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
            .build();
    private static final JsonNode TEXT = schemaText();
    private static final Schema SCHEMA = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(TEXT);

    /** What lies in files of its own, which a bare session has not. */
    private static final Set<String> FILES = Set.of("file", "prints", "printedFrom", "regions");

    /** What no schema can say. */
    private static final List<String> BEYOND = List.of(
            "appears twice \\(expected unique ids\\)",
            "range \\d+ to \\d+ \\(expected the lower one first\\)",
            "window \\d+.*",
            "a target of kind .*",
            "a [a-zA-Z0-9]+ without a number .*",
            "\\d+ \\(expected 0 to (31|127)\\)",
            "a note to all parts .*",
            "no (tempo|meter) at tick 0",
            "(tempo|meter) at tick \\d+ \\(expected later ticks\\)",
            "region from tick \\d+ to \\d+ .*",
            "\\d+ is newer than this Dibble.*");

    private static JsonNode schemaText() {
        try (InputStream in = SessionContent.class.getResourceAsStream("session.schema.json")) {
            return JSON.readTree(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A field that is null is one that was left out. */
    private static JsonNode withoutNulls(JsonNode node) {
        if (node.isObject()) {
            ObjectNode kept = JSON.createObjectNode();
            node.properties().forEach(field -> {
                if (!field.getValue().isNull()) {
                    kept.set(field.getKey(), withoutNulls(field.getValue()));
                }
            });
            return kept;
        }
        if (node.isArray()) {
            ArrayNode items = JSON.createArrayNode();
            node.forEach(item -> items.add(withoutNulls(item)));
            return items;
        }
        return node;
    }

    private static ObjectNode instance(Random random) {
        ObjectNode session = new SchemaInstances(TEXT, random, Set.of("takes", "$schema")).next();
        session.put("version", 1);
        return session;
    }

    private static Optional<String> refusal(JsonNode session) throws IOException {
        try {
            SessionContent.readJson(JSON.writeValueAsBytes(session));
            return Optional.empty();
        } catch (SessionFormatException e) {
            assertThat(e.getMessage().lines().count()).isEqualTo(1);
            return Optional.of(e.getMessage());
        }
    }

    private static boolean isBeyond(String message) {
        return BEYOND.stream().anyMatch(rule -> message.matches(".*(: |\" )" + rule));
    }

    @Property(tries = 300)
    void whatTheSchemaAllowsIsReadUnlessItIsARuleThatNoSchemaCanSay(@ForAll long seed) throws IOException {
        JsonNode session = instance(new Random(seed));
        assertThat(SCHEMA.validate(withoutNulls(session))).isEmpty();
        refusal(session).ifPresent(message -> assertThat(message).matches(FormatTest::isBeyond));
    }

    /** Something anywhere in a session is another. */
    @net.jqwik.api.Tag("slow")
    @Property(tries = 1500)
    void schemaAndReaderRefuseTheSame(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        SchemaInstances instances = new SchemaInstances(TEXT, random, Set.of("$schema"));
        ObjectNode session = instances.next();
        session.put("version", 1);
        List<JsonNode> places = new ArrayList<>();
        addContainers(session, places);
        for (int n = random.nextInt(3); n >= 0; n--) {
            change(places.get(random.nextInt(places.size())), instances, random);
        }
        boolean valid = SCHEMA.validate(withoutNulls(session)).isEmpty();
        Optional<String> refusal = refusal(session);
        if (!valid) {
            assertThat(refusal).as(session.toString()).isPresent();
        } else if (refusal.isPresent()) {
            assertThat(refusal.get()).as(session.toString()).matches(FormatTest::isBeyond);
        }
    }

    private static void addContainers(JsonNode node, List<JsonNode> places) {
        if (node.isContainerNode() && !node.isEmpty()) {
            places.add(node);
            node.forEach(inner -> addContainers(inner, places));
        }
    }

    private static void change(JsonNode place, SchemaInstances instances, Random random) {
        if (place.isEmpty()) {
            return;
        }
        int which = random.nextInt(place.size());
        JsonNode other = instances.anything(1);
        if (other.isNumber()
                && other.decimalValue().precision() - other.decimalValue().scale() > 10) {
            // The validator of the schema counts with machine numbers; ours does not.
            other = JSON.getNodeFactory().numberNode(200);
        }
        if (place instanceof ArrayNode array) {
            array.set(which, other);
            return;
        }
        List<String> names = new ArrayList<>();
        place.fieldNames().forEachRemaining(names::add);
        if (random.nextInt(3) == 0) {
            ((ObjectNode) place).remove(names.get(which));
        } else {
            ((ObjectNode) place).set(names.get(which), other);
        }
    }

    @Property(tries = 300)
    void whatNobodyHereKnowsComesBackFromAnywhere(@ForAll long seed) throws IOException {
        Set<String> without = new java.util.HashSet<>(FILES);
        without.addAll(Set.of("takes", "$schema"));
        ObjectNode session = new SchemaInstances(TEXT, new Random(seed), without).next();
        session.put("version", 1);
        if (refusal(session).isPresent()) {
            return;
        }
        SessionContent once = SessionContent.readJson(JSON.writeValueAsBytes(session));
        byte[] written = SessionContent.json(once.session(), once.performance());
        assertThat(unknown(JSON.readTree(written))).isEqualTo(unknown(session));
        SessionContent twice = SessionContent.readJson(written);
        assertThat(twice.session()).isEqualTo(once.session());
        assertThat(twice.session().routing(twice.performance()))
                .isEqualTo(once.session().routing(once.performance()));
    }

    /** The fields that no schema names, by their paths. */
    static Map<String, String> unknown(JsonNode node) {
        Map<String, String> found = new TreeMap<>();
        addUnknown("$", node, found);
        return found;
    }

    private static void addUnknown(String path, JsonNode node, Map<String, String> found) {
        if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                addUnknown(path + "[" + i + "]", node.get(i), found);
            }
        }
        for (Map.Entry<String, JsonNode> field : node.properties()) {
            if (field.getKey().startsWith(SchemaInstances.UNKNOWN)) {
                found.put(path + "." + field.getKey(), field.getValue().toString());
            } else {
                addUnknown(path + "." + field.getKey(), field.getValue(), found);
            }
        }
    }

    @Test
    void theGeneratorReachesEveryPartOfTheFormat() throws IOException {
        int opened = 0;
        for (int seed = 0; seed < 200; seed++) {
            opened += refusal(instance(new Random(seed))).isEmpty() ? 1 : 0;
        }
        assertThat(opened).isGreaterThan(20);
    }
}
