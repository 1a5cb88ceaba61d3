package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Findings;
import dibble.desktop.ui.Jobs;
import dibble.desktop.ui.LiveState;
import dibble.desktop.ui.OtherPrograms;
import dibble.desktop.ui.Places;
import dibble.desktop.ui.Preferences;
import dibble.desktop.ui.Pulse;
import dibble.desktop.ui.Selection;
import dibble.desktop.ui.Theme;
import dibble.gear.Source;
import dibble.jack.JackDevices;
import dibble.journals.SessionJournal;
import dibble.journals.Unfinished;
import dibble.midi.MidiTrack;
import dibble.ports.JoinedDevices;
import dibble.ports.MachineDevices;
import dibble.ports.OutputPort;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.AudioEngine;
import dibble.sound.AudioSettings;
import dibble.sound.Meters;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.studio.Studio;
import dibble.studio.Transport;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.ServerTransport;
import dibble.transport.Timeline;
import dibble.user.GearShelf;
import dibble.user.Settings;
import dibble.user.UserFolder;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import java.util.function.IntConsumer;
import javafx.application.Platform;

/** The open session with all that makes it live; the interface is built on its {@link #desk}. */
public final class Workbench implements AutoCloseable {
    /** What sounds here; null where others sound. */
    private final AudioEngine audio;

    /** Ports among other programs; null where there are none. */
    private final JackDevices jack;

    private final ProgramPorts programs;
    private final Document document;
    private final SessionJournal journal;
    private final Path userFolder;
    private String file;
    private final StandIns standIns;
    private final MachineDevices machine;
    private final AtomicBoolean portsChanged = new AtomicBoolean();
    private final Studio studio;
    private final Desk desk;

    /** A workbench whose built-in instruments sound, among other programs. */
    public static Workbench sounding(Session session, Performance performance) {
        return new Workbench(session, performance, null, new JackDevices(Clock.SYSTEM), UserFolder.path());
    }

    /** A workbench by itself, whose instruments sound elsewhere. */
    Workbench(Session session, Performance performance, Function<String, OutputPort> instruments, Path userFolder) {
        this(session, performance, instruments, null, userFolder);
    }

    /**
     * @param instruments opens the port of an instrument; null for the built-in synthesizer
     * @param jack ports among other programs, not started; null for none
     * @param userFolder where the user's own things are
     */
    Workbench(
            Session session,
            Performance performance,
            Function<String, OutputPort> instruments,
            JackDevices jack,
            Path userFolder) {
        this.jack = jack;
        document = new Document(session, performance);
        this.userFolder = userFolder;
        journal = new SessionJournal(userFolder);
        audio = instruments == null ? audio(jack) : null;
        standIns = new StandIns(Clock.SYSTEM, instruments == null ? audio::open : instruments);
        machine = MachineDevices.foundLater();
        JoinedDevices devices =
                jack == null ? new JoinedDevices(standIns, machine) : new JoinedDevices(standIns, jack, machine);
        studio = new Studio(
                Clock.SYSTEM,
                devices,
                document,
                journal.takes(),
                jack == null ? ServerTransport.NONE : jack.transport());
        document.listen(this::keepJournal);
        programs = jack == null ? null : new ProgramPorts(jack, document);
        if (jack != null) {
            jack.onChange(() -> portsChanged.set(true));
        }
        machine.onChange(() -> portsChanged.set(true));
        standIns.onChange(() -> portsChanged.set(true));
        AskBar ask = new AskBar();
        Jobs jobs = new Jobs(Platform::runLater);
        Preferences preferences = new Preferences(userFolder, jobs, ask::tell);
        LiveState live = new LiveState(studio.monitor(), studio::monitorSkipped, studio.slots());
        desk = new Desk(
                document,
                studio,
                standIns,
                devices,
                live,
                new Selection(),
                new Pulse(),
                new Theme(),
                ask,
                preferences,
                new GearShelf(userFolder),
                audio == null ? Meters.NONE : audio,
                programs == null ? OtherPrograms.NONE : programs,
                new Places(),
                new Findings(document, studio, devices, live),
                jobs,
                new Commands());
        selectFirst();
    }

    private static AudioEngine audio(JackDevices jack) {
        return jack == null
                ? new AudioEngine(Clock.SYSTEM)
                : new AudioEngine(Clock.SYSTEM, settings -> ProgramPorts.sound(jack, settings));
    }

    /** A session with nothing in it. */
    static Session newSession(Settings settings) {
        return Session.empty(say("common.new-session")).withMiddleC(settings.middleC());
    }

    /** What the views work with. */
    public Desk desk() {
        return desk;
    }

    /** What plays and records the document. */
    public Studio studio() {
        return studio;
    }

    /** The document that is open. */
    public Document document() {
        return document;
    }

    /** What is not on disk yet is kept in the user's folder, so that no crash takes it. */
    void keepJournal() {
        if (document.isChanged() || studio.transport() == Transport.RECORDING) {
            journal.changed(document.kept(), file);
        } else {
            journal.settled();
        }
    }

    /** Starts to record, with all that belongs to the take in the journal; where it records, that ends. */
    void record() {
        if (studio.transport() == Transport.RECORDING || studio.waitsToRecord()) {
            studio.stop();
            return;
        }
        studio.record();
        journal.changed(document.kept(), file);
    }

    /** Returns the reason for which a recording failed or unsaved work cannot be journaled; null if there is none. */
    String recordingTrouble() {
        String stopped = studio.recordingTrouble();
        return stopped == null ? journal.trouble() : stopped;
    }

