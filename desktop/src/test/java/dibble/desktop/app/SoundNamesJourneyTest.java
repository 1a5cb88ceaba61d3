package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.files.NamesFile;
import dibble.gear.BankSelect;
import dibble.gear.PartRef;
import dibble.gear.SoundNames;
import dibble.gear.UnknownFields;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.presentation.app.Page;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.recording.TrackExport;
import dibble.session.Session;
import dibble.sheet.Sheet;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextField;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A document of our own making with three banks: programs by name in Gear, on the sheet and on exported tracks. */
class SoundNamesJourneyTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private static SoundNames.Bank bank(String name, int number, String... programs) {
        List<SoundNames.Program> all = IntStream.range(0, programs.length)
                .mapToObj(i -> new SoundNames.Program(i, programs[i], name.charAt(0) + "0" + i))
                .toList();
        return new SoundNames.Bank(name, List.of(number, 0), all);
    }

    private void answer(Path path) {
        until(() -> desk().ask().isAsking() && lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> {
            TextField field = lookup("#ask-field").queryAs(TextField.class);
            field.setText(path.toString());
            field.getOnAction().handle(null);
        });
    }

    @Test
    void programsAreChosenByName() throws Exception {
        SoundNames names = new SoundNames(
                "Thistle",
                "Yarrow",
                BankSelect.COARSE,
                List.of(
                        bank("Air", 0, "Reed morning", "Low fog"),
                        bank("Brass", 1, "Lamp horn", "Slow march"),
                        bank("Chimes", 2, "Lantern bells", "Frost")),
                Map.of(),
                Map.of(),
                UnknownFields.NONE);
        Path document = Files.write(folder.resolve("yarrow.midnam"), NamesFile.midnam(names));
        onFx(() -> {
            window.show(Page.GEAR);
            desk().selection().instrument().set("yarrow");
        });
        until(() -> lookup("#names-import").tryQuery().isPresent());
        onFx(() -> lookup("#names-import").queryAs(ButtonBase.class).fire());
        answer(document);
        until(() -> desk().session().instrument("yarrow").orElseThrow().names() != null);
        PartRef first = desk().session()
                .instrument("yarrow")
                .map(it -> it.ref(it.parts().get(0)))
                .orElseThrow();
        onFx(() -> desk().selection().partAlone(first.toString()));
        until(() -> lookup("#program-search").tryQuery().isPresent());
        onFx(() -> {
            TextField search = lookup("#program-search").queryAs(TextField.class);
            search.setText("bells lant");
            search.getOnAction().handle(null);
        });
        until(() ->
                List.of(2, 0).equals(desk().session().part(first).orElseThrow().bank()));
        assertThat(desk().session().part(first).orElseThrow().program()).isZero();
        // This module selects its banks by controller 0 alone.
        assertThat(desk().routing().soundOf(first, 0))
                .startsWith(ShortMessage.controller(0, 0, 2), ShortMessage.programChange(0, 0));
        Sheet.Page whole = Sheet.of(desk().session(), desk().performance(), LocalDate.now())
                .pages()
                .get(0);
        assertThat(whole.toString()).contains("1 Lantern bells");
        Session recorded = desk().session()
                .withTracks(List.of(Track.of("reed", "Reed", first)
                        .withRegions(Regions.own(new MidiTrack.Builder()
                                .add(0, ShortMessage.noteOn(0, 60, 90))
                                .add(90, ShortMessage.noteOff(0, 60, 64))
                                .build()))));
        assertThat(TrackExport.type1(
                                recorded.name(),
                                recorded.tempo(),
                                recorded.markers(),
                                recorded.tracks(),
                                desk().routing())
                        .tracks()
                        .stream()
                        .flatMap(track -> IntStream.range(0, track.size())
                                .filter(i -> track.isMeta(i, MidiTrack.META_INSTRUMENT))
                                .mapToObj(track::text)))
                .anyMatch(text -> text.endsWith(", Lantern bells"));
        onFx(() -> desk().document().undo());
        onFx(() -> desk().document().undo());
        assertThat(desk().session()).isEqualTo(LamplightersRound.session());
    }
}
