package dibble.fuzzing;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/** Damages files: as disks and wires do, and as people and programs do who mean well. */
final class Damage {
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final long[] NUMBERS = {
        -1, 0, 1, 16, 17, 127, 128, 255, 16383, 65536, Integer.MAX_VALUE, 1L << 32, Long.MAX_VALUE, Long.MIN_VALUE
    };

    private final Random random;

    Damage(Random random) {
        this.random = random;
    }

    /** Returns damaged bytes. */
    byte[] bytes(byte[] whole) {
        byte[] bytes = whole;
        for (int i = random.nextInt(3); i >= 0; i--) {
            bytes = once(bytes);
        }
        return bytes;
    }

    private byte[] once(byte[] bytes) {
        if (bytes.length < 4) {
            return bytes;
        }
        int at = random.nextInt(bytes.length);
        int length = 1 + random.nextInt(Math.min(64, bytes.length - at));
        switch (random.nextInt(7)) {
            case 0:
                return Arrays.copyOf(bytes, at);
            case 1:
                return spliced(bytes, at, length, new byte[0]);
            case 2:
                return spliced(bytes, at, 0, Arrays.copyOfRange(bytes, at, at + length));
            case 3:
                byte[] noise = new byte[length];
                random.nextBytes(noise);
                return spliced(bytes, at, length, noise);
            case 4:
                byte[] filled = bytes.clone();
                Arrays.fill(filled, at, at + length, (byte) (random.nextBoolean() ? 0 : 0xFF));
                return filled;
            default:
                byte[] flipped = bytes.clone();
                flipped[at] ^= (byte) (1 << random.nextInt(8));
                return flipped;
        }
    }

    private static byte[] spliced(byte[] bytes, int at, int removed, byte[] put) {
        byte[] spliced = new byte[bytes.length - removed + put.length];
        System.arraycopy(bytes, 0, spliced, 0, at);
        System.arraycopy(put, 0, spliced, at, put.length);
        System.arraycopy(bytes, at + removed, spliced, at + put.length, bytes.length - at - removed);
        return spliced;
    }

    /** JSON that is JSON still, and says something else. */
    byte[] json(byte[] text) throws IOException {
        JsonNode root = JSON.readTree(text);
        List<JsonNode> places = new ArrayList<>();
        addContainers(root, places);
        for (int i = random.nextInt(3); i >= 0 && !places.isEmpty(); i--) {
            change(places.get(random.nextInt(places.size())));
        }
        return JSON.writeValueAsBytes(root);
    }

    private static void addContainers(JsonNode node, List<JsonNode> places) {
        if (node.isContainerNode() && !node.isEmpty()) {
            places.add(node);
            node.forEach(inner -> addContainers(inner, places));
        }
    }

    private void change(JsonNode place) {
        if (place.isEmpty()) {
            return;
        }
        int which = random.nextInt(place.size());
        if (place instanceof ArrayNode array) {
            if (random.nextInt(4) == 0) {
                array.add(array.get(which).deepCopy());
            } else {
                array.set(which, anything(array.get(which)));
            }
            return;
        }
        List<String> names = new ArrayList<>();
        place.fieldNames().forEachRemaining(names::add);
        String name = names.get(which);
        ObjectNode object = (ObjectNode) place;
        switch (random.nextInt(5)) {
            case 0 -> object.remove(name);
            case 1 -> object.set(names.get(random.nextInt(names.size())), object.get(name));
            default -> object.set(name, anything(object.get(name)));
        }
    }

    private JsonNode anything(JsonNode before) {
        return switch (random.nextInt(8)) {
            case 0 -> JSON.nullNode();
            case 1 ->
                JSON.getNodeFactory()
                        .textNode(List.of("", "*", "a/b", "../..", "\u0000", "all")
                                .get(random.nextInt(6)));
            case 2 -> JSON.createArrayNode();
            case 3 -> JSON.createObjectNode();
            case 4 -> JSON.getNodeFactory().numberNode(new BigDecimal("1E+" + random.nextInt(1000)));
            case 5 ->
                before.isNumber()
                        ? JSON.getNodeFactory().numberNode(before.asLong() + random.nextInt(5) - 2)
                        : JSON.getNodeFactory().booleanNode(random.nextBoolean());
            default -> JSON.getNodeFactory().numberNode(NUMBERS[random.nextInt(NUMBERS.length)]);
        };
    }

    /** Lines of JSON of which some are damaged, doubled or gone. */
    byte[] lines(byte[] text) throws IOException {
        StringBuilder lines = new StringBuilder();
        for (String line : new String(text, java.nio.charset.StandardCharsets.UTF_8).split("\n")) {
            switch (random.nextInt(12)) {
                case 0 ->
                    lines.append(new String(
                                    json(line.getBytes(java.nio.charset.StandardCharsets.UTF_8)),
                                    java.nio.charset.StandardCharsets.UTF_8))
                            .append('\n');
                case 1 -> lines.append(line).append('\n').append(line).append('\n');
                case 2 -> lines.append('\n');
                default -> lines.append(line).append('\n');
            }
        }
        return lines.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    /** A container that is whole as such, with one of its entries damaged, gone, or under another name. */
    byte[] container(byte[] zip) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip));
                ZipOutputStream out = new ZipOutputStream(bytes)) {
            int damaged = random.nextInt(6);
            int number = 0;
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                byte[] content = in.readAllBytes();
                String name = entry.getName();
                if (number++ % 6 == damaged) {
                    if (random.nextInt(8) == 0) {
                        continue;
                    }
                    name = random.nextInt(8) == 0 ? "../" + name : name;
                    content = damagedEntry(name, content);
                }
                out.putNextEntry(new ZipEntry(name));
                out.write(content);
                out.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private byte[] damagedEntry(String name, byte[] content) throws IOException {
        if (name.endsWith(".json") && random.nextInt(4) > 0) {
            return json(content);
        }
        return name.endsWith(".jsonl") && random.nextInt(4) > 0 ? lines(content) : bytes(content);
    }
}
