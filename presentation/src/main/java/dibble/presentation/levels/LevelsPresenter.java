package dibble.presentation.levels;

import static dibble.presentation.UiText.say;

import dibble.edits.NumberSeries;
import dibble.edits.StripEdits;
import dibble.edits.TakeEdits;
import dibble.gear.Effects;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.presentation.Jobs;
import dibble.recording.Track;
import dibble.routing.Scene;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/** The presenter of the Levels view. */
public final class LevelsPresenter {
    private final Document document;
    private final Jobs jobs;
    private final Set<StripRef> selected = new LinkedHashSet<>();

    /** Presents a document. */
    public LevelsPresenter(Document document, Jobs jobs) {
        this.document = document;
        this.jobs = jobs;
    }

    private Session session() {
        return document.session();
    }

    /**
     * A strip as a row shows it.
     *
     * @param scene the name of the scene that gives it its level; empty where none does
     */
    public record Row(StripRef ref, Instrument instrument, Part part, Strip strip, String name, String scene) {
        /** Returns true if Dibble sounds it itself. */
        public boolean isBuiltIn() {
            return instrument.builtIn();
        }

        /** The highest level that it can have, in dB. */
        public double most() {
            return isBuiltIn() ? Loudness.MAX : 0;
        }
    }

    /** The rows of an instrument. */
    public record Group(Instrument instrument, List<Row> rows) {}

    /** All strips: those that Dibble sounds first, then those of modules. */
    public List<Group> groups() {
        List<Group> groups = new ArrayList<>();
        for (boolean builtIn : new boolean[] {true, false}) {
            for (Instrument instrument : session().instruments()) {
                if (instrument.builtIn() == builtIn && !instrument.parts().isEmpty()) {
                    groups.add(new Group(instrument, rows(instrument)));
                }
            }
        }
        return groups;
    }

    /** The id of the scene that holds, or null. */
    private String scene() {
        return session().activeScene(document.performance());
    }

    private List<Row> rows(Instrument instrument) {
        String scene = scene();
        List<Row> rows = new ArrayList<>();
        for (Part part : instrument.parts()) {
            for (StripRef ref : SoundPlan.strips(session(), instrument, part)) {
                rows.add(new Row(
                        ref,
                        instrument,
                        part,
                        StripEdits.strip(session(), scene, ref).orElseThrow(),
                        part.stripName(ref.key()),
                        StripEdits.isOfScene(session(), scene, ref)
                                ? session().scene(scene).map(Scene::name).orElse("")
                                : ""));
            }
        }
        return rows;
    }

    /** The channel that a strip's part has now, 1-16. */
    public OptionalInt channel(StripRef ref) {
        return document.routing().channels().channel(ref.part());
    }

    /** The track that a strip has its mute and solo from; empty where there is none yet. */
    public Optional<Track> track(StripRef ref) {
        return ref.isKey()
                ? session().trackOf(ref.part(), ref.key())
                : session().trackOf(ref.part());
    }

    /** Returns true if a strip is muted. */
    public boolean isMuted(StripRef ref) {
        return track(ref)
                .map(it -> document.performance().muted().contains(it.id()))
                .orElse(false);
    }

    /** Returns true if a strip is soloed. */
    public boolean isSoloed(StripRef ref) {
        return track(ref)
                .map(it -> document.performance().soloed().contains(it.id()))
                .orElse(false);
    }

    /** Mutes a strip, or unmutes it. */
    public void setMuted(StripRef ref, boolean on) {
        track(ref).ifPresent(it -> document.perform(performance -> performance.withMuted(it.id(), on)));
    }

    /** Solos a strip, or ends that. */
    public void setSoloed(StripRef ref, boolean on) {
        track(ref).ifPresent(it -> document.perform(performance -> performance.withSoloed(it.id(), on)));
    }

    /** Returns the edit that moves a strip, and its group with it. */
    public Edit levelEdit(StripRef ref, double level) {
        return new Edit(say("edit.level"), session -> StripEdits.move(session, scene(), ref, level));
    }

    /** Moves a strip, and its group with it. */
    public void setLevel(StripRef ref, double level) {
        document.edit(levelEdit(ref, level));
    }

    /** Returns the edit that changes a strip. */
    public Edit stripEdit(String what, StripRef ref, UnaryOperator<Strip> change) {
        return new Edit(what, session -> StripEdits.change(session, scene(), ref, change));
    }

    /** Changes a strip as one step of undo. */
    public void change(String what, StripRef ref, UnaryOperator<Strip> change) {
        document.edit(stripEdit(what, ref, change));
    }

    /** Sets all levels to 0 dB. */
    public void allAtZero() {
        document.edit(say("levels-view.all-at-zero"), session -> StripEdits.allAtZero(session, scene()));
    }

    /** Returns the edit that changes the effects of an instrument. */
    public Edit effectsEdit(String instrument, UnaryOperator<Effects> change) {
        return new Edit(say("edit.effects"), session -> StripEdits.effects(session, instrument, change));
    }

