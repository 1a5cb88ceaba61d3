package dibble.desktop.sheet;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.paper.Pages;
import dibble.paper.PaperSize;
import dibble.paper.SheetPdf;
import dibble.presentation.Choice;
import dibble.presentation.Jobs;
import dibble.presentation.Subscription;
import dibble.presentation.sheet.SheetActions;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sheet.Sheet;
import dibble.text.Texts;
import java.awt.image.BufferedImage;
import java.awt.print.PrinterException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The routing sheet in pages as printed, next to the settings to make on the gear. */
public final class SheetView extends BorderPane implements View {
    private static final int PAGE_WIDTH = 800;
    private static final double SIDE_WIDTH = 372;

    private final ViewContext desk;
    private final SheetActions actions;
    private final ImageView picture = new ImageView();
    private final Label place = Cards.strong("");
    private final Button back = Cards.button("sheet-back", "‹", () -> turn(-1));
    private final Button on = Cards.button("sheet-on", "›", () -> turn(1));
    private final ComboBox<Choice<PaperSize>> paper = new ComboBox<>();
    private final ToggleButton grey = new ToggleButton(say("sheet-view.in-grey"));
    private final ScrollPane preview;
    private final DifferencesPane differences;
    private final SetUpPane setUp;
    private final ViewUpdater watch;
    private Jobs.Job drawing;
    private int page;
    private int count = 1;
    private Object shown;

    /** The input of the layout; equal input needs no work. */
    private record Laid(
            Session session, Performance performance, PaperSize paper, boolean grey, int page, LocalDate date) {}

    /** A page that was drawn, and how many there are. */
    private record Drawn(Image page, int number, int count) {}

    /** Builds the view; it follows nothing before {@link #open}. */
    public SheetView(ViewContext desk, SheetActions actions) {
        this.desk = desk;
        this.actions = actions;
        watch = desk.watch(this::show).with(() -> this::leave);
        setId("sheet");
        paper.setId("sheet-paper");
        paper.setAccessibleText(say("sheet-view.paper"));
        paper.getItems()
                .setAll(List.of(
                        new Choice<>(PaperSize.A4, say("sheet-view.a4")),
                        new Choice<>(PaperSize.LETTER, say("sheet-view.letter"))));
        paper.getSelectionModel().select(PaperSize.usual(Texts.users()).ordinal());
        paper.setOnAction(event -> watch.stale());
        grey.setId("sheet-grey");
        grey.setTooltip(new Tooltip(say("sheet-view.as-a-printer-without-colours")));
        grey.setOnAction(event -> watch.stale());
        back.setAccessibleText(say("sheet-view.previous-page"));
        on.setAccessibleText(say("sheet-view.next-page"));
        place.setId("sheet-place");
        picture.setPreserveRatio(true);
        picture.setSmooth(true);
        picture.setId("sheet-page");
        picture.setAccessibleText(say("sheet-view.page-as-it-is-printed"));
        VBox sheet = new VBox(picture);
        sheet.getStyleClass().add("sheet-paper");
        preview = Cards.scroll(sheet);
        picture.fitWidthProperty()
                .bind(preview.widthProperty().subtract(60).map(width -> Math.min(PAGE_WIDTH, width.doubleValue())));
        differences = new DifferencesPane(desk, this::closeDifferences);
        setUp = new SetUpPane(desk);
        setCenter(middle());
        setRight(side());
    }

    private BorderPane middle() {
        Label heading = Cards.heading(say("sheet-view.routing-sheet"));
        heading.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(8, heading, back, place, on, paper, grey);
        head.getStyleClass().addAll("gear-title", "gear-head");
        return new BorderPane(preview, head, null, null, null);
    }