    /** The file of the open session, as a path; null for none. */
    void setFile(Path path) {
        file = path == null ? null : path.toAbsolutePath().toString();
    }

    /** What earlier runs left behind. */
    List<Unfinished> unfinished() {
        return Unfinished.find(userFolder);
    }

    /**
     * What has become of something that was brought back.
     *
     * @param place where the rest of it stays
     * @param losses what could not be brought back, a phrase each
     */
    record Settled(Path place, List<String> losses) {}

    /**
     * Throws away what an earlier run left behind, once all of it is kept here. What could not be brought back stays,
     * where it is not offered again. Waits for the disk: not on the thread that edits.
     */
    Settled settle(Unfinished left, Unfinished.BroughtBack back) throws IOException {
        journal.sync();
        if (journal.trouble() != null) {
            return new Settled(left.folder(), List.of());
        }
        if (back.losses().isEmpty()) {
            left.discard();
            return new Settled(left.folder(), List.of());
        }
        return new Settled(left.putAside(), back.losses());
    }

    /** Puts another session on the desk. */
    void open(Session session, Performance performance) {
        clearDesk();
        document.open(session, performance);
        setDesk();
    }

    /** Puts another session on the desk while hands hold notes: those ring until they are let go, as over an edit. */
    void takeOn(Session session, Performance performance) {
        studio.stop();
        putAside();
        document.open(session, performance);
        setDesk();
    }

    /** Puts a session on the desk that is on no disk as it is. */
    void openUnsaved(Session session, Performance performance) {
        clearDesk();
        document.openUnsaved(session, performance);
        setDesk();
    }

    private void clearDesk() {
        studio.silence();
        putAside();
    }

    private void putAside() {
        if (programs != null) {
            programs.opened();
        }
        studio.stopPerformance();
        studio.hearAlone(null);
        studio.setOptions(studio.options().withRange(null));
        studio.locate(0);
    }

    private void setDesk() {
        desk.live().read();
        desk.live().reset();
        selectFirst();
    }

    private void selectFirst() {
        desk.selection()
                .reset(document.session().sources().stream()
                        .findFirst()
                        .map(Source::id)
                        .orElse(null));
    }

    /** Whether the demo's performance has a source of this session to play on. */
    boolean canPerform() {
        return LamplightersRound.PLAYERS.stream()
                .anyMatch(name -> keyboard(name).isPresent());
    }

    /** Has the stand-ins play the demo's performance over and over. */
    public void perform() {
        List<MidiTrack> tracks = new ArrayList<>();
        List<IntConsumer> lanes = new ArrayList<>();
        for (MidiTrack track : LamplightersRound.played().tracks()) {
            track.name().flatMap(this::keyboard).ifPresent(keyboard -> {
                tracks.add(track);
                lanes.add(keyboard::play);
            });
        }
        studio.perform(Timeline.of(tracks, TempoMap.of(96)), lanes);
    }

    /** The stand-in behind a source of this name. */
    private Optional<StandIn> keyboard(String name) {
        return document.session().sources().stream()
                .filter(source -> source.name().equals(name))
                .flatMap(source -> standIns.standIn(source.port()).stream())
                .findFirst();
    }

    void playOrStop() {
        if (studio.transport() == Transport.STOPPED) {
            studio.play(studio.place());
        } else {
            studio.stop();
        }
    }

    /** All notes off, everything at rest. */
    void silence() {
        studio.silence();
        desk.live().forget();
    }

    /** Whether anything is to be taken in that has not been seen yet. Any thread. */
    boolean hasNews() {
        return portsChanged.get() || studio.hasNews() || programs != null && programs.hasNews();
    }

    /** Whether anything moves that is followed frame by frame. */
    boolean isMoving() {
        return studio.isMoving()
                || desk.findings().isLooking()
                || desk.jobs().running().isPresent()
                || audio != null && audio.isSounding();
    }

    /** Takes in what other threads have finished or noticed. */
    void pulse() {
        if (portsChanged.getAndSet(false)) {
            studio.portsChanged();
        }
        if (programs != null) {
            programs.pulse(this::serverChanged);
        }
        studio.pulse();
    }

    private void serverChanged() {
        if (audio != null) {
            audio.lookAgain();
        }
    }

    @Override
    public void close() {
        desk.jobs().close();
        machine.close();
        studio.close();
        journal.close();
        standIns.close();
        if (audio != null) {
            audio.close();
        }
        if (jack != null) {
            jack.close();
        }
    }

    /** Has what makes sound be ready before the first note, and looks for other programs: what no start waits for. */
    void prepareSound() {
        if (audio != null) {
            audio.start();
        }
        if (jack != null && !Main.isOffScreen()) {
            jack.start();
        }
    }

    /** What sounds here; null where others sound. */
    AudioEngine audio() {
        return audio;
    }

    /** The names of the audio devices that sound can go to, a server of ports among them. Takes a moment; any thread. */
    List<String> audioDevices() {
        List<String> names = new ArrayList<>(AudioEngine.devices());
        if (jack != null && jack.state().isRunning()) {
            names.add(0, JackDevices.SOUND);
        }
        return names;
    }

    /** Chooses the audio device of the built-in sounds. */
    void chooseAudio(Settings settings) {
        if (programs != null) {
            programs.giveSound(audio != null && ProgramPorts.isAmongPrograms(settings.audioDevice()));
        }
        if (audio != null) {
            audio.choose(new AudioSettings(
                    settings.audioDevice(),
                    settings.audioMillis(),
                    settings.audioRate(),
                    settings.audioBlock(),
                    settings.audioPairs()));
        }
    }
}
