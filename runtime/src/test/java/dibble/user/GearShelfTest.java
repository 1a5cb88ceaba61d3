package dibble.user;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.files.SessionFormatException;
import dibble.files.ShelfFile;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.ShelfItem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class GearShelfTest {
    private static final Session DEMO = LamplightersRound.session();
    private static final Performance DUSK = LamplightersRound.performance();

    @TempDir
    private Path folder;

    private static ShelfItem again(ShelfItem item) throws SessionFormatException {
        return ShelfFile.read(ShelfFile.write(item), "item.json");
    }

    @Test
    void whatIsKeptComesBackAsItWas() throws IOException {
        for (boolean withZones : new boolean[] {true, false}) {
            ShelfItem source = ShelfItem.ofSource(DEMO, DUSK, "larkspur", withZones);
            assertThat(again(source)).isEqualTo(source);
            assertThat(source.zones().isEmpty()).isNotEqualTo(withZones);
            ShelfItem instrument = ShelfItem.ofInstrument(DEMO, DUSK, "sorrel", withZones);
            assertThat(again(instrument)).isEqualTo(instrument);
        }
        ShelfItem zones = ShelfItem.ofZones(DEMO, DUSK, "All zones");
        assertThat(again(zones)).isEqualTo(zones);
        assertThat(zones.places().parts()).containsEntry("sorrel/celesta", "Celesta");
    }

    @Test
    void theShelfHasTheUsersOwnFirstAndWhatShipsBehind() throws IOException {
        GearShelf shelf = new GearShelf(folder);
        List<GearShelf.Kept> shipped = shelf.contents().kept();
        assertThat(shipped).hasSizeGreaterThanOrEqualTo(5).allMatch(kept -> kept.file() == null);
        shelf.keep(ShelfItem.ofSource(DEMO, DUSK, "larkspur", true));
        shelf.keep(ShelfItem.ofSource(DEMO, DUSK, "larkspur", false));
        List<GearShelf.Kept> all = shelf.contents().kept();
        assertThat(all).hasSize(shipped.size() + 2);
        assertThat(all.subList(0, 2))
                .extracting(kept -> kept.file().getFileName().toString())
                .containsExactlyInAnyOrder("larkspur-73.json", "larkspur-73-2.json");
        shelf.remove(all.get(0));
        assertThat(shelf.contents().kept()).hasSize(shipped.size() + 1);
    }

    /** Each item that ships can be added to a session that has everything already, twice. */
    @Test
    void whatShipsIsAddedWithIdsPortsAndColoursOfItsOwn() {
        Session session = DEMO;
        for (GearShelf.Kept kept : new GearShelf(folder).contents().kept()) {
            for (int time = 0; time < 2; time++) {
                ShelfItem item = kept.item();
                ShelfItem.Added added = item.addTo(session, item.guess(session));
                assertThat(added.left()).isZero();
                assertThat(added.added())
                        .hasSize(item.sources().size() + item.instruments().size());
                session = added.session();
            }
        }
        assertThat(session.sources()).extracting(Source::id).doesNotHaveDuplicates();
        assertThat(session.sources()).extracting(Source::port).doesNotHaveDuplicates();
        assertThat(session.instruments()).extracting(Instrument::port).doesNotHaveDuplicates();
        assertThat(session.allZones()).extracting(Zone::id).doesNotHaveDuplicates();
        for (Instrument instrument : session.instruments()) {
            assertThat(instrument.parts()).extracting(Part::colour).allMatch(colour -> colour > 0);
        }
        Session whole = session;
        assertThat(whole.allZones()).allMatch(zone -> whole.partOf(zone).isPresent());
    }

    @Test
    void zonesFindTheirPlacesByNameInAnotherSession() {
        ShelfItem zones = ShelfItem.ofZones(DEMO, DUSK, "Dusk");
        Session other = Session.empty("Other")
                .withSources(List.of(
                        Source.keyboard("upper", "LARKSPUR 73", "midi:a", new dibble.midi.Range(28, 100)),
                        Source.keyboard("tansy", "Something", "midi:b", dibble.midi.Range.ALL)))
                .withInstruments(List.of(Instrument.of(
                        "box",
                        "Box",
                        true,
                        "stand-in:box",
                        List.of(Part.of("bells", "Celesta", null, 8, dibble.midi.Range.ALL, 1)))));
        ShelfItem.Places found = zones.guess(other);
        assertThat(found.sources()).containsEntry("larkspur", "upper").containsEntry("tansy", "tansy");
        assertThat(found.parts()).containsOnlyKeys("sorrel/celesta").containsValue("box/bells");
        ShelfItem.Added added = zones.addTo(other, found);
        assertThat(added.session().allZones()).hasSize(1);
        Zone zone = added.session().allZones().get(0);
        assertThat(zone.source()).isEqualTo("upper");
        assertThat(added.session().partOf(zone)).isPresent();
        assertThat(added.left()).isEqualTo(zones.zones().size() - 1);
        ShelfItem.Places byHand = found.withPart("sorrel/upright", "box/bells").withSource("tansy", null);
        assertThat(zones.addTo(other, byHand).session().allZones()).hasSize(2);
    }

    @Test
    void damagedFilesAreNamedAndTheOthersAreThere() throws IOException {
        GearShelf shelf = new GearShelf(folder);
        shelf.keep(ShelfItem.ofSource(DEMO, DUSK, "tansy", false));
        Path dir = folder.resolve("shelf");
        Files.writeString(dir.resolve("broken.json"), "{\"format\": \"dibble-gear\",");
        Files.writeString(dir.resolve("other.json"), "{\"format\": \"something\"}");
        Files.writeString(
                dir.resolve("wrong.json"),
                "{\"format\":\"dibble-gear\",\"version\":1,\"name\":\"n\",\"sources\":[{\"id\":3}]}");
        Files.writeString(dir.resolve("newer.json"), "{\"format\":\"dibble-gear\",\"version\":9}");
        GearShelf.Contents contents = shelf.contents();
        assertThat(contents.kept().get(0).item().name()).isEqualTo("Tansy 32");
        assertThat(contents.damaged())
                .hasSize(4)
                .allMatch(line -> line.lines().count() == 1)
                .anyMatch(line -> line.startsWith("broken.json, line 1"))
                .anyMatch(line -> line.startsWith("other.json") && line.contains("dibble-gear"))
                .anyMatch(line -> line.startsWith("wrong.json") && line.contains("$.sources[0].id"))
                .anyMatch(line -> line.startsWith("newer.json") && line.contains("9"));
        assertThatThrownBy(() -> ShelfFile.read("[]".getBytes(StandardCharsets.UTF_8), "list.json"))
                .isInstanceOf(SessionFormatException.class);
    }
}
