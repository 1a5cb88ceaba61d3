package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.files.RoutingReader;
import dibble.files.SessionContent;
import dibble.files.SessionReader;
import dibble.files.TakeReader;
import dibble.gear.UnknownFields;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.recording.Take;
import dibble.routing.SlotAllocator;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The page about the file format says what is so. */
class FormatPageTest {
    private static final ObjectMapper JSON = new ObjectMapper();
    private final String page;
    private final List<String> examples;

    FormatPageTest() throws IOException {
        page = Files.readString(Path.of("..", "docs", "file-format.md"));
        Matcher blocks = Pattern.compile("```json\n(.*?)```", Pattern.DOTALL).matcher(page);
        examples = blocks.results().map(found -> found.group(1)).toList();
    }

    private static void addNames(JsonNode schema, Set<String> names) {
        schema.path("properties").fieldNames().forEachRemaining(names::add);
        schema.forEach(inner -> addNames(inner, names));
    }

    private static void addFields(JsonNode node, Set<String> names) {
        node.fieldNames().forEachRemaining(names::add);
        node.forEach(inner -> addFields(inner, names));
    }

    @Test
    void itNamesEveryFieldThatTheSchemaHasAndItsExampleOpens() throws IOException {
        JsonNode schema;
        try (InputStream in = SessionContent.class.getResourceAsStream("session.schema.json")) {
            schema = JSON.readTree(in);
        }
        Set<String> names = new TreeSet<>();
        addNames(schema, names);
        assertThat(names).allMatch(name -> page.contains("`" + name + "`") || page.contains("\"" + name + "\""));
        JsonNode example = JSON.readTree(examples.get(0));
        SessionContent opened = SessionContent.readJson(examples.get(0).getBytes(StandardCharsets.UTF_8));
        assertThat(opened.session().extras()).isEqualTo(UnknownFields.NONE);
        // Nothing in it is unknown: what is written again has every field of it, but for the files of takes and clips.
        Set<String> given = new TreeSet<>();
        addFields(example, given);
        Set<String> known = new TreeSet<>(names);
        known.addAll(
                Map.of("24", 0, "40", 0, "60", 0, "larkspur", 0, "$schema", 0).keySet());
        assertThat(known).containsAll(given);
        SessionContent.readJson(SessionContent.json(opened.session(), opened.performance()));
    }

    @Test
    void itsTakeIsOne() throws IOException {
        // The change needs a scene to change.
        String lines = examples.get(1)
                .replace(
                        "\"name\": \"routing\"}",
                        "\"name\": \"routing\", \"scenes\": [{\"id\": \"s\", \"zones\": [{\"id\": \"z\", \"source\": \"*\","
                                + " \"keys\": [0, 50], \"to\": {\"part\": \"i/p\"}}]}]}");
        Take take = TakeReader.read(
                new SessionReader.SaidOfTake("take-1", "One", "takes/take-1.jsonl", UnknownFields.NONE),
                lines.getBytes(StandardCharsets.UTF_8),
                TempoMap.of(60),
                Progress.NONE);
        assertThat(take.extras()).isEqualTo(UnknownFields.NONE);
        assertThat(take.log().size()).isEqualTo(2);
        assertThat(take.marks()).hasSize(2);
        assertThat(take.marks()
                        .get(1)
                        .routing()
                        .scenes()
                        .get(0)
                        .zones()
                        .get(0)
                        .keys()
                        .high())
                .isEqualTo(59);
        assertThat(take.start()).isEqualTo(2_500_000_000L);
        assertThat(take.length()).isEqualTo(900_000_000L);
    }

    @Test
    void itsLimitsAreTheRealOnes() {
        assertThat(page)
                .contains("| a container, unpacked | " + (SessionContent.MAX_BYTES >> 20) + " MiB |")
                .contains("| `session.json` | " + (SessionContent.MAX_JSON_BYTES >> 20) + " MiB |")
                .contains("together | " + (Container.MAX_UNKNOWN_BYTES >> 20) + " MiB |")
                .contains(String.format("| entries of a container | %,d |", Container.MAX_ENTRIES))
                .contains("| a line of a take | " + (TakeReader.LONGEST_LINE >> 20) + " MiB |")
                .contains(String.format("of one map | %,d each |", RoutingReader.MAX_GEAR))
                .contains(String.format("in a list | %,d |", RoutingReader.MAX_ZONES))
                .contains(String.format("| tracks, takes | %,d each |", SessionReader.MAX_TRACKS))
                .contains(String.format("regions of a track | %,d each |", SessionReader.MAX_ITEMS))
                .contains("| ports of instruments | " + SlotAllocator.MAX_PORTS + " |")
                .contains(String.format("| a tick | %,d ", SessionReader.LAST_TICK))
                .contains(String.format(
                        "| a MIDI file | %d MiB, %,d events, %,d tracks |",
                        MidiFileReader.MAX_BYTES >> 20, MidiFileReader.MAX_EVENTS, MidiFile.MAX_TRACKS));
    }
}
