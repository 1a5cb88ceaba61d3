package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.KeyboardPane;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.LiveState;
import dibble.presentation.Piano;
import dibble.presentation.Subscription;
import dibble.presentation.live.Sentence;
import dibble.routing.Zone;
import dibble.session.SessionFormatter;
import dibble.time.Clock;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** The live line: the last played event in one sentence, and a keyboard that plays the selected source. */
public final class LiveLine extends VBox {
    private static final int TYPED_VELOCITY = 96;

    /** As many sounds as there is room for the whole names of. */
    private static final int NAMES_WHOLE = 3;

    private final ViewContext desk;
    private final HBox sentence = new HBox(8);
    private final ToggleButton keysPlay = new ToggleButton(say("live-line.keys-play"));
    private final Button octaveDown = new Button("−");
    private final Button octaveUp = new Button("+");
    private final Label octave = new Label();
    private final Label lost = new Label();
    private final KeyboardPane keyboard = new KeyboardPane(this::shape, true);
    private final OnScreenControls hands;
    private final LivePanels panels;
    private final ToggleButton fold = LivePanels.panelSwitch("fold-live", say("common.collapse"));
    private final HBox playing = new HBox(10);
    private boolean followsMoves;
    private String held;
    private boolean pads;
    private final Map<KeyCode, Runnable> typedDown = new EnumMap<>(KeyCode.class);
    private final Color[] colours = new Color[128];
    private LiveState.Heard shown;
    private final ViewUpdater watch;
    private int lowestTyped = 48;

