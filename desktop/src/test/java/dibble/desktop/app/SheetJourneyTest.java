package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.PartRef;
import dibble.presentation.app.Page;
import dibble.session.Session;
import dibble.sheet.SetUpList;
import dibble.sheet.SheetCsv;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.image.ImageView;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The sheet is looked through, exported and brought in again; the gear is set up by it. */
class SheetJourneyTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void press(String id) {
        until(() -> lookup(id).tryQuery().isPresent());
        onFx(() -> lookup(id).queryAs(ButtonBase.class).fire());
    }

    private void answer(Path path) {
        until(() -> lookup("#ask-field").tryQuery().isPresent() && desk().ask().isAsking());
        onFx(() -> {
            TextField field = lookup("#ask-field").queryAs(TextField.class);
            field.setText(path.toString());
            field.getOnAction().handle(null);
        });
    }

    private void openSheet() {
        onFx(() -> window.show(Page.SHEET));
        until(() -> lookup("#sheet-page").queryAs(ImageView.class).getImage() != null);
    }

    @Test
    void thePagesFollowTheSession() {
        openSheet();
        until(() -> text("#sheet-place").startsWith("Page 1 of "));
        press("#sheet-on");
        until(() -> text("#sheet-place").startsWith("Page 2 of "));
        String before = text("#sheet-place");
        onFx(() -> desk().document()
                .edit("scenes", session -> session.withScenes(session.scenes().subList(0, 1))));
        until(() -> text("#sheet-place").startsWith("Page 2 of ")
                && !text("#sheet-place").equals(before));
    }

    @Test
    void aSheetOfRowsIsExportedChangedAndImportedAsOneStep() throws Exception {
        openSheet();
        Path csv = folder.resolve("round.csv");
        press("#sheet-csv");
        answer(csv);
        until(() -> Files.exists(csv));
        String rows = Files.readString(csv);
        assertThat(SheetCsv.read(rows, desk().session())).isEqualTo(desk().session());
        Files.writeString(csv, rows.replaceFirst(",-12,", ",-24,"), StandardCharsets.UTF_8);
        press("#sheet-import");
        answer(csv);
        until(() -> lookup("#import-apply").tryQuery().isPresent());
        assertThat(desk().session()).as("nothing yet").isEqualTo(LamplightersRound.session());
        press("#import-apply");
        until(() -> desk().session().zone("bass-hand").orElseThrow().transpose() == -24);
        onFx(() -> desk().document().undo());
        assertThat(desk().session()).isEqualTo(LamplightersRound.session());
        Files.writeString(csv, rows.replaceFirst(",-12,", ",low,"), StandardCharsets.UTF_8);
        press("#sheet-import");
        answer(csv);
        until(() -> desk().ask().isAsking());
        assertThat(desk().session()).isEqualTo(LamplightersRound.session());
    }

    @Test
    void sendingAllSoundsTicksWhatItDid() {
        openSheet();
        SetUpList list = SetUpList.of(desk().session(), desk().performance());
        press("#set-up-send");
        until(() -> desk().performance().setUp().containsAll(list.sent()));
        assertThat(list.sent()).hasSize(3);
        until(() -> text("#set-up-count").contains("3 of " + list.count()));
        onFx(() -> lookup("#set-up-0").queryAs(CheckBox.class).fire());
        until(() -> desk().performance().setUp().size() == 4);
        // What is to be set is another now: the tick goes.
        Instrument yarrow = desk().session().instrument("yarrow").orElseThrow();
        PartRef first = yarrow.ref(yarrow.parts().get(0));
        onFx(() -> desk().document()
                .edit(
                        "program",
                        session -> GearEdits.changePart(
                                session, first, part -> part.with().program(72).build())));
        until(() -> text("#set-up-count").contains("3 of " + list.count()));
    }
}
