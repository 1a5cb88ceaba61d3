package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.presentation.Command;
import dibble.presentation.Subscription;
import dibble.presentation.WheelSteps;
import dibble.presentation.keys.KeysPresenter;
import dibble.presentation.keys.NoteScale;
import dibble.presentation.keys.NoteWindow;
import dibble.routing.Zone;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Sources under one another on one note ruler, their zones as bands, the sounds at the right. */
public final class KeysView extends StackPane implements View {
    private static final double SIDE = 332;
    private static final double MAX_SPACE = 170;
    private static final int OCTAVE = 12;

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final ViewUpdater watch;
    private final NoteWindow window;
    private final NoteRuler ruler;
    private final VBox rowBox = new VBox();
    private final ScrollPane scroll = Cards.scroll(rowBox);
    private final Label empty = new Label(say("keys-view.no-source-yet-add-one"));
    private final Map<String, SourceRow> rows = new HashMap<>();
    private final SoundsPanel sounds;
    private final ZoneInspector inspector;
    private final PartDrop drop;
    private final KeyWait waiting = new KeyWait();
    private final WheelSteps wheel = new WheelSteps();
    private KeysPresenter.Copied copied;

    /** Builds the view; it follows nothing before {@link #open}. */
    public KeysView(ViewContext desk) {
        this.desk = desk;
        presenter = new KeysPresenter(desk.document(), desk.jobs());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.live().onKey((source, key, velocity) -> pressed(source, key)))
                .with(() -> waiting::leave);
        window = new NoteWindow(presenter::span, watch::stale);
        ruler = new NoteRuler(this::zoomOut, this::zoomIn, window::fit);
        drop = new PartDrop(desk, presenter, rows, scroll);
        sounds = new SoundsPanel(desk, drop);
        inspector = new ZoneInspector(desk, presenter, this::askSwitches);
        getStyleClass().add("keys-view");
        empty.getStyleClass().add("empty");
        BorderPane left = new BorderPane(new StackPane(scroll, empty));
        left.setTop(ruler);
        BorderPane whole = new BorderPane(left);
        whole.setRight(Cards.side(desk, "keys", new VBox(sounds, inspector), SIDE));
        getChildren().addAll(whole, drop, waiting);
        addEventFilter(ScrollEvent.SCROLL, this::wheel);
        scroll.viewportBoundsProperty().subscribe(bounds -> watch.stale());
    }

    @Override
    public boolean escape() {
        boolean waited = waiting.isVisible();
        waiting.leave();
        return waited;
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    @Override
    public List<Command> commands() {
        return List.of(
                Command.of(
                                "cut-zone",
                                say("keys-view.split-the-zone"),
                                () -> waiting.waitFor(say("keys-view.press-the-lowest-key-of"), this::cutAt))
                        .key("S")
                        .when(() -> zone().isPresent()),
                Command.of(
                                "layer-zone",
                                say("keys-view.layer-the-zone"),
                                () -> zone().ifPresent(
                                                it -> selectFresh(presenter.paste(presenter.copied(it), it.source()))))
                        .key("L")
                        .when(() -> zone().isPresent()),
                Command.of("hear-source", say("keys-view.hear-the-source-or-not"), this::hear)
                        .key("H")
                        .when(() -> source() != null),
                Command.of("select-zones", say("keys-view.select-all-zones-of-the"), this::selectAll)
                        .key("Shortcut+A")
                        .when(() -> source() != null),
                Command.of(
                                "copy-zone",
                                say("keys-view.copy-zone"),
                                () -> copied = presenter.copied(zone().orElseThrow()))
                        .key("Shortcut+C")
                        .when(() -> zone().isPresent()),
                Command.of(
                                "paste-zone",
                                say("keys-view.paste-zone-onto-the-source"),
                                () -> selectFresh(presenter.paste(copied, source())))
                        .key("Shortcut+V")
                        .when(() -> copied != null && source() != null && presenter.canPaste(copied)),
                Command.of("fewer-notes", say("keys-view.zoom-in"), this::zoomIn)
                        .key("Shortcut+PLUS")
                        .key("Shortcut+EQUALS"),
                Command.of("more-notes", say("keys-view.zoom-out"), this::zoomOut)
                        .key("Shortcut+MINUS"),
                Command.of("all-notes", say("keys-view.zoom-to-fit"), window::fit)
                        .key("Shortcut+DIGIT0"),
                Command.of("lower-notes", say("keys-view.scroll-to-lower-notes"), () -> window.turn(-OCTAVE))
                        .key("PAGE_UP"),
                Command.of("higher-notes", say("keys-view.scroll-to-higher-notes"), () -> window.turn(OCTAVE))
                        .key("PAGE_DOWN"));
    }

    private Optional<Zone> zone() {
        return desk.session().zone(desk.selection().zone().get());
    }

    private String source() {
        return desk.selection().source().get();
    }

    private void hear() {
        String source = source();
        boolean unheard = desk.performance().unheard().contains(source);
        presenter.setHeard(source, unheard);
    }

    private void selectAll() {
        presenter.zonesOf(source()).forEach(it -> {
            desk.selection().zones().add(it.id());
            desk.selection().zone().set(it.id());
        });
    }

    private void cutAt(String source, int key) {
        zone().filter(it -> it.isPlayedBy(source)).ifPresent(it -> selectFresh(presenter.cut(it.id(), key)));
    }

    private void askSwitches(Zone zone) {
        waiting.waitFor(
                say("keys-view.press-the-key-that-should", SessionFormatter.target(zone.to(), desk.session())),
                (source, key) -> KeysPresenter.part(zone)
                        .ifPresent(part -> selectFresh(presenter.keyswitches(source, part, key))));
    }

    private void selectFresh(String zone) {
        if (zone != null) {
            desk.selection().zoneAlone(zone);
        }
    }

    private void pressed(String source, int key) {
        boolean byHand = desk.isPlayedByHand(source);
        if (byHand && waiting.take(source, key)) {
            return;
        }
        Optional.ofNullable(rows.get(source)).ifPresent(row -> row.pressed(key));
        if (byHand) {
            drop.pressed(source, key);
            inspector.pressed(source, key);
        }
    }

    private void follow() {
        rows.values().forEach(SourceRow::follow);
        sounds.follow();
    }

    private NoteScale scale() {
        double width = Math.max(200, scroll.getViewportBounds().getWidth() - SourceRow.HEAD - 8);
        return new NoteScale(window.notes(), width);
    }

    private void zoomIn() {
        window.zoom(NoteWindow.STEP, middle());
    }

    private void zoomOut() {
        window.zoom(1 / NoteWindow.STEP, middle());
    }

    /** Returns the middle of the visible part of the selected zone, or of the visible range. */
    private int middle() {
        Range now = window.notes();
        return zone().map(it -> Math.max(
                        now.low(),
                        Math.min(now.high(), (it.keys().low() + it.keys().high()) / 2)))
                .orElse((now.low() + now.high()) / 2);
    }

    private void wheel(ScrollEvent event) {
        double by = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (by == 0) {
            return;
        }
        if (event.isShortcutDown()) {
            int note = scale().noteAt(sceneToLocal(event.getSceneX(), 0).getX() - SourceRow.HEAD);
            window.zoom(Math.pow(NoteWindow.STEP, wheel.add(by)), note);
            event.consume();
        } else if (event.isShiftDown() && window.isPart()) {
            window.turn(-3 * wheel.add(by));
            event.consume();
        }
    }

    /** Few sources get more room each, so that a small session does not leave a hole. */
    private double roomPerRow() {
        List<Source> sources = desk.session().sources();
        double needed = sources.stream()
                .mapToDouble(source -> SourceRow.leastHeight(presenter, source))
                .sum();
        double left = scroll.getViewportBounds().getHeight() - needed;
        return Math.max(0, Math.min(MAX_SPACE, left / Math.max(1, sources.size())));
    }

    private void show() {
        drop.leaveIfOutdated();
        NoteScale scale = scale();
        double room = roomPerRow();
        List<Node> shown = new ArrayList<>();
        for (Source source : desk.session().sources()) {
            SourceRow row = rows.computeIfAbsent(source.id(), id -> new SourceRow(desk, presenter));
            row.show(source, scale, room);
            shown.add(row);
        }
        rows.values().retainAll(shown);
        Cards.put(rowBox, shown);
        empty.setVisible(shown.isEmpty());
        ruler.show(scale, desk.session().middleC(), desk.theme().palette());
        sounds.show();
        inspector.show();
    }
}
