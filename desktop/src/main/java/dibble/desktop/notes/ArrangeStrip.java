package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.ViewContext;
import dibble.edits.Arrangement;
import dibble.presentation.notes.NotesPresenter;
import dibble.recording.Track;
import dibble.studio.RecordOptions;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;

/** A range of bars: cut out, kept alone, repeated, copied, emptied, looped; and markers. Each is one step of undo. */
final class ArrangeStrip extends NoteQuestion {
    private static final int MAX_BARS = 9999;
    private static final int MAX_TIMES = 999;

    private final ViewContext desk;
    private final NotesPresenter notes;
    private final TextField first = bar("arrange-first", say("arrange-strip.first-bar"));
    private final TextField last = bar("arrange-last", say("arrange-strip.last-bar"));
    private final TextField times = number("arrange-times", say("arrange-strip.times"), MAX_TIMES);
    private final TextField target = number("arrange-target", say("arrange-strip.to-bar"), MAX_BARS);
    private final TextField marker = new TextField();
    private final ToggleButton all = new ToggleButton(say("arrange-strip.all-tracks"));
    private final Label wrong = Cards.soft("");

    ArrangeStrip(ViewContext desk, NotesPresenter notes) {
        super("arrange");
        this.desk = desk;
        this.notes = notes;
        all.setId("arrange-all");
        all.setTooltip(new Tooltip(say("arrange-strip.about-all-tracks")));
        times.setText("2");
        target.setText("1");
        marker.setId("arrange-marker");
        marker.setAccessibleText(say("arrange-strip.marker-name"));
        marker.setPromptText(say("arrange-strip.marker-name"));
        marker.setPrefColumnCount(10);
        wrong.getStyleClass().setAll("label", "missing");
        FlowPane range = Cards.flow(
                Cards.strong(say("arrange-strip.bars")),
                first,
                Cards.soft("–"),
                last,
                all,
                Cards.button("arrange-keep-only", say("arrange-strip.keep-only"), this::keepOnly),
                Cards.button("arrange-cut-out", say("arrange-strip.cut-out"), this::cutOut),
                Cards.button("arrange-insert", say("arrange-strip.insert"), this::insert),
                Cards.button("arrange-clear", say("arrange-strip.clear"), this::clear),
                Cards.button("arrange-loop", say("arrange-strip.loop"), this::loop),
                Cards.button("arrange-leave", say("arrange-strip.close"), this::close));
        FlowPane more = Cards.flow(
                Cards.button("arrange-repeat", say("arrange-strip.repeat"), this::repeat),
                times,
                Cards.soft(say("arrange-strip.times-in-all")),
                Cards.button("arrange-copy", say("arrange-strip.copy"), this::copy),
                target,
                marker,
                Cards.button("arrange-set-marker", say("arrange-strip.set-marker"), this::setMarker),
                wrong);
        getChildren().setAll(range, more);
    }

    private static TextField number(String id, String name, int most) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(name);
        field.setPrefColumnCount(3);
        NumberScrubber.text(field, 1, most);
        return field;
    }

    private static TextField bar(String id, String name) {
        return number(id, name, MAX_BARS);
    }

    private TempoMap tempo() {
        return desk.session().tempo();
    }

    /** Asks about the bars of the selected notes, of the range that is looped, or of everything. */
    @Override
    void ask() {
        long[] span = notes.select().span().orElseGet(() -> {
            RecordOptions.Stretch range = desk.studio().options().range();
            long end = notes.tracks().stream()
                    .mapToLong(track -> track.content().endTick())
                    .max()
                    .orElse(1);
            return range == null ? new long[] {0, end} : new long[] {range.from(), range.to()};
        });
        first.setText(String.valueOf(tempo().place(span[0]).bar()));
        last.setText(
                String.valueOf(tempo().place(Math.max(span[0], span[1] - 1)).bar()));
        wrong.setText("");
        open(first);
    }

    private void withRange(RangeEdit edit) {
        Optional<long[]> range = range();
        wrong.setText(range.isEmpty() ? say("arrange-strip.bars-expected", first.getText(), last.getText()) : "");
        range.ifPresent(it -> edit.of(it[0], it[1]));
    }

    private interface RangeEdit {
        void of(long from, long to);
    }

    private Optional<long[]> range() {
        int from = number(first, MAX_BARS);
        int to = number(last, MAX_BARS);
        return from < 1 || to < from
                ? Optional.empty()
                : Optional.of(new long[] {tempo().barStart(from), tempo().barStart(to + 1L)});
    }

    private static int number(TextField field, int most) {
        String text = field.getText().strip();
        return text.matches("\\d{1,4}") && Integer.parseInt(text) <= most ? Integer.parseInt(text) : 0;
    }

    private void arrange(String name, Arrangement arrangement) {
        Set<String> tracks = (all.isSelected() ? desk.session().tracks() : notes.tracks())
                .stream().map(Track::id).collect(Collectors.toSet());
        notes.cancel();
        desk.jobs()
                .edit(
                        desk.document(),
                        name,
                        name,
                        (session, progress) -> arrangement.of(session, tracks, progress),
                        () -> {});
    }

    private void keepOnly() {
        withRange((from, to) -> {
            arrange(say("arrange-strip.keep-only"), Arrangement.keepOnly(from, to));
            last.setText(String.valueOf(number(last, MAX_BARS) - number(first, MAX_BARS) + 1));
            first.setText("1");
        });
    }

    private void cutOut() {
        withRange((from, to) -> arrange(say("arrange-strip.cut-out"), Arrangement.cutOut(from, to)));
    }

    private void insert() {
        withRange((from, to) -> arrange(say("arrange-strip.insert"), Arrangement.insert(from, to - from)));
    }

    private void clear() {
        withRange((from, to) -> arrange(say("arrange-strip.clear"), Arrangement.clear(from, to)));
    }

    private void repeat() {
        int count = number(times, MAX_TIMES);
        if (count < 1) {
            wrong.setText(say("arrange-strip.times-expected", times.getText(), MAX_TIMES));
        } else {
            withRange((from, to) -> arrange(say("arrange-strip.repeat"), Arrangement.repeat(from, to, count)));
        }
    }

    private void copy() {
        int bar = number(target, MAX_BARS);
        if (bar < 1) {
            wrong.setText(say("arrange-strip.bar-expected", target.getText(), MAX_BARS));
        } else {
            withRange((from, to) ->
                    arrange(say("arrange-strip.copy"), Arrangement.copy(from, to, tempo().barStart(bar))));
        }
    }

    void loop() {
        withRange((from, to) -> desk.studio()
                .setOptions(desk.studio()
                        .options()
                        .withRange(new RecordOptions.Stretch(from, to))
                        .withLoops(true)));
    }

    /** Sets a marker at the first bar; an empty name deletes it. */
    private void setMarker() {
        withRange((from, to) -> {
            String name = marker.getText().strip();
            List<Marker> markers = new ArrayList<>(desk.session().markers());
            markers.removeIf(it -> it.at() == from);
            if (!name.isEmpty()) {
                markers.add(new Marker(from, name));
            }
            notes.cancel();
            desk.document().edit(say("edit.marker"), session -> session.withMarkers(markers));
        });
    }
}
