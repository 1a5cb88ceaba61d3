package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.KeyboardPane;
import dibble.desktop.ui.StartAndStep;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NumberSeries;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.Piano;
import dibble.presentation.keys.KeysPresenter;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * The notes of a zone's keys, a line each: all keys of pads, otherwise the mapped ones. A pressed key is selected; a
 * click on the keyboard of the sounds maps it to that note, or with <em>chord</em> adds the note.
 */
final class NoteMapPane extends VBox {
    private static final int MAX_LINES = 32;
    private static final int MAX_NOTES = 8;
    private static final int FIRST_DRUM = 35;

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final VBox lines = new VBox(3);
    private final FlowPane field = new FlowPane(4, 4);
    private final ToggleButton chord = new ToggleButton(say("note-map-pane.chord"));
    private final KeyboardPane sounds = new KeyboardPane((keys, width) -> Piano.row(keys, 0, width), true);
    private final StartAndStep plant;
    private Zone zone;
    private List<Object> shown = List.of();
    private int chosen = -1;

    NoteMapPane(ViewContext desk, KeysPresenter presenter) {
        super(8);
        this.desk = desk;
        this.presenter = presenter;
        setId("note-map");
        chord.setId("note-map-chord");
        chord.getStyleClass().add("small");
        plant = new StartAndStep(
                "note-map", say("common.notes-from"), 36, 0, 127, text -> NoteNames.parse(text, middleC()));
        plant.getChildren().add(Cards.button("note-map-plant", say("common.plant"), this::plant));
        sounds.setId("note-map-sounds");
        sounds.setAccessibleText(say("note-map-pane.notes-of-the-part"));
        sounds.setMinHeight(44);
        sounds.setPrefHeight(44);
        sounds.setPlayer(desk.pointer(), new KeyboardPane.Player() {
            @Override
            public void press(int note, int velocity) {
                give(note);
                source().filter(it -> chosen >= 0).ifPresent(it -> desk.press(it, chosen, velocity));
            }

            @Override
            public void release(int note) {
                source().filter(it -> chosen >= 0).ifPresent(it -> desk.release(it, chosen));
            }
        });
        Label hint = Cards.soft(say("note-map-pane.press-a-key-to-choose"));
        hint.setWrapText(true);
        FlowPane more = new FlowPane(
                6,
                4,
                chord,
                Cards.button("note-map-tracks", say("note-map-pane.one-track-per-note"), this::tracks),
                Cards.button("note-map-clear", say("common.clear"), () -> put(Map.of())));
        getChildren().setAll(Cards.strong(say("common.note-map")), plant, hint, sounds, more, field, lines);
    }

    private Optional<Source> source() {
        return zone == null ? Optional.empty() : desk.session().source(zone.source());
    }

    /** Shows the map of a zone. */
    void show(Zone of) {
        if (zone == null || !zone.id().equals(of.id())) {
            chosen = -1;
        }
        zone = of;
        Optional<Part> part = desk.session().partOf(zone);
        Range keys = part.map(Part::keys).orElse(Range.ALL);
        // Few octaves can be hit: those from where a kit begins, for a part that plays all notes.
        Range near = keys.size() <= 49 ? keys : new Range(Math.max(keys.low(), FIRST_DRUM), Math.min(keys.high(), 83));
        sounds.setKeys(near, middleC());
        List<Integer> rows = rows();
        List<Object> now = List.of(zone.id(), zone.noteMap(), rows, chosen, middleC(), part.map(Part::noteNames));
        if (!now.equals(shown)) {
            shown = now;
            field.getChildren()
                    .setAll(pads().stream().map(key -> pad(key, part)).toList());
            Cards.rebuild(lines, rows.stream().map(key -> line(key, part)).toList());
        }
        TreeSet<Integer> given = new TreeSet<>(zone.noteMap().getOrDefault(chosen, List.of()));
        for (int note = 0; note < 128; note++) {
            sounds.setDown(note, given.contains(note), null);
        }
        sounds.drawIfStale();
    }

    private MiddleC middleC() {
        return desk.session().middleC();
    }

    /** The keys of pads, where the zone is played by pads. */
    private List<Integer> pads() {
        return source().filter(it -> it.kind() == SourceKind.PADS && it.keys().size() <= MAX_LINES)
                .map(it -> IntStream.rangeClosed(it.keys().low(), it.keys().high())
                        .filter(key -> zone.keys().holds(key))
                        .boxed()
                        .toList())
                .orElse(List.of());
    }

    /** Returns a pad in its physical position: its number, its notes, and their names. */
    private Node pad(int key, Optional<Part> part) {
        List<Integer> notes = zone.noteMap().getOrDefault(key, List.of());
        int number = key - source().orElseThrow().keys().low() + 1;
        String called = called(notes, part);
        ToggleButton pad = new ToggleButton(number + "  " + words(notes) + (called.isEmpty() ? "" : "\n" + called));
        pad.setId("pad-" + key);
        pad.setAccessibleText(say("note-map-pane.pad-plays", number, words(notes), called));
        pad.getStyleClass().add("pad");
        pad.setWrapText(true);
        pad.setSelected(key == chosen);
        pad.setOnAction(event -> choose(key));
        ContextItems.on(
                pad,
                () -> List.of(
                        Cards.item("context-choose", say("context.choose-notes"), () -> choose(key)),
                        Cards.item("context-clear", say("common.clear"), () -> set(key, List.of()))));
        return pad;
    }

