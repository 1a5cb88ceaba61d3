package dibble.presentation.notes;

import static dibble.presentation.UiText.say;

import dibble.presentation.Command;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.LongSupplier;

/** The commands for notes, with their keys. */
public final class NotesCommands {
    private static final String SELECT = say("command-group.select");
    private static final String MOVE = say("command-group.move");
    private static final String NOTES = say("command-group.notes");
    private static final int OCTAVE = 12;
    private static final int LOUDER = 5;
    private static final int MIDDLE_C = 60;

    private final NotesPresenter notes;
    private final BooleanSupplier focused;
    private final LongSupplier playhead;
    private final Runnable stale;
    private final Consumer<NoteQuestionKind> ask;
    private final Runnable loop;
    private final Runnable sound;

    /**
     * @param focused whether the notes have the focus: then the arrow keys are theirs
     * @param playhead the tick where the playhead is
     * @param stale has everything shown again
     * @param loop loops the bars of the selected notes
     * @param sound sounds the first of the selected notes
     */
    public NotesCommands(
            NotesPresenter notes,
            BooleanSupplier focused,
            LongSupplier playhead,
            Runnable stale,
            Consumer<NoteQuestionKind> ask,
            Runnable loop,
            Runnable sound) {
        this.notes = notes;
        this.focused = focused;
        this.playhead = playhead;
        this.stale = stale;
        this.ask = ask;
        this.loop = loop;
        this.sound = sound;
    }

    private Command command(String id, Runnable action) {
        return Command.of(id, say("command." + id), () -> {
            action.run();
            stale.run();
        });
    }

    /** Returns all of them. */
    public List<Command> all() {
        BooleanSupplier open = () -> notes.isOpen() && !notes.isPreviewing();
        BooleanSupplier selection =
                () -> open.getAsBoolean() && !notes.selected().isEmpty();
        BooleanSupplier hasFocus = () -> open.getAsBoolean() && focused.getAsBoolean();
        List<Command> all = new ArrayList<>();
        for (Command command : List.of(
                command("select-all-notes", () -> notes.select().all())
                        .in(SELECT)
                        .key("Shortcut+A"),
                command("invert-selection", () -> notes.select().invert())
                        .in(SELECT)
                        .key("Shortcut+Shift+A"),
                command("paste-notes", () -> notes.paste(playhead.getAsLong()))
                        .in(NOTES)
                        .key("Shortcut+V")
                        .when(notes::hasCopied),
                command("draw-note-at-playhead", this::drawAtPlayhead).in(NOTES).key("Insert"),
                command("quantize-notes", () -> ask.accept(NoteQuestionKind.QUANTIZE))
                        .key("Shortcut+U"),
                command("notes-to-another-sound", () -> ask.accept(NoteQuestionKind.TO_SOUND))
                        .key("Shortcut+T"),
                command("change-notes", () -> ask.accept(NoteQuestionKind.CHANGE))
                        .key("Shortcut+Shift+H"),
                command("arrange-bars", () -> ask.accept(NoteQuestionKind.ARRANGE))
                        .key("Shortcut+G"),
                command("find-the-beat", () -> ask.accept(NoteQuestionKind.BEAT))
                        .key("Shortcut+B"),
                command("notes-as-played", notes::asPlayed)
                        .key("Shortcut+Shift+P")
                        .when(notes::isEdited))) {
            all.add(command.when(() -> notes.isOpen()));
        }
        for (Command command : List.of(
                command("select-same-key", () -> notes.select().like(SelectionCommands.Like.KEY))
                        .in(SELECT),
                command("select-same-velocity", () -> notes.select().like(SelectionCommands.Like.VELOCITY))
                        .in(SELECT),
                command("select-same-position", () -> notes.select().like(SelectionCommands.Like.POSITION))
                        .in(SELECT),
                command("select-same-track", () -> notes.select().like(SelectionCommands.Like.TRACK))
                        .in(SELECT),
                command("copy-notes", notes::copy).in(NOTES).key("Shortcut+C"),
                command("cut-out-notes", () -> {
                            notes.copy();
                            notes.delete();
                        })
                        .key("Shortcut+X")
                        .in(NOTES),
                command("duplicate-notes", this::duplicate).in(NOTES).key("Shortcut+Shift+D"),
                command("split-notes-at-playhead", () -> notes.cut(playhead.getAsLong()))
                        .in(NOTES)
                        .key("Shortcut+K"),
                command("join-notes", notes::join).in(NOTES).key("Shortcut+J"),
                command("mute-notes", notes::mute).in(NOTES).key("Shortcut+Shift+M"),
                command("delete-notes", notes::delete).in(NOTES).key("Delete").key("Backspace"),
                command("loop-selection", loop))) {
            all.add(command.when(selection));
        }
        for (Command command : List.of(
                command("next-note", () -> notes.select().step(1, false))
                        .in(SELECT)
                        .key("Right"),
                command("previous-note", () -> notes.select().step(-1, false))
                        .in(SELECT)
                        .key("Left"),
                command("next-note-too", () -> notes.select().step(1, true))
                        .in(SELECT)
                        .key("Shift+Right"),
                command("previous-note-too", () -> notes.select().step(-1, true))
                        .in(SELECT)
                        .key("Shift+Left"),
                command("note-later", () -> notes.step(notes.grid().step(), 0))
                        .in(MOVE)
                        .key("Alt+Right"),
                command("note-earlier", () -> notes.step(-notes.grid().step(), 0))
                        .in(MOVE)
                        .key("Alt+Left"),
                command("note-a-tick-later", () -> notes.step(1, 0)).in(MOVE).key("Alt+Shift+Right"),
                command("note-a-tick-earlier", () -> notes.step(-1, 0)).in(MOVE).key("Alt+Shift+Left"),
                command("note-up", () -> transpose(1)).in(MOVE).key("Alt+Up"),
                command("note-down", () -> transpose(-1)).in(MOVE).key("Alt+Down"),
                command("note-octave-up", () -> transpose(OCTAVE)).in(MOVE).key("Alt+Shift+Up"),
                command("note-octave-down", () -> transpose(-OCTAVE)).in(MOVE).key("Alt+Shift+Down"),
                command("note-longer", () -> notes.stepLength(notes.grid().step()))
                        .in(MOVE)
                        .key("Shortcut+Right"),
                command("note-shorter", () -> notes.stepLength(-notes.grid().step()))
                        .in(MOVE)
                        .key("Shortcut+Left"),
                command("note-louder", () -> notes.louder(LOUDER)).in(MOVE).key("Shortcut+Up"),
                command("note-softer", () -> notes.louder(-LOUDER)).in(MOVE).key("Shortcut+Down"),
                command("note-a-little-louder", () -> notes.louder(1)).in(MOVE).key("Shortcut+Shift+Up"),
                command("note-a-little-softer", () -> notes.louder(-1)).in(MOVE).key("Shortcut+Shift+Down"))) {
            all.add(command.whileHeld().when(hasFocus));
        }
        return all;
    }

    private void transpose(int semitones) {
        notes.step(0, semitones);
        sound.run();
    }

    private void duplicate() {
        notes.select().span().ifPresent(span -> {
            long step = notes.grid().step();
            long length = Math.max(step, (span[1] - span[0] + step - 1) / step * step);
            notes.copyBy(length, 0);
        });
    }

    private void drawAtPlayhead() {
        long at = notes.snapped(playhead.getAsLong(), false);
        int key = notes.selectedKey().orElse(MIDDLE_C);
        notes.draw(key, at, at + notes.grid().step());
    }
}
