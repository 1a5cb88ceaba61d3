package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ShortMessage;
import dibble.ports.Devices;
import dibble.routing.Routing;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.Meters;
import dibble.standins.PatternSequencer;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.studio.Studio;
import dibble.user.GearShelf;
import java.util.Optional;
import java.util.function.Consumer;

/** The open document, the studio that plays it, and the services that presenters and file workflows share. */
public record AppContext(
        Document document,
        Studio studio,
        StandIns standIns,
        Devices devices,
        LiveState live,
        Selection selection,
        FrameScheduler frames,
        Prompter ask,
        Preferences preferences,
        GearShelf shelf,
        Meters meters,
        OtherPrograms programs,
        Navigator places,
        Findings findings,
        Jobs jobs,
        EditRuns runs,
        Entries entries) {
    /**
     * Binds an action to the open session. If another session is open when it would run, it is skipped and the user is
     * notified.
     *
     * @param what the name of the action, for that message
     */
    public <T> Consumer<T> forThisSession(String what, Consumer<T> action) {
        Object opening = document.opening();
        return value -> {
            if (document.opening() == opening) {
                action.accept(value);
            } else {
                ask.tell(say("app-context.another-session-was-opened", what));
            }
        };
    }

    /** Activates a scene. */
    public void callScene(String id) {
        document.perform(performance -> performance.withScene(id));
    }

    /** The session as it is now. */
    public Session session() {
        return document.session();
    }

    /** Returns the present performance. */
    public Performance performance() {
        return document.performance();
    }

    /** Returns the routing of the session and the performance. */
    public Routing routing() {
        return document.routing();
    }

    /** Presses a key of a source, on the channel that it plays on. */
    public void press(Source source, int key, int velocity) {
        play(source, ShortMessage.noteOn(source.playsOn(), key, velocity));
    }

    /** Releases a key of a source. */
    public void release(Source source, int key) {
        play(source, ShortMessage.noteOff(source.playsOn(), key, ShortMessage.DEFAULT_RELEASE));
    }

    /** Plays a message as a source does: on its stand-in, or in the place of its real gear. */
    public void play(Source source, int message) {
        standIns.standIn(source.port())
                .ifPresentOrElse(device -> device.play(message), () -> studio.playAs(source.id(), message));
    }

    /** The patterns of a sequencer's stand-in, on the channels of its lanes; empty where it has none. */
    public Optional<PatternSequencer> patterns(Source source) {
        if (source.kind() != SourceKind.SEQUENCER) {
            return Optional.empty();
        }
        Optional<PatternSequencer> patterns = standIns.standIn(source.port()).map(StandIn::sequencer);
        patterns.ifPresent(it -> {
            if (source.lanes().isEmpty()) {
                it.playOn(source.listen());
            } else {
                it.playOn(source.lanes().stream().map(SequencerLane::channel).toList());
            }
            it.setTempo(Math.max(20, Math.min(300, session().tempo().bpm(0))));
        });
        return patterns;
    }
}