    /** @param extra further content at the right end */
    public LiveLine(ViewContext desk, Region extra) {
        this.desk = desk;
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.selection().source().follow(this::hold));
        getStyleClass().add("live-line");
        setId("live-line");
        sentence.getStyleClass().add("sentence");
        sentence.setId("sentence");
        Tooltip.install(sentence, new Tooltip(say("about.live-line")));
        HBox.setHgrow(sentence, Priority.ALWAYS);
        sentence.setMinWidth(0);
        keysPlay.setId("keys-play");
        keysPlay.setMinWidth(Region.USE_PREF_SIZE);
        keysPlay.setTooltip(new Tooltip(say("live-line.play-two-octaves-on-the")));
        octaveDown.setAccessibleText(say("live-line.letter-keys-an-octave-lower"));
        octaveUp.setAccessibleText(say("live-line.letter-keys-an-octave-higher"));
        octaveDown.setOnAction(event -> moveTyped(-12));
        octaveUp.setOnAction(event -> moveTyped(12));
        octave.setMinWidth(Region.USE_PREF_SIZE);
        octave.setId("typed-octave");
        lost.setId("lost");
        panels = new LivePanels(desk);
        HBox top = new HBox(
                8,
                sentence,
                lost,
                panels.whySwitch(),
                panels.passedSwitch(),
                fold,
                extra,
                keysPlay,
                octaveDown,
                octave,
                octaveUp);
        top.getStyleClass().add("live-top");
        keyboard.setId("live-keyboard");
        keyboard.setMinHeight(64);
        keyboard.setPrefHeight(64);
        keyboard.setAccessibleText(say("live-line.keyboard-of-the-selected-source"));
        keyboard.setPlayer(desk.pointer(), new KeyboardPane.Player() {
            @Override
            public void press(int key, int velocity) {
                selected().ifPresent(source -> desk.press(source, key, velocity));
            }

            @Override
            public void release(int key) {
                selected().ifPresent(source -> desk.release(source, key));
            }
        });
        hands = new OnScreenControls(desk, () -> desk.session().source(held).orElse(null));
        HBox.setHgrow(keyboard, Priority.ALWAYS);
        playing.getChildren().addAll(hands, keyboard);
        fold.setAccessibleText(say("live-line.collapse-the-keyboard"));
        fold.setOnAction(event -> Cards.show(playing, !fold.isSelected()));
        getChildren().addAll(panels, top, playing);
        keysPlay.selectedProperty().subscribe(on -> {
            if (!on) {
                letGoTyped();
            }
            showOctave();
        });
        moveTyped(0);
    }

    /** Follows the document and the music until the subscription ends. */
    public Subscription open() {
        return watch.open();
    }

    private void hold(String id) {
        letGoTyped();
        // Moved controls of the previous source return to neutral.
        hands.rest();
        held = id;
    }

    private void show() {
        panels.show();
        showSentence();
        showKeyboard();
        showOctave();
    }

    /** Shows the log of events, or puts it away. */
    public void showPassed() {
        panels.passedSwitch().fire();
    }

    /** Explains the last played event. */
    public void why() {
        panels.why();
    }

    /** Returns true if the sentence follows controls as well as keys. */
    public void followMoves(boolean on) {
        followsMoves = on;
        watch.stale();
    }

    private Piano shape(Range keys, double width) {
        return pads ? Piano.pads(keys, 0, width) : Piano.row(keys, 0, width);
    }

    private Optional<Source> selected() {
        return desk.session().source(desk.selection().source().get());
    }

    private void moveTyped(int semitones) {
        letGoTyped();
        lowestTyped = Math.max(0, Math.min(96, lowestTyped + semitones));
        showOctave();
    }

    private void showOctave() {
        MiddleC middleC = desk.session().middleC();
        octave.setText(say("live-line.from", NoteNames.name(lowestTyped, middleC)));
        boolean on = keysPlay.isSelected();
        octave.setVisible(on);
        octaveDown.setVisible(on);
        octaveUp.setVisible(on);
        octave.setManaged(on);
        octaveDown.setManaged(on);
        octaveUp.setManaged(on);
    }

    /** Plays the selected source with the letter rows, while <em>keys play</em> is on; true where the key was taken. */
    public boolean typed(KeyEvent event) {
        if (event.getEventType() == KeyEvent.KEY_RELEASED) {
            // Whatever else is down by now, and whatever the key would play.
            Runnable letGo = typedDown.remove(event.getCode());
            if (letGo != null) {
                letGo.run();
            }
            return letGo != null;
        }
        Integer step =
                ComputerKeyboard.step(event.getCode(), desk.preferences().get().letters());
        if (step == null || event.isShortcutDown() || event.isAltDown()) {
            return false;
        }
        if (!keysPlay.isSelected() || event.getEventType() != KeyEvent.KEY_PRESSED) {
            return keysPlay.isSelected();
        }
        int key = lowestTyped + step;
        if (!typedDown.containsKey(event.getCode()) && key <= 127) {
            selected().ifPresent(source -> {
                desk.press(source, key, TYPED_VELOCITY);
                typedDown.put(event.getCode(), () -> desk.release(source, key));
            });
        }
        return true;
    }

    /** Releases keys that are played by typing: the window lost the focus and receives no more key events. */
    public void letGoTyped() {
        typedDown.values().forEach(Runnable::run);
        typedDown.clear();
    }

    private void follow() {
        long now = Clock.SYSTEM.nanos();
        panels.follow(now);
        LiveState.Heard heard =
                followsMoves ? desk.live().lastMove() : desk.live().lastNote();
        if (heard != shown) {
            shown = heard;
            showSentence();
        }
        long count = desk.studio().lost();
        lost.setText(count == 0 ? "" : say("live-line.events-lost", (int) Math.min(count, Integer.MAX_VALUE)));
        if (fold.isSelected()) {
            return;
        }
        if (held != null) {
            keyboard.setDown(desk.live().down(held), colours);
        }
        keyboard.drawIfStale();
    }

    private void showSentence() {
        sentence.getChildren().clear();
        if (shown == null) {
            sentence.getChildren().add(label(Sentence.empty(desk.session()), "quiet"));
            return;
        }
        boolean heard = !desk.performance().unheard().contains(shown.source());
        Sentence said =
                Sentence.of(shown, desk.session(), desk.routing(), desk.studio().slots(), heard);
        sentence.setAccessibleText(said.text());
        sentence.getChildren().addAll(label(said.source(), "strong"), label(said.played(), "plain"));
        for (Sentence.Way way : said.ways()) {
            sentence.getChildren()
                    .addAll(
                            label("→", "arrow"),
                            new PartBadge().show(way.colour(), way.channel()),
                            label(way.part(), "strong"),
                            label(way.detail(), "plain"));
        }
        if (!said.silence().isEmpty()) {
            sentence.getChildren().addAll(label("→", "arrow"), label(said.silence(), "quiet"));
        }
        if (said.ways().size() <= NAMES_WHOLE) {
            // Source and sound stay whole in a narrow window; the played note and the destination are cut off first.
            sentence.getChildren().stream()
                    .filter(node -> node.getStyleClass().contains("strong"))
                    .forEach(node -> ((Label) node).setMinWidth(Region.USE_PREF_SIZE));
        }
    }

    private static Label label(String text, String style) {
        Label label = new Label(text);
        label.getStyleClass().add(style);
        return label;
    }

    private void showKeyboard() {
        Optional<Source> source = selected();
        SourceKind kind = source.map(Source::kind).orElse(SourceKind.SEQUENCER);
        hands.show(kind);
        keyboard.setVisible(source.isPresent() && kind != SourceKind.CONTROLS);
        if (source.isEmpty()) {
            return;
        }
        boolean turnsToPads = kind == SourceKind.PADS;
        if (turnsToPads != pads) {
            pads = turnsToPads;
            keyboard.requestLayout();
        }
        keyboard.setKeys(
                pads ? source.get().keys() : whole(source.get().keys()),
                desk.session().middleC());
        int[] bits = new int[128];
        for (Zone zone : desk.routing().zones()) {
            if (zone.enabled() && zone.isPlayedBy(source.get().id())) {
                int colour = SessionFormatter.colour(zone, desk.session());
                for (int key = zone.keys().low(); key <= zone.keys().high(); key++) {
                    bits[key] |= colour == 0 ? 0 : 1 << colour;
                }
            }
        }
        keyboard.setStrips(bits);
        keyboard.setWords(pads ? sounds(source.get()) : new String[128]);
        for (int key = 0; key < 128; key++) {
            colours[key] = bits[key] == 0 ? null : PartColours.of(Integer.numberOfTrailingZeros(bits[key]));
        }
    }

    /** Returns the names of the sounds of pads. */
    private String[] sounds(Source source) {
        String[] names = new String[128];
        for (Zone zone : desk.routing().zones()) {
            Optional<Part> part = desk.session().partOf(zone);
            if (!zone.enabled() || !zone.isPlayedBy(source.id()) || part.isEmpty()) {
                continue;
            }
            for (int key = zone.keys().low(); key <= zone.keys().high(); key++) {
                List<Integer> mapped = zone.noteMap().get(key);
                int note = mapped != null ? mapped.get(0) : key + zone.transpose() + source.transpose();
                if (names[key] == null && (mapped != null || !zone.dropUnmapped())) {
                    names[key] = SessionFormatter.nameOf(note, part.get());
                }
            }
        }
        return names;
    }

    /** A keyboard begins and ends with a white key, for the picture's sake. */
    private static Range whole(Range keys) {
        int low = NoteNames.isBlack(keys.low()) ? keys.low() - 1 : keys.low();
        int high = NoteNames.isBlack(keys.high()) ? keys.high() + 1 : keys.high();
        return new Range(low, high);
    }
}
