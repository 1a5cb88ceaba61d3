package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.demo.LamplightersRound;
import dibble.disk.FileStamp;
import dibble.gear.Source;
import dibble.jack.JackDevices;
import dibble.journals.RecoverableWork;
import dibble.journals.SessionJournal;
import dibble.midi.MidiTrack;
import dibble.ports.Devices;
import dibble.ports.JoinedDevices;
import dibble.presentation.AppContext;
import dibble.presentation.EditRuns;
import dibble.presentation.Entries;
import dibble.presentation.Findings;
import dibble.presentation.FrameScheduler;
import dibble.presentation.Jobs;
import dibble.presentation.LiveState;
import dibble.presentation.Navigator;
import dibble.presentation.OtherPrograms;
import dibble.presentation.Preferences;
import dibble.presentation.Prompter;
import dibble.presentation.Selection;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.AudioEngine;
import dibble.sound.AudioSettings;
import dibble.sound.SoundEngine;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.studio.Studio;
import dibble.studio.Transport;
import dibble.system.Workers;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.Timeline;
import dibble.user.GearShelf;
import dibble.user.Settings;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import java.util.function.IntConsumer;

/** The open session with all that makes it live, without a toolkit. The window is built on its {@link #context}. */
public class AppServices implements AutoCloseable {
    private final SoundEngine sound;
    private final OtherPrograms programs;
    private final Document document;
    private final SessionJournal journal;
    private final Path userFolder;
    private String file;
    private FileStamp stamp = FileStamp.NONE;
    private final StandIns standIns;
    private final Devices devices;
    private final AtomicBoolean portsChanged = new AtomicBoolean();
    private final Studio studio;
    private final AppContext context;

    /**
     * The environment of the services.
     *
     * @param sound the sound of built-in instruments
     * @param programs shares ports, transport and sound with other applications
     * @param more further kinds of ports, with less precedence than stand-ins and other applications
     * @param userFolder the user's folder
     * @param ask asks and notifies the user
     * @param frames the frames of the window
     * @param entries the text fields of the window
     * @param back runs a task on the editing thread
     */
    public record Surroundings(
            SoundEngine sound,
            Function<Document, OtherPrograms> programs,
            List<Devices> more,
            Path userFolder,
            Prompter ask,
            FrameScheduler frames,
            Entries entries,
            Executor back) {}

    /** Makes everything live that a session needs. */
    public AppServices(Session session, Performance performance, Surroundings given) {
        document = new Document(session, performance);
        userFolder = given.userFolder;
        sound = given.sound;
        journal = new SessionJournal(userFolder);
        standIns = new StandIns(Clock.SYSTEM, sound::open);
        programs = given.programs.apply(document);
        List<Devices> kinds = new ArrayList<>();
        kinds.add(standIns);
        kinds.addAll(programs.devices());
        kinds.addAll(given.more);
        devices = new JoinedDevices(kinds);
        studio = new Studio(Clock.SYSTEM, devices, document, journal.takes(), programs.transport());
        document.listen(this::keepJournal);
        devices.onChange(() -> portsChanged.set(true));
        Jobs jobs = new Jobs(given.back, Workers.shared().jobs());
        Preferences preferences = new Preferences(userFolder, jobs, given.ask::tell);
        LiveState live = new LiveState(studio.monitor(), studio::monitorSkipped, studio.slots());
        context = new AppContext(
                document,
                studio,
                standIns,
                devices,
                live,
                new Selection(),
                given.frames,
                given.ask,
                preferences,
                new GearShelf(userFolder),
                sound,
                programs,
                new Navigator(),
                new Findings(document, studio, devices, live),
                jobs,
                new EditRuns(Clock.SYSTEM),
                given.entries);
        selectFirst();
    }

    /** A session with nothing in it. */
    public static Session newSession(Settings settings) {
        return Session.empty(say("common.new-session")).withMiddleC(settings.middleC());
    }

    /** Returns the context of presenters and file workflows. */
    public AppContext context() {
        return context;
    }

    /** Returns the studio, which plays and records the document. */
    public Studio studio() {
        return studio;
    }

    /** The document that is open. */
    public Document document() {
        return document;
    }

    /** Starts the journal of unsaved work in the user's folder. */
    public void keepJournal() {
        if (document.isChanged() || studio.transport() == Transport.RECORDING) {
            journal.changed(document.kept(), file, stamp);
        } else {
            journal.settled();
        }
    }

    /** Starts to record, with all that belongs to the take in the journal; where it records, that ends. */
    public void record() {
        if (studio.transport() == Transport.RECORDING || studio.waitsToRecord()) {
            studio.stop();
            return;
        }
        studio.record();
        journal.changed(document.kept(), file, stamp);
    }