    private static String called(List<Integer> notes, Optional<Part> part) {
        return notes.stream()
                .map(note -> part.map(it -> it.noteNames().get(note)).orElse(null))
                .filter(java.util.Objects::nonNull)
                .collect(Collectors.joining(", "));
    }

    private List<Integer> rows() {
        TreeSet<Integer> keys = new TreeSet<>(zone.noteMap().keySet());
        keys.addAll(pads());
        if (chosen >= 0) {
            keys.add(chosen);
        }
        return List.copyOf(keys);
    }

    private Node line(int key, Optional<Part> part) {
        ToggleButton name = new ToggleButton(NoteNames.nameAndNumber(key, middleC()));
        name.setId("note-map-key-" + key);
        name.getStyleClass().add("small");
        name.setMinWidth(64);
        name.setSelected(key == chosen);
        name.setOnAction(event -> choose(key));
        List<Integer> notes = zone.noteMap().getOrDefault(key, List.of());
        EntryField[] field = new EntryField[1];
        field[0] = Cards.field(
                        "note-map-notes-" + key,
                        say("note-map-pane.notes-of", name.getText()),
                        () -> commit(key, field[0]))
                .of(zone.id());
        field[0].setText(words(notes));
        field[0].setPrefColumnCount(8);
        field[0].setMinWidth(70);
        Label drum = Cards.soft(called(notes, part));
        HBox.setHgrow(drum, Priority.ALWAYS);
        HBox line = new HBox(6, name, field[0], drum);
        line.getStyleClass().add("card-line");
        return line;
    }

    private String words(List<Integer> notes) {
        return notes.isEmpty()
                ? "–"
                : notes.stream().map(note -> NoteNames.name(note, middleC())).collect(Collectors.joining(" "));
    }

    private void choose(int key) {
        chosen = key;
        show(zone);
    }

    /** A key was pressed on a source: its line is chosen. */
    void pressed(String sourceId, int key) {
        if (zone != null && zone.isPlayedBy(sourceId) && zone.keys().holds(key) && key != chosen) {
            choose(key);
        }
    }

    private void commit(int key, TextField field) {
        List<Integer> notes = new ArrayList<>();
        boolean fits = true;
        for (String word : field.getText().strip().split("[\\s,]+")) {
            var note = NoteNames.parse(word, middleC());
            if (note.isPresent() && note.getAsInt() >= 0 && note.getAsInt() <= 127) {
                notes.add(note.getAsInt());
            } else {
                fits &= word.isEmpty() || word.equals("–") || word.equals("-");
            }
        }
        List<Integer> before = zone.noteMap().getOrDefault(key, List.of());
        if (!fits || notes.size() > MAX_NOTES || notes.equals(before)) {
            field.setText(words(before));
        } else {
            set(key, notes);
        }
    }

    private void set(int key, List<Integer> notes) {
        Map<Integer, List<Integer>> map = new TreeMap<>(zone.noteMap());
        if (notes.isEmpty()) {
            map.remove(key);
        } else {
            map.put(key, notes);
        }
        put(map);
    }

    private void put(Map<Integer, List<Integer>> map) {
        presenter.change(
                say("edit.note-map"), zone.id(), it -> it.with().noteMap(map).build());
    }

    private void give(int note) {
        if (chosen < 0) {
            return;
        }
        if (!chord.isSelected()) {
            set(chosen, List.of(note));
            return;
        }
        List<Integer> notes = new ArrayList<>(zone.noteMap().getOrDefault(chosen, List.of()));
        if (!notes.remove((Integer) note) && notes.size() < MAX_NOTES) {
            notes.add(note);
        }
        set(chosen, notes);
    }

    private void plant() {
        plant.plan().ifPresent(plan -> plant(plan.start(), plan.step()));
    }

    private void plant(int first, int by) {
        Range keys = source().map(Source::keys)
                .filter(range -> range.overlaps(zone.keys()))
                .map(range -> new Range(
                        Math.max(range.low(), zone.keys().low()),
                        Math.min(range.high(), zone.keys().high())))
                .orElse(zone.keys());
        List<String> names = IntStream.rangeClosed(keys.low(), keys.high())
                .mapToObj(key -> NoteNames.name(key, middleC()))
                .toList();
        presenter.plant(NumberSeries.notes(zone.id(), keys, names, first, by));
    }

    /** Each note that the map plays on its own track: each drum of a kit. */
    private void tracks() {
        KeysPresenter.part(zone)
                .ifPresent(part -> presenter.tracksFor(
                        part,
                        zone.noteMap().values().stream()
                                .flatMap(List::stream)
                                .distinct()
                                .sorted()
                                .toList()));
    }
}
