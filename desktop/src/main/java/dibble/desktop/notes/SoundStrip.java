package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NoteEdits;
import dibble.edits.NoteEdits.Edited;
import dibble.edits.NoteMoves;
import dibble.gear.PartRef;
import dibble.notes.ChangeResult;
import dibble.notes.ManualChanges;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.notes.NotesPresenter;
import dibble.recording.Sorting;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.scene.control.ComboBox;

/**
 * Moves notes to another part or track, or each key to a separate track, with the effect that a zone would have had.
 */
final class SoundStrip extends AskStrip {
    private static final double TARGET = 290;
    private static final int CHANNELS = 16;

    private static final To EACH_KEY = new To.Apart(Sorting.By.KEY);

    private final ComboBox<Choice<To>> target = Cards.box("sound-target", say("sound-strip.target"));

    SoundStrip(ViewContext desk, NotesPresenter notes) {
        super("to-sound", desk, notes);
        target.setOnAction(event -> show());
        target.setVisibleRowCount(16);
        target.setPrefWidth(TARGET);
        setAsked(Cards.soft(say("sound-strip.to")), target);
    }

    @Override
    void ask() {
        List<Choice<To>> all = new ArrayList<>();
        all.add(new Choice<>(EACH_KEY, say("sound-strip.each-key")));
        all.add(new Choice<>(new To.Apart(Sorting.By.CHANNEL), say("sound-strip.each-channel")));
        all.add(new Choice<>(new To.Apart(Sorting.By.HAND), say("sound-strip.each-hand")));
        for (Choice<PartRef> part : Choices.parts(desk.session())) {
            all.add(new Choice<>(
                    new To.ToPart(part.value()),
                    say("sound-strip.part", part.words(), SessionFormatter.channel(part.value(), desk.routing()))));
        }
        for (Track track : desk.session().tracks()) {
            if (track.part().isEmpty() || track.input() instanceof Track.OfKey) {
                all.add(new Choice<>(new To.ToTrack(track.id()), say("sound-strip.track", track.name())));
            }
        }
        // A track of a part is played on that part's channel: only elsewhere a note's own channel says anything.
        if (notes.tracks().stream().anyMatch(track -> track.playsOn().isEmpty())) {
            for (int channel = 1; channel <= CHANNELS; channel++) {
                all.add(new Choice<>(new To.ToChannel(channel), say("sound-strip.channel", channel)));
            }
        }
        Form.choose(
                target,
                all,
                target.getValue() == null ? EACH_KEY : target.getValue().value());
        if (target.getValue() == null) {
            Form.choose(target, all, EACH_KEY);
        }
        ask(target);
    }

    /** The target of the notes. */
    private sealed interface To {
        record ToPart(PartRef part) implements To {}

        record ToTrack(String track) implements To {}

        record ToChannel(int channel) implements To {}

        /** A separate track for each key, channel or hand. */
        record Apart(Sorting.By by) implements To {}
    }

    private record Wish(To target, Map<String, BitSet> of) {}

    @Override
    Object wish() {
        return target.getValue() == null ? null : new Wish(target.getValue().value(), notes.chosen());
    }

    @Override
    Function<Session, Edited> edit() {
        Wish wish = (Wish) wish();
        Routing routing = desk.routing();
        return session -> {
            if (wish.target instanceof To.ToPart to) {
                return NoteMoves.toPart(session, routing, wish.of, to.part);
            }
            if (wish.target instanceof To.ToTrack to) {
                return NoteMoves.toTrack(session, routing, wish.of, to.track);
            }
            if (wish.target instanceof To.ToChannel to) {
                return NoteEdits.change(session, wish.of, ManualChanges.onChannel(to.channel - 1));
            }
            Session apart = session;
            Sorting.How how = new Sorting.How(((To.Apart) wish.target).by, List.of(), Map.of(), session.middleC());
            for (Map.Entry<String, BitSet> of : wish.of.entrySet()) {
                apart = NoteMoves.apart(apart, of.getKey(), of.getValue(), how);
            }
            return new Edited(apart, Map.of(), ChangeResult.Effect.NONE);
        };
    }

    @Override
    String effect(Edited edited) {
        int tracks = edited.session().tracks().size() - notes.kept().tracks().size();
        int count = notes.chosenCount();
        Object to = target.getValue().value();
        if (to instanceof PartRef part) {
            String name = desk.session().trackOf(part).map(Track::name).orElse("");
            return say("sound-strip.effect-part", count, name, tracks);
        }
        if (to instanceof Integer) {
            return super.effect(edited);
        }
        return to instanceof String
                ? say("sound-strip.effect-track", count, target.getValue().words())
                : say("sound-strip.effect-apart", count, tracks);
    }

    @Override
    String title(int count) {
        return say("sound-strip.title", count);
    }

    @Override
    String name() {
        return say("edit.to-another-sound");
    }
}
