package dibble.presentation;

import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.ports.Devices;
import dibble.routing.Routing;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.Meters;
import dibble.standins.PatternSequencer;
import dibble.standins.StandIns;
import dibble.studio.Studio;
import dibble.user.GearShelf;
import java.util.Optional;

/** The services of a context by their names, for what works with a context and more. */
public interface ContextServices {
    /** Returns the context. */
    AppContext context();

    /** Returns the open document. */
    default Document document() {
        return context().document();
    }

    /** Returns the studio, which plays and records. */
    default Studio studio() {
        return context().studio();
    }

    /** Returns the simulated devices. */
    default StandIns standIns() {
        return context().standIns();
    }

    /** Returns all ports. */
    default Devices devices() {
        return context().devices();
    }

    /** Returns the live state. */
    default LiveState live() {
        return context().live();
    }

    /** Returns the selection. */
    default Selection selection() {
        return context().selection();
    }

    /** Returns the user's settings. */
    default Preferences preferences() {
        return context().preferences();
    }

    /** Returns the user's shelf of gear. */
    default GearShelf shelf() {
        return context().shelf();
    }

    /** Returns the levels of the built-in sounds. */
    default Meters meters() {
        return context().meters();
    }

    /** Returns the ports among other programs. */
    default OtherPrograms programs() {
        return context().programs();
    }

    /** Returns where things can be shown. */
    default Navigator places() {
        return context().places();
    }

    /** Returns the findings of the checks. */
    default Findings findings() {
        return context().findings();
    }

    /** Returns the long work under way. */
    default Jobs jobs() {
        return context().jobs();
    }

    /** Returns the run that a small edit of a subject belongs to. */
    default Object run(Object subject) {
        return context().runs().of(subject);
    }

    /** Activates a scene. */
    default void callScene(String id) {
        context().callScene(id);
    }

    /** The session as it is now. */
    default Session session() {
        return context().session();
    }

    /** Returns the present performance. */
    default Performance performance() {
        return context().performance();
    }

    /** Returns the routing of the session and the performance. */
    default Routing routing() {
        return context().routing();
    }

    /** Presses a key of a source, on the channel that it plays on. */
    default void press(Source source, int key, int velocity) {
        context().press(source, key, velocity);
    }

    /** Releases a key of a source. */
    default void release(Source source, int key) {
        context().release(source, key);
    }

    /** Returns whether a source is played by hand, rather than by a sequencer. */
    default boolean isPlayedByHand(String source) {
        return session()
                .source(source)
                .filter(it -> it.kind() == SourceKind.SEQUENCER)
                .isEmpty();
    }

    /** Plays a message as a source does: on its stand-in, or in the place of its real gear. */
    default void play(Source source, int message) {
        context().play(source, message);
    }

    /** The patterns of a sequencer's stand-in, on the channels of its lanes; empty where it has none. */
    default Optional<PatternSequencer> patterns(Source source) {
        return context().patterns(source);
    }
}