    /** Returns true if a strip is selected. */
    public boolean isSelected(StripRef ref) {
        return selected.contains(ref);
    }

    /** Selects one, or with others takes it in or out. */
    public void select(StripRef ref, boolean also) {
        boolean was = selected.contains(ref);
        if (!also) {
            selected.clear();
        }
        if (!also || !was) {
            selected.add(ref);
        } else {
            selected.remove(ref);
        }
    }

    /**
     * Returns the strips that an edit of a strip applies to: all selected ones if it is selected; in the order of the
     * rows.
     */
    public List<StripRef> meant(StripRef ref) {
        return ref != null && !selected.contains(ref) ? List.of(ref) : selection();
    }

    /** Those that are selected and there, in the order of the rows. */
    public List<StripRef> selection() {
        return groups().stream()
                .flatMap(group -> group.rows().stream())
                .map(Row::ref)
                .filter(selected::contains)
                .toList();
    }

    /** Puts strips into a group, 1-8, or with 0 out of any. */
    public void setGroup(List<StripRef> refs, int group) {
        document.edit(say("edit.group"), session -> {
            Session grouped = session;
            for (StripRef ref : refs) {
                grouped = StripEdits.change(grouped, ref, strip -> strip.withGroup(group));
            }
            return grouped;
        });
    }

    /** Counts outputs up: for those selected, or for all that Dibble sounds. */
    public NumberSeries plantOutputs(int start, int step) {
        List<StripRef> chosen = selection();
        List<StripRef> row = chosen.isEmpty()
                ? groups().stream()
                        .filter(group -> group.instrument().builtIn())
                        .flatMap(group -> group.rows().stream())
                        .map(Row::ref)
                        .toList()
                : chosen;
        return NumberSeries.outputs(session(), row, start, step);
    }

    /** Numbers outputs of strips in a series. */
    public void plant(NumberSeries plant) {
        document.edit(say("edit.output"), plant::apply);
    }

    /** Returns the named drums of a kit without a separate strip. */
    public List<Integer> drumsToSplit(PartRef ref) {
        Part part = session().part(ref).orElseThrow();
        if (!part.drums()) {
            return List.of();
        }
        TreeSet<Integer> keys = new TreeSet<>(part.noteNames().keySet());
        session().tracks().forEach(track -> {
            if (track.input() instanceof Track.OfKey of && of.part().equals(ref)) {
                keys.remove(of.key());
            }
        });
        return List.copyOf(keys);
    }

    /** Gives drums separate tracks and strips, with their recorded notes. */
    public void splitDrums(PartRef ref) {
        List<Integer> drums = drumsToSplit(ref);
        jobs.edit(
                document,
                say("levels-presenter.splitting-drums"),
                say("edit.split-drums"),
                (session, progress) -> TakeEdits.splitKeys(session, ref, drums, progress),
                () -> document.perform(now -> TakeEdits.armKeys(session(), now, ref, drums)));
    }

    /** Returns the outputs that are used or named, with the strips on each. */
    public Map<Integer, List<String>> outputs() {
        Map<Integer, List<String>> outputs = new TreeMap<>();
        outputs.put(1, new ArrayList<>());
        session().outputs().keySet().forEach(number -> outputs.put(number, new ArrayList<>()));
        for (Group group : groups()) {
            if (group.instrument().builtIn()) {
                group.rows()
                        .forEach(row -> outputs.computeIfAbsent(row.strip().output(), key -> new ArrayList<>())
                                .add(row.name()));
            }
        }
        return outputs;
    }

    /** Returns the number of strips of built-in instruments. */
    public int stems() {
        return groups().stream()
                .filter(group -> group.instrument().builtIn())
                .mapToInt(group -> group.rows().size())
                .sum();
    }

    /** The first output that is neither used nor named. */
    public int freeOutput() {
        Set<Integer> taken = outputs().keySet();
        int free = 1;
        while (taken.contains(free) && free < 64) {
            free++;
        }
        return free;
    }

    /** The outputs that a strip can have: those in use, and the next that is free. */
    public List<Integer> outputChoices() {
        TreeSet<Integer> numbers = new TreeSet<>(outputs().keySet());
        numbers.add(freeOutput());
        return List.copyOf(numbers);
    }

    /** Returns the label of an output: its channels of the device, and its name. */
    public String output(int number) {
        String name = session().outputs().getOrDefault(number, "");
        return say("levels-view.output", 2 * number - 1, 2 * number, name).strip();
    }

    /** Returns the name of an output, from 1. */
    public String outputName(int number) {
        return session().outputs().getOrDefault(number, "");
    }

    /** Names an output, from 1. */
    public void nameOutput(int number, String name) {
        document.edit(say("edit.output"), session -> StripEdits.nameOutput(session, number, name));
    }
}
