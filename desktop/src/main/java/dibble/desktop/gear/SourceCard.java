package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.checks.Finding;
import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.KeyboardPane;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.presentation.LiveState;
import dibble.presentation.Navigator;
import dibble.presentation.Piano;
import dibble.presentation.gear.GearPresenter;
import dibble.session.SessionFormatter;
import dibble.standins.PatternSequencer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The card of a source: its kind, its filters, and its last event. */
final class SourceCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass HEARD = PseudoClass.getPseudoClass("heard");
    private static final double WIDTH = 250;
    private static final double KEYS_HIGH = 18;
    private static final long JUST_NOW = TimeUnit.SECONDS.toNanos(2);

    private final ViewContext desk;
    private final Label mark = new Label("●");
    private final Label heard = new Label();
    private final ToggleButton run = new ToggleButton(say("source-card.run"));
    private Source source;

    /** The displayed state without played notes; the card is not rebuilt while it is the same. */
    private List<Object> shown;

    /** Its pattern sequencer, or null. */
    private PatternSequencer patterns;

    /** The keys that it has; null for knobs. */
    private KeyboardPane keys;

    SourceCard(ViewContext desk, GearPresenter presenter, String id) {
        this.desk = desk;
        getStyleClass().add("gear-card");
        setId("source-" + id);
        AccessibleText.item(this, say("role.source"));
        setFocusTraversable(true);
        mark.getStyleClass().add("heard-mark");
        run.setId("run-" + id);
        run.getStyleClass().add("small");
        run.setOnAction(event -> {
            if (run.isSelected()) {
                patterns.start();
            } else {
                patterns.stop();
            }
        });
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            requestFocus();
            presenter.select(id);
        });
        FocusKeys.choose(this, event -> presenter.select(id));
        FocusKeys.move(this, by -> presenter.moveSource(id, by));
        FocusKeys.delete(this, () -> presenter.deleteSource(id));
        HoverHighlight.on(desk, this, Navigator.Kind.SOURCE, () -> id);
        ContextItems.on(
                this, () -> context(presenter), by -> presenter.moveSource(id, by), () -> presenter.deleteSource(id));
    }

    private List<MenuItem> context(GearPresenter presenter) {
        String id = source.id();
        presenter.select(id);
        boolean unheard = desk.performance().unheard().contains(id);
        return List.of(
                Cards.item(
                        "context-keys",
                        say("context.show-in-keys"),
                        () -> desk.commands().get("show-keys").action().run()),
                Cards.item(
                        "context-hear",
                        unheard ? say("context.hear") : say("context.dont-hear"),
                        () -> desk.document().perform(now -> now.withHeard(id, unheard))));
    }

    /** Shows the source as it is, with what checks found about it. */
    void show(Source now, List<Finding> findings) {
        source = now;
        List<Object> next = List.of(
                now,
                desk.session().middleC(),
                findings.stream().map(Finding::text).toList(),
                own(),
                desk.devices().trouble(now.port()),
                desk.studio().identity(now.port()));
        if (!Objects.equals(next, shown)) {
            shown = next;
            make(findings);
        }
    }

    private String own() {
        return desk.session()
                .instrument(source.ownInstrument())
                .map(Instrument::name)
                .orElse("");
    }

    private void make(List<Finding> findings) {
        setAccessibleText(say("common.source", source.name()));
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.line(Cards.strong(source.name()), Cards.soft(size())));
        boolean hasKeys = source.lanes().isEmpty()
                && source.kind() != SourceKind.CONTROLS
                && source.kind() != SourceKind.SEQUENCER;
        keys = hasKeys ? keyboard() : null;
        if (hasKeys) {
            nodes.add(keys);
        } else if (!source.lanes().isEmpty()) {
            nodes.add(lanes());
        }
        HBox when = new HBox(8, mark, heard);
        patterns = desk.patterns(source).orElse(null);
        nodes.add(patterns == null ? when : Cards.line(when, run));
        Label listens = Cards.soft(say("source-card.listens", SessionFormatter.listening(source)));
        listens.setWrapText(true);
        nodes.add(Cards.line(listens, Cards.soft(ownSounds())));
        desk.devices().trouble(source.port()).ifPresent(why -> nodes.add(Cards.trouble(why)));
        desk.studio()
                .identity(source.port())
                .ifPresent(answer -> nodes.add(Cards.soft(say(
                        "common.identified-as-maker-model-version",
                        answer.maker(),
                        answer.model(),
                        answer.version()))));
        findings.forEach(finding -> nodes.add(Cards.finding(desk, finding)));
        Cards.rebuild(this, nodes);
    }

    private KeyboardPane keyboard() {
        boolean pads = source.kind() == SourceKind.PADS;
        KeyboardPane keyboard =
                new KeyboardPane((keys, width) -> pads ? Piano.pads(keys, 0, width) : Piano.row(keys, 0, width), false);
        keyboard.setKeys(source.keys(), desk.session().middleC());
        keyboard.setMouseTransparent(true);
        keyboard.setFocusTraversable(false);
        double width =
                Math.min(1, pads ? source.keys().size() / 20.0 : (source.keys().size() + 4) / 80.0) * WIDTH;
        keyboard.setMinSize(width, KEYS_HIGH);
        keyboard.setMaxSize(width, KEYS_HIGH);
        return keyboard;
    }

    /** A sequencer's lanes with their channels. */
    private FlowPane lanes() {
        FlowPane lanes = new FlowPane(6, 3);
        source.lanes().forEach(lane -> {
            Label label = new Label(lane.channel() + "  " + lane.name());
            label.getStyleClass().add("lane");
            lanes.getChildren().add(label);
        });
        return lanes;
    }

    private String size() {
        MiddleC middleC = desk.session().middleC();
        String range = NoteNames.nameAndNumber(source.keys().low(), middleC) + " – "
                + NoteNames.nameAndNumber(source.keys().high(), middleC);
        return switch (source.kind()) {
            case KEYBOARD -> say("source-card.keys", source.keys().size(), range);
            case PADS -> say("source-card.pads", source.keys().size(), range);
            case PEDALS -> say("source-card.pedals", source.keys().size(), range);
            case SEQUENCER ->
                source.lanes().isEmpty()
                        ? say("source-card.sequencer")
                        : say("source-card.sequencer-lanes", source.lanes().size());
            case CONTROLS -> say("source-card.knobs-sliders-pedals");
            default -> source.kind().name().toLowerCase(Locale.ROOT);
        };
    }

    private String ownSounds() {
        if (!source.localControl()) {
            return source.ownInstrument() == null
                    ? say("source-card.no-internal-sounds")
                    : say("source-card.local-control-off");
        }
        return say("source-card.has-internal-sounds", own().isEmpty(), own());
    }

    void showSelected(boolean selected) {
        pseudoClassStateChanged(SELECTED, selected);
    }

    /** Says when it was last heard. */
    void follow(long now) {
        if (keys != null) {
            keys.setDown(desk.live().down(source.id()), null);
            keys.drawIfStale();
        }
        if (patterns != null) {
            run.setSelected(patterns.isRunning());
            run.setText(
                    patterns.isRunning()
                            ? say("source-card.running")
                            : patterns.follows() ? say("source-card.waiting-for-clock") : say("source-card.run"));
        }
        LiveState.Last last = desk.live().last(source.id());
        heard.setText(
                last == null
                        ? say("source-card.no-events-yet")
                        : say("source-card.last-event-channel", last.channel(), ago(now - last.stamp())));
        mark.pseudoClassStateChanged(HEARD, last != null);
    }

    private static String ago(long nanos) {
        if (nanos < JUST_NOW) {
            return say("source-card.just-now");
        }
        long minutes = TimeUnit.NANOSECONDS.toMinutes(nanos);
        return minutes < 2
                ? say("source-card.s-ago", TimeUnit.NANOSECONDS.toSeconds(nanos))
                : say("source-card.min-ago", minutes);
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
