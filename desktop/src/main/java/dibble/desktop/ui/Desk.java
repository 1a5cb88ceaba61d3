package dibble.desktop.ui;

import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.ports.Devices;
import dibble.presentation.AppContext;
import dibble.presentation.Findings;
import dibble.presentation.Jobs;
import dibble.presentation.LiveState;
import dibble.presentation.OtherPrograms;
import dibble.presentation.Places;
import dibble.presentation.Preferences;
import dibble.presentation.Selection;
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

/** What every view works on: the shared services without a toolkit, and those of the window. */
public record Desk(AppContext context, Pulse pulse, Theme theme, AskBar ask, Commands commands, Pointer pointer) {
    /** What follows everything that a view shows: see {@link Watch}. */
    public Watch watch(Runnable draw) {
        return new Watch(this, draw);
    }

    /** Returns the open document. */
    public Document document() {
        return context.document();
    }

    /** Returns what plays and records it. */
    public Studio studio() {
        return context.studio();
    }

    /** Returns the simulated devices. */
    public StandIns standIns() {
        return context.standIns();
    }

    /** Returns all ports that there are. */
    public Devices devices() {
        return context.devices();
    }

    /** Returns what sounds now. */
    public LiveState live() {
        return context.live();
    }

    /** Returns what is selected. */
    public Selection selection() {
        return context.selection();
    }

    /** Returns the user's settings. */
    public Preferences preferences() {
        return context.preferences();
    }

    /** Returns the user's shelf of gear. */
    public GearShelf shelf() {
        return context.shelf();
    }

    /** Returns the levels of the built-in sounds. */
    public Meters meters() {
        return context.meters();
    }

    /** Returns the ports among other programs. */
    public OtherPrograms programs() {
        return context.programs();
    }

    /** Returns where things can be shown. */
    public Places places() {
        return context.places();
    }

    /** Returns what the checks find. */
    public Findings findings() {
        return context.findings();
    }

    /** Returns the long work under way. */
    public Jobs jobs() {
        return context.jobs();
    }

    /** Returns the run that a small edit of a subject belongs to. */
    public Object run(Object subject) {
        return context.runs().of(subject);
    }

    /** Has a scene hold now. */
    public void callScene(String id) {
        context.callScene(id);
    }

    /** The session as it is now. */
    public Session session() {
        return context.session();
    }

    /** How it is played now. */
    public Performance performance() {
        return context.performance();
    }

    /** What both come to: the routing in force. */
    public Routing routing() {
        return context.routing();
    }

    /** Presses a key of a source, on the channel that it plays on. */
    public void press(Source source, int key, int velocity) {
        context.press(source, key, velocity);
    }

    /** Lets a key of a source go. */
    public void release(Source source, int key) {
        context.release(source, key);
    }

    /** Returns whether a source is played by hand, rather than by a sequencer. */
    public boolean isPlayedByHand(String source) {
        return session()
                .source(source)
                .filter(it -> it.kind() == SourceKind.SEQUENCER)
                .isEmpty();
    }

    /** Plays a message as a source does: on its stand-in, or in the place of its real gear. */
    public void play(Source source, int message) {
        context.play(source, message);
    }

    /** The patterns of a sequencer's stand-in, on the channels of its lanes; empty where it has none. */
    public Optional<PatternSequencer> patterns(Source source) {
        return context.patterns(source);
    }
}