    private ScrollPane side() {
        Button print = Cards.button("sheet-print", say("sheet-view.print"), this::print);
        Button pdf = Cards.button("sheet-pdf", say("sheet-view.export-pdf"), () -> export(SheetActions.Form.PDF));
        Button html = Cards.button("sheet-html", say("sheet-view.export-html"), () -> export(SheetActions.Form.HTML));
        Button csv = Cards.button("sheet-csv", say("sheet-view.export-csv"), () -> export(SheetActions.Form.CSV));
        csv.setTooltip(new Tooltip(say("sheet-view.a-row-per-zone-and-control-map")));
        Button bringIn = Cards.button("sheet-import", say("sheet-view.import-csv"), this::importSheet);
        bringIn.setTooltip(new Tooltip(say("sheet-view.shows-what-would-change")));
        FlowPane out = new FlowPane(6, 6, print, pdf, html, csv, bringIn);
        FlowPane compare = new FlowPane(
                6,
                6,
                Cards.button("compare-saved", say("sheet-view.with-the-saved-session"), this::compareSaved),
                Cards.button("compare-other", say("sheet-view.with-another-session"), this::compareOther));
        VBox column = new VBox(12, out, Cards.heading(say("sheet-view.compare")), compare, setUp);
        column.getStyleClass().add("gear-inspector");
        ScrollPane scroll = Cards.scroll(column);
        scroll.getStyleClass().add("side");
        scroll.setMinWidth(SIDE_WIDTH);
        scroll.setPrefWidth(SIDE_WIDTH);
        scroll.setMaxWidth(SIDE_WIDTH);
        return scroll;
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private PaperSize size() {
        return paper.getValue().value();
    }

    private void export(SheetActions.Form form) {
        actions.export(form, size());
    }

    private void turn(int by) {
        page = Math.max(0, Math.min(count - 1, page + by));
        preview.setVvalue(0);
        watch.stale();
    }

    private void leave() {
        if (drawing != null) {
            drawing.drop();
            drawing = null;
        }
        // A page takes many megabytes, so it is drawn again when it becomes visible.
        picture.setImage(null);
        shown = null;
        closeDifferences();
    }

    private void show() {
        setUp.show();
        Laid now = new Laid(desk.session(), desk.performance(), size(), grey.isSelected(), page, LocalDate.now());
        if (!Objects.equals(now, shown)) {
            shown = now;
            draw(now);
        }
    }

    private static byte[] pdf(Laid what) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Sheet sheet = Sheet.of(what.session, what.performance, what.date);
        SheetPdf.write(sheet, what.session.middleC(), what.paper, bytes);
        return bytes.toByteArray();
    }

    private void draw(Laid what) {
        if (drawing != null) {
            drawing.drop();
        }
        drawing = desk.jobs()
                .start(
                        say("sheet-view.laying-out"),
                        progress -> {
                            try (Pages pages = new Pages(pdf(what))) {
                                int number = Math.min(what.page, pages.count() - 1);
                                BufferedImage drawn = pages.picture(number, 2 * PAGE_WIDTH, what.grey);
                                return new Drawn(SwingFXUtils.toFXImage(drawn, null), number, pages.count());
                            }
                        },
                        this::drawn,
                        e -> desk.ask().tell(say("sheet-view.not-laid-out", e.getMessage())));
    }

    private void drawn(Drawn made) {
        drawing = null;
        picture.setImage(made.page);
        count = made.count;
        page = made.number;
        place.setText(say("sheet-view.page-of", page + 1, count));
        back.setDisable(page == 0);
        on.setDisable(page == count - 1);
    }

    private void print() {
        Laid what = new Laid(desk.session(), desk.performance(), size(), false, 0, LocalDate.now());
        desk.jobs()
                .start(
                        say("sheet-view.printing"),
                        progress -> {
                            if (!Pages.canPrint()) {
                                throw new IOException(say("sheet-view.no-printer"));
                            }
                            try (Pages pages = new Pages(pdf(what))) {
                                pages.print(what.session.name());
                                return pages.count();
                            } catch (PrinterException e) {
                                throw new IOException(say("sheet-view.the-printer-refused", e.getMessage()));
                            }
                        },
                        printed -> desk.ask().tell(say("sheet-view.printed", printed)),
                        e -> desk.ask().tell(say("sheet-view.not-printed", e.getMessage())));
    }

    private void importSheet() {
        actions.bringIn(other -> {
            differences.offer(other);
            showDifferences();
        });
    }

    private void compareSaved() {
        actions.saved(other -> {
            differences.compare(other);
            showDifferences();
        });
    }

    private void compareOther() {
        actions.choose(other -> {
            differences.compare(other);
            showDifferences();
        });
    }

    private void showDifferences() {
        ((BorderPane) getCenter()).setCenter(differences);
    }

    private void closeDifferences() {
        ((BorderPane) getCenter()).setCenter(preview);
    }
}
