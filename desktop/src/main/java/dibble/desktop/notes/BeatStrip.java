package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NoteEdits.Edited;
import dibble.edits.TempoRemapping;
import dibble.notes.BeatFinder;
import dibble.notes.ChangeResult;
import dibble.presentation.notes.NotesPresenter;
import dibble.recording.ClipIndex;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.studio.Transport;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;

/** Finds the beat of a free performance, from the visible notes or from taps, and aligns the bars with it. */
final class BeatStrip extends AskStrip {
    private static final int MAX_PER_BAR = 16;
    private static final int FASTEST = 300;

    private final TextField perBar = field("beat-per-bar", say("beat-strip.per-bar"), 1, MAX_PER_BAR);
    private final TextField first = field("beat-first", say("beat-strip.first"), 0, MAX_PER_BAR);
    private final TextField bpm = field("beat-bpm", say("beat-strip.bpm"), 0, FASTEST);
    private final Button tap = new Button(say("beat-strip.tap-along"));
    private List<Long> taps = new ArrayList<>();
    private boolean tapping;
    private KeyCode held;

    BeatStrip(ViewContext desk, NotesPresenter notes) {
        super("beat", desk, notes);
        first.setText("0");
        first.setTooltip(new Tooltip(say("beat-strip.about-first")));
        bpm.setText("0");
        bpm.setTooltip(new Tooltip(say("beat-strip.about-bpm")));
        tap.setId("beat-tap");
        tap.setTooltip(new Tooltip(say("beat-strip.about-taps")));
        // A beat is where the hand comes down, not where it comes up.
        tap.setOnMousePressed(event -> {
            if (event.getButton() == MouseButton.PRIMARY) {
                tap();
            }
        });
        Commands.keepSpace(tap);
        tap.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.SPACE || event.getCode() == KeyCode.ENTER) {
                // A key that is held repeats, and is one beat all the same.
                if (held != event.getCode()) {
                    tap();
                }
                held = event.getCode();
                event.consume();
            }
        });
        tap.addEventFilter(KeyEvent.KEY_RELEASED, event -> held = null);
        tap.focusedProperty().addListener((of, was, is) -> held = null);
        setAsked(
                tap,
                Cards.soft(say("beat-strip.per-bar")),
                perBar,
                Cards.soft(say("beat-strip.first")),
                first,
                Cards.soft(say("beat-strip.bpm")),
                bpm);
    }

    private TextField field(String id, String name, int low, int high) {
        TextField field = Cards.field(id, name, this::show);
        field.setPrefColumnCount(3);
        NumberScrubber.number(field, low, high);
        return field;
    }

    @Override
    void ask() {
        taps = new ArrayList<>();
        tapping = false;
        perBar.setText(String.valueOf(desk.session().tempo().meter(0).beats()));
        ask(perBar);
    }

    private void tap() {
        if (!tapping) {
            notes.cancel();
            taps = new ArrayList<>();
            tapping = true;
            tap.setText(say("beat-strip.tap"));
            desk.studio().play(0);
            show();
        } else if (desk.studio().transport() == Transport.PLAYING) {
            taps.add(desk.studio().position());
            tap.setText(say("beat-strip.taps", taps.size()));
        }
    }

    /** The taps count when playing has ended. */
    @Override
    void follow() {
        if (tapping && !taps.isEmpty() && desk.studio().transport() == Transport.STOPPED) {
            tapping = false;
            tap.setText(say("beat-strip.tap-along"));
            show();
        }
    }

    private record Wish(int perBar, int first, int bpm, List<Long> taps, Set<String> tracks) {}

    @Override
    Object wish() {
        return tapping
                ? null
                : new Wish(
                        Math.max(1, number(perBar, 4)),
                        number(first, 0),
                        number(bpm, 0),
                        taps.size() < 2 ? List.of() : List.copyOf(taps),
                        notes.tracks().stream().map(Track::id).collect(Collectors.toSet()));
    }

    private static int number(TextField field, int otherwise) {
        String text = field.getText().strip();
        return text.matches("\\d{1,3}") ? Integer.parseInt(text) : otherwise;
    }

    @Override
    boolean isLong() {
        return true;
    }

    @Override
    Function<Session, Edited> edit() {
        Wish wish = (Wish) wish();
        Map<String, BitSet> selected = notes.selected().byTrack();
        return session -> {
            List<ClipIndex> clips = session.tracks().stream()
                    .filter(track -> wish.tracks.contains(track.id()))
                    .map(track -> ClipIndex.of(track.sounding()))
                    .toList();
            TempoMap now = session.tempo();
            long[] taps = wish.taps.stream().mapToLong(Long::longValue).toArray();
            long[] beats = taps.length > 1 ? BeatFinder.taps(taps, clips, now) : BeatFinder.find(clips, now, wish.bpm);
            int from = wish.first > 0
                    ? (wish.first - 1) % wish.perBar
                    : BeatFinder.firstOfBar(beats, wish.perBar, clips, now);
            Session next = TempoRemapping.of(session, BeatFinder.map(beats, wish.perBar, from), Progress.NONE);
            return new Edited(next, selected, ChangeResult.Effect.NONE);
        };
    }

    @Override
    String effect(Edited edited) {
        List<TempoMap.Tempo> tempos = edited.session().tempo().tempos();
        // The first interval leads to the first beat and belongs to no bar.
        List<TempoMap.Tempo> played = tempos.size() > 1 ? tempos.subList(1, tempos.size()) : tempos;
        double slowest = played.stream().mapToDouble(TempoMap.Tempo::bpm).min().orElse(0);
        double fastest = played.stream().mapToDouble(TempoMap.Tempo::bpm).max().orElse(0);
        return say("beat-strip.effect", played.size() + 1, Math.round(slowest), Math.round(fastest));
    }

    @Override
    String title(int count) {
        return say("beat-strip.title");
    }

    @Override
    String name() {
        return say("edit.find-the-beat");
    }
}
