package dibble.disk;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;

/** Makes random JSON of a JSON Schema, with fields that it does not name wherever an object may have some. */
final class SchemaInstances {
    static final String UNKNOWN = "x-";
    private static final JsonNodeFactory JSON = new JsonNodeFactory(true);

    private final JsonNode schema;
    private final Random random;
    private final Set<String> without;
    private int number;

    /** @param without the names of fields that are left out */
    SchemaInstances(JsonNode schema, Random random, Set<String> without) {
        this.schema = schema;
        this.random = random;
        this.without = without;
    }

    ObjectNode next() {
        return (ObjectNode) make("", schema);
    }

    private JsonNode make(String name, JsonNode of) {
        if (of.has("$ref")) {
            String ref = of.path("$ref").asText();
            String def = ref.substring(ref.lastIndexOf('/') + 1);
            return def.equals("id")
                    ? JSON.textNode(id(name))
                    : make(name, schema.path("$defs").path(def));
        }
        if (of.has("const")) {
            return of.get("const");
        }
        if (of.has("enum")) {
            return of.get("enum").get(random.nextInt(of.get("enum").size()));
        }
        if (of.has("anyOf")) {
            return make(name, of.get("anyOf").get(random.nextInt(of.get("anyOf").size())));
        }
        if (of.has("if")) {
            return choice(name, of);
        }
        return switch (of.path("type").asText()) {
            case "object" -> object(of);
            case "array" -> array(name, of);
            case "string" -> JSON.textNode(text(of.path("pattern").asText()));
            case "boolean" -> JSON.booleanNode(random.nextBoolean());
            case "integer", "number" -> number(of);
            default -> anything(2);
        };
    }

    /** Ids of things are unique; names of other things need not be. */
    private String id(String name) {
        return name.equals("id") ? "i" + number++ : "i" + random.nextInt(4);
    }

    private JsonNode choice(String name, JsonNode of) {
        boolean first = random.nextBoolean();
        JsonNode taken = of.get(first ? "then" : "else");
        if (!taken.has("properties")) {
            return make(name, taken);
        }
        ObjectNode merged = taken.deepCopy();
        if (first) {
            merged.set("required", of.path("if").path("required"));
        }
        merged.put("type", "object");
        return object(merged);
    }

    private ObjectNode object(JsonNode of) {
        ObjectNode object = JSON.objectNode();
        List<String> required = new ArrayList<>();
        of.path("required").forEach(name -> required.add(name.asText()));
        for (Map.Entry<String, JsonNode> field : of.path("properties").properties()) {
            boolean there = required.contains(field.getKey()) || random.nextInt(3) > 0;
            if (there && !without.contains(field.getKey())) {
                object.set(field.getKey(), make(field.getKey(), field.getValue()));
            }
        }
        if (of.has("additionalProperties")) {
            for (int i = random.nextInt(3); i > 0; i--) {
                object.set(String.valueOf(random.nextInt(128)), make("", of.get("additionalProperties")));
            }
        } else if (random.nextInt(3) == 0) {
            object.set(UNKNOWN + random.nextInt(100), anything(3));
        }
        return object;
    }

    private JsonNode array(String name, JsonNode of) {
        ArrayNode array = JSON.arrayNode();
        int least = of.path("minItems").asInt(0);
        int most = Math.min(of.path("maxItems").asInt(3), Math.max(3, least));
        int size = least + random.nextInt(most - least + 1);
        List<JsonNode> items = new ArrayList<>();
        for (int i = 0; i < size; i++) {
            items.add(make(name, of.path("items")));
        }
        if (least == 2 && items.stream().allMatch(JsonNode::isNumber)) {
            items.sort((a, b) -> a.decimalValue().compareTo(b.decimalValue()));
        }
        if (Set.of("tempo", "meter", "markers").contains(name)) {
            for (int i = 0; i < size; i++) {
                ((ObjectNode) items.get(i)).put("at", i * 960);
            }
        }
        array.addAll(items);
        return array;
    }

    private JsonNode number(JsonNode of) {
        long low = of.path("minimum").asLong(0);
        long high = Math.min(of.path("maximum").asLong(10), low + 127);
        long whole = low + random.nextInt((int) (high - low + 1));
        return of.path("type").asText().equals("number")
                ? JSON.numberNode(Math.min(high, whole + random.nextInt(1000) / 1024.0))
                : JSON.numberNode((int) whole);
    }

    private String text(String pattern) {
        String slashed = "i" + random.nextInt(4) + "/i" + random.nextInt(4);
        return switch (pattern) {
            case "" ->
                List.of("", "Larkspur 73", "F\u266F \"3\"\\", "line\nend", "\uD834\uDD1E")
                        .get(random.nextInt(5));
            case "^([a-z0-9-]+|\\*)$" -> random.nextBoolean() ? "*" : "i1";
            case "^tracks/[a-z0-9-]+\\.mid$" -> "tracks/i1.mid";
            case "^prints/[a-z0-9-]+\\.mid$" -> "prints/i1.mid";
            case "^[-+@0-9 ]*$" ->
                List.of("", "0-56 58 + 59-72@3840", "3 2 1-0").get(random.nextInt(3));
            case "^[-0-9 ]*$" -> List.of("", "0-3 7", "9-2 -").get(random.nextInt(3));
            case "^takes/[a-z0-9-]+\\.jsonl$" -> "takes/i1.jsonl";
            case "^[0-9a-f]{64}$" -> "0123456789abcdef".repeat(4);
            default -> slashed;
        };
    }

    /** Any JSON, with numbers that no machine can count with. */
    JsonNode anything(int depth) {
        switch (random.nextInt(depth > 0 ? 10 : 8)) {
            case 0:
                return JSON.nullNode();
            case 1:
                return JSON.booleanNode(random.nextBoolean());
            case 2:
                return JSON.numberNode(random.nextInt());
            case 3:
                return JSON.numberNode(new BigDecimal("1E+400"));
            case 4:
                return JSON.numberNode(new BigInteger("123456789012345678901234567890"));
            case 5:
                return JSON.numberNode(new BigDecimal("0.1000000000000000055511151231257827"));
            case 6:
                return JSON.numberNode(random.nextInt(300) - 20);
            case 7:
                return JSON.textNode(text(""));
            case 8:
                ArrayNode array = JSON.arrayNode();
                for (int i = random.nextInt(4); i > 0; i--) {
                    array.add(anything(depth - 1));
                }
                return array;
            default:
                ObjectNode object = JSON.objectNode();
                for (int i = random.nextInt(4); i > 0; i--) {
                    object.set("f" + i, anything(depth - 1));
                }
                return object;
        }
    }
}
