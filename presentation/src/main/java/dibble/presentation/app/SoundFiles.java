package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.edits.StripEdits;
import dibble.gear.PartRef;
import dibble.gear.SoundFile;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.SoundPreview;
import dibble.session.Kept;
import dibble.sound.Bounce;
import dibble.sound.Preset;
import dibble.sound.SoundBank;
import dibble.sound.SoundBankException;
import dibble.sound.SoundEngine;
import dibble.sound.SoundLibrary;
import dibble.time.Clock;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;

/** Files of sounds in, files of sound out, and sounds that are listened to. */
public final class SoundFiles implements SoundPreview {
    private static final String LISTENING = "listening:";
    private static final String MIX = "mix.wav";
    private static final int VELOCITY = 92;

    private final AppContext context;
    private final AllowedFolders allowed;
    private final SoundEngine audio;
    private final PathQuestions questions;
    private final SessionFiles files;
    private final Runnable endLater;
    private SoundLibrary library = SoundLibrary.NONE;

    /** The files of the library, including one that is still being read. */
    private List<SoundFile> wanted = List.of();

    private OutputPort port;
    private StripPlan listened;
    private int sounding = -1;

    /**
     * Follows the sound files of the session.
     *
     * @param later returns what runs an action after the length of a note, counted from the last time it was run
     */
    public SoundFiles(
            AppContext context,
            SoundEngine audio,
            SessionFiles files,
            PathQuestions questions,
            Function<Runnable, Runnable> later) {
        this.context = context;
        allowed = new AllowedFolders(context);
        this.audio = audio;
        this.files = files;
        this.questions = questions;
        endLater = later.apply(this::letGo);
        context.document().listen(this::follow);
        follow();
    }

    /** The mixer has the session's strips, and the files that it names are opened. */
    private void follow() {
        List<SoundFile> named = context.session().soundFiles();
        if (!named.equals(wanted)) {
            wanted = named;
            read(named);
        }
        followPlan();
    }

    private void read(List<SoundFile> named) {
        if (named.isEmpty()) {
            library = SoundLibrary.NONE;
            return;
        }
        Path folder = files.folder();
        SoundLibrary before = library;
        Set<String> elsewhere = context.preferences().get().soundFolders();
        context.jobs()
                .start(
                        say("sound-files.reading"),
                        progress -> SoundLibrary.open(named, folder, elsewhere, before),
                        opened -> {
                            if (named.equals(wanted)) {
                                library = opened;
                                opened.troubles().forEach(context.ask()::tell);
                                askFor(opened.withheld());
                                followPlan();
                                context.frames().wake();
                            }
                        });
    }

    private void askFor(List<Path> folders) {
        if (folders.isEmpty()) {
            return;
        }
        List<String> names = folders.stream().map(Path::toString).toList();
        allowed.ask(say("sound-files.from-elsewhere", String.join(", ", names)), names, () -> read(wanted));
    }

    private void followPlan() {
        if (audio.isHere()) {
            SoundPlan plan = SoundPlan.of(context.session(), context.performance());
            if (listened != null) {
                List<StripPlan> strips = new ArrayList<>(plan.strips());
                strips.add(listened);
                plan = new SoundPlan(strips, plan.effects());
            }
            audio.follow(plan, library.banks());
        }
    }

    @Override
    public Map<String, SoundBank> banks() {
        return library.banks();
    }

    @Override
    public void listen(String file, Preset preset, int key) {
        if (!audio.isHere()) {
            return;
        }
        letGo();
        if (port == null) {
            port = audio.open(LISTENING);
        }
        listened = new StripPlan(
                StripRef.of(new PartRef("listening", "one")),
                LISTENING,
                1,
                "",
                true,
                preset.drums(),
                file,
                Strip.PLAIN.withLevel(-3.0).withReverb(24));
        followPlan();
        long now = Clock.SYSTEM.nanos();
        port.send(ShortMessage.controller(0, 0, preset.bank().get(0)), now);
        port.send(ShortMessage.controller(0, 32, preset.bank().get(1)), now);
        port.send(ShortMessage.programChange(0, preset.program()), now);
        port.send(ShortMessage.noteOn(0, key, VELOCITY), now);
        sounding = key;
        context.frames().wake();
        endLater.run();
    }

    private void letGo() {
        if (sounding >= 0) {
            port.send(ShortMessage.noteOff(0, sounding, ShortMessage.DEFAULT_RELEASE), Clock.SYSTEM.nanos());
            sounding = -1;
        }
    }

    /** Asks for a file of sounds. */
    public void open() {
        questions.askToRead(
                FileKind.SOUNDS, say("sound-files.open"), files.folder(), say("sound-files.open-verb"), this::bringIn);
    }

    /** Opens a file of sounds for this session. @param done run where it could be read */
    public void bringIn(Path path, Runnable done) {
        Consumer<SoundBank> into = context.forThisSession(String.valueOf(path.getFileName()), bank -> add(path, bank));
        context.jobs()
                .start(
                        say("sound-files.opening", path.getFileName()),
                        progress -> {
                            try {
                                return SoundBank.open(path);
                            } catch (SoundBankException e) {
                                throw new IOException(path.getFileName() + ": " + e.getMessage());
                            }
                        },
                        bank -> {
                            done.run();
                            into.accept(bank);
                        },
                        e -> context.ask().tell(say("sound-files.not-opened", e.getMessage())));
    }

    private void add(Path path, SoundBank bank) {
        String name = path.getFileName().toString().replaceFirst("\\.[^.]*$", "");
        allowed.allowFolderOf(path);
        context.document()
                .edit(
                        say("sound-files.edit"),
                        session -> StripEdits.addSoundFile(
                                session, name, path.toAbsolutePath().toString(), bank.sha256()));
        context.ask().tell(say("sound-files.opened", name, bank.presets().size()));
    }

    /** Asks for a folder, and makes files of sound there. */
    public void export(Bounce.Wanted wanted) {
        Kept kept = context.document().kept();
        boolean nothing = kept.session().tracks().stream()
                .allMatch(track -> track.sounding().size() == 0);
        if (nothing) {
            context.ask().tell(say("midi-files.nothing-to-export-yet-record"));
            return;
        }
        questions.askToWrite(
                FileKind.FOLDER,
                say("sound-files.export"),
                files.exportFolder().resolve(say("sound-files.folder", files.fileName())),
                say("midi-files.export"),
                (path, done) ->
                        questions.unlessThere(path.resolve(MIX), null, mix -> export(kept, wanted, path, done)));
    }

    private void export(Kept kept, Bounce.Wanted wanted, Path path, Runnable done) {
        SoundLibrary sounds = library;
        context.jobs()
                .start(
                        say("sound-files.exporting", path.getFileName()),
                        progress -> Bounce.render(
                                OfflinePlayback.ofTracks(kept.session(), kept.performance()),
                                SoundPlan.of(kept.session(), kept.performance()),
                                sounds.banks(),
                                wanted,
                                path,
                                progress),
                        made -> {
                            done.run();
                            context.ask()
                                    .tell(say(
                                            "sound-files.exported",
                                            made.files().size(),
                                            path,
                                            made.leftOut().size(),
                                            String.join(", ", made.leftOut()),
                                            made.peak() > 0 && wanted.bits() != Bounce.Bits.FLOAT));
                        },
                        e -> context.ask().tell(say("midi-files.not-exported", PathQuestions.explain(path, e))));
    }
}