    /** Returns the reason for which a recording failed or unsaved work cannot be journaled; null if there is none. */
    public String recordingTrouble() {
        String stopped = studio.recordingTrouble();
        return stopped == null ? journal.trouble() : stopped;
    }

    /** Returns the reason for which a sound was taken out; null if there is none. */
    public String soundTrouble() {
        return sound.trouble();
    }

    /**
     * Says which file the open session belongs to.
     *
     * @param path null for none
     * @param version the version of the file that the session comes from
     */
    public void setFile(Path path, FileStamp version) {
        file = path == null ? null : path.toAbsolutePath().toString();
        stamp = version;
    }

    /** Returns the recoverable work of earlier runs. */
    public List<RecoverableWork> unfinished() {
        return RecoverableWork.find(userFolder);
    }

    /**
     * The result of a recovery.
     *
     * @param place the folder with the rest
     * @param losses a phrase for each part that was lost
     */
    record Settled(Path place, List<String> losses) {}

    /**
     * Throws away what an earlier run left behind, once all of it is kept here. What could not be brought back stays,
     * where it is not offered again. Waits for the disk: not on the thread that edits.
     */
    public Settled settle(RecoverableWork left, RecoverableWork.RecoveredWork back) throws IOException {
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

    /** Puts another session on the context. */
    public void open(Session session, Performance performance) {
        clearDesk();
        document.open(session, performance);
        setDesk();
    }

    /** Puts another session on the desk while hands hold notes: those ring until they are let go, as over an edit. */
    public void takeOn(Session session, Performance performance) {
        studio.stop();
        putAside();
        document.open(session, performance);
        setDesk();
    }

    /** Puts a session on the desk that is on no disk as it is. */
    public void openUnsaved(Session session, Performance performance) {
        clearDesk();
        document.openUnsaved(session, performance);
        setDesk();
    }

    private void clearDesk() {
        studio.silence();
        putAside();
    }

    private void putAside() {
        context.entries().drop();
        programs.opened();
        studio.stopPerformance();
        studio.hearAlone(null);
        studio.setOptions(studio.options().withRange(null));
        studio.locate(0);
    }

    private void setDesk() {
        context.live().read();
        context.live().reset();
        selectFirst();
    }

    private void selectFirst() {
        context.selection()
                .reset(document.session().sources().stream()
                        .findFirst()
                        .map(Source::id)
                        .orElse(null));
    }

    /** Returns true if the demo's performance has a source of this session to play on. */
    public boolean canPerform() {
        return LamplightersRound.PLAYERS.stream()
                .anyMatch(name -> keyboard(name).isPresent());
    }

    /** Makes the stand-ins play the demo's performance repeatedly. */
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

    /** Plays from the chosen place, or stops. */
    public void playOrStop() {
        if (studio.transport() == Transport.STOPPED) {
            studio.play(studio.place());
        } else {
            studio.stop();
        }
    }

    /** All notes off, everything at rest. */
    public void silence() {
        studio.silence();
        context.live().forget();
    }

    /** Returns true if anything is to be taken in that has not been seen yet. Any thread. */
    public boolean hasNews() {
        return portsChanged.get() || studio.hasNews() || programs.hasNews();
    }

    /** Returns true if anything moves that is followed frame by frame. */
    public boolean isMoving() {
        return studio.isMoving()
                || context.findings().isLooking()
                || context.jobs().running().isPresent()
                || sound.isSounding();
    }

    /** Takes in what other threads have finished or noticed. */
    public void pulse() {
        if (portsChanged.getAndSet(false)) {
            studio.portsChanged();
        }
        programs.pulse(sound::lookAgain);
        studio.pulse();
    }

    @Override
    public void close() {
        context.jobs().close();
        studio.close();
        journal.close();
        devices.close();
        sound.close();
    }

    /**
     * Prepares what makes sound before the first note.
     *
     * @param findsPrograms whether it looks for other programs, too
     */
    public void prepareSound(boolean findsPrograms) {
        sound.start();
        if (findsPrograms) {
            programs.devices().forEach(Devices::start);
        }
    }

    /** Returns the sound of built-in instruments. */
    public SoundEngine sound() {
        return sound;
    }

    /** The names of the audio devices that sound can go to, a server of ports among them. Takes a moment; any thread. */
    public List<String> audioDevices() {
        List<String> names = new ArrayList<>(AudioEngine.devices());
        if (programs.server().isRunning()) {
            names.add(0, JackDevices.SOUND);
        }
        return names;
    }

    /** Chooses the audio device of the built-in sounds. */
    public void chooseAudio(Settings settings) {
        programs.giveSound(sound.isHere() && ProgramPorts.isAmongPrograms(settings.audioDevice()));
        sound.choose(new AudioSettings(
                settings.audioDevice(),
                settings.audioMillis(),
                settings.audioRate(),
                settings.audioBlock(),
                settings.audioPairs()));
    }
}
