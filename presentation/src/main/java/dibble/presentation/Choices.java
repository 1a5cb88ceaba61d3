package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.gear.PartRef;
import dibble.notes.Grid;
import dibble.routing.Zone;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** The options that a session offers, in its order. */
public final class Choices {
    /** All scenes. */
    public static final String ALWAYS = "always";

    private Choices() {}

    /** Sources, by their ids. */
    public static List<Choice<String>> sources(Session session) {
        return session.sources().stream()
                .map(source -> new Choice<>(source.id(), source.name()))
                .toList();
    }

    /** Instruments, by their ids. */
    public static List<Choice<String>> instruments(Session session) {
        return session.instruments().stream()
                .map(instrument -> new Choice<>(instrument.id(), instrument.name()))
                .toList();
    }

    /** Parts, each with its {@link PartRef}, as {@code instrument / part}. */
    public static List<Choice<PartRef>> parts(Session session) {
        return session.instruments().stream()
                .flatMap(instrument -> instrument.parts().stream()
                        .map(part -> new Choice<>(instrument.ref(part), instrument.name() + " / " + part.name())))
                .toList();
    }

    /** Scenes, by their ids. */
    public static List<Choice<String>> scenes(Session session) {
        return session.scenes().stream()
                .map(scene -> new Choice<>(scene.id(), scene.name()))
                .toList();
    }

    /** Returns the possible sources of a zone or a control map: each source, and all of them. */
    public static List<Choice<String>> players(Session session) {
        List<Choice<String>> all = new ArrayList<>(sources(session));
        all.add(new Choice<>(Zone.ANY_SOURCE, say("common.all-sources-2")));
        return all;
    }

    /** Returns the possible scenes of an object: every scene ({@link #ALWAYS}), or a single one, by its id. */
    public static List<Choice<String>> holds(Session session) {
        List<Choice<String>> all = new ArrayList<>(List.of(new Choice<>(ALWAYS, say("choices.every-scene"))));
        session.scenes().forEach(scene -> all.add(new Choice<>(scene.id(), say("common.only", scene.name()))));
        return all;
    }

    /** Steps of a grid, each a {@link Grid.Step}, from long to short. */
    public static List<Choice<Grid.Step>> gridSteps() {
        return Stream.of("1/4", "1/4t", "1/8d", "1/8", "1/8t", "1/16d", "1/16", "1/16t", "1/32", "1/32t", "1/64")
                .map(text -> new Choice<>(Grid.Step.parse(text), stepWords(text)))
                .toList();
    }

    private static String stepWords(String step) {
        String straight = step.substring(0, step.length() - 1);
        return step.endsWith("t")
                ? say("choices.triplet", straight)
                : step.endsWith("d") ? say("choices.dotted", straight) : step;
    }

    /** One before the others. */
    public static <T> List<Choice<T>> with(Choice<T> first, List<Choice<T>> others) {
        List<Choice<T>> all = new ArrayList<>(List.of(first));
        all.addAll(others);
        return all;
    }
}
